import { RETURN_ALPHA, RETURN_COLOUR, RETURN_MEAN, RETURN_TABLE } from '../layouts.js';
import {
  ggxDensity,
  halfVector,
  mirrorInFacet,
  sampleVisibleNormal,
  smithLambda,
  tableAlbedo,
  visibleNormalPdf,
} from '../microfacet.js';
import { type i32, whole32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { cosineAbove, most3 } from '../vectors.js';
import { EvenBase } from './evenBase.js';
import { PDF } from './surfaceModel.js';

const half = new Float64Array(3);

/**
 * Reflective tape and trim: a GGX lobe round the way that light came, over an even base that gets what the lobe leaves.
 * Limits: one spread, the same at all angles of incidence; no shade of the beads on each other beyond that of facets.
 * Source: back vector, Belcour, Pacanowski, Delahaie, Laville-Geay, Eupherte 2014; docs/physics/surfaces.md
 */
export class Retroreflective extends EvenBase {
  constructor(t: SceneTables) {
    super(t);
    this.takesIrradiance = true;
  }

  override roughness(surface: i32): number {
    return this.t.surfaces[surface + RETURN_ALPHA];
  }

  override mirrorShare(surface: i32, albedo: Float64Array, cosOut: number): number {
    const returned = this.most(surface) * this.lobeAlbedo(surface, cosOut);
    if (!(returned > 0)) return 0;
    const base = (1 - returned) * most3(albedo);
    return returned / (returned + base);
  }

  override baseAlbedo(surface: i32, cosOut: number): number {
    return 1 - this.most(surface) * this.lobeAlbedo(surface, cosOut);
  }

  override evaluateBase(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    o: Float64Array,
    i: Float64Array,
  ): void {
    const most = this.most(surface);
    const left = (1 - most * this.lobeAlbedo(surface, i[2])) * (1 - most * this.lobeAlbedo(surface, o[2]));
    const base = left / (Math.PI * (1 - most * this.t.surfaces[surface + RETURN_MEAN]));
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
    const s = this.t.surfaces;
    const alpha = s[surface + RETURN_ALPHA];
    const oz = o[2];
    const iz = i[2];
    // Between the viewer and what a mirror would send there: the direction turned half round the normal.
    const oh = halfVector(half, o, -i[0], -i[1], iz);
    const masking = 1 / (1 + smithLambda(oz, alpha) + smithLambda(iz, alpha));
    const lobe = (ggxDensity(half[2], alpha) * masking) / (4 * oz * iz);
    for (let c = 0; c < 3; c++) out[c] = out[c] + s[surface + RETURN_COLOUR + c] * lobe;
    const lobePdf = visibleNormalPdf(oz, half[2], oh, alpha) / (4 * oh);
    out[PDF] = mirrorShare * lobePdf + (1 - mirrorShare) * out[PDF];
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
    const alpha = this.t.surfaces[surface + RETURN_ALPHA];
    if (choice < mirrorShare) {
      sampleVisibleNormal(half, o, alpha, alpha, uv);
      mirrorInFacet(out, half, o);
      out[0] = -out[0];
      out[1] = -out[1];
    } else cosineAbove(out, uv);
    return out[2] > 1e-6;
  }

  /** The largest part that goes back, of the three colours. */
  private most(surface: i32): number {
    const s = this.t.surfaces;
    const greenOrBlue = Math.max(s[surface + RETURN_COLOUR + 1], s[surface + RETURN_COLOUR + 2]);
    return Math.max(s[surface + RETURN_COLOUR], greenOrBlue);
  }

  /** Albedo of the lobe with reflectance 1 at a cosine. */
  private lobeAlbedo(surface: i32, cosine: number): number {
    return tableAlbedo(this.t.albedos, whole32(this.t.surfaces[surface + RETURN_TABLE]), cosine);
  }
}
