import { SPREAD } from '../layouts.js';
import type { Sampler } from '../sampler.js';
import type { SurfaceHit } from '../surfaceHit.js';
import type { SceneTables } from '../tables.js';
import { copy3, scale3 } from '../vectors.js';
import type { Way } from './way.js';

/** Nets and thin frost: some light passes as if nothing were there. */
export class StraightStep {
  private t: SceneTables;
  private sampler: Sampler;
  private hit: SurfaceHit;
  private straight: Float64Array = new Float64Array(3);

  constructor(t: SceneTables, sampler: Sampler, hit: SurfaceHit) {
    this.t = t;
    this.sampler = sampler;
    this.hit = hit;
  }

  /** @returns whether the way goes straight on; otherwise it meets the rest of the surface */
  pass(way: Way): boolean {
    const s = this.t.surfaces;
    const hit = this.hit;
    const straight = this.straight;
    hit.model.straight(straight, hit.row, hit.primitive, hit.point);
    const closed = hit.model.closed(hit.row, straight);
    let through: number = 0;
    let rest: number = 0;
    for (let c = 0; c < 3; c++) {
      through += straight[c];
      hit.albedo[c] = hit.albedo[c] * closed;
      rest += hit.albedo[c] + s[hit.row + SPREAD + c];
    }
    const chance = through / (through + rest);
    if (!(chance > 0)) return false;
    this.sampler.next();
    if (this.sampler.uv[0] >= chance) {
      scale3(way.throughput, 1 / (1 - chance));
      return false;
    }
    for (let c = 0; c < 3; c++) way.throughput[c] = (way.throughput[c] * straight[c]) / chance;
    copy3(way.origin, hit.point);
    way.mirrorsSampled = false;
    return true;
  }
}
