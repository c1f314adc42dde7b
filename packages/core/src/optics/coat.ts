import { LRUCache } from 'lru-cache';
import { fresnelMean } from '../engine/fresnel.js';
import {
  ALBEDO_ENTRIES,
  mirrorInFacet,
  sampleVisibleNormal,
  smithLambda,
  tableAlbedo,
} from '../engine/microfacet.js';
import { requireDomain } from '../errors.js';
import { diffuseFresnelOutside } from './fresnel.js';

/** Below this GGX alpha a coat is a clear mirror. */
export const CLEAR_COAT_ALPHA = 1e-3;

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
  /** Directional albedo at cosine (i/ALBEDO_ENTRIES)^2; only used by rough coats. */
  albedo: Float64Array;
}

const made = new LRUCache<string, Coat>({ max: 256 });

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
    albedo: new Float64Array(ALBEDO_ENTRIES + 2),
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
  return tableAlbedo(coat.albedo, 0, cosine);
}

/** Effective base reflectance after the bounces under the coat: rho (1 - Fi) / (1 - rho Fi). */
export function coveredReflectance(coat: Coat, reflectance: number): number {
  return (reflectance * (1 - coat.insideDiffuse)) / (1 - reflectance * coat.insideDiffuse);
}

function tabulateAlbedo(coat: Coat): void {
  const { alpha, index, albedo } = coat;
  const half = new Float64Array(3);
  const o = new Float64Array(3);
  const i = new Float64Array(3);
  const uv = new Float64Array(2);
  for (let entry = 0; entry <= ALBEDO_ENTRIES; entry++) {
    const oz = Math.max(1e-4, (entry / ALBEDO_ENTRIES) ** 2);
    o.set([Math.sqrt(1 - oz * oz), 0, oz]);
    const lambdaOut = smithLambda(oz, alpha);
    let sum = 0;
    for (let a = 0; a < QUADRATURE; a++) {
      for (let b = 0; b < QUADRATURE; b++) {
        uv[0] = (a + 0.5) / QUADRATURE;
        uv[1] = (b + 0.5) / QUADRATURE;
        sampleVisibleNormal(half, o, alpha, alpha, uv);
        const outDotHalf = mirrorInFacet(i, half, o);
        const inZ = i[2] as number;
        if (!(inZ > 0)) continue;
        const fresnel = fresnelMean(Math.min(1, Math.max(0, outDotHalf)), index);
        sum += (fresnel * (1 + lambdaOut)) / (1 + lambdaOut + smithLambda(inZ, alpha));
      }
    }
    albedo[entry] = sum / QUADRATURE ** 2;
  }
  albedo[ALBEDO_ENTRIES + 1] = albedo[ALBEDO_ENTRIES] as number;
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
