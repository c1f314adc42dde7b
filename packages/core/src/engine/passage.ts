import type { Kernel } from './kernel.js';
import { NET, RAY_START_M, RAY_TO, STRAIGHT, SURFACE_KIND, SURFACE_STRIDE } from './layouts.js';
import { type i32, whole32 } from './portable.js';
import { netOpenness } from './print.js';
import type { SceneTables } from './tables.js';
import { copy3, fill3 } from './vectors.js';

/** More sheets than this in a row stop the light. */
const MOST_SHEETS = 32;

/** What gets through between two points: blocked or not, or weakened by nets and thin frost on the way. */
export class Passage {
  /** Part that passes, red green blue, of the last question. */
  passed: Float64Array = new Float64Array(3);
  private tables: SceneTables;
  private kernel: Kernel;
  private at: Float64Array = new Float64Array(3);

  constructor(tables: SceneTables, kernel: Kernel) {
    this.tables = tables;
    this.kernel = kernel;
  }

  /** @returns whether any light passes */
  between(point: Float64Array, direction: Float64Array, distance: number): boolean {
    const kernel = this.kernel;
    const passed = this.passed;
    fill3(passed, 1);
    if (this.tables.seeThrough === 0) {
      kernel.setRay(point, direction, distance - 2 * RAY_START_M);
      return !kernel.anyHit();
    }
    const t = this.tables;
    const s = t.surfaces;
    const at = this.at;
    copy3(at, point);
    let left = distance;
    for (let i = 0; i < MOST_SHEETS; i++) {
      kernel.setRay(at, direction, left - 2 * RAY_START_M);
      const primitive: i32 = kernel.closestHit();
      if (primitive < 0) return true;
      // What lets light through straight is the same on both sides.
      const surface = t.front[primitive];
      if (!letsThroughStraight(t, surface)) return false;
      const step = kernel.ray[RAY_TO];
      for (let a = 0; a < 3; a++) at[a] = at[a] + step * direction[a];
      left -= step;
      const o = surface * SURFACE_STRIDE;
      if (whole32(s[o + SURFACE_KIND]) === NET) {
        const open = netOpenness(t, surface, primitive, at);
        for (let c = 0; c < 3; c++) passed[c] = passed[c] * open;
      } else {
        for (let c = 0; c < 3; c++) passed[c] = passed[c] * s[o + STRAIGHT + c];
      }
      if (!(passed[0] + passed[1] + passed[2] > 1e-9)) return false;
    }
    return false;
  }
}

/** Whether light can pass a surface without being turned. */
export function letsThroughStraight(t: SceneTables, surface: i32): boolean {
  const s = t.surfaces;
  const o = surface * SURFACE_STRIDE + STRAIGHT;
  return s[o] + s[o + 1] + s[o + 2] > 0;
}
