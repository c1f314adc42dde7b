import { ALPHA_X, ALPHA_Y, CUBIC, LOBE_BETWEEN } from '../layouts.js';
import { halfVector, mirrorInFacet, sampleVisibleNormal, stretchedLambda } from '../microfacet.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { cosineAbove } from '../vectors.js';
import { facetAlbedo, lobeFresnel, lobePolarisation } from './mirrorLobe.js';
import { BASE_PART, NARROW_ALPHA, PDF, SurfaceModel } from './surfaceModel.js';

const half = new Float64Array(3);

/**
 * Satin and brushed metal, foil, silver card: GGX facets with conductor Fresnel, and what scatters between facets as
 * an even lobe (Kulla and Conty 2017) of as much as walks from facet to facet bring back (Heitz et al. 2016).
 * Source: docs/physics/surfaces.md
 */
export class Metal extends SurfaceModel {
  constructor(t: SceneTables) {
    super(t);
    this.isRough = true;
  }

  override roughness(surface: i32): number {
    return this.t.surfaces[surface + ALPHA_Y];
  }

  override bundlesByLobe(surface: i32): boolean {
    return this.t.surfaces[surface + ALPHA_Y] < NARROW_ALPHA;
  }

  override reflectance(out: Float64Array, surface: i32, cosine: number): boolean {
    for (let c = 0; c < 3; c++) out[c] = lobeFresnel(this.t, surface, c, cosine);
    return true;
  }

  override polarise(out: Float64Array, surface: i32, cosine: number): void {
    lobePolarisation(out, this.t, surface, cosine);
  }

  override mirrorShare(surface: i32, _albedo: Float64Array, cosOut: number): number {
    return Math.max(0.5, facetAlbedo(this.t, surface, cosOut));
  }

  evaluate(
    out: Float64Array,
    surface: i32,
    _albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    i: Float64Array,
    _baseGain: number,
  ): void {
    const t = this.t;
    const s = t.surfaces;
    const oz = o[2];
    const iz = i[2];
    const oh = halfVector(half, o, i[0], i[1], iz);
    const alphaX = s[surface + ALPHA_X];
    const alphaY = s[surface + ALPHA_Y];
    const ex = half[0] / alphaX;
    const ey = half[1] / alphaY;
    const e = ex * ex + ey * ey + half[2] * half[2];
    const density = 1 / (Math.PI * alphaX * alphaY * e * e);
    const lambdaOut = stretchedLambda(o, alphaX, alphaY);
    const masking = 1 / (1 + lambdaOut + stretchedLambda(i, alphaX, alphaY));
    const facets = (density * masking) / (4 * oz * iz);
    const lostOut = 1 - facetAlbedo(t, surface, oz);
    const lostIn = 1 - facetAlbedo(t, surface, iz);
    const lost = (lostOut * lostIn) / Math.PI;
    for (let c = 0; c < 3; c++) {
      const between = lost * this.kept(surface, c, oz) * this.kept(surface, c, iz);
      out[c] = facets * lobeFresnel(t, surface, c, oh) + between;
      out[BASE_PART + c] = 0;
    }
    const facetPdf = density / (4 * oz * (1 + lambdaOut));
    out[PDF] = mirrorShare * facetPdf + (1 - mirrorShare) * (iz / Math.PI);
  }

  /** What one channel keeps of light between facets that comes or goes at a cosine. */
  private kept(surface: i32, channel: i32, cosine: number): number {
    const s = this.t.surfaces;
    const at = surface + LOBE_BETWEEN + CUBIC * channel;
    return s[at] + cosine * (s[at + 1] + cosine * (s[at + 2] + cosine * s[at + 3]));
  }

  sample(
    out: Float64Array,
    surface: i32,
    _albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    choice: number,
    uv: Float64Array,
  ): boolean {
    const s = this.t.surfaces;
    if (choice < mirrorShare) {
      sampleVisibleNormal(half, o, s[surface + ALPHA_X], s[surface + ALPHA_Y], uv);
      mirrorInFacet(out, half, o);
    } else cosineAbove(out, uv);
    return out[2] > 1e-6;
  }
}
