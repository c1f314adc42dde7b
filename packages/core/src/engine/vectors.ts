import type { i32 } from './portable.js';

/** The largest of three numbers. */
export function most3(v: Float64Array): number {
  return Math.max(v[0], Math.max(v[1], v[2]));
}

/** Copies three numbers; `set` of a typed array is a call into the engine and several times slower. */
export function copy3(to: Float64Array, from: Float64Array): void {
  to[0] = from[0];
  to[1] = from[1];
  to[2] = from[2];
}

export function fill3(to: Float64Array, value: number): void {
  to[0] = value;
  to[1] = value;
  to[2] = value;
}

export function scale3(to: Float64Array, by: number): void {
  to[0] = to[0] * by;
  to[1] = to[1] * by;
  to[2] = to[2] * by;
}

export function dot3(a: Float64Array, b: Float64Array): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** Along the three numbers of a table that start at an offset. */
export function dotAt(v: Float64Array, table: Float64Array, at: i32): number {
  return v[0] * table[at] + v[1] * table[at + 1] + v[2] * table[at + 2];
}

/**
 * A direction mirrored in the shading normal; where that would point into the surface itself it is turned
 * out of it again.
 */
export function mirrorDirection(
  result: Float64Array,
  direction: Float64Array,
  normal: Float64Array,
  flat: Float64Array,
): void {
  const turn = -2 * dot3(normal, direction);
  for (let a = 0; a < 3; a++) result[a] = direction[a] + turn * normal[a];
  keepSide(result, flat, 1);
}

/** Snell's law in place; `eta` is the index here over that beyond. */
export function refractDirection(
  direction: Float64Array,
  normal: Float64Array,
  flat: Float64Array,
  cosine: number,
  eta: number,
): void {
  const cosBeyond = Math.sqrt(Math.max(0, 1 - eta * eta * (1 - cosine * cosine)));
  const turn = eta * cosine - cosBeyond;
  for (let a = 0; a < 3; a++) {
    direction[a] = eta * direction[a] + turn * normal[a];
  }
  keepSide(direction, flat, -1);
}

function keepSide(direction: Float64Array, flat: Float64Array, side: number): void {
  const off = dot3(direction, flat);
  if (off * side > 0) return;
  for (let a = 0; a < 3; a++) direction[a] = direction[a] - 2 * off * flat[a];
}

/** Two axes square to a unit normal, [0..2] and [3..5], without branches near the poles (Duff et al. 2017). */
export function frameRound(frame: Float64Array, normal: Float64Array): void {
  const x = normal[0];
  const y = normal[1];
  const z = normal[2];
  const sign: number = z >= 0 ? 1 : -1;
  const a = -1 / (sign + z);
  const b = x * y * a;
  frame[0] = 1 + sign * x * x * a;
  frame[1] = sign * b;
  frame[2] = -sign * x;
  frame[3] = b;
  frame[4] = sign + y * y * a;
  frame[5] = -y;
}

/** A direction with density cosine / pi round z. */
export function cosineAbove(out: Float64Array, uv: Float64Array): void {
  const radius = Math.sqrt(uv[0]);
  const phi = 2 * Math.PI * uv[1];
  out[0] = radius * Math.cos(phi);
  out[1] = radius * Math.sin(phi);
  out[2] = Math.sqrt(1 - uv[0]);
}

/** A direction, all alike likely. */
export function everyWay(out: Float64Array, uv: Float64Array): void {
  const z = 1 - 2 * uv[0];
  const radius = Math.sqrt(Math.max(0, 1 - z * z));
  const phi = 2 * Math.PI * uv[1];
  out[0] = radius * Math.cos(phi);
  out[1] = radius * Math.sin(phi);
  out[2] = z;
}

/** A direction in a frame of two axes and a normal, as one in space. */
export function fromFrame(
  result: Float64Array,
  local: Float64Array,
  frame: Float64Array,
  normal: Float64Array,
): void {
  for (let a = 0; a < 3; a++) {
    result[a] = local[0] * frame[a] + local[1] * frame[3 + a] + local[2] * normal[a];
  }
}

/** Which of the six axes a direction is nearest to, 1 to 6: faces of a box differ, pieces of a sweep mostly do not. */
export function nearestAxis(direction: Float64Array): i32 {
  let most: number = -1;
  let nearest = 0;
  for (let a = 0; a < 3; a++) {
    const along = direction[a];
    if (Math.abs(along) > most) {
      most = Math.abs(along);
      nearest = 2 * a + (along > 0 ? 1 : 2);
    }
  }
  return nearest;
}
