import { CLOTH, COATED, METAL, type Surface, TRANSLUCENT, WAX } from '../geometry/surface.js';
import { type Coat, coatAlbedo } from '../optics/coat.js';
import { fresnelMean } from '../optics/fresnel.js';
import { evaluateMetal, metalShare, sampleFacets } from '../optics/metal.js';
import { ggxDensity, sampleVisibleNormal, smithLambda, visibleNormalPdf } from '../optics/microfacet.js';
import { meanSheenAlbedo, sheenAlbedo, sheenLobe } from '../optics/sheen.js';

/**
 * Scattering of all surfaces but clear mirrors and glass: value, density and sampling of one model, kept together.
 * Directions are unit and in the frame of the shading normal (z up); `o` towards the viewer, above the surface;
 * `i` to the light, below it only for what lets light through.
 * The clear mirror image of a coat of roughness 0 is not in here: the path follows it on its own.
 */

/** Places in the result of `evaluateScatter`. */
export const PDF = 3;
export const BASE_PART = 4;

/**
 * Bidirectional scattering and the density with which `sampleScatter` picks `i`.
 * @param out 0-2 reflectance red, green, blue, 1/sr; PDF density, 1/sr; BASE_PART.. of these what has lost its
 *   polarisation, red, green, blue
 * @param albedo colour of the base here  @param mirrorShare chance with which `sampleScatter` takes the mirror lobe
 */
export function evaluateScatter(
  out: Float64Array,
  surface: Surface,
  albedo: Float64Array,
  mirrorShare: number,
  o: Float64Array,
  i: Float64Array,
): void {
  if (surface.lobe !== null && surface.kind === METAL) {
    evaluateMetal(out, surface.lobe, mirrorShare, o, i);
    out[BASE_PART] = 0;
    out[BASE_PART + 1] = 0;
    out[BASE_PART + 2] = 0;
    return;
  }
  evaluateBase(out, surface, albedo, o, i);
  for (let c = 0; c < 3; c++) out[BASE_PART + c] = out[c] as number;
  const iz = i[2] as number;
  if (surface.kind === TRANSLUCENT) {
    const back = sentBackShare(surface, albedo);
    out[PDF] = (iz > 0 ? back * iz : (back - 1) * iz) / Math.PI;
    return;
  }
  const diffusePdf = iz / Math.PI;
  const { coat } = surface;
  out[PDF] = diffusePdf;
  if (coat === null || coat.alpha === 0) return;
  const { alpha } = coat;
  const ox = o[0] as number;
  const oy = o[1] as number;
  const oz = o[2] as number;
  let hx = ox + (i[0] as number);
  let hy = oy + (i[1] as number);
  let hz = oz + iz;
  const size = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  hx *= size;
  hy *= size;
  hz *= size;
  const oh = Math.min(1, ox * hx + oy * hy + oz * hz);
  const masking = 1 / (1 + smithLambda(oz, alpha) + smithLambda(iz, alpha));
  const mirrored = (fresnelMean(oh, coat.index) * ggxDensity(hz, alpha) * masking) / (4 * oz * iz);
  for (let c = 0; c < 3; c++) out[c] = (out[c] as number) + mirrored;
  const mirroredPdf = visibleNormalPdf(oz, hz, oh, alpha) / (4 * oh);
  out[PDF] = mirrorShare * mirroredPdf + (1 - mirrorShare) * diffusePdf;
}

/** Bidirectional scattering of the base alone, as seen through any coat or sheen. @param out 0-2, 1/sr */
export function evaluateBase(
  out: Float64Array,
  surface: Surface,
  albedo: Float64Array,
  o: Float64Array,
  i: Float64Array,
): void {
  const iz = i[2] as number;
  if (iz < 0) {
    for (let c = 0; c < 3; c++) out[c] = (surface.spread[c] as number) / Math.PI;
    return;
  }
  const { coat } = surface;
  let base = 1 / Math.PI;
  let sheen = 0;
  if (coat !== null) {
    const passed = (1 - coatAlbedo(coat, iz)) * (1 - coatAlbedo(coat, o[2] as number));
    // Wax scatters under its skin, not here: its entry has the mirror lobe alone.
    base = surface.kind === WAX ? 0 : (base * passed) / coat.passedMean;
  } else if (surface.kind === CLOTH) {
    const s = surface.sheen;
    const oz = o[2] as number;
    base *= ((1 - s * sheenAlbedo(iz)) * (1 - s * sheenAlbedo(oz))) / (1 - s * meanSheenAlbedo());
    const hx = (o[0] as number) + (i[0] as number);
    const hy = (o[1] as number) + (i[1] as number);
    const hz = oz + iz;
    sheen = s * sheenLobe(oz, iz, hz / Math.sqrt(hx * hx + hy * hy + hz * hz));
  }
  for (let c = 0; c < 3; c++) out[c] = (albedo[c] as number) * base + sheen;
}

/** Part of even light from all round that the base sends to a direction, over its colour. */
export function baseAlbedo(surface: Surface, cosOut: number): number {
  return surface.coat === null ? 1 : 1 - coatAlbedo(surface.coat, cosOut);
}

/** Of what a thin sheet scatters evenly the part that is sent back rather than let through. */
export function sentBackShare(surface: Surface, albedo: Float64Array): number {
  const back = (albedo[0] as number) + (albedo[1] as number) + (albedo[2] as number);
  const through = surface.spread[0] + surface.spread[1] + surface.spread[2];
  return back + through > 0 ? back / (back + through) : 1;
}

/**
 * Samples the coat's mirror lobe alone.
 * @param out 0-2 direction in the local frame
 * @returns weight of the direction: reflectance over density; 0 when it points into the surface
 */
export function sampleCoat(out: Float64Array, coat: Coat, o: Float64Array, uv: Float64Array): number {
  const ox = o[0] as number;
  const oy = o[1] as number;
  const oz = o[2] as number;
  if (coat.alpha === 0) {
    out[0] = -ox;
    out[1] = -oy;
    out[2] = oz;
    return fresnelMean(oz, coat.index);
  }
  sampleVisibleNormal(half, ox, oy, oz, coat.alpha, uv[0] as number, uv[1] as number);
  const oh = ox * (half[0] as number) + oy * (half[1] as number) + oz * (half[2] as number);
  for (let a = 0; a < 3; a++) out[a] = 2 * oh * (half[a] as number) - (o[a] as number);
  const iz = out[2] as number;
  if (!(iz > 1e-6)) return 0;
  const lambdaOut = smithLambda(oz, coat.alpha);
  const masking = (1 + lambdaOut) / (1 + lambdaOut + smithLambda(iz, coat.alpha));
  return fresnelMean(Math.min(1, oh), coat.index) * masking;
}

/** Chance to follow the mirror lobe rather than the base, from what each would send back. 0 for matte. */
export function mirrorShareOf(surface: Surface, albedo: Float64Array, cosOut: number): number {
  if (surface.kind === METAL && surface.lobe !== null) return metalShare(surface.lobe, cosOut);
  if ((surface.kind !== COATED && surface.kind !== WAX) || surface.coat === null) return 0;
  const mirrored = coatAlbedo(surface.coat, cosOut);
  const base = (1 - mirrored) * Math.max(albedo[0] as number, albedo[1] as number, albedo[2] as number);
  return mirrored / (mirrored + base);
}

const half = new Float64Array(3);

/**
 * Samples a direction with the density that `evaluateScatter` reports.
 * @param out 0-2 direction in the local frame
 * @returns false when the sampled direction points into the surface
 */
export function sampleScatter(
  out: Float64Array,
  surface: Surface,
  albedo: Float64Array,
  mirrorShare: number,
  o: Float64Array,
  choice: number,
  uv: Float64Array,
): boolean {
  if (choice < mirrorShare) {
    if (surface.kind === METAL && surface.lobe !== null) return sampleFacets(out, surface.lobe, o, uv);
    if (surface.coat !== null) {
      sampleCoat(out, surface.coat, o, uv);
      return (out[2] as number) > 1e-6;
    }
  }
  cosineAbove(out, uv);
  if (surface.kind === TRANSLUCENT && choice >= sentBackShare(surface, albedo)) out[2] = -(out[2] as number);
  return Math.abs(out[2] as number) > 1e-6;
}

/** A direction above the surface with density cosine / pi. */
export function cosineAbove(out: Float64Array, uv: Float64Array): void {
  const radius = Math.sqrt(uv[0] as number);
  const phi = 2 * Math.PI * (uv[1] as number);
  out[0] = radius * Math.cos(phi);
  out[1] = radius * Math.sin(phi);
  out[2] = Math.sqrt(1 - (uv[0] as number));
}
