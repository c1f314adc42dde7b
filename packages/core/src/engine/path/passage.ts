import type { Kernel } from '../kernel.js';
import { RAY_START_M, RAY_TO, SURFACE_STRIDE } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { copy3, fill3 } from '../vectors.js';

/** More sheets than this in a row stop the light. */
const MOST_SHEETS = 32;

/** What gets through between two points: blocked or not, or weakened by nets and thin frost on the way. */
export class Passage {
  /** Part that passes, red green blue, of the last question. */
  passed: Float64Array = new Float64Array(3);
  private tables: SceneTables;
  private kernel: Kernel;
  private models: SurfaceModels;
  private at: Float64Array = new Float64Array(3);
  private straight: Float64Array = new Float64Array(3);

  constructor(tables: SceneTables, kernel: Kernel, models: SurfaceModels) {
    this.tables = tables;
    this.kernel = kernel;
    this.models = models;
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
    const at = this.at;
    copy3(at, point);
    let left = distance;
    for (let i = 0; i < MOST_SHEETS; i++) {
      kernel.setRay(at, direction, left - 2 * RAY_START_M);
      const primitive: i32 = kernel.closestHit();
      if (primitive < 0) return true;
      // What lets light through straight is the same on both sides.
      const surface = t.front[primitive];
      const row = surface * SURFACE_STRIDE;
      const model = this.models.ofSurface(surface);
      if (!model.letsStraight(row)) return false;
      const step = kernel.ray[RAY_TO];
      for (let a = 0; a < 3; a++) at[a] = at[a] + step * direction[a];
      left -= step;
      model.straight(this.straight, row, primitive, at);
      for (let c = 0; c < 3; c++) passed[c] = passed[c] * this.straight[c];
      if (!(passed[0] + passed[1] + passed[2] > 1e-9)) return false;
    }
    return false;
  }
}
