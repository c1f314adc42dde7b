import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { FrostWalk } from '../src/engine/path/frost.js';
import { Sampler } from '../src/engine/sampler.js';
import { createLook, fresnelMean, look, prepareTracing } from '../src/index.js';
import { matte, surroundLight, testSet } from './sets.js';
import { luminanceFrom, seenLuminance } from './tracing.js';

const ggx = (cosine: number, alpha: number) =>
  alpha ** 2 / (Math.PI * (cosine ** 2 * (alpha ** 2 - 1) + 1) ** 2);
const lambda = (cosine: number, alpha: number) =>
  (Math.sqrt(1 + (alpha ** 2 * (1 - cosine ** 2)) / cosine ** 2) - 1) / 2;

/** Both sides see a facet: heights of facets that are seen go together, above by sum, through by the beta function. */
function beta(a: number, b: number): number {
  let sum = 0;
  const steps = 400;
  // Substituted so that the ends, where it has poles, are flat: a and b are 1 and more.
  for (let i = 0; i < steps; i++) {
    const t = (i + 0.5) / steps;
    sum += (t ** (a - 1) * (1 - t) ** (b - 1)) / steps;
  }
  return sum;
}

/** Light mirrored and let through after one facet, by Walter's formulas (20) and (21) over all directions. */
function byFormula(cosOut: number, alpha: number, ratio: number) {
  const o = [Math.sqrt(1 - cosOut ** 2), 0, cosOut] as const;
  const [rows, columns] = [300, 300];
  const sum = { mirrored: 0, through: 0 };
  for (let a = 0; a < rows; a++) {
    const theta = ((a + 0.5) / rows) * (Math.PI / 2);
    const [z, flat] = [Math.cos(theta), Math.sin(theta)];
    const solid = ((Math.PI / 2 / rows) * 2 * Math.PI * flat) / columns;
    const both = 1 / (1 + lambda(cosOut, alpha) + lambda(z, alpha));
    const opposite = beta(1 + lambda(cosOut, alpha), 1 + lambda(z, alpha));
    for (let b = 0; b < columns; b++) {
      const phi = (2 * Math.PI * (b + 0.5)) / columns;
      const [x, y] = [flat * Math.cos(phi), flat * Math.sin(phi)];
      const up = [o[0] + x, y, o[2] + z] as const;
      const size = Math.hypot(...up);
      const oh = (o[0] * up[0] + o[2] * up[2]) / size;
      sum.mirrored += (solid * fresnelMean(oh, ratio) * ggx(up[2] / size, alpha) * both) / (4 * cosOut);
      const towards = [-(o[0] + ratio * x), -ratio * y, -(o[2] - ratio * z)] as const;
      const length = Math.hypot(...towards) * Math.sign(towards[2]);
      const [hx = 0, hy = 0, hz = 0] = towards.map((value) => value / length);
      const [before, beyond] = [o[0] * hx + o[2] * hz, x * hx + y * hy - z * hz];
      if (before <= 0 || beyond >= 0) continue;
      const passed = 1 - fresnelMean(before, ratio);
      sum.through +=
        (solid * before * -beyond * ratio ** 2 * passed * ggx(hz, alpha) * opposite) /
        (cosOut * (before + ratio * beyond) ** 2);
    }
  }
  return sum;
}

function byWalking(cosOut: number, alpha: number, ratio: number) {
  const o = Float64Array.of(Math.sqrt(1 - cosOut ** 2), 0, cosOut);
  const frost = new FrostWalk();
  const sampler = new Sampler(3);
  const samples = 60_000;
  const once = { mirrored: 0, through: 0 };
  let lost = 0;
  let squarest = 0;
  for (let i = 0; i < samples; i++) {
    sampler.start(0, i);
    const side = frost.walk(o, alpha, ratio, sampler);
    squarest = Math.max(squarest, Math.abs(Math.hypot(...frost.into) - 1));
    if (side === 0) lost++;
    else if (side > 0 !== (frost.into[2] as number) > 0) throw new Error('it leaves on its side');
    else if (frost.events === 1) once[side > 0 ? 'mirrored' : 'through'] += 1 / samples;
  }
  return { once, lost, squarest };
}

describe('a rough boundary between clear media', () => {
  test.each([
    [1, 0.2, 1.5],
    [0.7, 0.3, 1.5],
    [0.35, 0.5, 1.5],
    [0.9, 0.3, 1 / 1.5],
    [0.6, 0.4, 1 / 1.5],
  ])(
    'at cosine %f, alpha %f, index ratio %f: after one facet as the formulas say, and nothing is lost',
    (cosine, alpha, ratio) => {
      const formula = byFormula(cosine, alpha, ratio);
      const { once, lost, squarest } = byWalking(cosine, alpha, ratio);
      expect(Math.abs(once.mirrored - formula.mirrored)).toBeLessThan(0.006);
      expect(Math.abs(once.through - formula.through)).toBeLessThan(0.008);
      expect(lost).toBe(0);
      expect(squarest).toBeLessThan(1e-9);
    },
  );
});

const pane = (roughness: number): NonNullable<SetDocumentInput['products']> => [
  {
    kind: 'box',
    id: 'pane',
    name: 'Pane',
    positionM: [0, 0, -1],
    widthM: 2,
    depthM: 0.01,
    heightM: 2,
    material: { kind: 'dielectric', index: 1.52, absorptionPerCm: 0, roughness },
  },
];

describe('frosted glass', () => {
  test('hardly rough is clear, and in even light it cannot be seen: nothing is lost', () => {
    const even = (roughness: number, to: Vector) =>
      seenLuminance(
        testSet({ lights: [surroundLight], products: pane(roughness) }),
        [0, -1, 0.1],
        to,
        40_000,
      );
    const clear = even(0, [0, 0, 0.1]);
    expect(even(0.002, [0, 0, 0.1])).toBeCloseTo(clear, 2);
    for (const roughness of [0.15, 0.4, 0.8]) {
      for (const to of [
        [0, 0, 0.1],
        [0.8, 0, 0.1],
      ] as Vector[]) {
        expect(even(roughness, to) / even(0, to)).toBeCloseTo(1, 2);
      }
    }
  });

  test('what stands behind is blurred, the more the rougher', () => {
    // Left half of what is behind is white, right half black.
    const half = (roughness: number) =>
      prepareTracing(
        testSet({
          lights: [surroundLight],
          products: pane(roughness),
          sheets: [-1, 1].map((side) => ({
            kind: 'card' as const,
            tag: side < 0 ? '1' : '2',
            name: 'half',
            positionM: [side, 0.3, 0] as Vector,
            aimM: [side, 0, 0] as Vector,
            widthM: 2,
            heightM: 4,
            front: matte(side < 0 ? 0.9 : 0),
            back: matte(0),
          })),
        }),
      );
    const stepAt = (roughness: number, x: number) => {
      const tracing = half(roughness);
      const seen = (across: number) =>
        luminanceFrom(tracing, [across, -1, 0.1], [across, 0, 0.1], { samples: 3000 });
      return seen(-x) - seen(x);
    };
    const whole = stepAt(0, 0.02);
    expect(stepAt(0.05, 0.02) / whole).toBeGreaterThan(0.6);
    expect(stepAt(0.4, 0.02) / whole).toBeLessThan(0.35);
    expect(stepAt(0.4, 0.4) / whole).toBeGreaterThan(stepAt(0.4, 0.02) / whole);
  });

  test('a bottle is frosted outside alone: its inside and liquid are as before', () => {
    const set = demoSet('bottle');
    const [product] = set.products;
    if (product?.kind !== 'turned' || product.material.kind !== 'dielectric')
      throw new Error('a glass bottle');
    const frosted = { ...set, products: [{ ...product, material: { ...product.material, roughness: 0.4 } }] };
    expect(setDocument.safeParse(frosted).success).toBe(true);
    const { scene } = prepareTracing(frosted);
    const frosts = scene.surfaces.filter(({ medium }) => medium >= 0).map(({ frost }) => frost);
    expect(frosts.filter((frost) => frost > 0)).toEqual([0.4]);
    expect(frosts.filter((frost) => frost === 0).length).toBeGreaterThan(0);
    expect(scene.media).toEqual(prepareTracing(set).scene.media);
  });
});

test('an opaque cup is hollow: one looks into it, and a drink stands in it', () => {
  const cup = {
    kind: 'turned' as const,
    id: 'cup',
    name: 'Cup',
    positionM: [0, 0, 0] as Vector,
    material: matte(0.8),
    profile: [
      { radiusM: 0.03, heightM: 0 },
      { radiusM: 0.04, heightM: 0.08 },
    ],
    hollow: { wallM: 0.003, baseM: 0.005 },
  };
  const depth = (product: object) => {
    const tracing = prepareTracing(testSet({ products: [product as typeof cup] }));
    const seen = createLook();
    look(seen, tracing, [0, 0, 1], [0, 0, -1]);
    return 1 - (seen.geometry[2] as number);
  };
  expect(depth(cup)).toBeCloseTo(1 - 0.005, 3);
  const milk = { kind: 'dielectric' as const, index: 1.35, absorptionPerCm: 5 };
  expect(depth({ ...cup, hollow: { ...cup.hollow, liquid: { material: milk, fillToM: 0.06 } } })).toBeCloseTo(
    0.94,
    3,
  );
  expect(depth({ ...cup, hollow: undefined })).toBeCloseTo(1 - 0.08, 3);
});
