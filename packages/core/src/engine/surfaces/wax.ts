import { COAT_PASSED } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { fill3 } from '../vectors.js';
import { coatAlbedo } from './coat.js';
import { Coated } from './coated.js';
import { WALKS_INSIDE } from './surfaceModel.js';

/**
 * Wax, cheese, fruit, skin: a skin as a coat, under which light walks and comes out nearby (`WaxWalk`); scattering at
 * the point itself is the skin's alone.
 * Source: docs/physics/surfaces.md
 */
export class Wax extends Coated {
  constructor(t: SceneTables) {
    super(t);
    this.interaction = WALKS_INSIDE;
    this.takesIrradiance = false;
  }

  override isSpecular(_surface: i32): boolean {
    return false;
  }

  override evaluateBase(
    out: Float64Array,
    _surface: i32,
    _albedo: Float64Array,
    _o: Float64Array,
    _i: Float64Array,
  ): void {
    fill3(out, 0);
  }

  override exitShare(surface: i32, cosIn: number): number {
    return (1 - coatAlbedo(this.t, surface, cosIn)) / this.t.surfaces[surface + COAT_PASSED];
  }
}
