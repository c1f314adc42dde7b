import { fresnelMean } from '../fresnel.js';
import { sampleVisibleNormal, signedLambda } from '../microfacet.js';
import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';

/** A walk that has not left by then is given up: fewer than one in a million. */
const MOST_EVENTS = 64;
/** Nearer to the upright than this a way meets no more facets. */
const UPRIGHT = 0.99999;

/**
 * A walk between the facets of a rough boundary of clear media: each facet met mirrors or refracts by its own Fresnel share, until
 * the way leaves the boundary on one side or the other. Nothing is lost on it, so its weight is 1.
 * GGX facets, heights even, Smith: a facet's turn does not depend on its height or its neighbours.
 * Source: Heitz, Hanika, d'Eon, Dachsbacher 2016; docs/physics/surfaces.md
 */
export class FrostWalk {
  /** The way on in the local frame, z the normal towards where the path came from. */
  into: Float64Array = new Float64Array(3);
  /** Facets met. */
  events: i32 = 0;
  private facet: Float64Array = new Float64Array(3);
  private view: Float64Array = new Float64Array(3);

  /**
   * @param o towards where the path came from, unit and above the surface
   * @param ratio index beyond over that here
   * @returns 1 where it leaves on the side it came from, -1 beyond, 0 where it is given up
   */
  walk(o: Float64Array, alpha: number, ratio: number, sampler: Sampler): i32 {
    const into = this.into;
    const facet = this.facet;
    const view = this.view;
    for (let a = 0; a < 3; a++) into[a] = -o[a];
    let side: i32 = 1;
    // Part of all heights that lies below, seen from the own side.
    let below: number = 1;
    for (let event = 0; event < MOST_EVENTS; event++) {
      this.events = event;
      const towards: number = side > 0 ? 1 : -1;
      const z = towards * into[2];
      if (z > UPRIGHT) return side;
      sampler.next();
      below = below / (1 - sampler.uv[0]) ** (1 / signedLambda(z, alpha * alpha * (1 - z * z)));
      if (below >= 1) return side;
      const choice = sampler.uv[1];
      for (let a = 0; a < 3; a++) view[a] = -towards * into[a];
      sampler.next();
      sampleVisibleNormal(facet, view, alpha, alpha, sampler.uv);
      let cosine: number = 0;
      for (let a = 0; a < 3; a++) cosine += view[a] * facet[a];
      cosine = Math.min(1, Math.max(1e-9, cosine));
      const beyond: number = side > 0 ? ratio : 1 / ratio;
      if (choice < fresnelMean(cosine, beyond)) {
        for (let a = 0; a < 3; a++) {
          into[a] = towards * (2 * cosine * facet[a] - view[a]);
        }
        continue;
      }
      const eta = 1 / beyond;
      const turn = eta * cosine - Math.sqrt(Math.max(0, 1 - eta * eta * (1 - cosine * cosine)));
      for (let a = 0; a < 3; a++) into[a] = towards * (turn * facet[a] - eta * view[a]);
      side = -side;
      below = 1 - below;
    }
    return 0;
  }
}
