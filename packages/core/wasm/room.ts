/**
 * The walls round a set as one thing, in 32-bit numbers: a ray that starts inside meets the one that it comes to
 * first. Any other ray is left to the test of each wall. Compiled by AssemblyScript only, in place of engine/room.ts.
 */
import { FLAT_CORNER, PRIMITIVE_STRIDE, RAY_FROM, RAY_ORIGIN } from './layouts';
import { SceneTables } from './tables';
import { INVERSES, LEAVES } from './wideRay';
import { aligned } from './wideTree';

/** Where a ray passes another wall by less than this, m, it is not told which of the two it meets. */
const NEAR_CORNER_M: f32 = 1e-4;

/** Walls of a room: low x, high x, low y, high y, low z, high z. */
export const WALLS: i32 = 6;

export class Room {
  /** Low x y z and high x y z, m, in 64 bits; four places each. */
  private planes: usize = aligned(64);

  constructor(tables: SceneTables) {
    for (let wall = 0; wall < WALLS && tables.room >= 0; wall++) {
      const axis = wall >> 1;
      const plane = tables.data[(tables.room + wall) * PRIMITIVE_STRIDE + FLAT_CORNER + axis];
      store<f64>(this.planes + <usize>((wall & 1) * 32 + axis * 8), plane);
    }
  }

  /**
   * The wall, 0 to 5, through which a ray leaves; its distance is written to the wide ray, right to a millionth.
   * @param ray as `Kernel.ray`  @param wide as written by `widenRay`
   * @returns -1 where that is not sure: the ray starts outside or at a wall, or leaves close by a corner
   */
  exit(ray: StaticArray<f64>, wide: usize): i32 {
    const planes = this.planes;
    const inverse = v128.load(wide, INVERSES);
    const xy = f64x2.replace_lane(f64x2.splat(ray[RAY_ORIGIN]), 1, ray[RAY_ORIGIN + 1]);
    const z = f64x2.splat(ray[RAY_ORIGIN + 2]);
    const low = f32x4.mul(away(v128.load(planes), v128.load(planes, 16), xy, z), inverse);
    const high = f32x4.mul(away(v128.load(planes, 32), v128.load(planes, 48), xy, z), inverse);
    const from = f32(ray[RAY_FROM]);
    const entered = f32x4.pmin(low, high);
    const leaves = f32x4.pmax(low, high);
    const first = f32x4.pmin(
      v128.shuffle<f32>(leaves, leaves, 0, 0, 0, 0),
      f32x4.pmin(v128.shuffle<f32>(leaves, leaves, 1, 1, 1, 1), v128.shuffle<f32>(leaves, leaves, 2, 2, 2, 2)),
    );
    const after = f32x4.sub(leaves, f32x4.mul(f32x4.splat(NEAR_CORNER_M), f32x4.abs(inverse)));
    const later = i32x4.bitmask(f32x4.gt(after, first)) & 7;
    const axis = ctz(~later);
    const exit = f32x4.extract_lane(first, 0);
    store<f32>(wide, exit, LEAVES);
    const inside = (i32x4.bitmask(f32x4.lt(entered, f32x4.splat(<f32>0.5 * from))) & 7) === 7;
    if (!inside || later !== (7 ^ (1 << axis)) || !(exit > 2 * from)) return -1;
    return 2 * axis + ((i32x4.bitmask(inverse) >> axis) & 1 ^ 1);
  }
}

/** How far planes lie from a point along x, y and z. */
// @ts-ignore: decorator
@inline
function away(planesXY: v128, planesZ: v128, xy: v128, z: v128): v128 {
  const first = f32x4.demote_f64x2_zero(f64x2.sub(planesXY, xy));
  const last = f32x4.demote_f64x2_zero(f64x2.sub(planesZ, z));
  return v128.shuffle<f32>(first, last, 0, 1, 4, 4);
}
