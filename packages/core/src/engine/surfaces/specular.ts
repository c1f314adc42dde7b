import type { i32 } from '../portable.js';
import { SCATTERING, SurfaceModel } from './surfaceModel.js';

/** Surfaces that turn light to one direction or two and scatter none. */
export abstract class Specular extends SurfaceModel {
  evaluate(
    out: Float64Array,
    _surface: i32,
    _albedo: Float64Array,
    _mirrorShare: number,
    _o: Float64Array,
    _i: Float64Array,
    _baseGain: number,
  ): void {
    for (let k: i32 = 0; k < SCATTERING; k++) out[k] = 0;
  }

  sample(
    _out: Float64Array,
    _surface: i32,
    _albedo: Float64Array,
    _mirrorShare: number,
    _o: Float64Array,
    _choice: number,
    _uv: Float64Array,
  ): boolean {
    return false;
  }
}
