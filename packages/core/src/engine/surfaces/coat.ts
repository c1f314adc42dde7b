/**
 * A coat of clear lacquer or glaze, or a skin: it mirrors (Fresnel, GGX single scattering); what it does not mirror
 * goes under it. The clear image in a coat of roughness 0 is not sampled here: paths follow it on their own.
 * Source: docs/physics/surfaces.md
 */
import { fresnelMean } from '../fresnel.js';
import { COAT_ALPHA, COAT_INDEX, COAT_TABLE } from '../layouts.js';
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
import { PDF } from './surfaceModel.js';

const half = new Float64Array(3);

/** Part of light from a direction that a coat itself mirrors, in all directions together. */
export function coatAlbedo(t: SceneTables, surface: i32, cosine: number): number {
  const s = t.surfaces;
  if (s[surface + COAT_ALPHA] === 0) return fresnelMean(cosine, s[surface + COAT_INDEX]);
  return tableAlbedo(t.albedos, whole32(s[surface + COAT_TABLE]), cosine);
}

/** Adds the lobe of a rough coat to the value and density of what lies under it. */
export function addCoat(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  mirrorShare: number,
  o: Float64Array,
  i: Float64Array,
): void {
  const index = t.surfaces[surface + COAT_INDEX];
  const alpha = t.surfaces[surface + COAT_ALPHA];
  const oz = o[2];
  const iz = i[2];
  const oh = halfVector(half, o, i[0], i[1], iz);
  const masking = 1 / (1 + smithLambda(oz, alpha) + smithLambda(iz, alpha));
  const mirrored = (fresnelMean(oh, index) * ggxDensity(half[2], alpha) * masking) / (4 * oz * iz);
  for (let c = 0; c < 3; c++) out[c] = out[c] + mirrored;
  const mirroredPdf = visibleNormalPdf(oz, half[2], oh, alpha) / (4 * oh);
  out[PDF] = mirrorShare * mirroredPdf + (1 - mirrorShare) * out[PDF];
}

/**
 * Samples the lobe of a coat alone.
 * @param out 0-2 direction in the local frame
 * @returns weight of the direction: reflectance over density; 0 when it points into the surface
 */
export function sampleCoat(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  o: Float64Array,
  uv: Float64Array,
): number {
  const index = t.surfaces[surface + COAT_INDEX];
  const alpha = t.surfaces[surface + COAT_ALPHA];
  const oz = o[2];
  if (alpha === 0) {
    out[0] = -o[0];
    out[1] = -o[1];
    out[2] = oz;
    return fresnelMean(oz, index);
  }
  sampleVisibleNormal(half, o, alpha, alpha, uv);
  const oh = mirrorInFacet(out, half, o);
  const iz = out[2];
  if (!(iz > 1e-6)) return 0;
  const lambdaOut = smithLambda(oz, alpha);
  const masking = (1 + lambdaOut) / (1 + lambdaOut + smithLambda(iz, alpha));
  return fresnelMean(Math.min(1, oh), index) * masking;
}
