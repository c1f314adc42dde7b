import { dielectricMirrored, fresnelMean } from '../fresnel.js';
import { ALPHA_Y, LETS_IN, MEDIUM_INDEX, MEDIUM_STRIDE, SURFACE_MEDIUM } from '../layouts.js';
import { type i32, whole32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { Specular } from './specular.js';
import { REFRACTS } from './surfaceModel.js';

/**
 * The boundary of glass, acrylic, liquid, clear or frosted: what it mirrors depends on what is on both sides, so that
 * paths cross it by `Boundary`.
 * Source: docs/physics/surfaces.md
 */
export class Clear extends Specular {
  constructor(t: SceneTables) {
    super(t);
    this.interaction = REFRACTS;
  }

  override roughness(surface: i32): number {
    return this.t.surfaces[surface + ALPHA_Y];
  }

  /** Seen from the air. */
  override polarise(out: Float64Array, surface: i32, cosine: number): void {
    const m = whole32(this.t.surfaces[surface + SURFACE_MEDIUM]) * MEDIUM_STRIDE;
    dielectricMirrored(out, cosine, this.t.media[m + MEDIUM_INDEX]);
  }

  override exitShare(surface: i32, cosIn: number): number {
    const media = this.t.media;
    const m = whole32(this.t.surfaces[surface + SURFACE_MEDIUM]) * MEDIUM_STRIDE;
    return (1 - fresnelMean(cosIn, media[m + MEDIUM_INDEX])) / media[m + LETS_IN];
  }
}
