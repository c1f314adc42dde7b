import type { Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { fresnelMean, prepareTracing } from '../src/index.js';
import { overheadSoftbox, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

describe('a tabletop of see-through black acrylic', () => {
  const INDEX = 1.49;
  const THICK_M = 0.005;
  const PER_CM = 3.2;
  const material = { kind: 'dielectric' as const, index: INDEX, absorptionPerCm: PER_CM };
  // A strip of light 2 mm high that is seen by way of the table at 45 degrees.
  const strip = overheadSoftbox(1, { positionM: [0, 1, 1] as Vector, widthM: 0.5, heightM: 0.002 });
  const tracing = prepareTracing(
    testSet({ lights: [strip], bench: { widthM: 2, depthM: 2, thicknessM: THICK_M, material } }),
  );
  const seen = (y: number) => luminanceFrom(tracing, [0, y - 1, 1], [0, y, 0], { samples: 16_384 });
  const sine = Math.SQRT1_2 / INDEX;
  const cosine = Math.sqrt(1 - sine * sine);
  /** What enters the table leaves it again, mirrored at its back, so much further on. */
  const apartM = (2 * THICK_M * sine) / cosine;
  const mirrored = fresnelMean(Math.SQRT1_2, INDEX);

  test('mirrors it at its face, and again at its back: so far off and so bright as Fresnel, Snell and Beer say', () => {
    const through = Math.exp((-PER_CM * 2 * 100 * THICK_M) / cosine);
    expect(seen(0)).toBeCloseTo(mirrored, 4);
    // Within a plate paths end at random by what is left of them.
    expect(seen(-apartM) / ((1 - mirrored) ** 2 * mirrored * through)).toBeCloseTo(1, 1.5);
    expect(seen(-apartM / 2)).toBe(0);
    expect(seen(apartM)).toBe(0);
  });
});
