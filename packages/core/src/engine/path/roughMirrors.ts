import {
  FLAT_CORNER,
  FLAT_EDGE_U,
  FLAT_EDGE_V,
  FLAT_PER_U2,
  FLAT_PER_V2,
  PRIMITIVE_STRIDE,
} from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { copy3, dot3, scale3 } from '../vectors.js';
import { FlatMirrors, MOST_MIRRORS, PLANE_NORMAL, PLANE_STRIDE } from './flatMirrors.js';

const SMALLEST_M2 = 0.004;
/** A path goes on towards them with so much more than the chance of an even direction, in all at most with `MOST_SHARE`. */
const SHARE_A_SR = 2;
const MOST_SHARE = 0.25;

/**
 * Flat rough mirrors, such as silver cards and foil: what they throw is bright and comes from a small part of the half
 * space, so that some paths are sent there on purpose. One way of sampling among others, joined with scattering as a
 * mixture of both densities; unbiased, as every direction keeps its chance.
 */
export class RoughMirrors extends FlatMirrors {
  /** Chance that a path goes on towards one of them from the point looked from; 0 where none can be seen. */
  share: number = 0;
  private from: Float64Array = new Float64Array(3);
  private chance: Float64Array = new Float64Array(MOST_MIRRORS);
  private total: number = 0;

  constructor(t: SceneTables, models: SurfaceModels) {
    super(t, models, true, SMALLEST_M2);
  }

  turnOff(): void {
    this.share = 0;
  }

  /** Makes ready for a point: each mirror has the chance of about its solid angle. */
  look(point: Float64Array): void {
    const d = this.t.data;
    copy3(this.from, point);
    let total: number = 0;
    for (let m = 0; m < this.count; m++) {
      const height = this.height(m, point);
      let weight: number = 0;
      if (height > 1e-5) {
        const o = this.primitives[m] * PRIMITIVE_STRIDE;
        let squared: number = 0;
        for (let a = 0; a < 3; a++) {
          const middle = d[o + FLAT_CORNER + a] + 0.5 * (d[o + FLAT_EDGE_U + a] + d[o + FLAT_EDGE_V + a]);
          const away = middle - point[a];
          squared += away * away;
        }
        const area = this.areas[m];
        weight = (area * height) / (Math.sqrt(squared) * (squared + area));
      }
      this.chance[m] = weight;
      total += weight;
    }
    this.total = total;
    this.share = Math.min(MOST_SHARE, SHARE_A_SR * total);
  }

  /** Unit direction to a place of one of them, by two even numbers. */
  aim(out: Float64Array, uv: Float64Array): void {
    let left = uv[0] * this.total;
    let m: i32 = 0;
    while (m < this.count - 1 && left >= this.chance[m]) {
      left -= this.chance[m];
      m++;
    }
    const across = Math.min(1, left / this.chance[m]);
    const up = uv[1];
    const d = this.t.data;
    const o = this.primitives[m] * PRIMITIVE_STRIDE;
    for (let a = 0; a < 3; a++) {
      const place = d[o + FLAT_CORNER + a] + across * d[o + FLAT_EDGE_U + a] + up * d[o + FLAT_EDGE_V + a];
      out[a] = place - this.from[a];
    }
    scale3(out, 1 / Math.sqrt(dot3(out, out)));
  }

  /** Density per sr with which `aim` picks a direction. */
  density(direction: Float64Array): number {
    const d = this.t.data;
    let density: number = 0;
    for (let m = 0; m < this.count; m++) {
      const chance = this.chance[m];
      if (!(chance > 0)) continue;
      let cosine: number = 0;
      for (let a = 0; a < 3; a++) {
        cosine -= direction[a] * this.planes[m * PLANE_STRIDE + PLANE_NORMAL + a];
      }
      if (!(cosine > 1e-6)) continue;
      const distance = this.height(m, this.from) / cosine;
      const o = this.primitives[m] * PRIMITIVE_STRIDE;
      let across: number = 0;
      let up: number = 0;
      for (let a = 0; a < 3; a++) {
        const q = this.from[a] + distance * direction[a] - d[o + FLAT_CORNER + a];
        across += q * d[o + FLAT_EDGE_U + a];
        up += q * d[o + FLAT_EDGE_V + a];
      }
      across *= d[o + FLAT_PER_U2];
      up *= d[o + FLAT_PER_V2];
      if (!(across >= 0 && across <= 1 && up >= 0 && up <= 1)) continue;
      density += (chance * distance * distance) / (this.total * cosine * this.areas[m]);
    }
    return density;
  }
}
