import type { Metal } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import { CUBIC } from '../engine/layouts.js';
import {
  ALBEDO_ENTRIES,
  mirrorInFacet,
  sampleVisibleNormal,
  stretchedLambda,
  tableAlbedo,
} from '../engine/microfacet.js';
import { requireDomain } from '../errors.js';
import { keptBetweenFacets } from './facetWalk.js';

/** Below this GGX alpha a lobe is a clear mirror image. */
export const CLEAR_ALPHA = 1e-3;

/**
 * Complex refractive index n + ik at 650, 550 and 450 nm, standing for linear red, green and blue.
 * Three wavelengths are not a spectrum: colours are right to a few per cent of reflectance.
 * Sources: silver, gold, copper, chrome, iron (for steel): Johnson and Christy 1972, 1974; aluminium: Palik 1985;
 * brass (70/30): Querry 1985, as averaged over the sRGB primaries.
 */
export const METAL_INDEX: Record<Metal, { n: [number, number, number]; k: [number, number, number] }> = {
  silver: { n: [0.05, 0.06, 0.04], k: [4.41, 3.59, 2.66] },
  aluminium: { n: [1.47, 0.96, 0.62], k: [7.79, 6.69, 5.47] },
  gold: { n: [0.16, 0.42, 1.38], k: [3.58, 2.47, 1.91] },
  copper: { n: [0.23, 1.02, 1.18], k: [3.63, 2.58, 2.21] },
  brass: { n: [0.44, 0.53, 1.09], k: [3.7, 2.77, 1.83] },
  steel: { n: [2.88, 2.95, 2.65], k: [3.05, 2.93, 2.81] },
  chrome: { n: [3.11, 3.18, 2.42], k: [3.34, 3.33, 3.12] },
};

export interface ConductorSplit {
  s: number;
  p: number;
  mean: number;
}

/**
 * Exact Fresnel reflectance of a bare metal in air.
 * @param cosIncidence 0 to 1  @param n, k complex index
 * @throws {DomainError} cosine outside of 0 to 1
 * Source: Born and Wolf, Principles of Optics, 14.2.
 */
export function fresnelConductorSplit(cosIncidence: number, n: number, k: number): ConductorSplit {
  requireDomain(cosIncidence >= 0 && cosIncidence <= 1, 'a cosine of incidence lies from 0 to 1');
  const c2 = cosIncidence * cosIncidence;
  const s2 = 1 - c2;
  const t = n * n - k * k - s2;
  const r2 = Math.sqrt(t * t + 4 * n * n * k * k);
  const a = Math.sqrt(Math.max(0, (r2 + t) / 2));
  const s = (r2 + c2 - 2 * cosIncidence * a) / (r2 + c2 + 2 * cosIncidence * a);
  const p =
    (s * (c2 * r2 + s2 * s2 - 2 * cosIncidence * a * s2)) / (c2 * r2 + s2 * s2 + 2 * cosIncidence * a * s2);
  return { s, p, mean: (s + p) / 2 };
}

/**
 * Part of the light of a polarising film at 45 degrees to the plane of incidence that bare metal turns into the
 * crossed direction, over what it mirrors: the glare left where film and filter are crossed.
 * 0 straight on; grows with the phase between s and p.
 * @returns 0 to 1; multiply by sin^2(2 a) for a film at angle a to the plane of incidence
 * Source: amplitude reflection coefficients, Born and Wolf 14.2.
 */
export function crossedResidue(cosIncidence: number, n: number, k: number): number {
  requireDomain(cosIncidence > 0 && cosIncidence <= 1, 'a cosine of incidence lies from 0 to 1');
  const sine2 = 1 - cosIncidence * cosIncidence;
  // Complex square root of (n + ik)^2 - sin^2.
  const re = n * n - k * k - sine2;
  const im = 2 * n * k;
  const size = Math.sqrt(re * re + im * im);
  const a = Math.sqrt(Math.max(0, (size + re) / 2));
  const b = Math.sqrt(Math.max(0, (size - re) / 2));
  const rs = ratio(cosIncidence - a, -b, cosIncidence + a, b);
  const er = (n * n - k * k) * cosIncidence;
  const ei = 2 * n * k * cosIncidence;
  const rp = ratio(er - a, ei - b, er + a, ei + b);
  // With the usual signs r_p = -r_s straight on, so light at 45 degrees keeps its direction where they cancel.
  const crossed = ((rs[0] + rp[0]) ** 2 + (rs[1] + rp[1]) ** 2) / 4;
  const whole = (rs[0] ** 2 + rs[1] ** 2 + rp[0] ** 2 + rp[1] ** 2) / 2;
  return crossed / whole;
}

function ratio(a: number, b: number, c: number, d: number): [number, number] {
  const size = c * c + d * d;
  return [(a * c + b * d) / size, (b * c - a * d) / size];
}

/**
 * The mirror lobe of bare metal or a silvered card: GGX microfacets, perhaps drawn out by a brush, and what
 * scatters between facets as an even lobe of as much light as walks from facet to facet bring back.
 * Limits: single wavelengths; the even lobe of a brushed surface is that of the mean over the viewer's turn.
 * Sources: Walter et al. 2007; Heitz 2014, 2018; Kulla and Conty 2017 (an even lobe); Heitz et al. 2016 (walks).
 */
export interface MetalLobe {
  /** GGX alpha along the first and the second axis of the frame. */
  alphaX: number;
  alphaY: number;
  /** Complex index, red green blue; of a plain mirror n is its reflectance and k is -1. */
  n: Float64Array;
  k: Float64Array;
  /** Albedo of the facets with reflectance 1, at cosine (i / ALBEDO_ENTRIES)^2. */
  albedo: Float64Array;
  /** 1 - mean albedo over the hemisphere. */
  lostMean: number;
  /**
   * What of the light lost between facets comes back, red green blue: with (1 - albedo) and a cubic of the cosine either way, four
   * coefficients for each, the even lobe is their product over pi.
   */
  between: Float64Array;
}

const QUADRATURE = 32;
/** By how much each row of the quadrature is moved on: a grid has all rows at the same edges, and is off where facets graze. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

const made = new LRUCache<string, MetalLobe>({ max: 256 });

/** @param index complex index, or one reflectance for all angles, each red green blue */
export function makeMetalLobe(
  index: { n: readonly number[]; k: readonly number[] } | { reflectance: readonly number[] },
  alphaX: number,
  alphaY: number,
): MetalLobe {
  requireDomain(alphaX >= 0 && alphaX <= 1 && alphaY >= 0 && alphaY <= 1, 'a roughness lies from 0 to 1');
  const key = JSON.stringify([index, alphaX, alphaY]);
  const known = made.get(key);
  if (known) return known;
  const plain = 'reflectance' in index;
  const lobe: MetalLobe = {
    alphaX: Math.max(alphaX, CLEAR_ALPHA),
    alphaY: Math.max(alphaY, CLEAR_ALPHA),
    n: Float64Array.from(plain ? index.reflectance : index.n),
    k: Float64Array.from(plain ? [-1, -1, -1] : index.k),
    albedo: new Float64Array(ALBEDO_ENTRIES + 2),
    lostMean: 1,
    between: new Float64Array(3 * CUBIC),
  };
  tabulate(lobe);
  if (Math.max(alphaX, alphaY) >= CLEAR_ALPHA) scaleBetween(lobe);
  made.set(key, lobe);
  return lobe;
}

/** Albedo of the facets alone with reflectance 1. */
export function facetAlbedo(lobe: MetalLobe, cosine: number): number {
  return tableAlbedo(lobe.albedo, 0, cosine);
}

/** Albedo with reflectance 1 by visible-normal sampling, averaged over the turn of the viewer. */
function tabulate(lobe: MetalLobe): void {
  const o = new Float64Array(3);
  const i = new Float64Array(3);
  const uv = new Float64Array(2);
  const half = new Float64Array(3);
  const turns = lobe.alphaX === lobe.alphaY ? [0] : [0.2, 0.6, 1, 1.4];
  for (let entry = 0; entry <= ALBEDO_ENTRIES; entry++) {
    const oz = Math.max(1e-4, (entry / ALBEDO_ENTRIES) ** 2);
    let sum = 0;
    for (const turn of turns) {
      o[0] = Math.sqrt(1 - oz * oz) * Math.cos(turn);
      o[1] = Math.sqrt(1 - oz * oz) * Math.sin(turn);
      o[2] = oz;
      const lambdaOut = stretchedLambda(o, lobe.alphaX, lobe.alphaY);
      for (let a = 0; a < QUADRATURE; a++) {
        for (let b = 0; b < QUADRATURE; b++) {
          uv[0] = (a + ((b * GOLDEN) % 1)) / QUADRATURE;
          uv[1] = (b + 0.5) / QUADRATURE;
          sampleVisibleNormal(half, o, lobe.alphaX, lobe.alphaY, uv);
          mirrorInFacet(i, half, o);
          if (!((i[2] as number) > 1e-6)) continue;
          sum += (1 + lambdaOut) / (1 + lambdaOut + stretchedLambda(i, lobe.alphaX, lobe.alphaY));
        }
      }
    }
    lobe.albedo[entry] = sum / (QUADRATURE ** 2 * turns.length);
  }
  lobe.albedo[ALBEDO_ENTRIES + 1] = lobe.albedo[ALBEDO_ENTRIES] as number;
  lobe.lostMean = 1 - meanOverCosines((mu) => facetAlbedo(lobe, mu));
}

/** What is kept between facets, by the root of its mean: all that is lost from one side comes out in the product of two. */
function scaleBetween(lobe: MetalLobe): void {
  const kept = keptBetweenFacets(lobe);
  for (let c = 0; c < 3; c++) {
    const terms = kept.subarray(c * CUBIC, (c + 1) * CUBIC);
    const mean = meanOverCosines((mu) => (1 - facetAlbedo(lobe, mu)) * cubic(terms, mu));
    const scale = mean > 0 ? 1 / Math.sqrt(mean) : 0;
    for (let term = 0; term < CUBIC; term++) {
      lobe.between[c * CUBIC + term] = (terms[term] as number) * scale;
    }
  }
}

const cubic = (terms: Float64Array, x: number): number =>
  terms.reduceRight((sum, coefficient) => sum * x + coefficient, 0);

/** Mean of what is even round the normal over the hemisphere, by cosines. */
function meanOverCosines(of: (cosine: number) => number): number {
  const steps = 512;
  let mean = 0;
  for (let i = 0; i < steps; i++) {
    const mu = (i + 0.5) / steps;
    mean += (2 * mu * of(mu)) / steps;
  }
  return mean;
}
