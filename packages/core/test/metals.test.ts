import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { crossedResidue, fresnelConductorSplit, METAL_INDEX, prepareTracing } from '../src/index.js';

import { matte, overheadSoftbox, surroundLight, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

type ProductInput = NonNullable<SetDocumentInput['products']>[number];

const slab = (material: ProductInput['material']): ProductInput =>
  ({
    kind: 'box',
    id: 'slab',
    name: 'slab',
    positionM: [0, 0, -0.1],
    widthM: 2,
    depthM: 2,
    heightM: 0.1,
    material,
  }) as ProductInput;

describe('metals by complex index', () => {
  test.each([
    // Straight on ((n-1)^2 + k^2) / ((n+1)^2 + k^2) by hand.
    [0.05, 4.41, (0.95 ** 2 + 4.41 ** 2) / (1.05 ** 2 + 4.41 ** 2)],
    [1.02, 2.58, (0.02 ** 2 + 2.58 ** 2) / (2.02 ** 2 + 2.58 ** 2)],
    [3.11, 3.34, (2.11 ** 2 + 3.34 ** 2) / (4.11 ** 2 + 3.34 ** 2)],
  ])('n %d k %d straight on', (n, k, expected) => {
    expect(fresnelConductorSplit(1, n, k).mean).toBeCloseTo(expected, 10);
  });

  test('without absorption it is the dielectric, s and p apart; at grazing everything comes back', () => {
    const at45 = fresnelConductorSplit(Math.SQRT1_2, 1.5, 0);
    expect(at45.s).toBeCloseTo(0.092, 4);
    expect(at45.p).toBeCloseTo(0.00847, 4);
    expect(fresnelConductorSplit(1e-9, 0.2, 3.6).mean).toBeCloseTo(1, 6);
  });

  test('gold and copper are warm, silver is near white, chrome darker', () => {
    const ahead = (metal: keyof typeof METAL_INDEX) =>
      [0, 1, 2].map((c) => {
        const { n, k } = METAL_INDEX[metal];
        return fresnelConductorSplit(1, n[c] as number, k[c] as number).mean;
      }) as [number, number, number];
    for (const metal of ['gold', 'copper', 'brass'] as const) {
      const [r, g, b] = ahead(metal);
      expect(r).toBeGreaterThan(g);
      expect(g).toBeGreaterThan(b);
    }
    expect(Math.min(...ahead('silver'))).toBeGreaterThan(0.9);
    expect(ahead('chrome')[1]).toBeGreaterThan(0.5);
    expect(ahead('chrome')[1]).toBeLessThan(0.7);
  });

  test('a polished plate shows a lamp at its own luminance times Fresnel', () => {
    const height = 1;
    const lights = [{ ...overheadSoftbox(height), widthM: 0.2, heightM: 0.2 }];
    const set = testSet({ lights, products: [slab({ kind: 'metal', metal: 'copper' })] });
    // From beside the lamp, by way of the plate, to the lamp: 30 degrees from upright.
    const from: Vector = [2 * height * Math.tan(Math.PI / 6), 0, height];
    const seen = luminanceFrom(prepareTracing(set), from, [height * Math.tan(Math.PI / 6), 0, 0], {
      samples: 1,
    });
    const { n, k } = METAL_INDEX.copper;
    const expected = [0.2126, 0.7152, 0.0722].reduce(
      (sum, weight, c) =>
        sum + weight * fresnelConductorSplit(Math.cos(Math.PI / 6), n[c] as number, k[c] as number).mean,
      0,
    );
    expect(seen).toBeCloseTo(expected, 3);
  });

  test.each([
    ['polished', { kind: 'mirror' as const, reflectance: 1 }],
    ['satin', { kind: 'mirror' as const, reflectance: 1, roughness: 0.25 }],
    ['blasted', { kind: 'mirror' as const, reflectance: 1, roughness: 0.7 }],
  ])('a %s mirror that keeps all light is lost in even light', (_name, material) => {
    const set = testSet({ lights: [surroundLight], products: [slab(material)] });
    const tracing = prepareTracing(set);
    for (const height of [0.1, 0.5, 2]) {
      const seen = luminanceFrom(tracing, [1, 0, height], [0, 0, 0], { samples: 4096 });
      expect(Math.abs(seen - 1)).toBeLessThan(0.02);
    }
  });

  test.each([0, 0.004])(
    'a brush draws a lamp out across its marks, on a box with edges rounded by %d m',
    (radius) => {
      const metal = (along: 'round' | 'up') => ({
        kind: 'metal' as const,
        metal: 'steel' as const,
        roughness: 0.03,
        brushed: { along, acrossRoughness: 0.35 },
      });
      const lights = [{ ...overheadSoftbox(1), widthM: 0.05, heightM: 0.05 }];
      const glow = (along: 'round' | 'up', target: Vector) => {
        const upright: ProductInput = {
          ...slab(metal(along)),
          edgeRadiusM: radius,
          positionM: [0, 0.05, -1],
          depthM: 0.1,
          heightM: 2,
        } as ProductInput;
        const lamp = {
          ...lights[0],
          positionM: [0, -1, 0] as Vector,
          aimM: [0, 0, 0] as Vector,
        } as (typeof lights)[0];
        return luminanceFrom(
          prepareTracing(testSet({ lights: [lamp], products: [upright] })),
          [0, -0.9, 0],
          target,
          {
            samples: 8192,
          },
        );
      };
      const beside: Vector = [0.2, 0, 0];
      const above: Vector = [0, 0, 0.2];
      expect(glow('round', above)).toBeGreaterThan(5 * glow('round', beside));
      expect(glow('up', beside)).toBeGreaterThan(5 * glow('up', above));
    },
  );
});

describe('the brush of a turned lid', () => {
  /** Light of a spot of a lid 10 cm across, seen from a side, under a lamp straight above. */
  const glow = (along: 'round' | 'up', from: Vector, target: Vector) => {
    const lid = {
      kind: 'turned',
      id: 'lid',
      name: 'Lid',
      positionM: [0, 0, -0.01],
      profile: [
        { radiusM: 0.05, heightM: 0 },
        { radiusM: 0.05, heightM: 0.01 },
      ],
      material: { kind: 'metal', metal: 'steel', roughness: 0.03, brushed: { along, acrossRoughness: 0.35 } },
    } as ProductInput;
    const lamp = { ...overheadSoftbox(1), widthM: 0.05, heightM: 0.05 };
    return luminanceFrom(prepareTracing(testSet({ lights: [lamp], products: [lid] })), from, target, {
      samples: 4096,
    });
  };
  const FRONT: Vector = [0, -0.6, 0.35];
  const SIDE: Vector = [0.6, 0, 0.35];
  const BEFORE: Vector = [0, -0.03, 0];
  const BESIDE: Vector = [0.03, 0, 0];

  test('marks that run round it make a streak towards the viewer, which turns with the viewer', () => {
    expect(glow('round', FRONT, BEFORE)).toBeGreaterThan(5 * glow('round', FRONT, BESIDE));
    expect(glow('round', SIDE, BESIDE)).toBeGreaterThan(5 * glow('round', SIDE, BEFORE));
    expect(glow('round', SIDE, BESIDE) / glow('round', FRONT, BEFORE)).toBeCloseTo(1, 1);
  });

  test('marks from its middle to its rim make a streak across', () => {
    expect(glow('up', FRONT, BESIDE)).toBeGreaterThan(5 * glow('up', FRONT, BEFORE));
  });
});

describe('film on the lamp and filter on the lens', () => {
  test('straight on metal turns nothing; at a slant the more the rounder it makes the light', () => {
    for (const { n, k } of Object.values(METAL_INDEX)) {
      expect(crossedResidue(1, n[1], k[1])).toBeCloseTo(0, 9);
      const residues = [0.9, 0.7, 0.5, 0.3].map((cosine) => crossedResidue(cosine, n[1], k[1]));
      residues.forEach((value, i) => {
        if (i > 0) expect(value).toBeGreaterThan(residues[i - 1] as number);
      });
    }
    // Silver at 60 degrees, from the amplitude coefficients worked out apart.
    expect(crossedResidue(0.5, 0.06, 3.59)).toBeCloseTo(slowResidue(0.5, 0.06, 3.59), 9);
  });
});

/** The crossed part by Jones vectors in complex numbers, written apart: light at 45 degrees, filter across. */
function slowResidue(cosine: number, n: number, k: number): number {
  type C = [number, number];
  const mul = (a: C, b: C): C => [a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]];
  const sub = (a: C, b: C): C => [a[0] - b[0], a[1] - b[1]];
  const plus = (a: C, b: C): C => [a[0] + b[0], a[1] + b[1]];
  const div = (a: C, b: C): C => {
    const d = b[0] ** 2 + b[1] ** 2;
    return [(a[0] * b[0] + a[1] * b[1]) / d, (a[1] * b[0] - a[0] * b[1]) / d];
  };
  const index: C = [n, k];
  const sineIn: C = [Math.sqrt(1 - cosine ** 2), 0];
  const sineWithin = div(sineIn, index);
  const inner = sub([1, 0], mul(sineWithin, sineWithin));
  const size = Math.hypot(inner[0], inner[1]);
  const root: C = [Math.sqrt((size + inner[0]) / 2), Math.sign(inner[1]) * Math.sqrt((size - inner[0]) / 2)];
  const c: C = [cosine, 0];
  const rs = div(sub(c, mul(index, root)), plus(c, mul(index, root)));
  const rp = div(sub(mul(index, c), root), plus(mul(index, c), root));
  // Amplitude across: (rs + rp) / 2 in this sign convention, both polarisations of equal strength coming in.
  const across = plus(rs, rp);
  const whole = rs[0] ** 2 + rs[1] ** 2 + rp[0] ** 2 + rp[1] ** 2;
  return (across[0] ** 2 + across[1] ** 2) / (2 * whole);
}

test('matte white keeps no polarisation, so its test plate is lit the same by a film on either axis', () => {
  const light = { ...overheadSoftbox(1), polarised: { axisDeg: 0, lossStops: 1.4 } };
  const set = testSet({ lights: [light], products: [slab(matte(0.8))] });
  const tracing = prepareTracing(set);
  // Second film: what kept its polarisation.
  expect(luminanceFrom(tracing, [0.5, 0, 0.5], [0, 0, 0], { samples: 64, channel: 1 })).toBe(0);
});
