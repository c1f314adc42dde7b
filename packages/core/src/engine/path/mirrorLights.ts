import { LIGHT_DISTANCE, SURFACE_STRIDE } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { FlatMirrors, PLANE_NORMAL, PLANE_STRIDE } from './flatMirrors.js';

/** Smaller mirrors light little. */
const SMALLEST_M2 = 0.01;

/**
 * Large flat mirrors and clear coats, by way of which lamps are sampled: a light seen in a flat mirror is the light
 * seen from the image of the point behind it, without the mirror. Exact: such a mirror keeps solid angles.
 */
export class MirrorLights extends FlatMirrors {
  /** Image of the point in the mirror looked at; where the way to the light meets the mirror. */
  image: Float64Array = new Float64Array(3);
  crossing: Float64Array = new Float64Array(3);
  /** Unit direction from the crossing to the light, and how far that is, m. */
  beyond: Float64Array = new Float64Array(3);
  after: number = 0;
  /** Part mirrored at the crossing, red green blue. */
  mirrored: Float64Array = new Float64Array(3);
  private current: i32 = 0;

  constructor(t: SceneTables, models: SurfaceModels) {
    super(t, models, false, SMALLEST_M2);
  }

  primitiveOf(mirror: i32): i32 {
    return this.primitives[mirror];
  }

  /** The mirror with this primitive that faces a point; -1 for none. */
  find(primitive: i32, point: Float64Array): i32 {
    for (let m = 0; m < this.count; m++) {
      if (this.primitives[m] === primitive && this.height(m, point) > 0) return m;
    }
    return -1;
  }

  /** Moves a point to its image in a mirror. */
  moveToImage(mirror: i32, point: Float64Array): void {
    const twice = 2 * this.height(mirror, point);
    const n = mirror * PLANE_STRIDE + PLANE_NORMAL;
    for (let a = 0; a < 3; a++) {
      point[a] = point[a] - twice * this.planes[n + a];
    }
  }

  /** Looks from a point into a mirror. @returns false where the point lies behind it */
  look(mirror: i32, point: Float64Array): boolean {
    if (!(this.height(mirror, point) > 1e-5)) return false;
    this.current = mirror;
    for (let a = 0; a < 3; a++) this.image[a] = point[a];
    this.moveToImage(mirror, this.image);
    return true;
  }

  /**
   * Turns light sampled from the image into light that comes to the point by way of the mirror.
   * @param light 0-2 direction, turned here; 3 distance, m
   * @returns false where the mirror's plane does not lie between
   */
  turn(light: Float64Array): boolean {
    const planes = this.planes;
    const o = this.current * PLANE_STRIDE;
    let cosine: number = 0;
    for (let a = 0; a < 3; a++) cosine += light[a] * planes[o + PLANE_NORMAL + a];
    if (!(cosine > 1e-6)) return false;
    const behind = -this.height(this.current, this.image);
    const before = behind / cosine;
    this.after = light[LIGHT_DISTANCE] - before;
    if (!(this.after > 1e-5)) return false;
    for (let a = 0; a < 3; a++) {
      const along = light[a];
      this.beyond[a] = along;
      this.crossing[a] = this.image[a] + before * along;
      light[a] = along - 2 * cosine * planes[o + PLANE_NORMAL + a];
    }
    const surface = this.surfaces[this.current];
    this.models.ofSurface(surface).reflectance(this.mirrored, surface * SURFACE_STRIDE, cosine);
    return true;
  }
}
