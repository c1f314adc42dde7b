import { dielectricMirrored, fresnelMean } from '../fresnel.js';
import { COAT_ALPHA, COAT_INDEX, COAT_PASSED } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { cosineAbove, fill3, most3 } from '../vectors.js';
import { addCoat, coatAlbedo, sampleCoat } from './coat.js';
import { EvenBase } from './evenBase.js';
import { NARROW_ALPHA } from './surfaceModel.js';

/**
 * Paint, glaze, print, satin plastic: an even base under a coat. What the coat does not mirror reaches the base, is
 * scattered evenly, and leaves after any number of bounces under the coat.
 * Source: docs/physics/surfaces.md
 */
export class Coated extends EvenBase {
  constructor(t: SceneTables) {
    super(t);
    this.takesIrradiance = true;
  }

  override isSpecular(surface: i32): boolean {
    return this.t.surfaces[surface + COAT_ALPHA] === 0;
  }

  override roughness(surface: i32): number {
    return this.t.surfaces[surface + COAT_ALPHA];
  }

  override bundlesByLobe(surface: i32): boolean {
    const alpha = this.t.surfaces[surface + COAT_ALPHA];
    return alpha > 0 && alpha < NARROW_ALPHA;
  }

  override reflectance(out: Float64Array, surface: i32, cosine: number): boolean {
    fill3(out, fresnelMean(cosine, this.t.surfaces[surface + COAT_INDEX]));
    return true;
  }

  override polarise(out: Float64Array, surface: i32, cosine: number): void {
    dielectricMirrored(out, cosine, this.t.surfaces[surface + COAT_INDEX]);
  }

  override mirrorShare(surface: i32, albedo: Float64Array, cosOut: number): number {
    const mirrored = coatAlbedo(this.t, surface, cosOut);
    if (!(mirrored > 0)) return 0;
    const base = (1 - mirrored) * most3(albedo);
    return mirrored / (mirrored + base);
  }

  override baseAlbedo(surface: i32, cosOut: number): number {
    return 1 - coatAlbedo(this.t, surface, cosOut);
  }

  override evaluateBase(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    o: Float64Array,
    i: Float64Array,
  ): void {
    const passed = (1 - coatAlbedo(this.t, surface, i[2])) * (1 - coatAlbedo(this.t, surface, o[2]));
    const base = ((1 / Math.PI) * passed) / this.t.surfaces[surface + COAT_PASSED];
    for (let c = 0; c < 3; c++) out[c] = albedo[c] * base;
  }

  override evaluate(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    i: Float64Array,
    baseGain: number,
  ): void {
    super.evaluate(out, surface, albedo, mirrorShare, o, i, baseGain);
    if (this.t.surfaces[surface + COAT_ALPHA] > 0) addCoat(out, this.t, surface, mirrorShare, o, i);
  }

  override sample(
    out: Float64Array,
    surface: i32,
    _albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    choice: number,
    uv: Float64Array,
  ): boolean {
    if (choice < mirrorShare) sampleCoat(out, this.t, surface, o, uv);
    else cosineAbove(out, uv);
    return out[2] > 1e-6;
  }
}
