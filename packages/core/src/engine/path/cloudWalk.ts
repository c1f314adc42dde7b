import type { Kernel } from '../kernel.js';
import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import { everyWay, most3, scale3 } from '../vectors.js';
import type { Media } from './media.js';
import type { Way } from './way.js';

/** The walk has ended inside. */
export const LOST: i32 = -2;

/** Scatterings after which a walk that has lost much ends at random. */
const FREE_STEPS = 16;
/** Nearly always 1: what absorbs little sends most of its light back after very many scatterings. */
const MOST_SURVIVAL = 0.9999;
/** A walk that has not reached a boundary by then has left by a hole in the mesh round it. */
const MOST_STEPS = 65536;
/** A stretch this long that meets nothing has left by such a hole, m: no set is as large. */
const OUTSIDE_M = 1000;

/**
 * The way of light through a cloudy medium from one boundary to the next: scattered evenly to all sides, absorbed by
 * colour on the way.
 * Limits: scattering alike for all colours, and evenly for what in milk and juice goes mostly forward (the reduced
 * coefficient stands for it): true after a few scatterings, too bright straight through a thin layer.
 * Source: Monte Carlo random walk; similarity of reduced scattering, van de Hulst 1980; docs/physics/surfaces.md
 */
export class CloudWalk {
  /** Whether the last walk was scattered at all. */
  scattered: boolean = false;
  private kernel: Kernel;
  private media: Media;

  constructor(kernel: Kernel, media: Media) {
    this.kernel = kernel;
    this.media = media;
  }

  /**
   * Along a way to the next boundary; on return its ray is that of the last stretch, with its length in the ray of
   * the kernel, and what that stretch absorbs is still to come.
   * @param onlyFirst ends at the first scattering, with the origin there
   * @returns the primitive met, or `LOST`
   */
  walk(way: Way, sampler: Sampler, onlyFirst: boolean): i32 {
    const kernel = this.kernel;
    const media = this.media;
    const origin = way.origin;
    const direction = way.direction;
    const throughput = way.throughput;
    const perM = media.cloudPerM(way.inside);
    const setOutWith = most3(throughput);
    this.scattered = false;
    for (let step = 0; step < MOST_STEPS; step++) {
      sampler.next();
      const reach = -Math.log(1 - sampler.uv[0]) / perM;
      kernel.setRay(origin, direction, reach);
      const primitive: i32 = kernel.closestHit();
      if (primitive >= 0) return primitive;
      if (!(reach < OUTSIDE_M)) return LOST;
      this.scattered = true;
      for (let a = 0; a < 3; a++) origin[a] = origin[a] + reach * direction[a];
      media.absorb(throughput, way.inside, reach);
      if (onlyFirst) return LOST;
      if (step > FREE_STEPS) {
        const chance = Math.min(MOST_SURVIVAL, most3(throughput) / setOutWith);
        sampler.next();
        if (!(sampler.uv[0] < chance)) return LOST;
        scale3(throughput, 1 / chance);
      }
      sampler.next();
      everyWay(direction, sampler.uv);
    }
    return LOST;
  }
}
