/**
 * Scattering of all surfaces but clear mirrors and glass: value, density and sampling of one model, kept together.
 * Directions are unit and in the frame of the shading normal (z up); `o` towards the viewer, above the surface;
 * `i` to the light, below it only for what lets light through. A surface is a place in `tables.surfaces`.
 * The clear mirror image of a coat of roughness 0 is not in here: the path follows it on its own.
 *
 * Coat: the coat mirrors (Fresnel, GGX single scattering); what it does not mirror reaches the base, is scattered
 * evenly, and leaves after any number of bounces under the coat.
 * Metal: GGX facets with conductor Fresnel, and what scatters between facets as an even lobe (Kulla and Conty 2017).
 * Source: docs/physics/surfaces.md
 */
import { fresnelConductor, fresnelMean } from './fresnel.js';
import {
  ALPHA_X,
  ALPHA_Y,
  CLOTH,
  COAT_ALPHA,
  COAT_INDEX,
  COAT_PASSED,
  COAT_TABLE,
  INDEX_K,
  INDEX_N,
  LOBE_BETWEEN,
  LOBE_LOST_MEAN,
  LOBE_TABLE,
  METAL,
  SHEEN,
  SPREAD,
  SURFACE_KIND,
  TRANSLUCENT,
  WAX,
} from './layouts.js';
import {
  ggxDensity,
  mirrorInFacet,
  sampleVisibleNormal,
  smithLambda,
  stretchedLambda,
  tableAlbedo,
  visibleNormalPdf,
} from './microfacet.js';
import { type i32, whole32 } from './portable.js';
import { meanSheenAlbedo, sheenAlbedo, sheenLobe } from './sheen.js';
import type { SceneTables } from './tables.js';
import { cosineAbove } from './vectors.js';

/** Places in the result of `evaluateScatter`: density; red, green, blue of what has lost its polarisation. */
export const PDF = 3;
export const BASE_PART = 4;

const half = new Float64Array(3);

/** Part of light from a direction that a coat itself mirrors, in all directions together. */
export function coatAlbedo(t: SceneTables, o: i32, cosine: number): number {
  const s = t.surfaces;
  if (s[o + COAT_ALPHA] === 0) return fresnelMean(cosine, s[o + COAT_INDEX]);
  return tableAlbedo(t.albedos, whole32(s[o + COAT_TABLE]), cosine);
}

/** Albedo of the facets of a mirror lobe alone with reflectance 1. */
export function facetAlbedo(t: SceneTables, o: i32, cosine: number): number {
  return tableAlbedo(t.albedos, whole32(t.surfaces[o + LOBE_TABLE]), cosine);
}

/** Reflectance of one channel of a mirror lobe at a cosine. */
export function lobeFresnel(t: SceneTables, o: i32, channel: i32, cosine: number): number {
  const n = t.surfaces[o + INDEX_N + channel];
  const k = t.surfaces[o + INDEX_K + channel];
  return k < 0 ? n : fresnelConductor(cosine, n, k);
}

/**
 * Bidirectional scattering and the density with which `sampleScatter` picks `i`.
 * @param out 0-2 reflectance red, green, blue, 1/sr; PDF density, 1/sr; BASE_PART.. of these what has lost its
 *   polarisation
 * @param albedo colour of the base here  @param mirrorShare chance with which `sampleScatter` takes the mirror lobe
 * @param baseGain how much likelier than by the cosine law the base sends its sample there, see `PathGuide`
 */
export function evaluateScatter(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  albedo: Float64Array,
  mirrorShare: number,
  o: Float64Array,
  i: Float64Array,
  baseGain: number = 1,
): void {
  const s = t.surfaces;
  const kind = whole32(s[surface + SURFACE_KIND]);
  if (kind === METAL) {
    evaluateMetal(out, t, surface, mirrorShare, o, i);
    return;
  }
  evaluateBase(out, t, surface, albedo, o, i);
  for (let c = 0; c < 3; c++) out[BASE_PART + c] = out[c];
  const iz = i[2];
  if (kind === TRANSLUCENT) {
    const back = sentBackShare(t, surface, albedo);
    out[PDF] = (iz > 0 ? back * iz * baseGain : (back - 1) * iz) / Math.PI;
    return;
  }
  const diffusePdf = (baseGain * iz) / Math.PI;
  out[PDF] = diffusePdf;
  const index = s[surface + COAT_INDEX];
  const alpha = s[surface + COAT_ALPHA];
  if (index === 0 || alpha === 0) return;
  const oz = o[2];
  let hx = o[0] + i[0];
  let hy = o[1] + i[1];
  let hz = oz + iz;
  const size = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  hx *= size;
  hy *= size;
  hz *= size;
  const oh = Math.min(1, o[0] * hx + o[1] * hy + oz * hz);
  const masking = 1 / (1 + smithLambda(oz, alpha) + smithLambda(iz, alpha));
  const mirrored = (fresnelMean(oh, index) * ggxDensity(hz, alpha) * masking) / (4 * oz * iz);
  for (let c = 0; c < 3; c++) out[c] = out[c] + mirrored;
  const mirroredPdf = visibleNormalPdf(oz, hz, oh, alpha) / (4 * oh);
  out[PDF] = mirrorShare * mirroredPdf + (1 - mirrorShare) * diffusePdf;
}

function evaluateMetal(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  mirrorShare: number,
  o: Float64Array,
  i: Float64Array,
): void {
  const s = t.surfaces;
  const oz = o[2];
  const iz = i[2];
  let hx = o[0] + i[0];
  let hy = o[1] + i[1];
  let hz = oz + iz;
  const size = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  hx *= size;
  hy *= size;
  hz *= size;
  const oh = Math.min(1, o[0] * hx + o[1] * hy + oz * hz);
  const alphaX = s[surface + ALPHA_X];
  const alphaY = s[surface + ALPHA_Y];
  const ex = hx / alphaX;
  const ey = hy / alphaY;
  const e = ex * ex + ey * ey + hz * hz;
  const density = 1 / (Math.PI * alphaX * alphaY * e * e);
  const lambdaOut = stretchedLambda(o, alphaX, alphaY);
  const masking = 1 / (1 + lambdaOut + stretchedLambda(i, alphaX, alphaY));
  const facets = (density * masking) / (4 * oz * iz);
  const lostOut = 1 - facetAlbedo(t, surface, oz);
  const lostIn = 1 - facetAlbedo(t, surface, iz);
  const lost = (lostOut * lostIn) / (Math.PI * Math.max(1e-9, s[surface + LOBE_LOST_MEAN]));
  for (let c = 0; c < 3; c++) {
    out[c] = facets * lobeFresnel(t, surface, c, oh) + lost * s[surface + LOBE_BETWEEN + c];
    out[BASE_PART + c] = 0;
  }
  const facetPdf = density / (4 * oz * (1 + lambdaOut));
  out[PDF] = mirrorShare * facetPdf + (1 - mirrorShare) * (iz / Math.PI);
}

/** Bidirectional scattering of the base alone, as seen through any coat or sheen. @param out 0-2, 1/sr */
export function evaluateBase(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  albedo: Float64Array,
  o: Float64Array,
  i: Float64Array,
): void {
  const s = t.surfaces;
  const iz = i[2];
  if (iz < 0) {
    for (let c = 0; c < 3; c++) out[c] = s[surface + SPREAD + c] / Math.PI;
    return;
  }
  const kind = whole32(s[surface + SURFACE_KIND]);
  let base = 1 / Math.PI;
  let sheen: number = 0;
  if (s[surface + COAT_INDEX] !== 0) {
    const passed = (1 - coatAlbedo(t, surface, iz)) * (1 - coatAlbedo(t, surface, o[2]));
    // Wax scatters under its skin, not here: its entry has the mirror lobe alone.
    base = kind === WAX ? 0 : (base * passed) / s[surface + COAT_PASSED];
  } else if (kind === CLOTH) {
    const part = s[surface + SHEEN];
    const oz = o[2];
    base *= ((1 - part * sheenAlbedo(iz)) * (1 - part * sheenAlbedo(oz))) / (1 - part * meanSheenAlbedo());
    const hx = o[0] + i[0];
    const hy = o[1] + i[1];
    const hz = oz + iz;
    sheen = part * sheenLobe(oz, iz, hz / Math.sqrt(hx * hx + hy * hy + hz * hz));
  }
  for (let c = 0; c < 3; c++) out[c] = albedo[c] * base + sheen;
}

/** Part of even light from all round that the base sends to a direction, over its colour. */
export function baseAlbedo(t: SceneTables, surface: i32, cosOut: number): number {
  return t.surfaces[surface + COAT_INDEX] === 0 ? 1 : 1 - coatAlbedo(t, surface, cosOut);
}

/** Part of even light that the base, with any sheen, sends to a direction; what a coat mirrors is not counted. */
export function sentByBase(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  albedo: Float64Array,
  cosOut: number,
): void {
  const kept = baseAlbedo(t, surface, cosOut);
  const sheen: number =
    whole32(t.surfaces[surface + SURFACE_KIND]) === CLOTH
      ? t.surfaces[surface + SHEEN] * sheenAlbedo(cosOut)
      : 0;
  for (let c = 0; c < 3; c++) out[c] = albedo[c] * kept * (1 - sheen) + sheen;
}

/** Of what a thin sheet scatters evenly the part that is sent back rather than let through. */
export function sentBackShare(t: SceneTables, surface: i32, albedo: Float64Array): number {
  const s = t.surfaces;
  const back = albedo[0] + albedo[1] + albedo[2];
  const through = s[surface + SPREAD] + s[surface + SPREAD + 1] + s[surface + SPREAD + 2];
  return back + through > 0 ? back / (back + through) : 1;
}

/**
 * Samples the coat's mirror lobe alone.
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

/** Chance to follow the mirror lobe rather than the base, from what each would send back. 0 for matte. */
export function mirrorShareOf(t: SceneTables, surface: i32, albedo: Float64Array, cosOut: number): number {
  const kind = whole32(t.surfaces[surface + SURFACE_KIND]);
  if (kind === METAL) return Math.max(0.5, facetAlbedo(t, surface, cosOut));
  if (t.surfaces[surface + COAT_INDEX] === 0) return 0;
  const mirrored = coatAlbedo(t, surface, cosOut);
  if (!(mirrored > 0)) return 0;
  const most = Math.max(albedo[0], Math.max(albedo[1], albedo[2]));
  const base = (1 - mirrored) * most;
  return mirrored / (mirrored + base);
}

/**
 * Samples a direction with the density that `evaluateScatter` reports.
 * @param out 0-2 direction in the local frame
 * @returns false when the sampled direction points into the surface
 */
export function sampleScatter(
  out: Float64Array,
  t: SceneTables,
  surface: i32,
  albedo: Float64Array,
  mirrorShare: number,
  o: Float64Array,
  choice: number,
  uv: Float64Array,
): boolean {
  const kind = whole32(t.surfaces[surface + SURFACE_KIND]);
  if (choice < mirrorShare) {
    if (kind === METAL) {
      const s = t.surfaces;
      sampleVisibleNormal(half, o, s[surface + ALPHA_X], s[surface + ALPHA_Y], uv);
      mirrorInFacet(out, half, o);
    } else sampleCoat(out, t, surface, o, uv);
    return out[2] > 1e-6;
  }
  cosineAbove(out, uv);
  if (kind === TRANSLUCENT && choice >= sentBackShare(t, surface, albedo)) out[2] = -out[2];
  return Math.abs(out[2]) > 1e-6;
}
