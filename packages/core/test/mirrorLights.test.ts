import type { SetDocument, SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { fresnelMean } from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';
import { seenLuminance } from './tracing.js';

type Products = NonNullable<SetDocumentInput['products']>;
type Material = NonNullable<SetDocumentInput['bench']>['material'];

/** A softbox that faces straight down, off to the front, and a matte wall behind it over a bench. */
const FACE = { centre: [0, -0.2, 0.7] as Vector, width: 0.3, depth: 0.3, luminance: 1 };
const WALL_Y = 0.4;
const SPOT: Vector = [0, WALL_Y, 0.25];

function wallOver(bench: Material | null, products: Products): SetDocument {
  return testSet({
    products,
    lights: [overheadSoftbox(0.7, { positionM: FACE.centre, aimM: [0, -0.2, 0], widthM: 0.3, heightM: 0.3 })],
    backdrop: { kind: 'panel', widthM: 1, heightM: 1, centreM: [0, WALL_Y, 0.5], material: matte(0.8) },
    ...(bench ? { bench: { widthM: 2, depthM: 2, material: bench } } : {}),
  });
}

/** Illuminance at the spot from the image of the face under the bench, by summing small pieces of it. */
function fromImage(reflectance: (cosine: number) => number): number {
  const pieces = 200;
  const area = (FACE.width * FACE.depth) / pieces ** 2;
  let sum = 0;
  for (let i = 0; i < pieces; i++) {
    for (let j = 0; j < pieces; j++) {
      const x = FACE.centre[0] + FACE.width * ((i + 0.5) / pieces - 0.5);
      const y = FACE.centre[1] + FACE.depth * ((j + 0.5) / pieces - 0.5);
      const down = SPOT[2] + FACE.centre[2];
      const away = WALL_Y - y;
      const squared = x * x + away * away + down * down;
      const cosine = down / Math.sqrt(squared);
      sum += (FACE.luminance * cosine * (away / Math.sqrt(squared)) * reflectance(cosine) * area) / squared;
    }
  }
  return sum;
}

/** What the bench adds to the luminance of the wall at the spot. */
function addedBy(bench: Material, samples: number, products: Products = []): number {
  const seen = (of: Material | null) =>
    seenLuminance(wallOver(of, products), [0.3, -0.6, 0.5], SPOT, samples);
  return seen(bench) - seen(null);
}

describe('light by way of a flat mirror', () => {
  test.each<[string, Material, (cosine: number) => number]>([
    [
      'black acrylic',
      { kind: 'coated', reflectance: 0, coatIndex: 1.49, roughness: 0 },
      (c) => fresnelMean(c, 1.49),
    ],
    ['a mirror', { kind: 'mirror', reflectance: 0.9 }, () => 0.9],
  ])('%s lights a wall as the image of the lamp does', (_name, bench, reflectance) => {
    const expected = (0.8 / Math.PI) * fromImage(reflectance);
    expect(expected).toBeGreaterThan(0);
    expect(addedBy(bench, 4096) / expected - 1).toBeCloseTo(0, 1.7);
    // Asked for, not met by chance: few samples are enough.
    expect(Math.abs(addedBy(bench, 256) / expected - 1)).toBeLessThan(0.08);
  });

  test('a box between bench and wall stops it', () => {
    const box = {
      kind: 'box' as const,
      id: 'box',
      name: 'Box',
      positionM: [0, 0.35, 0] as Vector,
      material: matte(0),
      widthM: 1,
      depthM: 0.05,
      heightM: 0.2,
    };
    const mirror: Material = { kind: 'mirror', reflectance: 0.9 };
    expect(addedBy(mirror, 256, [box])).toBeLessThan(0.02 * addedBy(mirror, 256));
  });
});
