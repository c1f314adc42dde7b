import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { THROUGH_WEIGHT } from '../src/engine/sight.js';
import { cloudReflectance } from '../src/geometry/surface.js';
import { buildScene, prepareTracing } from '../src/index.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, surroundLight, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

type ProductInput = NonNullable<SetDocumentInput['products']>[number];
type DielectricInput = Extract<ProductInput['material'], { kind: 'dielectric' }>;

const cloudy = (scatteringPerCm: number, more: Partial<DielectricInput> = {}): DielectricInput => ({
  kind: 'dielectric',
  index: 1.34,
  scatteringPerCm,
  ...more,
});

const slab = (material: DielectricInput, thickM: number): ProductInput => ({
  kind: 'box',
  id: 'slab',
  name: 'Slab',
  positionM: [0, 0, 0.01],
  widthM: 4,
  depthM: 4,
  heightM: thickM,
  material,
});

const tumbler = (liquid: DielectricInput): ProductInput => ({
  kind: 'turned',
  id: 'glass',
  name: 'Glass',
  positionM: [0, 0, 0],
  material: { kind: 'dielectric', index: 1.52 },
  profile: [
    { radiusM: 0.035, heightM: 0 },
    { radiusM: 0.035, heightM: 0.12 },
  ],
  hollow: { wallM: 0.002, baseM: 0.006, liquid: { material: liquid, fillToM: 0.1 } },
});

/** Luminance in even light of 1 cd/m2 from above, seen evenly from all round above. */
function sentBack(material: DielectricInput, thickM: number): number {
  const set = testSet({
    lights: [surroundLight],
    bench: { widthM: 60, depthM: 60, material: matte(0) },
    products: [slab(material, thickM)],
  });
  const tracing = prepareTracing(set);
  const random = seededRandom(3);
  const looks = 64;
  let sum = 0;
  for (let i = 0; i < looks; i++) {
    const phi = 2 * Math.PI * random();
    const radius = Math.sqrt((i + 0.5) / looks);
    const up = Math.sqrt(1 - radius * radius);
    const from: Vector = [radius * Math.cos(phi), radius * Math.sin(phi), 0.01 + thickM + up];
    sum += luminanceFrom(tracing, from, [0, 0, 0.01 + thickM], { samples: 1024 });
  }
  return sum / looks;
}

describe('what is cloudy and absorbs nothing loses no light', () => {
  test.each<[string, ProductInput]>([
    ['a glass of thin juice', tumbler(cloudy(1))],
    ['a glass of milk', tumbler(cloudy(20))],
    [
      'a block of opal glass',
      { ...slab(cloudy(5, { index: 1.5 }), 0.03), widthM: 0.05, depthM: 0.05 } as ProductInput,
    ],
  ])('%s', (_name, product) => {
    const tracing = prepareTracing(testSet({ lights: [surroundLight], products: [product] }));
    for (const [from, target] of [
      [
        [0, -1, 0.03],
        [0, 0, 0.03],
      ],
      [
        [0.3, -0.8, 0.6],
        [0.01, 0, 0.03],
      ],
    ] as [Vector, Vector][]) {
      expect(Math.abs(luminanceFrom(tracing, from, target, { samples: 32768 }) - 1)).toBeLessThan(0.012);
    }
  });
});

test.each([
  [0.5, 0.704],
  [1, 0.5532],
  [3, 0.3016],
])('a layer %s scatterings deep lets even light through as the exact theory says', (deep, passed) => {
  // Heaslet and Warming 1965: what scatters evenly without loss is as what takes up and gives off in equilibrium.
  const thickM = 0.002;
  const back = sentBack(cloudy(deep / (100 * thickM), { index: 1 }), thickM);
  expect(Math.abs(back - (1 - passed))).toBeLessThan(0.01);
});

test('a deep layer sends back what is reckoned for quick pictures, but for what its surface mirrors', () => {
  const absorptionPerCm = [0.05, 0.5, 4];
  const set = testSet({ products: [slab(cloudy(20, { absorptionPerCm }), 0.2)] });
  const [medium] = buildScene(set).media;
  if (!medium) throw new Error('the slab is a medium');
  const reckoned = cloudReflectance(medium);
  absorptionPerCm.forEach((lost, c) => {
    const grey = sentBack(cloudy(20, { absorptionPerCm: lost }), 0.2);
    // Even light is mirrored by 6.8 % at an index of 1.34 (Walsh).
    const entered = 0.068 + (1 - 0.068) * (reckoned[c] as number);
    expect(Math.abs(grey - entered)).toBeLessThan(0.04);
  });
});

describe('a filled glass', () => {
  const lit = (liquid: DielectricInput) =>
    testSet({
      lights: [overheadSoftbox(1, { positionM: [-0.7, -0.7, 0.3], aimM: [0, 0, 0.05] })],
      products: [tumbler(liquid)],
    });
  const seen = (liquid: DielectricInput, quick = false) => {
    const tracing = prepareTracing(lit(liquid));
    return luminanceFrom(tracing, [0, -1, 0.05], [-0.005, 0, 0.05], { samples: 8192, quick });
  };

  test('of milk is white where one of clear juice is dark', () => {
    expect(seen(cloudy(20))).toBeGreaterThan(20 * seen(cloudy(0)));
  });

  test('is dimmer the more it absorbs', () => {
    expect(seen(cloudy(20, { absorptionPerCm: 2 }))).toBeLessThan(0.6 * seen(cloudy(20)));
  });

  test('looks about as bright in the quick picture, which takes it for a matte body', () => {
    const ratio = seen(cloudy(20), true) / seen(cloudy(20));
    expect(ratio).toBeGreaterThan(0.7);
    expect(ratio).toBeLessThan(1.4);
  });

  test('shows what stands behind it the less the cloudier it is', () => {
    const through = (scatteringPerCm: number) => {
      const { engine } = prepareTracing(lit(cloudy(scatteringPerCm)));
      engine.point.set([0, -1, 0.05]);
      engine.direction.set([0, 1, 0]);
      engine.look();
      return engine.sight[THROUGH_WEIGHT + 1] as number;
    };
    // Straight through 6.6 cm of it.
    expect(through(0.2) / through(0)).toBeCloseTo(Math.exp(-0.2 * 6.6), 3);
    expect(through(20)).toBeLessThan(1e-4);
  });
});

test('both engines follow the same ways through it', () => {
  const [best, plain] = (['best', 'plain'] as const).map((engine) => {
    const tracing = prepareTracing(
      testSet({ lights: [surroundLight], products: [tumbler(cloudy(3))] }),
      engine,
    );
    return luminanceFrom(tracing, [0, -1, 0.03], [0.01, 0, 0.03], { samples: 64 });
  });
  expect(best).toBeCloseTo(plain as number, 9);
});
