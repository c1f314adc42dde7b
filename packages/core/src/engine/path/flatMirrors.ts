import {
  FLAT,
  FLAT_CORNER,
  FLAT_NORMAL,
  FLAT_PER_U2,
  FLAT_PER_V2,
  NO_RELIEF,
  PRIMITIVE_STRIDE,
  RELIEF,
  SURFACE_STRIDE,
} from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';

/** More of them cost more than they save: light finds those by chance. */
export const MOST_MIRRORS = 4;
// Numbers kept of each: a corner of it, its unit normal on the mirror's side.
export const PLANE_CORNER: i32 = 0;
export const PLANE_NORMAL: i32 = PLANE_CORNER + 3;
export const PLANE_STRIDE: i32 = PLANE_NORMAL + 3;

/** The largest flat surfaces of a scene that mirror: sharply, as mirrors and clear coats do, or roughly, as silver cards. */
export class FlatMirrors {
  count: i32 = 0;
  protected t: SceneTables;
  protected models: SurfaceModels;
  protected primitives: Int32Array = new Int32Array(MOST_MIRRORS);
  /** Surface of each. */
  protected surfaces: Int32Array = new Int32Array(MOST_MIRRORS);
  protected planes: Float64Array = new Float64Array(MOST_MIRRORS * PLANE_STRIDE);
  /** m2 */
  protected areas: Float64Array = new Float64Array(MOST_MIRRORS);
  private rough: boolean;

  /** @param smallest area that is kept, m2 */
  constructor(t: SceneTables, models: SurfaceModels, rough: boolean, smallest: number) {
    this.t = t;
    this.models = models;
    this.rough = rough;
    for (let primitive = 0; primitive < t.count; primitive++) {
      if (t.kind[primitive] !== FLAT || t.emitterOf[primitive] >= 0) continue;
      const o = primitive * PRIMITIVE_STRIDE;
      const area = 1 / Math.sqrt(t.data[o + FLAT_PER_U2] * t.data[o + FLAT_PER_V2]);
      if (!(area >= smallest)) continue;
      const front = t.front[primitive];
      const back = t.back[primitive];
      // The same on both sides: the end of a body, which seldom throws light anywhere.
      if (rough && front === back) continue;
      this.keepIfMirror(primitive, front, 1, area);
      this.keepIfMirror(primitive, back, -1, area);
    }
  }

  /** Height of a point above a mirror, m. */
  protected height(mirror: i32, point: Float64Array): number {
    const planes = this.planes;
    const o = mirror * PLANE_STRIDE;
    let height: number = 0;
    for (let a = 0; a < 3; a++) {
      height += (point[a] - planes[o + PLANE_CORNER + a]) * planes[o + PLANE_NORMAL + a];
    }
    return height;
  }

  private isMirror(surface: i32): boolean {
    const row = surface * SURFACE_STRIDE;
    const model = this.models.ofSurface(surface);
    if (this.rough) return model.isRough;
    return this.t.surfaces[row + RELIEF] === NO_RELIEF && model.isSpecular(row);
  }

  /** Keeps a mirror, in the place of the smallest if there are too many. */
  private keepIfMirror(primitive: i32, surface: i32, side: number, area: number): void {
    if (!this.isMirror(surface)) return;
    let m = this.count;
    if (m === MOST_MIRRORS) {
      m = 0;
      for (let i = 1; i < MOST_MIRRORS; i++) {
        if (this.areas[i] < this.areas[m]) m = i;
      }
      if (area <= this.areas[m]) return;
    } else this.count = m + 1;
    const d = this.t.data;
    const o = primitive * PRIMITIVE_STRIDE;
    let squared: number = 0;
    for (let a = 0; a < 3; a++) squared += d[o + FLAT_NORMAL + a] * d[o + FLAT_NORMAL + a];
    const scale = side / Math.sqrt(squared);
    for (let a = 0; a < 3; a++) {
      this.planes[m * PLANE_STRIDE + PLANE_CORNER + a] = d[o + FLAT_CORNER + a];
      this.planes[m * PLANE_STRIDE + PLANE_NORMAL + a] = scale * d[o + FLAT_NORMAL + a];
    }
    this.primitives[m] = primitive;
    this.surfaces[m] = surface;
    this.areas[m] = area;
  }
}
