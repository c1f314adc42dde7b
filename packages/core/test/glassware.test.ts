import type { Turned, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { buildScene, DomainError, fresnelMean, prepareTracing, renderTile } from '../src/index.js';
import { matte, overheadSoftbox, surroundLight, testCamera, testSet } from './sets.js';

const GLASS = 1.52;
const WATER = 1.333;
const GLASS_PER_CM = 0.05;
const SYRUP_PER_CM: [number, number, number] = [0.1, 1.2, 0.6];

const tumbler = (more: Partial<Turned> = {}): Turned => ({
  kind: 'turned',
  id: 'glass',
  name: 'Glass',
  positionM: [0, 0, 0],
  turnDeg: 0,
  material: {
    kind: 'dielectric',
    roughness: 0,
    scatteringPerCm: 0,
    index: GLASS,
    absorptionPerCm: GLASS_PER_CM,
  },
  profile: [
    { radiusM: 0.04, heightM: 0, smooth: false },
    { radiusM: 0.04, heightM: 0.2, smooth: false },
  ],
  parts: [],
  labels: [],
  attached: [],
  hollow: {
    wallM: 0.003,
    baseM: 0.008,
    liquid: {
      material: {
        kind: 'dielectric',
        roughness: 0,
        scatteringPerCm: 0,
        index: WATER,
        absorptionPerCm: SYRUP_PER_CM,
      },
      fillToM: 0.15,
    },
  },
  ...more,
});

/** A softbox straight behind and a camera with a tiny frame that looks level at a height. */
function lookThrough(product: Turned, heightM: number): number[] {
  const behind = {
    ...overheadSoftbox(1),
    positionM: [0, 1, heightM] as Vector,
    aimM: [0, 0, heightM] as Vector,
  };
  const camera = testCamera();
  const set = testSet({
    lights: [behind],
    products: [product],
    camera: {
      ...camera,
      positionM: [0, -1, heightM],
      aimM: [0, 0, heightM],
      body: { ...camera.body, sensorWidthM: 0.001, sensorHeightM: 0.001 },
      lens: { ...camera.lens, focalLengthM: 0.5 },
    },
  });
  const samples = 4096;
  const tile = { x: 0, y: 0, width: 2, height: 2 };
  const sums = renderTile(prepareTracing(set), {
    width: 2,
    height: 2,
    tile,
    firstSample: 0,
    samples,
    seed: 4,
  });
  return [0, 1, 2].map(
    (c) => [0, 1, 2, 3].reduce((sum, pixel) => sum + (sums[3 * pixel + c] as number), 0) / (4 * samples),
  );
}

describe('through the middle of a glass', () => {
  // Straight through four boundaries; what is mirrored to and fro between them adds less than half a percent.
  const outer = 1 - fresnelMean(1, GLASS);
  const wallCm = 0.3;

  test('empty: four glass to air boundaries and two walls', () => {
    const seen = lookThrough(tumbler({ hollow: { wallM: 0.003, baseM: 0.008 } }), 0.18);
    const mirrored = fresnelMean(1, GLASS);
    // Each wall is a plate with its own to and fro; two plates one behind the other.
    const t = Math.exp(-GLASS_PER_CM * wallCm);
    const plate = (outer ** 2 * t) / (1 - (mirrored * t) ** 2);
    const back = mirrored * (1 + (outer ** 2 * t ** 2) / (1 - (mirrored * t) ** 2));
    const expected = plate ** 2 / (1 - back ** 2);
    // The walls are curved: part of what goes to and fro misses the frame.
    for (const channel of seen) expect(Math.abs(channel / expected - 1)).toBeLessThan(0.01);
  });

  test('filled: liquid touches the wall, and colours by Beer-Lambert', () => {
    const seen = lookThrough(tumbler(), 0.1);
    const inner = 1 - fresnelMean(1, WATER / GLASS);
    seen.forEach((channel, c) => {
      const passed = Math.exp(-GLASS_PER_CM * 2 * wallCm - (SYRUP_PER_CM[c] as number) * 7.4);
      const expected = outer ** 2 * inner ** 2 * passed;
      expect(Math.abs(channel / expected - 1)).toBeLessThan(0.02);
    });
    expect((seen[0] as number) / (seen[1] as number)).toBeGreaterThan(100);
  });

  test('above the liquid it is empty', () => {
    const [red = 0, green = 1] = lookThrough(tumbler(), 0.18);
    expect(red / green).toBeCloseTo(1, 2);
  });
});

describe('parts and labels', () => {
  const black = matte(0);

  test('a label hides what is behind it, from the front and through the glass', () => {
    const label = { name: 'label', fromM: 0.05, toM: 0.15, widthDeg: 60, material: black };
    expect(lookThrough(tumbler({ labels: [{ ...label, centreBearingDeg: 0 }] }), 0.1)[0]).toBeLessThan(0.01);
    expect(lookThrough(tumbler({ labels: [{ ...label, centreBearingDeg: 180 }] }), 0.1)[0]).toBeLessThan(
      0.05,
    );
    expect(lookThrough(tumbler({ labels: [{ ...label, centreBearingDeg: 90 }] }), 0.1)[0]).toBeGreaterThan(
      0.1,
    );
  });

  test('a painted band is a skin, a part at the top a cap', () => {
    const band = { name: 'band', fromM: 0.08, toM: 0.12, material: black };
    expect(lookThrough(tumbler({ parts: [band] }), 0.1)[0]).toBeLessThan(0.01);
    expect(lookThrough(tumbler({ parts: [band] }), 0.06)[0]).toBeGreaterThan(0.1);
    const cap = { name: 'cap', fromM: 0.16, toM: 0.2, material: black };
    expect(lookThrough(tumbler({ parts: [cap] }), 0.18)[0]).toBeLessThan(0.01);
  });
});

describe('media', () => {
  test('equal materials are one medium, and more than 31 are refused in words', () => {
    const one = (index: number, i: number): Turned => ({
      ...tumbler({ hollow: { wallM: 0.003, baseM: 0.008 } }),
      id: `glass-${i}`,
      positionM: [0.1 * i, 0, 0],
      material: { kind: 'dielectric', roughness: 0, scatteringPerCm: 0, index, absorptionPerCm: 0 },
    });
    const same = testSet({ products: Array.from({ length: 40 }, (_, i) => one(1.5, i)) });
    expect(buildScene(same).media).toHaveLength(1);
    const many = testSet({ products: Array.from({ length: 32 }, (_, i) => one(1.4 + 0.01 * i, i)) });
    expect(() => buildScene(many)).toThrow(DomainError);
    expect(() => buildScene(many)).toThrow('31 different clear materials');
  });

  test('a body of index 1 is not there', () => {
    const air = {
      kind: 'dielectric' as const,
      roughness: 0,
      scatteringPerCm: 0,
      index: 1,
      absorptionPerCm: 0,
    };
    const { hollow: _hollow, ...solid } = tumbler();
    const set = testSet({ lights: [surroundLight], products: [{ ...solid, material: air }] });
    const tile = { x: 0, y: 0, width: 8, height: 8 };
    const sums = renderTile(prepareTracing(set), {
      width: 8,
      height: 8,
      tile,
      firstSample: 0,
      samples: 4,
      seed: 1,
    });
    for (const value of sums) expect(value / 4).toBeCloseTo(1, 5);
  });
});
