import type { BoxProduct, ProductOf, Vector } from '@fendrix/contract';
import { radians } from '../../units/angle.js';
import { type Pose, placed, turned, within } from '../../units/frame.js';
import { add, scale } from '../../units/vector.js';
import type { SceneParts } from '../builder.js';
import { type Sides, wallPiece } from '../primitives.js';

/** Height of a label over the face under it, m. */
const LABEL_M = 1e-4;

export function addBoxProduct(parts: SceneParts, product: BoxProduct, pose: Pose, thing: number): void {
  const { widthM, depthM, heightM, label } = product;
  const sides = parts.sides(thing, product.material);
  const radius = Math.min(product.edgeRadiusM, widthM / 2, depthM / 2, heightM / 2) * (1 - 1e-9);
  if (radius > 1e-6) addRoundedBox(parts, pose, [widthM, depthM, heightM], radius, sides);
  else addBox(parts, pose, widthM, depthM, heightM, sides);
  if (!label) return;
  const corner: Vector = [-label.widthM / 2, -depthM / 2 - LABEL_M, label.centreHeightM - label.heightM / 2];
  parts.list.flat(
    placed(pose, corner),
    turned(pose, [label.widthM, 0, 0]),
    turned(pose, [0, 0, label.heightM]),
    scale(pose.y, -1),
    parts.sides(thing, label.material),
  );
}

/** A box on the xy plane of a pose, round its z axis, normals outwards. */
export function addBox(parts: SceneParts, pose: Pose, w: number, d: number, h: number, sides: Sides): void {
  const right = scale(pose.x, w);
  const deep = scale(pose.y, d);
  const high = scale(pose.z, h);
  const corner = placed(pose, [-w / 2, -d / 2, 0]);
  const out = (v: Vector) => scale(v, -1);
  const { list } = parts;
  list.flat(corner, right, high, out(deep), sides);
  list.flat(add(corner, deep), right, high, deep, sides);
  list.flat(corner, deep, high, out(right), sides);
  list.flat(add(corner, right), deep, high, right, sides);
  list.flat(corner, right, deep, out(high), sides);
  list.flat(add(corner, high), right, deep, high, sides);
}

/** Six faces, twelve quarter cylinders and eight parts of balls; closed and smooth. */
function addRoundedBox(parts: SceneParts, pose: Pose, size: Vector, r: number, sides: Sides): void {
  const half: Vector = [size[0] / 2, size[1] / 2, size[2] / 2];
  const middle = (v: Vector): Vector => [v[0], v[1], v[2] + half[2]];
  const axes: Vector[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  const inner = half.map((value) => value - r) as Vector;
  for (let a = 0; a < 3; a++) {
    const b = (a + 1) % 3;
    const c = (a + 2) % 3;
    const [ea, eb, ec] = [axes[a] as Vector, axes[b] as Vector, axes[c] as Vector];
    const [ia, ib, ic] = [inner[a] as number, inner[b] as number, inner[c] as number];
    // As on a sharp box: the second edge of an upright face goes up, that of a level one to the back. A brush goes by it.
    const edges = [scale(eb, 2 * ib), scale(ec, 2 * ic)] as [Vector, Vector];
    if (c === 0) edges.reverse();
    for (const side of [-1, 1]) {
      const face = scale(ea, side * (half[a] as number));
      const corner = add(face, add(scale(eb, -ib), scale(ec, -ic)));
      parts.list.flat(
        placed(pose, middle(corner)),
        turned(pose, edges[0]),
        turned(pose, edges[1]),
        turned(pose, scale(ea, side)),
        sides,
      );
    }
    // The four edges that run along axis a; bearing 0 is the -y side of the edge's own pose.
    for (const sb of [-1, 1]) {
      for (const sc of [-1, 1]) {
        const foot = add(scale(ea, -ia), add(scale(eb, sb * ib), scale(ec, sc * ic)));
        const edge = within(pose, middle(foot), eb, ea);
        const bearing = Math.atan2(sb, -sc);
        const arc = { bearingRad: bearing, halfWidthRad: Math.PI / 4 };
        parts.list.cone(edge, { ...wallPiece(r, 0, 2 * ia), arc }, sides);
      }
    }
  }
  for (const sx of [-1, 1]) {
    for (const sy of [-1, 1]) {
      for (const sz of [-1, 1]) {
        const centre = placed(pose, middle([sx * inner[0], sy * inner[1], sz * inner[2]]));
        const limits = [scale(pose.x, sx), scale(pose.y, sy), scale(pose.z, sz)];
        parts.list.ball(centre, r, sides, limits);
      }
    }
  }
}

/** A block of water: its top carries the relief, the rest is smooth. */
export function addWater(parts: SceneParts, product: ProductOf<'water'>, pose: Pose, thing: number): void {
  const { material, widthM: w, depthM: d, waterDepthM: h } = product;
  const rippled = parts.sides(thing, material);
  const smooth = 'relief' in material ? parts.sides(thing, { ...material, relief: undefined }) : rippled;
  const right = scale(pose.x, w);
  const deep = scale(pose.y, d);
  const high = scale(pose.z, h);
  const corner = placed(pose, [-w / 2, -d / 2, 0]);
  const out = (v: Vector) => scale(v, -1);
  parts.list.flat(corner, right, high, out(deep), smooth);
  parts.list.flat(add(corner, deep), right, high, deep, smooth);
  parts.list.flat(corner, deep, high, out(right), smooth);
  parts.list.flat(add(corner, right), deep, high, right, smooth);
  parts.list.flat(corner, right, deep, out(high), smooth);
  parts.list.flat(add(corner, high), right, deep, high, rippled);
}

/** Several small things as one product. */
export function addPieces(parts: SceneParts, product: ProductOf<'pieces'>, pose: Pose, thing: number): void {
  for (const item of product.items) {
    const sides = parts.sides(thing, item.material ?? product.material);
    const c = Math.cos(radians(item.turnDeg));
    const s = Math.sin(radians(item.turnDeg));
    const own = within(pose, item.centreM, [c, s, 0]);
    const size = item.sizeM;
    if (item.form === 'ball') parts.list.ball(own.origin, size / 2, sides);
    else if (item.form === 'slab') {
      addBox(parts, within(own, [0, 0, -size / 6]), size, size, size / 3, sides);
    } else {
      const corner = placed(own, [-size / 2, -size / 5, 0]);
      const width = turned(own, [0, 0.4 * size, 0]);
      parts.list.flat(corner, turned(own, [size, 0, 0]), width, own.z, sides, { outerRho2: 1 });
    }
  }
}
