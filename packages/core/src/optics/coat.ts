import { requireDomain } from '../errors.js';
import { diffuseFresnelOutside, fresnelMean } from './fresnel.js';
import { sampleVisibleNormal, smithLambda } from './microfacet.js';

/** Below this GGX alpha a coat is a clear mirror. */
export const CLEAR_COAT_ALPHA = 1e-3;

const ENTRIES = 64;
const QUADRATURE = 24;

/**
 * A dielectric coat over a matte base, as used by shading.
 *
 * Model: the coat mirrors (Fresnel, GGX single scattering); what it does not mirror reaches the base, is
 * scattered evenly, and leaves after any number of bounces under the coat:
 * f = rho (1 - Fi) / (1 - rho Fi) (1 - E(wi)) (1 - E(wo)) / (pi (1 - Eavg)),
 * Fi the diffuse reflectance of the coat from inside. With rho = 1 all light comes back.
 * Limits: no absorption in the coat, no multiple scattering between facets (their loss goes to the base).
 * Source: docs/physics/surfaces.md
 */
export interface Coat {
  index: number;
  /** GGX alpha, 0 for a clear coat. */
  alpha: number;
  /** 1 - mean over a diffuse hemisphere of the directional albedo. */
  passedMean: number;
  /** Diffuse reflectance of the coat from inside. */
  insideDiffuse: number;
  /** Directional albedo at cosine (i/ENTRIES)^2; only used by rough coats. */
  albedo: Float64Array;
}

const made = new Map<string, Coat>();

/** @throws {DomainError} index below 1, or alpha outside of 0 to 1 */
export function makeCoat(index: number, roughness: number): Coat {
  requireDomain(index >= 1, 'a coat has an index of 1 or more');
  requireDomain(roughness >= 0 && roughness <= 1, 'a roughness lies from 0 to 1');
  const alpha = roughness < CLEAR_COAT_ALPHA ? 0 : roughness;
  const key = `${index} ${alpha}`;
  const known = made.get(key);
  if (known) return known;
  const outside = diffuseFresnelOutside(index);
  const coat: Coat = {
    index,
    alpha,
    passedMean: 1 - outside,
    insideDiffuse: 1 - (1 - outside) / index ** 2,
    albedo: new Float64Array(ENTRIES + 2),
  };
  if (alpha > 0) {
    tabulateAlbedo(coat);
    coat.passedMean = 1 - averageAlbedo(coat);
  }
  made.set(key, coat);
  return coat;
}

/** Part of light from a direction that the coat itself mirrors, in all directions together. */
export function coatAlbedo(coat: Coat, cosine: number): number {
  if (coat.alpha === 0) return fresnelMean(cosine, coat.index);
  const at = Math.sqrt(cosine) * ENTRIES;
  const i = at | 0;
  const low = coat.albedo[i] as number;
  return low + (at - i) * ((coat.albedo[i + 1] as number) - low);
}

/** Effective base reflectance after the bounces under the coat: rho (1 - Fi) / (1 - rho Fi). */
export function coveredReflectance(coat: Coat, reflectance: number): number {
  return (reflectance * (1 - coat.insideDiffuse)) / (1 - reflectance * coat.insideDiffuse);
}

function tabulateAlbedo(coat: Coat): void {
  const half = new Float64Array(3);
  for (let i = 0; i <= ENTRIES; i++) {
    const oz = Math.max(1e-4, (i / ENTRIES) ** 2);
    const ox = Math.sqrt(1 - oz * oz);
    const lambdaOut = smithLambda(oz, coat.alpha);
    let sum = 0;
    for (let a = 0; a < QUADRATURE; a++) {
      for (let b = 0; b < QUADRATURE; b++) {
        sampleVisibleNormal(half, ox, 0, oz, coat.alpha, (a + 0.5) / QUADRATURE, (b + 0.5) / QUADRATURE);
        const outDotHalf = ox * (half[0] as number) + oz * (half[2] as number);
        const inZ = 2 * outDotHalf * (half[2] as number) - oz;
        if (!(inZ > 0)) continue;
        const fresnel = fresnelMean(Math.min(1, Math.max(0, outDotHalf)), coat.index);
        sum += (fresnel * (1 + lambdaOut)) / (1 + lambdaOut + smithLambda(inZ, coat.alpha));
      }
    }
    coat.albedo[i] = sum / QUADRATURE ** 2;
  }
  coat.albedo[ENTRIES + 1] = coat.albedo[ENTRIES] as number;
}

function averageAlbedo(coat: Coat): number {
  const steps = 512;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const mu = (i + 0.5) / steps;
    sum += 2 * mu * coatAlbedo(coat, mu);
  }
  return sum / steps;
}
