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
/** Whole numbers: rows of a node that hold the near planes of x y z, by the ray's sign; see kernel.ts. */
export const NEAR: usize = 256;
/** Least and most distance of each lane of the pack tested last. */
export const LOW: usize = 272;
export const HIGH: usize = 288;
/** One over the direction, x y z side by side. */
export const INVERSES: usize = 304;
/** A single number: where the ray leaves the room, m; see room.ts. */
export const LEAVES: usize = 320;
export const WIDE_RAY: usize = 336;

import { RAY_DIRECTION, RAY_FROM, RAY_ORIGIN } from './layouts';
import { PLANES } from './wideTree';

/** Rounding of a product of 32-bit numbers over their size, with a margin of about eight. */
const ROUNDING: f32 = 2e-6;

/** @param ray as `Kernel.ray`  @param extent largest coordinate of the scene */
export function widenRay(wide: usize, ray: StaticArray<f64>, extent: f32): void {
  // Number by number: a load of two that were just stored singly would wait until both have left the processor.
  const ox = f32x4.splat(f32(ray[RAY_ORIGIN]));
  const oy = f32x4.splat(f32(ray[RAY_ORIGIN + 1]));
  const oz = f32x4.splat(f32(ray[RAY_ORIGIN + 2]));
  const dx = f32x4.splat(f32(ray[RAY_DIRECTION]));
  const dy = f32x4.splat(f32(ray[RAY_DIRECTION + 1]));
  const dz = f32x4.splat(f32(ray[RAY_DIRECTION + 2]));
  v128.store(wide, ox, ORIGIN);
  v128.store(wide, oy, ORIGIN + 16);
  v128.store(wide, oz, ORIGIN + 32);
  v128.store(wide, dx, DIRECTION);
  v128.store(wide, dy, DIRECTION + 16);
  v128.store(wide, dz, DIRECTION + 32);
  // Inverse directions are kept finite, so that no plane gives a number that is none.
  const xy = v128.shuffle<f32>(dx, dy, 0, 4, 0, 4);
  const exact = f32x4.div(f32x4.splat(1), v128.shuffle<f32>(xy, dz, 0, 1, 4, 4));
  const inverse = f32x4.pmax(f32x4.pmin(exact, f32x4.splat(1e18)), f32x4.splat(-1e18));
  v128.store(wide, inverse, INVERSES);
  v128.store(wide, v128.shuffle<f32>(inverse, inverse, 0, 0, 0, 0), INVERSE);
  v128.store(wide, v128.shuffle<f32>(inverse, inverse, 1, 1, 1, 1), INVERSE + 16);
  v128.store(wide, v128.shuffle<f32>(inverse, inverse, 2, 2, 2, 2), INVERSE + 32);
  const turned = v128.and(f32x4.lt(inverse, f32x4.splat(0)), i32x4.splat(3 * <i32>PLANES));
  v128.store(wide, i32x4.add(i32x4(0, <i32>PLANES, 2 * <i32>PLANES, 0), turned), NEAR);
  v128.store(wide, f32x4.splat(f32(ray[RAY_FROM]) - 2e-6), START);
  const size = f32x4.add(f32x4.abs(ox), f32x4.add(f32x4.abs(oy), f32x4.abs(oz)));
  v128.store(wide, f32x4.mul(f32x4.splat(ROUNDING), f32x4.add(f32x4.splat(extent), size)), SLACK);
  v128.store(wide, f32x4.splat(1), ONE);
  v128.store(wide, f32x4.splat(1.000002), ROUNDED_UP);
}
