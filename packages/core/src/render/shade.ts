import { COATED, type Surface } from '../geometry/surface.js';
import { type Coat, coatAlbedo } from '../optics/coat.js';
import { fresnelMean } from '../optics/fresnel.js';
import { ggxDensity, sampleVisibleNormal, smithLambda, visibleNormalPdf } from '../optics/microfacet.js';

/**
 * Scattering of matte and coated surfaces: value, density and sampling of one model, kept together.
 * Directions are unit and in the frame of the shading normal (z up); `o` towards the viewer, `i` to the light.
 * The clear mirror image of a coat of roughness 0 is not in here: the path follows it on its own.
 */

/**
 * Bidirectional reflectance and the density with which `sampleScatter` picks `i`.
 * @param out 0-2 reflectance red, green, blue, 1/sr; 3 density, 1/sr
 * @param mirrorShare chance with which `sampleScatter` takes the coat's lobe
 */
export function evaluateScatter(
  out: Float64Array,
  surface: Surface,
  mirrorShare: number,
  o: Float64Array,
  i: Float64Array,
): void {
  const ox = o[0] as number;
  const oy = o[1] as number;
  const oz = o[2] as number;
  const ix = i[0] as number;
  const iy = i[1] as number;
  const iz = i[2] as number;
  const diffusePdf = iz / Math.PI;
  const { coat } = surface;
  evaluateBase(out, surface, o, i);
  out[3] = diffusePdf;
  if (coat === null || coat.alpha === 0) return;
  const { alpha } = coat;
  let hx = ox + ix;
  let hy = oy + iy;
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
  out[3] = mirrorShare * mirroredPdf + (1 - mirrorShare) * diffusePdf;
}

/** Bidirectional reflectance of the matte base alone, as seen through any coat. @param out 0-2, 1/sr */
export function evaluateBase(out: Float64Array, surface: Surface, o: Float64Array, i: Float64Array): void {
  const { coat } = surface;
  let base = 1 / Math.PI;
  if (coat !== null) {
    const passed = (1 - coatAlbedo(coat, i[2] as number)) * (1 - coatAlbedo(coat, o[2] as number));
    base *= passed / coat.passedMean;
  }
  out[0] = surface.r * base;
  out[1] = surface.g * base;
  out[2] = surface.b * base;
}

/** Part of even light from all round that the base sends to a direction, over its colour. */
export function baseAlbedo(surface: Surface, cosOut: number): number {
  return surface.coat === null ? 1 : 1 - coatAlbedo(surface.coat, cosOut);
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

/** Chance to follow the coat rather than the base, from what each would send back. 0 for matte. */
export function coatShare(surface: Surface, cosOut: number): number {
  if (surface.kind !== COATED || surface.coat === null) return 0;
  const mirrored = coatAlbedo(surface.coat, cosOut);
  const base = (1 - mirrored) * Math.max(surface.r, surface.g, surface.b);
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
  mirrorShare: number,
  o: Float64Array,
  choice: number,
  uv: Float64Array,
): boolean {
  const u = uv[0] as number;
  const v = uv[1] as number;
  if (choice < mirrorShare && surface.coat !== null) {
    sampleCoat(out, surface.coat, o, uv);
    return (out[2] as number) > 1e-6;
  }
  const radius = Math.sqrt(u);
  const phi = 2 * Math.PI * v;
  out[0] = radius * Math.cos(phi);
  out[1] = radius * Math.sin(phi);
  out[2] = Math.sqrt(1 - u);
  return (out[2] as number) > 1e-6;
}
