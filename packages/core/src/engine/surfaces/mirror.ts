import { ALPHA_Y } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { lobeFresnel, lobePolarisation } from './mirrorLobe.js';
import { Specular } from './specular.js';
import { REFLECTS } from './surfaceModel.js';

/** Mirrors and polished metal: all that is sent back goes in the mirror direction. Source: docs/physics/surfaces.md */
export class Mirror extends Specular {
  constructor(t: SceneTables) {
    super(t);
    this.interaction = REFLECTS;
  }

  override isSpecular(_surface: i32): boolean {
    return true;
  }

  override roughness(surface: i32): number {
    return this.t.surfaces[surface + ALPHA_Y];
  }

  override reflectance(out: Float64Array, surface: i32, cosine: number): boolean {
    for (let c = 0; c < 3; c++) out[c] = lobeFresnel(this.t, surface, c, cosine);
    return true;
  }

  override polarise(out: Float64Array, surface: i32, cosine: number): void {
    lobePolarisation(out, this.t, surface, cosine);
  }
}
