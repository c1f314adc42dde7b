import type { Material, Turned } from '@fendrix/contract';
import { radians } from '../../units/angle.js';
import type { Pose } from '../../units/frame.js';
import type { SceneParts } from '../builder.js';
import { type ConePiece, type OutlinePoint, type Sides, theRest } from '../primitives.js';
import { clipPiece, type OutlinePiece, outlinePieces } from './outline.js';
import { sweepMesh } from './sweep.js';

/** Height of a label over the surface under it, m; each later label lies this much higher. */
const LABEL_M = 1e-4;
/** How far a liquid reaches into the glass round it, m, so that the two have no air between. */
const WETTING_M = 5e-5;

/**
 * Adds a turned product: its outside by parts, its labels, and for a hollow one the inner wall and liquid.
 * A part that reaches the top is a solid cap with a floor of its own; any other part is a skin on the body.
 */
export function addTurned(parts: SceneParts, product: Turned, pose: Pose, thing: number): void {
  const { surfaces } = parts;
  const { material } = product;
  // Frosted glass is frosted outside; its inside is as it was blown.
  const inner = surfaces.add(material.kind === 'dielectric' ? { ...material, roughness: 0 } : material);
  const height = product.profile.at(-1)?.heightM ?? 0;
  const cap = product.parts.find((part) => part.toM >= height - 1e-6);
  const hollow = product.hollow;
  const outside = outlinePieces(product.profile, !hollow || cap !== undefined);
  const place = (piece: OutlinePiece, surface: number, inwards = false) =>
    addPiece(parts, pose, piece, { thing, front: surface, back: surface }, inwards);

  for (const piece of cutAtParts(outside, product)) {
    place(piece, surfaces.add(materialAt(product, piece)));
  }
  addLabels(parts, product, outside, pose, thing);
  if (cap && product.material.kind === 'dielectric') {
    const radius = radiusBelow(outside, cap.fromM);
    place(level(radius, 0, cap.fromM), surfaces.add(cap.material));
  }
  for (const { pathM, fromDiameterM, toDiameterM, material: own } of product.attached) {
    const surface = surfaces.add(own ?? material);
    parts.list.triangles(sweepMesh(pathM, fromDiameterM, toDiameterM), pose, [
      theRest({ thing, front: surface, back: surface }),
    ]);
  }
  if (!hollow) return;

  const mouth = cap ? cap.fromM : height;
  const inside = innerWall(outside, hollow.wallM, hollow.baseM, mouth);
  for (const piece of inside) place(piece, inner, true);
  const top = inside.at(-1)?.upper;
  if (top && !cap) place(level(radiusBelow(outside, mouth), top.r, mouth), inner);
  if (hollow.liquid) {
    const liquid = surfaces.add(hollow.liquid.material, 'liquid');
    for (const piece of liquidBody(inside, Math.min(hollow.liquid.fillToM, mouth))) place(piece, liquid);
  }
}

/** Adds a piece of an outline turned round the z axis of a pose. */
export function addPiece(
  parts: SceneParts,
  pose: Pose,
  piece: OutlinePiece,
  sides: Sides,
  inwards = false,
  more: Pick<ConePiece, 'arc' | 'pattern'> = {},
): void {
  const { lower, upper } = piece;
  if (upper.z - lower.z < 1e-9) {
    const up = (lower.nz < 0 ? -1 : 1) * (inwards ? -1 : 1);
    parts.list.disc(pose, lower.z, Math.max(lower.r, upper.r), Math.min(lower.r, upper.r), sides, up);
    return;
  }
  parts.list.cone(pose, { lower, upper, inwards, ...more }, sides);
}

/** A level piece that faces up, from a radius in to another. */
export function level(outerM: number, innerM: number, z: number): OutlinePiece {
  return { lower: { r: outerM, z, nr: 0, nz: 1 }, upper: { r: innerM, z, nr: 0, nz: 1 } };
}

function cutAtParts(pieces: readonly OutlinePiece[], product: Turned): OutlinePiece[] {
  const cuts = product.parts.flatMap((part) => [part.fromM, part.toM]).sort((a, b) => a - b);
  return pieces.flatMap((piece) => {
    if (piece.upper.z - piece.lower.z < 1e-9) return [piece];
    const edges = [-Infinity, ...cuts, Infinity];
    return edges
      .slice(1)
      .map((edge, i) => clipPiece(piece, edges[i] ?? -Infinity, edge))
      .filter((cut) => cut !== null);
  });
}

function materialAt(product: Turned, { lower, upper }: OutlinePiece): Material {
  // A level piece belongs to what it bounds: facing down to the part above it, facing up to the one below.
  const isLevel = upper.z - lower.z < 1e-9;
  const z = isLevel ? lower.z + (lower.nz < 0 ? 1e-6 : -1e-6) : (lower.z + upper.z) / 2;
  return product.parts.find((part) => z >= part.fromM && z <= part.toM)?.material ?? product.material;
}

function addLabels(
  parts: SceneParts,
  product: Turned,
  outside: readonly OutlinePiece[],
  pose: Pose,
  thing: number,
): void {
  product.labels.forEach((label, index) => {
    const surface = parts.surfaces.add(label.material);
    const sides: Sides = { thing, front: surface, back: surface };
    const lift = LABEL_M * (index + 1);
    const arc = {
      bearingRad: radians(label.centreBearingDeg),
      halfWidthRad: radians(label.widthDeg / 2),
    };
    const part = (z: number) => (z - label.fromM) / (label.toM - label.fromM);
    for (const piece of outside) {
      const patch = clipPiece(piece, label.fromM, label.toM);
      if (!patch) continue;
      const raise = (p: OutlinePoint) => ({ ...p, r: p.r + lift * Math.max(0.1, p.nr) });
      const raised = { lower: raise(patch.lower), upper: raise(patch.upper) };
      addPiece(parts, pose, raised, sides, false, {
        pattern: [part(patch.lower.z), part(patch.upper.z)],
        ...(label.widthDeg >= 360 ? {} : { arc }),
      });
    }
  });
}

function radiusBelow(pieces: readonly OutlinePiece[], z: number): number {
  let radius = 0;
  for (const { lower, upper } of pieces) {
    if (upper.z - lower.z < 1e-9) continue;
    if (lower.z < z - 1e-9 && upper.z <= z + 1e-9) radius = upper.r;
  }
  return radius;
}

/** The inside of the wall, foot to mouth: the outside moved in along its normals, floored at the base. */
export function innerWall(
  outside: readonly OutlinePiece[],
  wallM: number,
  baseM: number,
  mouthM: number,
): OutlinePiece[] {
  const moved: OutlinePoint[] = [];
  for (const { lower, upper } of outside) {
    if (upper.z - lower.z < 1e-9 || lower.z >= mouthM - 1e-9) continue;
    for (const point of [lower, upper]) {
      const next = { ...point, r: point.r - wallM * point.nr, z: point.z - wallM * point.nz };
      const last = moved.at(-1);
      if (next.r > 1e-5 && (!last || next.z > last.z + 1e-9)) moved.push(next);
    }
  }
  const wall: OutlinePiece[] = [];
  for (let i = 0; i + 1 < moved.length; i++) {
    const piece = { lower: moved[i] as OutlinePoint, upper: moved[i + 1] as OutlinePoint };
    const kept = clipPiece(piece, baseM, mouthM);
    if (kept) wall.push(kept);
  }
  const first = wall[0];
  const last = wall.at(-1);
  if (!first || !last) return [];
  if (first.lower.z > baseM + 1e-9) first.lower = { ...first.lower, z: baseM };
  if (last.upper.z < mouthM - 1e-9) last.upper = { ...last.upper, z: mouthM };
  const floor: OutlinePiece = {
    lower: { r: 0, z: baseM, nr: 0, nz: -1 },
    upper: { r: first.lower.r, z: baseM, nr: 0, nz: -1 },
  };
  return [floor, ...wall];
}

/** The liquid as a closed body that reaches a little into the glass. */
function liquidBody(inside: readonly OutlinePiece[], fillToM: number): OutlinePiece[] {
  const grow = (p: OutlinePoint) => ({
    ...p,
    r: p.r === 0 ? 0 : p.r + WETTING_M,
    z: p.nz === -1 ? p.z - WETTING_M : p.z,
  });
  const pieces: OutlinePiece[] = [];
  for (const piece of inside) {
    const isLevel = piece.upper.z - piece.lower.z < 1e-9;
    const kept = isLevel ? piece : clipPiece(piece, -Infinity, fillToM);
    if (kept) pieces.push({ lower: grow(kept.lower), upper: grow(kept.upper) });
  }
  const top = pieces.at(-1)?.upper;
  const floor = pieces[0];
  if (!top || !floor) return [];
  const second = pieces[1];
  if (second) {
    floor.upper = { ...floor.upper, r: second.lower.r };
    second.lower = { ...second.lower, z: floor.upper.z };
  }
  return [...pieces, level(top.r, 0, top.z)];
}
