import {
  ABSORPTION,
  CLOUD_PER_M,
  COLOUR_INDEX,
  MEDIUM_INDEX,
  MEDIUM_STRIDE,
  SURFACE_MEDIUM,
} from '../layouts.js';
import { highestBit, type i32, whole32 } from '../portable.js';
import type { SurfaceHit } from '../surfaceHit.js';
import type { SceneTables } from '../tables.js';
import { scale3 } from '../vectors.js';

/**
 * Nested media as a set of bits: the highest one fills the space. Liquids have low bits and glass high ones, so that
 * glass wins where they overlap.
 * Source: Schmidt and Budge 2002
 */
export class Media {
  private t: SceneTables;

  constructor(t: SceneTables) {
    this.t = t;
  }

  /** Media inside of after crossing the boundary met. */
  beyond(hit: SurfaceHit, inside: i32): i32 {
    const bit = 1 << whole32(this.t.surfaces[hit.row + SURFACE_MEDIUM]);
    return hit.fromFront ? inside | bit : inside & ~bit;
  }

  /** Whether the same medium fills the space on both sides. */
  isSame(inside: i32, beyond: i32): boolean {
    return highestBit(inside) === highestBit(beyond);
  }

  /** Index of what fills the space. */
  index(inside: i32): number {
    return inside === 0 ? 1 : this.t.media[highestBit(inside) * MEDIUM_STRIDE + MEDIUM_INDEX];
  }

  /** The same for one colour, 0 to 2; for all of them below 0. */
  indexFor(inside: i32, colour: i32): number {
    if (colour < 0 || inside === 0) return this.index(inside);
    return this.t.media[highestBit(inside) * MEDIUM_STRIDE + COLOUR_INDEX + colour];
  }

  /** Whether colours go apart over a boundary. */
  splits(inside: i32, beyond: i32): boolean {
    return this.spread(inside) !== this.spread(beyond);
  }

  private spread(inside: i32): number {
    if (inside === 0) return 0;
    const m = highestBit(inside) * MEDIUM_STRIDE + COLOUR_INDEX;
    return this.t.media[m + 2] - this.t.media[m];
  }

  /** How often light is scattered per metre. */
  cloudPerM(inside: i32): number {
    return inside === 0 ? 0 : this.t.media[highestBit(inside) * MEDIUM_STRIDE + CLOUD_PER_M];
  }

  /** Beer-Lambert over a stretch within media. */
  absorb(throughput: Float64Array, inside: i32, distance: number): void {
    const media = this.t.media;
    const m = highestBit(inside) * MEDIUM_STRIDE + ABSORPTION;
    const red = media[m];
    const green = media[m + 1];
    const blue = media[m + 2];
    const passed = Math.exp(-red * distance);
    throughput[0] = throughput[0] * passed;
    throughput[1] = throughput[1] * (green === red ? passed : Math.exp(-green * distance));
    throughput[2] = throughput[2] * (blue === red ? passed : Math.exp(-blue * distance));
  }

  /** What goes straight on over a stretch within media: neither absorbed nor scattered. */
  dim(throughput: Float64Array, inside: i32, distance: number): void {
    this.absorb(throughput, inside, distance);
    const cloud = this.cloudPerM(inside);
    if (cloud > 0) scale3(throughput, Math.exp(-cloud * distance));
  }
}
