import type { i32 } from '../portable.js';
import { cosineAbove } from '../vectors.js';
import { BASE_PART, PDF, SurfaceModel } from './surfaceModel.js';

/** A base that scatters evenly to its own side; models say what lies over it. */
export abstract class EvenBase extends SurfaceModel {
  override evaluateBase(
    out: Float64Array,
    _surface: i32,
    albedo: Float64Array,
    _o: Float64Array,
    _i: Float64Array,
  ): void {
    for (let c = 0; c < 3; c++) out[c] = albedo[c] * (1 / Math.PI);
  }

  evaluate(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    _mirrorShare: number,
    o: Float64Array,
    i: Float64Array,
    baseGain: number,
  ): void {
    this.evaluateBase(out, surface, albedo, o, i);
    for (let c = 0; c < 3; c++) out[BASE_PART + c] = out[c];
    out[PDF] = (baseGain * i[2]) / Math.PI;
  }

  sample(
    out: Float64Array,
    _surface: i32,
    _albedo: Float64Array,
    _mirrorShare: number,
    _o: Float64Array,
    _choice: number,
    uv: Float64Array,
  ): boolean {
    cosineAbove(out, uv);
    return out[2] > 1e-6;
  }
}
