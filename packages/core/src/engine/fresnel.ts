import type { i32 } from './portable.js';

// How a surface treats polarisation, as the functions below and `SurfaceModel.polarise` answer.
/** Light across the plane of incidence less light in it, over both, of light that was not polarised. */
export const PARTED: i32 = 0;
/** What is kept of light polarised at 45 degrees to that plane, over the mean; below 0 it is turned to the other slant. */
export const SLANT_KEPT: i32 = 1;
export const POLARISING: i32 = 2;

/** Mean Fresnel reflectance of a smooth dielectric boundary; `ratio` is the index beyond over that here. */
export function fresnelMean(cosIncidence: number, ratio: number): number {
  const sineSquared = (1 - cosIncidence * cosIncidence) / (ratio * ratio);
  if (sineSquared >= 1) return 1;
  const cosRefracted = Math.sqrt(1 - sineSquared);
  const s = (cosIncidence - ratio * cosRefracted) / (cosIncidence + ratio * cosRefracted);
  const p = (ratio * cosIncidence - cosRefracted) / (ratio * cosIncidence + cosRefracted);
  return (s * s + p * p) / 2;
}

/** Mean Fresnel reflectance of bare metal in air. Source: Born and Wolf 14.2. */
export function fresnelConductor(cosIncidence: number, n: number, k: number): number {
  const c2 = cosIncidence * cosIncidence;
  const s2 = 1 - c2;
  const t = n * n - k * k - s2;
  const r2 = Math.sqrt(t * t + 4 * n * n * k * k);
  const a = 2 * cosIncidence * Math.sqrt(Math.max(0, (r2 + t) / 2));
  const s = (r2 + c2 - a) / (r2 + c2 + a);
  const q = c2 * r2 + s2 * s2;
  return (s * (1 + (q - a * s2) / (q + a * s2))) / 2;
}

/** How a smooth dielectric boundary treats the polarisation of what it mirrors. Source: Born and Wolf 1.5 */
export function dielectricMirrored(out: Float64Array, cosIncidence: number, ratio: number): void {
  const sineSquared = (1 - cosIncidence * cosIncidence) / (ratio * ratio);
  if (sineSquared >= 1) {
    // All is mirrored; the two ways of polarisation come out of step.
    const beyond = Math.sqrt(sineSquared - 1);
    const s = Math.atan2(ratio * beyond, cosIncidence);
    const p = Math.atan2(beyond, ratio * cosIncidence);
    out[PARTED] = 0;
    out[SLANT_KEPT] = Math.cos(2 * (p - s));
    return;
  }
  const cosRefracted = Math.sqrt(1 - sineSquared);
  const s = (cosIncidence - ratio * cosRefracted) / (cosIncidence + ratio * cosRefracted);
  const p = (ratio * cosIncidence - cosRefracted) / (ratio * cosIncidence + cosRefracted);
  parted(out, s * s, p * p, s * p);
}

/** The same of what it lets through. */
export function dielectricPassed(out: Float64Array, cosIncidence: number, ratio: number): void {
  const sineSquared = (1 - cosIncidence * cosIncidence) / (ratio * ratio);
  const cosRefracted = Math.sqrt(Math.max(0, 1 - sineSquared));
  const s = 1 / (cosIncidence + ratio * cosRefracted);
  const p = 1 / (ratio * cosIncidence + cosRefracted);
  parted(out, s * s, p * p, s * p);
}

/** The same of what bare metal mirrors. Source: Born and Wolf 14.2 */
export function conductorMirrored(out: Float64Array, cosIncidence: number, n: number, k: number): void {
  const c = cosIncidence;
  const s2 = 1 - c * c;
  const real = n * n - k * k;
  const imaginary = 2 * n * k;
  const size = Math.sqrt((real - s2) * (real - s2) + imaginary * imaginary);
  const a = Math.sqrt(Math.max(0, (size + real - s2) / 2));
  const b = Math.sqrt(Math.max(0, (size - real + s2) / 2));
  // Amplitudes across the plane and in it, complex.
  const under = (c + a) * (c + a) + b * b;
  const sRe = ((c - a) * (c + a) - b * b) / under;
  const sIm = (-b * (c + a) - (c - a) * b) / under;
  const er = real * c;
  const ei = imaginary * c;
  const below = (er + a) * (er + a) + (ei + b) * (ei + b);
  const pRe = ((er - a) * (er + a) + (ei - b) * (ei + b)) / below;
  const pIm = ((ei - b) * (er + a) - (er - a) * (ei + b)) / below;
  parted(out, sRe * sRe + sIm * sIm, pRe * pRe + pIm * pIm, sRe * pRe + sIm * pIm);
}

/** @param both amplitudes multiplied, the real part */
function parted(out: Float64Array, s: number, p: number, both: number): void {
  const whole = s + p;
  out[PARTED] = whole > 0 ? (s - p) / whole : 0;
  out[SLANT_KEPT] = whole > 0 ? (2 * both) / whole : 0;
}
