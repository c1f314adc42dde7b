import type { ProductOf, Vector } from '@fendrix/contract';
import { type Pose, placed, within } from '../../units/frame.js';
import { cross, distance, normalise, subtract } from '../../units/vector.js';
import type { SceneParts } from '../builder.js';
import { type Sides, wallPiece } from '../primitives.js';

/** Pieces of half the section of a ring's band, and of a chain's wire. */
const BAND_PIECES = 16;
const WIRE_PIECES = 6;
/** A longer chain is cut off. */
const MOST_LINKS = 600;

export function addRing(parts: SceneParts, product: ProductOf<'ring'>, pose: Pose, thing: number): void {
  const sides = parts.sides(thing, product.material);
  const { innerDiameterM, bandThicknessM, bandWidthM, signet } = product;
  const middle = (innerDiameterM + bandThicknessM) / 2;
  const outer = innerDiameterM / 2 + bandThicknessM;
  if (product.pose === 'lying') {
    addTorus(
      parts,
      within(pose, [0, 0, bandWidthM / 2]),
      middle,
      bandThicknessM / 2,
      bandWidthM / 2,
      sides,
      BAND_PIECES,
    );
    return;
  }
  // Standing: the axis runs from the camera side to the back.
  const standing = within(pose, [0, 0, outer], [1, 0, 0], [0, 1, 0]);
  addTorus(parts, standing, middle, bandThicknessM / 2, bandWidthM / 2, sides, BAND_PIECES);
  if (!signet) return;
  const top = within(pose, [0, 0, 2 * outer - bandThicknessM / 2]);
  const height = signet.heightM + bandThicknessM / 2;
  parts.list.cone(top, wallPiece(signet.diameterM / 2, 0, height), sides);
  parts.list.disc(top, height, signet.diameterM / 2, 0, sides, 1);
  parts.list.disc(top, 0, signet.diameterM / 2, 0, sides, -1);
}

/** A closed ring of elliptical section round the z axis of a pose. */
export function addTorus(
  parts: SceneParts,
  pose: Pose,
  radiusM: number,
  halfRadialM: number,
  halfAxialM: number,
  sides: Sides,
  pieces: number,
): void {
  const at = (angle: number, side: 1 | -1) => {
    const c = Math.cos(angle);
    const s = Math.sin(angle);
    const nr = c / halfRadialM;
    const nz = s / halfAxialM;
    const size = Math.hypot(nr, nz);
    // The inner half is turned inside out: its stored normal points away from the axis.
    return {
      r: radiusM + side * halfRadialM * c,
      z: halfAxialM * s,
      nr: nr / size,
      nz: (side * nz) / size,
    };
  };
  for (let i = 0; i < pieces; i++) {
    const from = -Math.PI / 2 + (i * Math.PI) / pieces;
    const to = from + Math.PI / pieces;
    parts.list.cone(pose, { lower: at(from, 1), upper: at(to, 1) }, sides);
    parts.list.cone(pose, { lower: at(from, -1), upper: at(to, -1), inwards: true }, sides);
  }
}

export function addChain(parts: SceneParts, product: ProductOf<'chain'>, pose: Pose, thing: number): void {
  const sides = parts.sides(thing, product.material);
  const wire = Math.min(product.wireM, product.linkLengthM / 3) / 2;
  const radius = product.linkLengthM / 2 - wire;
  const step = product.linkLengthM - 2.2 * wire * 2 * 0.9;
  let index = 0;
  let rest = 0;
  for (let i = 0; i + 1 < product.pathM.length; i++) {
    const from = product.pathM[i] as Vector;
    const to = product.pathM[i + 1] as Vector;
    const reach = distance(from, to);
    if (!(reach > 1e-9)) continue;
    const along = normalise(subtract(to, from));
    const side: Vector = Math.abs(along[2]) < 0.9 ? normalise(cross(along, [0, 0, 1])) : [1, 0, 0];
    const square = normalise(cross(side, along));
    for (let at = rest; at <= reach; at += step) {
      if (index >= MOST_LINKS) return;
      const centre: Vector = [0, 1, 2].map((a) => (from[a] as number) + at * (along[a] as number)) as Vector;
      const link = within(pose, centre, along, index % 2 === 0 ? square : side);
      addTorus(parts, link, radius, wire, wire, sides, WIRE_PIECES);
      index++;
      rest = at + step - reach;
    }
  }
}

export function addStone(parts: SceneParts, product: ProductOf<'stone'>, pose: Pose, thing: number): void {
  const sides = parts.sides(thing, product.material);
  const { diameterM, heightM, facets: n } = product;
  const girdleZ = heightM * (1 - product.crownPart);
  const ring = (radius: number, z: number, shift: number) => (i: number) => {
    const angle = (2 * Math.PI * (i + shift)) / n;
    return placed(pose, [radius * Math.cos(angle), radius * Math.sin(angle), z]);
  };
  const girdle = ring(diameterM / 2, girdleZ, 0);
  const table = ring((product.tablePart * diameterM) / 2, heightM, 0.5);
  const point = placed(pose, [0, 0, 0]);
  const top = placed(pose, [0, 0, heightM]);
  for (let i = 0; i < n; i++) {
    parts.list.triangle(table(i - 1), girdle(i), table(i), sides);
    parts.list.triangle(girdle(i), girdle(i + 1), table(i), sides);
    parts.list.triangle(top, table(i - 1), table(i), sides);
    parts.list.triangle(point, girdle(i + 1), girdle(i), sides);
  }
}
