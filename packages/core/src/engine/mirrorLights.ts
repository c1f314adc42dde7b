import { fresnelMean } from './fresnel.js';
import { type i32, whole32 } from './portable.js';
import { lobeFresnel } from './scatter.js';
import {
  COAT_ALPHA,
  COAT_INDEX,
  COATED,
  FLAT,
  KIND,
  MIRROR,
  RELIEF,
  type SceneTables,
  STRIDE,
  SURFACE,
} from './tables.js';
import { fill3 } from './vectors.js';

/** Smaller mirrors light little, and more of them cost more than they save: light finds those by chance. */
const SMALLEST_M2 = 0.01;
const MOST_MIRRORS = 4;
/** Numbers kept of each: a point of it, its unit normal on the mirror's side. */
const PLANE = 6;

/**
 * Large flat mirrors and clear coats, by way of which lamps are sampled: a light seen in a flat mirror is the light
 * seen from the image of the point behind it, without the mirror. Exact: such a mirror keeps solid angles.
 */
export class MirrorLights {
  count: i32 = 0;
  /** Image of the point in the mirror looked at; where the way to the light meets the mirror. */
  image: Float64Array = new Float64Array(3);
  crossing: Float64Array = new Float64Array(3);
  /** Unit direction from the crossing to the light, and how far that is, m. */
  beyond: Float64Array = new Float64Array(3);
  after: number = 0;
  /** Part mirrored at the crossing, red green blue. */
  mirrored: Float64Array = new Float64Array(3);
  private t: SceneTables;
  private primitives: Int32Array = new Int32Array(MOST_MIRRORS);
  private places: Int32Array = new Int32Array(MOST_MIRRORS);
  private planes: Float64Array = new Float64Array(MOST_MIRRORS * PLANE);
  private areas: Float64Array = new Float64Array(MOST_MIRRORS);
  private current: i32 = 0;

  constructor(t: SceneTables) {
    this.t = t;
    for (let primitive = 0; primitive < t.count; primitive++) {
      if ((t.kind[primitive] as i32) !== FLAT || (t.emitterOf[primitive] as i32) >= 0) continue;
      const o = primitive * STRIDE;
      const area = 1 / Math.sqrt((t.data[o + 12] as number) * (t.data[o + 13] as number));
      if (!(area >= SMALLEST_M2)) continue;
      if (this.mirrorsWell(t.front[primitive] as i32))
        this.keep(primitive, t.front[primitive] as i32, 1, area);
      if (this.mirrorsWell(t.back[primitive] as i32))
        this.keep(primitive, t.back[primitive] as i32, -1, area);
    }
  }

  primitiveOf(mirror: i32): i32 {
    return this.primitives[mirror] as i32;
  }

  /** The mirror with this primitive that faces a point; -1 for none. */
  find(primitive: i32, point: Float64Array): i32 {
    for (let m = 0; m < this.count; m++) {
      if ((this.primitives[m] as i32) === primitive && this.height(m, point) > 0) return m;
    }
    return -1;
  }

  /** Moves a point to its image in a mirror. */
  moveToImage(mirror: i32, point: Float64Array): void {
    const twice = 2 * this.height(mirror, point);
    const n = mirror * PLANE + 3;
    for (let a = 0; a < 3; a++) {
      point[a] = (point[a] as number) - twice * (this.planes[n + a] as number);
    }
  }

  /** Looks from a point into a mirror. @returns false where the point lies behind it */
  look(mirror: i32, point: Float64Array): boolean {
    if (!(this.height(mirror, point) > 1e-5)) return false;
    this.current = mirror;
    for (let a = 0; a < 3; a++) this.image[a] = point[a] as number;
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
    const o = this.current * PLANE;
    let cosine: number = 0;
    for (let a = 0; a < 3; a++) cosine += (light[a] as number) * (planes[o + 3 + a] as number);
    if (!(cosine > 1e-6)) return false;
    const behind = -this.height(this.current, this.image);
    const before = behind / cosine;
    this.after = (light[3] as number) - before;
    if (!(this.after > 1e-5)) return false;
    for (let a = 0; a < 3; a++) {
      const along = light[a] as number;
      this.beyond[a] = along;
      this.crossing[a] = (this.image[a] as number) + before * along;
      light[a] = along - 2 * cosine * (planes[o + 3 + a] as number);
    }
    const place = this.places[this.current] as i32;
    const coat = this.t.surfaces[place + COAT_INDEX] as number;
    if (coat !== 0) fill3(this.mirrored, fresnelMean(cosine, coat));
    else for (let c = 0; c < 3; c++) this.mirrored[c] = lobeFresnel(this.t, place, c, cosine);
    return true;
  }

  /** Height of a point above a mirror, m. */
  private height(mirror: i32, point: Float64Array): number {
    const planes = this.planes;
    const o = mirror * PLANE;
    let height: number = 0;
    for (let a = 0; a < 3; a++) {
      height += ((point[a] as number) - (planes[o + a] as number)) * (planes[o + 3 + a] as number);
    }
    return height;
  }

  private mirrorsWell(surface: i32): boolean {
    const s = this.t.surfaces;
    const o = surface * SURFACE;
    if ((s[o + RELIEF] as number) !== 0) return false;
    const kind = whole32(s[o + KIND] as number);
    return kind === MIRROR || (kind === COATED && (s[o + COAT_ALPHA] as number) === 0);
  }

  /** Keeps a mirror, in the place of the smallest if there are too many. */
  private keep(primitive: i32, surface: i32, side: number, area: number): void {
    let m = this.count;
    if (m === MOST_MIRRORS) {
      m = 0;
      for (let i = 1; i < MOST_MIRRORS; i++) {
        if ((this.areas[i] as number) < (this.areas[m] as number)) m = i;
      }
      if (area <= (this.areas[m] as number)) return;
    } else this.count = m + 1;
    const d = this.t.data;
    const o = primitive * STRIDE;
    let squared: number = 0;
    for (let a = 0; a < 3; a++) squared += (d[o + 9 + a] as number) * (d[o + 9 + a] as number);
    const scale = side / Math.sqrt(squared);
    for (let a = 0; a < 3; a++) {
      this.planes[m * PLANE + a] = d[o + a] as number;
      this.planes[m * PLANE + 3 + a] = scale * (d[o + 9 + a] as number);
    }
    this.primitives[m] = primitive;
    this.places[m] = surface * SURFACE;
    this.areas[m] = area;
  }
}
