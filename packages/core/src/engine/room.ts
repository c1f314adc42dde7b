import { PRIMITIVE_STRIDE, RAY_DIRECTION, RAY_FROM, RAY_ORIGIN } from './layouts.js';
import type { i32 } from './portable.js';
import type { SceneTables } from './tables.js';

/** Where a ray passes another wall by less than this, m, it is not told which of the two it meets. */
const NEAR_CORNER_M = 1e-5;

/** Walls of a room: low x, high x, low y, high y, low z, high z. */
export const WALLS: i32 = 6;

/**
 * The walls round a set as one thing: a ray that starts inside meets the one that it comes to first, by three
 * divisions and without a tree. Any other ray is left to the test of each wall.
 */
export class Room {
  /** How far the ray asked about last goes before it leaves, m. */
  exitM: number = 0;
  private tables: SceneTables;

  constructor(tables: SceneTables) {
    this.tables = tables;
  }

  /**
   * The wall, 0 to 5, through which a ray leaves.
   * @param ray as `Kernel.ray`
   * @returns -1 where that is not sure: the ray starts outside or at a wall, or leaves close by a corner
   */
  exit(ray: Float64Array): i32 {
    const data = this.tables.data;
    const at = this.tables.room * PRIMITIVE_STRIDE;
    const ox = ray[RAY_ORIGIN];
    const oy = ray[RAY_ORIGIN + 1];
    const oz = ray[RAY_ORIGIN + 2];
    const ix = 1 / ray[RAY_DIRECTION];
    const iy = 1 / ray[RAY_DIRECTION + 1];
    const iz = 1 / ray[RAY_DIRECTION + 2];
    const lowX = (data[at] - ox) * ix;
    const highX = (data[at + PRIMITIVE_STRIDE] - ox) * ix;
    const lowY = (data[at + 2 * PRIMITIVE_STRIDE + 1] - oy) * iy;
    const highY = (data[at + 3 * PRIMITIVE_STRIDE + 1] - oy) * iy;
    const lowZ = (data[at + 4 * PRIMITIVE_STRIDE + 2] - oz) * iz;
    const highZ = (data[at + 5 * PRIMITIVE_STRIDE + 2] - oz) * iz;
    const started = 0.5 * ray[RAY_FROM];
    if (
      !(Math.min(lowX, highX) < started && Math.min(lowY, highY) < started && Math.min(lowZ, highZ) < started)
    ) {
      return -1;
    }
    const x = Math.max(lowX, highX);
    const y = Math.max(lowY, highY);
    const z = Math.max(lowZ, highZ);
    // The others are met at least so far away.
    const afterX = x - NEAR_CORNER_M * Math.abs(ix);
    const afterY = y - NEAR_CORNER_M * Math.abs(iy);
    const afterZ = z - NEAR_CORNER_M * Math.abs(iz);
    const leaving = 2 * ray[RAY_FROM];
    if (x > leaving && x < afterY && x < afterZ) {
      this.exitM = x;
      return ix < 0 ? 0 : 1;
    }
    if (y > leaving && y < afterX && y < afterZ) {
      this.exitM = y;
      return iy < 0 ? 2 : 3;
    }
    if (z > leaving && z < afterX && z < afterY) {
      this.exitM = z;
      return iz < 0 ? 4 : 5;
    }
    return -1;
  }
}
