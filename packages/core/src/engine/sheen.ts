import { ALBEDO_ENTRIES, tableAlbedo } from './microfacet.js';
import { real } from './portable.js';

/**
 * Sheen of standing fibres: a lobe towards grazing angles, over a Lambertian cloth that gets what it leaves.
 * D(h) = (2 + 1/a) sin^(1/a) / 2 pi, V = 1 / (4 (i + o - i o)), a = 0.4.
 * Limits: one softness; colourless; single scattering.
 * Sources: Estevez and Kulla 2017 (distribution); Neubelt and Pettineo 2013 (visibility).
 */
const INVERSE_SOFTNESS = 2.5;

/** Numbers of the table of `fillSheen`. */
export const SHEEN_ENTRIES = ALBEDO_ENTRIES + 2;

/** Bidirectional reflectance of the whole lobe, 1/sr. */
export function sheenLobe(cosOut: number, cosIn: number, cosHalf: number): number {
  const sine = Math.sqrt(Math.max(0, 1 - cosHalf * cosHalf));
  const density = ((2 + INVERSE_SOFTNESS) * sine ** INVERSE_SOFTNESS) / (2 * Math.PI);
  return density / (4 * (cosIn + cosOut - cosIn * cosOut));
}

/**
 * Works out which part of light from a direction the lobe sends back: some 30 ms, so once for all scenes.
 * @param albedo filled, see `tableAlbedo`  @returns its mean over a hemisphere of even light
 */
export function fillSheen(albedo: Float64Array): number {
  const steps = 64;
  for (let entry = 0; entry <= ALBEDO_ENTRIES; entry++) {
    const root = real(entry) / ALBEDO_ENTRIES;
    const oz = Math.max(1e-3, root * root);
    const ox = Math.sqrt(1 - oz * oz);
    let sum: number = 0;
    for (let a = 0; a < steps; a++) {
      const iz = (real(a) + 0.5) / steps;
      const side = Math.sqrt(1 - iz * iz);
      for (let b = 0; b < steps; b++) {
        const phi = (Math.PI * (real(b) + 0.5)) / steps;
        const hx = ox + side * Math.cos(phi);
        const hy = side * Math.sin(phi);
        const hz = oz + iz;
        const cosHalf = hz / Math.sqrt(hx * hx + hy * hy + hz * hz);
        sum += (2 * Math.PI * sheenLobe(oz, iz, cosHalf) * iz) / (steps * steps);
      }
    }
    albedo[entry] = Math.min(1, sum);
  }
  albedo[ALBEDO_ENTRIES + 1] = albedo[ALBEDO_ENTRIES];
  const means = 512;
  let mean: number = 0;
  for (let i = 0; i < means; i++) {
    const mu = (real(i) + 0.5) / means;
    mean += (2 * mu * tableAlbedo(albedo, 0, mu)) / means;
  }
  return mean;
}
