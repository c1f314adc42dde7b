/**
 * A ray as rows of four equal 32-bit numbers in memory, for tests of four boxes or primitives at once. They are loaded
 * where they are needed: kept in registers over the whole walk they would only be spilled. Compiled by AssemblyScript
 * only.
 */

/** Places of the rows, bytes; three each for x y z: origin, direction, one over the direction. */
export const ORIGIN: usize = 0;
export const DIRECTION: usize = 48;
export const INVERSE: usize = 96;
/** Least distance, a little early; farthest one so far, a little late. */
export const START: usize = 144;
export const REACH: usize = 160;
/** Rounding of a length of this ray in this scene, m. */
export const SLACK: usize = 176;
export const ONE: usize = 192;
export const ROUNDED_UP: usize = 208;
/** Where the ray enters the eight boxes of a node. */
export const LANES_AT: usize = 224;
/** Three 32-bit whole numbers: rows of a node that hold the near planes, by the ray's sign; see kernel.ts. */
export const NEAR: usize = 256;
/** Least and most distance of each lane of the pack tested last. */
export const LOW: usize = 272;
export const HIGH: usize = 288;
export const WIDE_RAY: usize = 304;

import { PLANES } from './wideTree';

/** Rounding of a product of 32-bit numbers over their size, with a margin of about eight. */
const ROUNDING: f32 = 2e-6;

/** @param ray 64-bit numbers as `Kernel.ray`  @param extent largest coordinate of the scene */
export function widenRay(wide: usize, ray: usize, extent: f32): void {
  let size = extent;
  for (let a: usize = 0; a < 3; a++) {
    const o = f32(load<f64>(ray + (a << 3)));
    const d = f32x4.splat(f32(load<f64>(ray + (a << 3), 24)));
    size += abs(o);
    const row = wide + (a << 4);
    v128.store(row, f32x4.splat(o), ORIGIN);
    v128.store(row, d, DIRECTION);
    // Inverse directions are kept finite, so that no plane gives a number that is none.
    const inverse = f32x4.div(f32x4.splat(1), d);
    store<u32>(wide + (a << 2), <u32>(a * PLANES) + (f32x4.extract_lane(inverse, 0) < 0 ? <u32>(3 * PLANES) : 0), NEAR);
    v128.store(row, f32x4.pmax(f32x4.pmin(inverse, f32x4.splat(1e18)), f32x4.splat(-1e18)), INVERSE);
  }
  v128.store(wide, f32x4.splat(f32(load<f64>(ray, 48)) - 2e-6), START);
  v128.store(wide, f32x4.splat(ROUNDING * size), SLACK);
  v128.store(wide, f32x4.splat(1), ONE);
  v128.store(wide, f32x4.splat(1.000002), ROUNDED_UP);
}
