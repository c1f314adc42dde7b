import { COATED, MATTE, type Surface } from '../geometry/surface.js';
import { coatAlbedo } from '../optics/coat.js';
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
  if (surface.kind === MATTE || coat === null) {
    out[0] = surface.r / Math.PI;
    out[1] = surface.g / Math.PI;
    out[2] = surface.b / Math.PI;
    out[3] = diffusePdf;
    return;
  }
  const base = ((1 - coatAlbedo(coat, iz)) * (1 - coatAlbedo(coat, oz))) / (Math.PI * coat.passedMean);
  let mirrored = 0;
  let mirroredPdf = 0;
  const { alpha } = coat;
  if (alpha > 0) {
    let hx = ox + ix;
    let hy = oy + iy;
    let hz = oz + iz;
    const size = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
    hx *= size;
    hy *= size;
    hz *= size;
    const oh = Math.min(1, ox * hx + oy * hy + oz * hz);
    const masking = 1 / (1 + smithLambda(oz, alpha) + smithLambda(iz, alpha));
    mirrored = (fresnelMean(oh, coat.index) * ggxDensity(hz, alpha) * masking) / (4 * oz * iz);
    mirroredPdf = visibleNormalPdf(oz, hz, oh, alpha) / (4 * oh);
  }
  out[0] = surface.r * base + mirrored;
  out[1] = surface.g * base + mirrored;
  out[2] = surface.b * base + mirrored;
  out[3] = mirrorShare * mirroredPdf + (1 - mirrorShare) * diffusePdf;
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
    const ox = o[0] as number;
    const oy = o[1] as number;
    const oz = o[2] as number;
    sampleVisibleNormal(half, ox, oy, oz, surface.coat.alpha, u, v);
    const hx = half[0] as number;
    const hy = half[1] as number;
    const hz = half[2] as number;
    const twice = 2 * (ox * hx + oy * hy + oz * hz);
    out[0] = twice * hx - ox;
    out[1] = twice * hy - oy;
    out[2] = twice * hz - oz;
    return (out[2] as number) > 1e-6;
  }
  const radius = Math.sqrt(u);
  const phi = 2 * Math.PI * v;
  out[0] = radius * Math.cos(phi);
  out[1] = radius * Math.sin(phi);
  out[2] = Math.sqrt(1 - u);
  return (out[2] as number) > 1e-6;
}
