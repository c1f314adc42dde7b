import type { Metal } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { SCATTERING } from '../src/engine/surfaces/surfaceModel.js';
import { fresnelConductorSplit, METAL_INDEX } from '../src/index.js';
import { seededRandom } from './random.js';
import { oneSurface } from './surfaces.js';

const WALKS = 30_000;
const GREEN = 1;

/** Lambda of Smith for heights that are even from 0 to 1, written apart; of ways down it is under -1. */
function lambda(way: readonly number[], alpha: number): number {
  const [x = 0, y = 0, z = 0] = way;
  const slope = Math.sqrt((x * x + y * y) / (z * z)) * alpha;
  return ((z > 0 ? 1 : -1) * Math.sqrt(1 + slope * slope) - 1) / 2;
}

/** A facet that is seen from a direction, by trial: drawn over all facets, kept by how much of it is turned there. */
function facetSeen(from: readonly number[], alpha: number, random: () => number): number[] {
  for (;;) {
    const part = random();
    const cosine = Math.sqrt((1 - part) / (1 + (alpha * alpha - 1) * part));
    const flat = Math.sqrt(1 - cosine * cosine);
    const turn = 2 * Math.PI * random();
    const facet = [flat * Math.cos(turn), flat * Math.sin(turn), cosine];
    const turned = facet.reduce((sum, value, a) => sum + value * (from[a] as number), 0);
    // Facets are drawn by their area seen from above: by area of their own over the cosine.
    if (turned > 0 && random() * 40 < turned / cosine) return facet;
  }
}

/** Part of green light that leaves after one facet, and after more, from an angle to the upright. */
function walked(metal: Metal, alpha: number, angle: number): { once: number; more: number } {
  const random = seededRandom(11);
  const { n, k } = METAL_INDEX[metal];
  let once = 0;
  let more = 0;
  for (let walk = 0; walk < WALKS; walk++) {
    let way = [Math.sin(angle), 0, -Math.cos(angle)];
    let height = 1;
    let left = 1;
    let met = 0;
    for (; left > 1e-4; met++) {
      // The way is free from one height to another by the ratio of the heights to the power of Lambda.
      height *= random() ** (-1 / lambda(way, alpha));
      if (height >= 1) break;
      const back = way.map((value) => -value);
      const facet = facetSeen(back, alpha, random);
      const cosine = facet.reduce((sum, value, a) => sum + value * (back[a] as number), 0);
      left *= fresnelConductorSplit(cosine, n[GREEN], k[GREEN]).mean;
      way = way.map((value, a) => value + 2 * cosine * (facet[a] as number));
    }
    if (met === 1) once += left / WALKS;
    else more += left / WALKS;
  }
  return { once, more };
}

/** Part of green light that the surface sends back. */
function sentBack(metal: Metal, alpha: number, angle: number): number {
  const { model, albedo } = oneSurface({ kind: 'metal', metal, roughness: alpha });
  const towards = Float64Array.of(Math.sin(angle), 0, Math.cos(angle));
  const value = new Float64Array(SCATTERING);
  const steps = 300;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    // Closer together where light grazes.
    const z = ((i + 0.5) / steps) ** 2;
    const flat = Math.sqrt(1 - z * z);
    for (let j = 0; j < steps; j++) {
      const turn = (2 * Math.PI * (j + 0.5)) / steps;
      const from = Float64Array.of(flat * Math.cos(turn), flat * Math.sin(turn), z);
      model.evaluate(value, 0, albedo, 0.5, towards, from, 1);
      sum += (value[GREEN] as number) * z * 2 * ((i + 0.5) / steps);
    }
  }
  return (sum * 2 * Math.PI) / steps ** 2;
}

describe('light between facets of rough metal, against walks from facet to facet', () => {
  test.each([
    ['gold', 0.3, 60],
    ['gold', 0.8, 75],
    ['copper', 0.5, 82],
    ['copper', 0.8, 60],
    ['chrome', 0.5, 80],
    ['gold', 0.4, 88],
  ] as const)('%s, alpha %d, from %d degrees', (metal, alpha, degrees) => {
    const angle = (degrees * Math.PI) / 180;
    const { once, more } = walked(metal, alpha, angle);
    const back = sentBack(metal, alpha, angle);
    expect(back / (once + more)).toBeGreaterThan(0.98);
    expect(back / (once + more)).toBeLessThan(1.02);
    expect((back - once) / more).toBeGreaterThan(0.95);
    expect((back - once) / more).toBeLessThan(1.05);
  });
});
