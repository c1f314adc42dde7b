/**
 * Nested media as a set of bits: the highest one fills the space. Liquids have low places and glass high ones, so
 * that glass wins where they overlap.
 * Source: Schmidt and Budge 2002
 */

import { ABSORPTION, CLOUD_PER_M, MEDIUM_STRIDE, SURFACE_MEDIUM } from './layouts.js';
import { highestBit, type i32, whole32 } from './portable.js';
import type { SurfaceHit } from './surfaceHit.js';
import type { SceneTables } from './tables.js';
import { scale3 } from './vectors.js';

/** Media inside of after crossing the boundary met. */
export function mediaBeyond(t: SceneTables, hit: SurfaceHit, inside: i32): i32 {
  const bit = 1 << whole32(t.surfaces[hit.place + SURFACE_MEDIUM]);
  return hit.fromFront ? inside | bit : inside & ~bit;
}

/** Index of what fills the space within a set of media. */
export function indexIn(t: SceneTables, inside: i32): number {
  return inside === 0 ? 1 : t.media[highestBit(inside) * MEDIUM_STRIDE];
}

/** How often light is scattered per metre within a set of media. */
export function cloudIn(t: SceneTables, inside: i32): number {
  return inside === 0 ? 0 : t.media[highestBit(inside) * MEDIUM_STRIDE + CLOUD_PER_M];
}

/** Beer-Lambert over a stretch within media. */
export function absorbOver(weight: Float64Array, t: SceneTables, inside: i32, distance: number): void {
  const m = highestBit(inside) * MEDIUM_STRIDE + ABSORPTION;
  const red = t.media[m];
  const green = t.media[m + 1];
  const blue = t.media[m + 2];
  const passed = Math.exp(-red * distance);
  weight[0] = weight[0] * passed;
  weight[1] = weight[1] * (green === red ? passed : Math.exp(-green * distance));
  weight[2] = weight[2] * (blue === red ? passed : Math.exp(-blue * distance));
}

/** What goes straight on over a stretch within media: neither absorbed nor scattered. */
export function dimOver(weight: Float64Array, t: SceneTables, inside: i32, distance: number): void {
  absorbOver(weight, t, inside, distance);
  const cloud = cloudIn(t, inside);
  if (cloud > 0) scale3(weight, Math.exp(-cloud * distance));
}
