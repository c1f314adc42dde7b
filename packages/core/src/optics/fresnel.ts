import { fresnelMean } from '../engine/fresnel.js';
import { requireDomain } from '../errors.js';

export { fresnelConductor, fresnelMean } from '../engine/fresnel.js';

export interface FresnelSplit {
  /** Reflectance of light polarised across the plane of incidence. */
  s: number;
  /** Reflectance of light polarised in the plane of incidence. */
  p: number;
  /** Of unpolarised light. */
  mean: number;
}

/**
 * Exact Fresnel reflectance of a smooth dielectric boundary.
 * @param cosIncidence cosine on the incoming side, 0 to 1
 * @param ratio index on the far side over index on the incoming side; below 1 may reflect totally
 * @throws {DomainError} cosine outside of 0 to 1, or ratio not above 0
 * Source: Born and Wolf, Principles of Optics, 1.5.2.
 */
export function fresnelSplit(cosIncidence: number, ratio: number): FresnelSplit {
  requireDomain(cosIncidence >= 0 && cosIncidence <= 1, 'a cosine of incidence lies from 0 to 1');
  requireDomain(ratio > 0, 'an index ratio is above 0');
  const sineSquared = (1 - cosIncidence * cosIncidence) / (ratio * ratio);
  if (sineSquared >= 1) return { s: 1, p: 1, mean: 1 };
  const cosRefracted = Math.sqrt(1 - sineSquared);
  const s = ((cosIncidence - ratio * cosRefracted) / (cosIncidence + ratio * cosRefracted)) ** 2;
  const p = ((ratio * cosIncidence - cosRefracted) / (ratio * cosIncidence + cosRefracted)) ** 2;
  return { s, p, mean: (s + p) / 2 };
}

/** Angle at which p-polarised light is not reflected, rad: atan(ratio). */
export function brewsterAngleRad(ratio: number): number {
  requireDomain(ratio > 0, 'an index ratio is above 0');
  return Math.atan(ratio);
}

/**
 * Reflectance for evenly diffuse light from the outside, by quadrature of 2 F mu dmu.
 * n 1.5: 0.0918. From the inside it is 1 - (1 - outside) / n^2.
 * @throws {DomainError} ratio below 1
 */
export function diffuseFresnelOutside(ratio: number): number {
  requireDomain(ratio >= 1, 'a coat has an index of 1 or more');
  const steps = 512;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const mu = (i + 0.5) / steps;
    sum += 2 * mu * fresnelMean(mu, ratio);
  }
  return sum / steps;
}
