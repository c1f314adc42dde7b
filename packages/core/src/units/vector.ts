import type { Vector } from '@fendrix/contract';

export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vector, factor: number): Vector => [a[0] * factor, a[1] * factor, a[2] * factor];
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const length = (a: Vector): number => Math.hypot(a[0], a[1], a[2]);
export const distance = (a: Vector, b: Vector): number => length(subtract(a, b));
export const normalise = (a: Vector): Vector => scale(a, 1 / length(a));
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** `direction` mirrored in a surface of unit normal `normal`. */
export const reflect = (direction: Vector, normal: Vector): Vector =>
  subtract(direction, scale(normal, 2 * dot(direction, normal)));

/** Turns `point` about the upright axis through the origin; positive takes the front towards camera right. */
export function turnUpright(point: Vector, angleRad: number): Vector {
  const c = Math.cos(angleRad);
  const s = Math.sin(angleRad);
  return [c * point[0] - s * point[1], s * point[0] + c * point[1], point[2]];
}

/** To a tenth of a millimetre: as finely as anything is placed. */
export const toTenthMm = (a: Vector): Vector => a.map((value) => Math.round(value * 1e4) / 1e4) as Vector;
