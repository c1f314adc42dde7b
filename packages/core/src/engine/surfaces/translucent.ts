import { SPREAD } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { cosineAbove } from '../vectors.js';
import { EvenBase } from './evenBase.js';
import { BASE_PART, PDF } from './surfaceModel.js';

/**
 * Frost, tracing paper, tent cloth: a thin sheet that scatters evenly to both sides, and may let some light straight
 * on.
 * Source: docs/physics/surfaces.md
 */
export class Translucent extends EvenBase {
  constructor(t: SceneTables) {
    super(t);
    this.transmits = true;
    this.takesIrradiance = true;
  }

  override sentBack(surface: i32, albedo: Float64Array): number {
    const s = this.t.surfaces;
    const back = albedo[0] + albedo[1] + albedo[2];
    const through = s[surface + SPREAD] + s[surface + SPREAD + 1] + s[surface + SPREAD + 2];
    return back + through > 0 ? back / (back + through) : 1;
  }

  override evaluateBase(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    _o: Float64Array,
    i: Float64Array,
  ): void {
    if (i[2] < 0) {
      for (let c = 0; c < 3; c++) out[c] = this.t.surfaces[surface + SPREAD + c] / Math.PI;
    } else {
      for (let c = 0; c < 3; c++) out[c] = albedo[c] * (1 / Math.PI);
    }
  }

  override evaluate(
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
    const back = this.sentBack(surface, albedo);
    const iz = i[2];
    out[PDF] = (iz > 0 ? back * iz * baseGain : (back - 1) * iz) / Math.PI;
  }

  override sample(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    _mirrorShare: number,
    _o: Float64Array,
    choice: number,
    uv: Float64Array,
  ): boolean {
    cosineAbove(out, uv);
    if (choice >= this.sentBack(surface, albedo)) out[2] = -out[2];
    return Math.abs(out[2]) > 1e-6;
  }
}
