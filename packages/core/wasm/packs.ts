/**
 * Packs of four primitives of a kind, tested at once in 32-bit numbers with room for their rounding: what they let by
 * may be hit and is tested exactly. Compiled by AssemblyScript only.
 *
 * Rows of four 32-bit numbers. FLAT: normal x y z, normal . corner, then for each edge its direction over half its
 * length squared and the place of the corner along it, then the steeper of both, then its limits: least and most
 * rho2, scales of a and b, |a| + |b|. TRIANGLE: corner, edge u, edge v,
 * longer edge, |u| |v|. CONE: axis, foot, height, least and most radius. BALL: centre, radius.
 */

import { BALL_CENTRE, BALL_RADIUS, CONE, CONE_AXIS, CONE_FOOT, CONE_HEIGHT, CONE_RADIUS, CONE_SLOPE, FLAT, FLAT_CORNER, FLAT_DIAGONAL, FLAT_EDGE_U, FLAT_EDGE_V, FLAT_LEAST_RHO2, FLAT_MOST_RHO2, FLAT_NORMAL, FLAT_PER_U2, FLAT_PER_V2, FLAT_SCALE_A, FLAT_SCALE_B, TRIANGLE, TRIANGLE_CORNER, TRIANGLE_EDGE_U, TRIANGLE_EDGE_V } from './layouts';
import { RAGGED } from './wideTree';
import { DIRECTION, HIGH, LOW, ONE, ORIGIN, REACH, SLACK, START } from './wideRay';

/** Bytes of the rows of a pack of a kind. */
export function rowsOf(kind: i32): usize {
  return kind === FLAT ? 18 * 16 : kind === TRIANGLE ? 11 * 16 : kind === CONE ? 9 * 16 : 4 * 16;
}

function put(at: usize, row: i32, lane: i32, value: f64): void {
  store<f32>(at + (<usize>(row * 4 + lane) << 2), f32(value));
}

function number(d: usize, i: i32): f64 {
  return load<f64>(d + (<usize>i << 3));
}

/** Dot product of two triples of a primitive. */
function product(d: usize, i: i32, j: i32): f64 {
  return number(d, i) * number(d, j) + number(d, i + 1) * number(d, j + 1) + number(d, i + 2) * number(d, j + 2);
}

/** @returns whether the primitive is less than the whole parallelogram */
export function packFlat(at: usize, lane: i32, d: usize): bool {
  for (let a = 0; a < 3; a++) put(at, a, lane, number(d, FLAT_NORMAL + a));
  put(at, 3, lane, product(d, FLAT_NORMAL, FLAT_CORNER));
  let steepest: f64 = 0;
  for (let edge = 0; edge < 2; edge++) {
    const scale = 2 * number(d, edge === 0 ? FLAT_PER_U2 : FLAT_PER_V2);
    const from = edge === 0 ? FLAT_EDGE_U : FLAT_EDGE_V;
    const row = 4 + 4 * edge;
    for (let a = 0; a < 3; a++) put(at, row + a, lane, scale * number(d, from + a));
    put(at, row + 3, lane, -scale * product(d, from, FLAT_CORNER) - 1);
    steepest = Math.max(steepest, scale * Math.sqrt(product(d, from, from)));
  }
  put(at, 12, lane, steepest);
  const least = number(d, FLAT_LEAST_RHO2);
  const most = number(d, FLAT_MOST_RHO2);
  const a = number(d, FLAT_SCALE_A);
  const b = number(d, FLAT_SCALE_B);
  const diagonal = number(d, FLAT_DIAGONAL);
  put(at, 13, lane, least);
  put(at, 14, lane, most);
  put(at, 15, lane, a);
  put(at, 16, lane, b);
  put(at, 17, lane, diagonal);
  return least > 0 || most < a * a + b * b || diagonal < 2;
}

export function packTriangle(at: usize, lane: i32, d: usize): void {
  for (let a = 0; a < 3; a++) {
    put(at, a, lane, number(d, TRIANGLE_CORNER + a));
    put(at, 3 + a, lane, number(d, TRIANGLE_EDGE_U + a));
    put(at, 6 + a, lane, number(d, TRIANGLE_EDGE_V + a));
  }
  const u = Math.sqrt(product(d, TRIANGLE_EDGE_U, TRIANGLE_EDGE_U));
  const v = Math.sqrt(product(d, TRIANGLE_EDGE_V, TRIANGLE_EDGE_V));
  put(at, 9, lane, Math.max(u, v));
  put(at, 10, lane, u * v);
}

export function packCone(at: usize, lane: i32, d: usize): void {
  for (let a = 0; a < 3; a++) {
    put(at, a, lane, number(d, CONE_AXIS + a));
    put(at, 3 + a, lane, number(d, CONE_FOOT + a));
  }
  const height = number(d, CONE_HEIGHT);
  const foot = number(d, CONE_RADIUS);
  const top = foot + number(d, CONE_SLOPE) * height;
  put(at, 6, lane, height);
  put(at, 7, lane, Math.min(foot, top));
  put(at, 8, lane, Math.max(foot, top));
}

export function packBall(at: usize, lane: i32, d: usize): void {
  for (let a = 0; a < 3; a++) put(at, a, lane, number(d, BALL_CENTRE + a));
  put(at, 3, lane, number(d, BALL_RADIUS));
}

/** Lanes of a pack of a kind that may be hit; of flat ones and triangles also those hit for sure, see `flatPack`. */
// @ts-ignore: decorator
@inline
export function testPack(kind: i32, at: usize, wide: usize): i32 {
  if (kind === FLAT) return flatPack(at, wide);
  if (kind === CONE) return conePack(at, wide);
  if (kind === TRIANGLE) return trianglePack(at, wide);
  return ballPack(at, wide);
}

// @ts-ignore: decorator
@inline
function dot4(at: usize, row: usize, x: v128, y: v128, z: v128): v128 {
  return f32x4.add(
    f32x4.mul(v128.load(at + (row << 4)), x),
    f32x4.add(f32x4.mul(v128.load(at + (row << 4) + 16), y), f32x4.mul(v128.load(at + (row << 4) + 32), z)),
  );
}

/**
 * Lanes of a pack of flat primitives whose parallelogram may be hit, and from the fifth bit on those where it is hit
 * for sure; what is no number may be hit. Writes the least and most distance of each lane.
 */
// @ts-ignore: decorator
@inline
function flatPack(at: usize, wide: usize): i32 {
  const ox = v128.load(wide, ORIGIN);
  const oy = v128.load(wide, ORIGIN + 16);
  const oz = v128.load(wide, ORIGIN + 32);
  const dx = v128.load(wide, DIRECTION);
  const dy = v128.load(wide, DIRECTION + 16);
  const dz = v128.load(wide, DIRECTION + 32);
  const inverse = f32x4.div(v128.load(wide, ONE), dot4(at, 0, dx, dy, dz));
  const t = f32x4.mul(f32x4.sub(v128.load(at + 48), dot4(at, 0, ox, oy, oz)), inverse);
  const room = f32x4.mul(v128.load(wide, SLACK), f32x4.abs(inverse));
  const x = f32x4.add(ox, f32x4.mul(t, dx));
  const y = f32x4.add(oy, f32x4.mul(t, dy));
  const z = f32x4.add(oz, f32x4.mul(t, dz));
  const a = f32x4.abs(f32x4.add(dot4(at, 4, x, y, z), v128.load(at + 112)));
  const b = f32x4.abs(f32x4.add(dot4(at, 8, x, y, z), v128.load(at + 176)));
  const edge = f32x4.add(v128.load(wide, ONE), f32x4.mul(room, v128.load(at + 192)));
  const before = f32x4.lt(t, f32x4.sub(v128.load(wide, START), room));
  const after = f32x4.gt(t, f32x4.add(v128.load(wide, REACH), room));
  const beside = v128.or(f32x4.gt(a, edge), f32x4.gt(b, edge));
  const may = ~i32x4.bitmask(v128.or(v128.or(before, after), beside)) & 15;
  if (may === 0) return 0;
  const inner = f32x4.sub(f32x4.splat(2), edge);
  const inside = v128.and(f32x4.lt(a, inner), f32x4.lt(b, inner));
  const sure = v128.and(inside, within(t, room, wide));
  if ((load<i32>(at, RAGGED) & may) === 0) return may | (i32x4.bitmask(sure) << 4);
  const slack = f32x4.sub(edge, v128.load(wide, ONE));
  return withinLimits(at, a, b, slack, may, sure);
}

/** The same where some are less than the whole parallelogram. @param slack of a and b */
function withinLimits(at: usize, a: v128, b: v128, slack: v128, may: i32, sure: v128): i32 {
  const least2 = v128.load(at, 208);
  const most2 = v128.load(at, 224);
  const diagonal = v128.load(at, 272);
  const sa = f32x4.mul(a, v128.load(at, 240));
  const sb = f32x4.mul(b, v128.load(at, 256));
  const da = f32x4.mul(slack, v128.load(at, 240));
  const db = f32x4.mul(slack, v128.load(at, 256));
  const zero = f32x4.splat(0);
  const low2 = squared(f32x4.pmax(zero, f32x4.sub(sa, da)), f32x4.pmax(zero, f32x4.sub(sb, db)), zero);
  const high2 = squared(f32x4.add(sa, da), f32x4.add(sb, db), zero);
  const low1 = f32x4.sub(f32x4.add(a, b), f32x4.add(slack, slack));
  const high1 = f32x4.add(f32x4.add(a, b), f32x4.add(slack, slack));
  const beside = v128.or(f32x4.lt(high2, least2), v128.or(f32x4.gt(low2, most2), f32x4.gt(low1, diagonal)));
  const inside = v128.and(f32x4.gt(low2, least2), v128.and(f32x4.lt(high2, most2), f32x4.lt(high1, diagonal)));
  return (may & ~i32x4.bitmask(beside)) | (i32x4.bitmask(v128.and(sure, inside)) << 4);
}

/** Whether a distance lies between those of the ray for sure; writes its bounds. */
// @ts-ignore: decorator
@inline
function within(t: v128, room: v128, wide: usize): v128 {
  const low = f32x4.sub(t, room);
  const high = f32x4.add(t, room);
  v128.store(wide, low, LOW);
  v128.store(wide, high, HIGH);
  // The start is 2e-6 early, the reach a millionth late.
  const started = f32x4.gt(low, f32x4.add(v128.load(wide, START), f32x4.splat(5e-6)));
  const reach = f32x4.sub(f32x4.mul(v128.load(wide, REACH), f32x4.splat(0.999998)), f32x4.splat(2e-6));
  return v128.and(started, f32x4.lt(high, reach));
}

/**
 * The same for cones: between its end planes the ray may pass outside of the largest circle or wholly inside of the
 * smallest one. Rejects most of the rings that lie one in another, as on a plate. Where several are left, writes of
 * each how far off the ray comes between its two circles at the earliest.
 */
function conePack(at: usize, wide: usize): i32 {
  const ox = v128.load(wide, ORIGIN);
  const oy = v128.load(wide, ORIGIN + 16);
  const oz = v128.load(wide, ORIGIN + 32);
  const dx = v128.load(wide, DIRECTION);
  const dy = v128.load(wide, DIRECTION + 16);
  const dz = v128.load(wide, DIRECTION + 32);
  const ax = v128.load(at);
  const ay = v128.load(at + 16);
  const az = v128.load(at + 32);
  const room = v128.load(wide, SLACK);
  const px = f32x4.sub(ox, v128.load(at + 48));
  const py = f32x4.sub(oy, v128.load(at + 64));
  const pz = f32x4.sub(oz, v128.load(at + 80));
  const rise = dot4(at, 0, dx, dy, dz);
  const height = dot4(at, 0, px, py, pz);
  const inverse = f32x4.div(v128.load(wide, ONE), rise);
  const footAt = f32x4.mul(f32x4.neg(height), inverse);
  const topAt = f32x4.mul(f32x4.sub(v128.load(at + 96), height), inverse);
  const beside = f32x4.mul(room, f32x4.abs(inverse));
  const farthest = f32x4.pmin(v128.load(wide, REACH), f32x4.mul(room, f32x4.splat(2e6)));
  const enter = f32x4.pmax(v128.load(wide, START), f32x4.sub(f32x4.pmin(footAt, topAt), beside));
  const leave = f32x4.pmin(farthest, f32x4.add(f32x4.pmax(footAt, topAt), beside));
  // Offsets from the axis, square to it, where the ray enters and how they change until it leaves.
  const ex = f32x4.sub(dx, f32x4.mul(rise, ax));
  const ey = f32x4.sub(dy, f32x4.mul(rise, ay));
  const ez = f32x4.sub(dz, f32x4.mul(rise, az));
  const qx = f32x4.add(f32x4.sub(px, f32x4.mul(height, ax)), f32x4.mul(enter, ex));
  const qy = f32x4.add(f32x4.sub(py, f32x4.mul(height, ay)), f32x4.mul(enter, ey));
  const qz = f32x4.add(f32x4.sub(pz, f32x4.mul(height, az)), f32x4.mul(enter, ez));
  const length = f32x4.sub(leave, enter);
  const across = squared(ex, ey, ez);
  const towards = f32x4.neg(f32x4.add(f32x4.mul(qx, ex), f32x4.add(f32x4.mul(qy, ey), f32x4.mul(qz, ez))));
  const overAcross = f32x4.div(v128.load(wide, ONE), across);
  const middle = f32x4.mul(towards, overAcross);
  const nearest = f32x4.pmax(f32x4.splat(0), f32x4.pmin(length, middle));
  const entry2 = squared(qx, qy, qz);
  const leaving2 = squaredAlong(qx, qy, qz, ex, ey, ez, length);
  const least2 = squaredAlong(qx, qy, qz, ex, ey, ez, nearest);
  const inner = f32x4.pmax(f32x4.splat(0), f32x4.sub(v128.load(at + 112), room));
  const outer = f32x4.add(v128.load(at + 128), room);
  const wholly = f32x4.lt(f32x4.pmax(entry2, leaving2), f32x4.mul(inner, inner));
  const without = f32x4.gt(least2, f32x4.mul(outer, outer));
  const may = ~i32x4.bitmask(v128.or(f32x4.gt(enter, leave), v128.or(wholly, without))) & 15;
  if ((may & (may - 1)) === 0) return may;
  // From within the smaller circle it comes out of it, from without the larger one it comes into that.
  const inside = f32x4.lt(entry2, f32x4.mul(inner, inner));
  const outside = f32x4.gt(entry2, f32x4.mul(outer, outer));
  const radius = v128.bitselect(inner, outer, inside);
  const closest2 = squaredAlong(qx, qy, qz, ex, ey, ez, middle);
  const half2 = f32x4.mul(f32x4.sub(f32x4.mul(radius, radius), closest2), overAcross);
  const half = f32x4.sqrt(f32x4.pmax(f32x4.splat(0), half2));
  const between = f32x4.add(middle, v128.bitselect(half, f32x4.neg(half), inside));
  const early = f32x4.sub(between, f32x4.mul(room, f32x4.sqrt(overAcross)));
  const later = f32x4.pmax(f32x4.splat(0), v128.and(early, v128.or(inside, outside)));
  v128.store(wide, f32x4.add(enter, later), LOW);
  return may;
}

/** The same for balls: the ray's line passes by farther off than the radius, or it starts beyond or ends before. */
function ballPack(at: usize, wide: usize): i32 {
  const dx = v128.load(wide, DIRECTION);
  const dy = v128.load(wide, DIRECTION + 16);
  const dz = v128.load(wide, DIRECTION + 32);
  const px = f32x4.sub(v128.load(at), v128.load(wide, ORIGIN));
  const py = f32x4.sub(v128.load(at + 16), v128.load(wide, ORIGIN + 16));
  const pz = f32x4.sub(v128.load(at + 32), v128.load(wide, ORIGIN + 32));
  const along = f32x4.add(f32x4.mul(px, dx), f32x4.add(f32x4.mul(py, dy), f32x4.mul(pz, dz)));
  const away2 = squared(
    f32x4.sub(px, f32x4.mul(along, dx)),
    f32x4.sub(py, f32x4.mul(along, dy)),
    f32x4.sub(pz, f32x4.mul(along, dz)),
  );
  const radius = f32x4.add(v128.load(at + 48), v128.load(wide, SLACK));
  const behind = f32x4.lt(f32x4.add(along, radius), v128.load(wide, START));
  const after = f32x4.gt(f32x4.sub(along, radius), v128.load(wide, REACH));
  const beside = f32x4.gt(away2, f32x4.mul(radius, radius));
  return ~i32x4.bitmask(v128.or(beside, v128.or(behind, after))) & 15;
}

// @ts-ignore: decorator
@inline
function squared(x: v128, y: v128, z: v128): v128 {
  return f32x4.add(f32x4.mul(x, x), f32x4.add(f32x4.mul(y, y), f32x4.mul(z, z)));
}

// @ts-ignore: decorator
@inline
function squaredAlong(x: v128, y: v128, z: v128, ex: v128, ey: v128, ez: v128, t: v128): v128 {
  return squared(
    f32x4.add(x, f32x4.mul(t, ex)),
    f32x4.add(y, f32x4.mul(t, ey)),
    f32x4.add(z, f32x4.mul(t, ez)),
  );
}

/** The same for triangles. */
function trianglePack(at: usize, wide: usize): i32 {
  const ox = v128.load(wide, ORIGIN);
  const oy = v128.load(wide, ORIGIN + 16);
  const oz = v128.load(wide, ORIGIN + 32);
  const dx = v128.load(wide, DIRECTION);
  const dy = v128.load(wide, DIRECTION + 16);
  const dz = v128.load(wide, DIRECTION + 32);
  const ux = v128.load(at + 48);
  const uy = v128.load(at + 64);
  const uz = v128.load(at + 80);
  const vx = v128.load(at + 96);
  const vy = v128.load(at + 112);
  const vz = v128.load(at + 128);
  const cx = f32x4.sub(f32x4.mul(dy, vz), f32x4.mul(dz, vy));
  const cy = f32x4.sub(f32x4.mul(dz, vx), f32x4.mul(dx, vz));
  const cz = f32x4.sub(f32x4.mul(dx, vy), f32x4.mul(dy, vx));
  const inverse = f32x4.div(
    v128.load(wide, ONE),
    f32x4.add(f32x4.mul(ux, cx), f32x4.add(f32x4.mul(uy, cy), f32x4.mul(uz, cz))),
  );
  const px = f32x4.sub(ox, v128.load(at));
  const py = f32x4.sub(oy, v128.load(at + 16));
  const pz = f32x4.sub(oz, v128.load(at + 32));
  const b = f32x4.mul(f32x4.add(f32x4.mul(px, cx), f32x4.add(f32x4.mul(py, cy), f32x4.mul(pz, cz))), inverse);
  const qx = f32x4.sub(f32x4.mul(py, uz), f32x4.mul(pz, uy));
  const qy = f32x4.sub(f32x4.mul(pz, ux), f32x4.mul(px, uz));
  const qz = f32x4.sub(f32x4.mul(px, uy), f32x4.mul(py, ux));
  const c = f32x4.mul(f32x4.add(f32x4.mul(dx, qx), f32x4.add(f32x4.mul(dy, qy), f32x4.mul(dz, qz))), inverse);
  const t = f32x4.mul(f32x4.add(f32x4.mul(vx, qx), f32x4.add(f32x4.mul(vy, qy), f32x4.mul(vz, qz))), inverse);
  const room = f32x4.mul(v128.load(wide, SLACK), f32x4.abs(inverse));
  const edge = f32x4.mul(room, v128.load(at + 144));
  const depth = f32x4.mul(room, v128.load(at + 160));
  const below = f32x4.neg(edge);
  const beside = v128.or(f32x4.lt(b, below), f32x4.lt(c, below));
  const beyondEdge = f32x4.gt(f32x4.add(b, c), f32x4.add(v128.load(wide, ONE), f32x4.add(edge, edge)));
  const before = f32x4.lt(t, f32x4.sub(v128.load(wide, START), depth));
  const after = f32x4.gt(t, f32x4.add(v128.load(wide, REACH), depth));
  const may = ~i32x4.bitmask(v128.or(v128.or(before, after), v128.or(beside, beyondEdge))) & 15;
  if (may === 0) return 0;
  const inner = f32x4.sub(v128.load(wide, ONE), f32x4.add(edge, edge));
  const inside = v128.and(v128.and(f32x4.gt(b, edge), f32x4.gt(c, edge)), f32x4.lt(f32x4.add(b, c), inner));
  return may | (i32x4.bitmask(v128.and(inside, within(t, depth, wide))) << 4);
}
