import type { Product, SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { RAY_TO } from '../src/engine/layouts.js';
import { SceneParts } from '../src/geometry/builder.js';
import { addProduct } from '../src/geometry/products/addProduct.js';
import { FOOT_GAP_M } from '../src/geometry/scene.js';
import { UnseenSurfaces } from '../src/geometry/surface.js';
import { prepareTracing, productBounds, productShape, setRay, type Tracing } from '../src/index.js';
import { defaultKitProducts } from './kitProducts.js';
import { seededRandom } from './random.js';
import { testSet } from './sets.js';

type ProductInput = NonNullable<SetDocumentInput['products']>[number];

const grey = { kind: 'matte' as const, reflectance: 0.5 };
const base = { id: 'body', name: 'body', positionM: [0, 0, 0] as Vector, material: grey };

const bodies: Record<string, ProductInput> = {
  bottle: {
    ...base,
    kind: 'turned',
    profile: [
      { radiusM: 0.03, heightM: 0 },
      { radiusM: 0.035, heightM: 0.1, smooth: true },
      { radiusM: 0.01, heightM: 0.16, smooth: true },
      { radiusM: 0.01, heightM: 0.2 },
    ],
  },
  'sharp box': { ...base, kind: 'box', widthM: 0.1, depthM: 0.06, heightM: 0.14 },
  'rounded box': { ...base, kind: 'box', widthM: 0.1, depthM: 0.06, heightM: 0.14, edgeRadiusM: 0.01 },
  'lying ring': {
    ...base,
    kind: 'ring',
    pose: 'lying',
    innerDiameterM: 0.018,
    bandWidthM: 0.004,
    bandThicknessM: 0.002,
  },
  'standing ring': { ...base, kind: 'ring', innerDiameterM: 0.018, bandWidthM: 0.004, bandThicknessM: 0.002 },
  stone: { ...base, kind: 'stone', diameterM: 0.008, heightM: 0.005 },
  dish: { ...base, kind: 'dish', diameterM: 0.2, heightM: 0.03, footDiameterM: 0.12 },
  water: {
    ...base,
    kind: 'water',
    widthM: 0.3,
    depthM: 0.2,
    waterDepthM: 0.02,
    material: { kind: 'dielectric', index: 1.333 },
  },
};

const tracingOf = (product: ProductInput) => prepareTracing(testSet({ products: [product] }));

/** How often a line through the whole scene crosses a surface. */
function crossings({ engine }: Tracing, origin: Vector, direction: Vector): number {
  let count = 0;
  let from: Vector = origin;
  for (; count < 200; count++) {
    setRay(engine.ray, from, direction);
    if (engine.closestHit() < 0) return count;
    const distance = engine.ray[RAY_TO] as number;
    from = from.map((value, a) => value + distance * (direction[a] as number)) as Vector;
  }
  return count;
}

function randomDirection(random: () => number): Vector {
  const z = 2 * random() - 1;
  const phi = 2 * Math.PI * random();
  const side = Math.sqrt(1 - z * z);
  return [side * Math.cos(phi), side * Math.sin(phi), z];
}

describe('bodies are closed: every line that goes in comes out', () => {
  test.each(Object.entries(bodies))('%s', (_name, product) => {
    const tracing = tracingOf(product);
    const { low, high } = productBounds(testSet({ products: [product] }).products[0] as Product);
    const random = seededRandom(4);
    let odd = 0;
    let met = 0;
    for (let i = 0; i < 4000; i++) {
      const target = [0, 1, 2].map(
        (a) => (low[a] as number) + random() * ((high[a] as number) - (low[a] as number)),
      );
      const direction = randomDirection(random);
      const origin = target.map((value, a) => value - 2 * (direction[a] as number)) as Vector;
      const count = crossings(tracing, origin, direction);
      if (count > 0) met++;
      if (count % 2 === 1) odd++;
    }
    expect(met).toBeGreaterThan(300);
    // Lines that graze an edge may be counted once; they are a few in ten thousand.
    expect(odd / met).toBeLessThan(0.004);
  });
});

describe('bodies have the size and place they say', () => {
  const boundsOf = (product: ProductInput) =>
    productBounds(testSet({ products: [product] }).products[0] as Product);
  const size = (product: ProductInput) => {
    const { low, high } = boundsOf(product);
    return high.map((value, a) => value - (low[a] as number));
  };

  test.each<[string, [number, number, number]]>([
    ['sharp box', [0.1, 0.06, 0.14]],
    ['rounded box', [0.1, 0.06, 0.14]],
    ['lying ring', [0.022, 0.022, 0.004]],
    ['standing ring', [0.022, 0.004, 0.022]],
    ['dish', [0.2, 0.2, 0.03]],
    ['water', [0.3, 0.2, 0.02]],
    ['stone', [0.008, 0.008, 0.005]],
  ])('%s', (name, expected) => {
    const found = size(bodies[name] as ProductInput);
    expect(expected.map((value, a) => Math.round((20 * (found[a] as number)) / value) / 20)).toEqual([
      1, 1, 1,
    ]);
  });

  test.each(Object.keys(bodies))('%s stands a hair above the table', (name) => {
    const { low } = boundsOf(bodies[name] as ProductInput);
    expect(low[2]).toBeGreaterThan(0);
    expect(low[2]).toBeLessThan(FOOT_GAP_M + 0.002);
  });

  test('turned to the right it faces right; leaning it reaches out', () => {
    const box = bodies['sharp box'] as ProductInput;
    const quarter = size({ ...box, turnDeg: 90 });
    expect(quarter[0]).toBeCloseTo(0.06, 3);
    expect(quarter[1]).toBeCloseTo(0.1, 3);
    const { high } = boundsOf({ ...box, positionM: [0, 0, 0.1], lean: { deg: 90, bearingDeg: 90 } });
    expect(high[0]).toBeCloseTo(0.14, 2);
  });

  test('the volume of a turned body is that of its outline', () => {
    const product: ProductInput = {
      ...base,
      kind: 'turned',
      profile: [
        { radiusM: 0.05, heightM: 0 },
        { radiusM: 0.02, heightM: 0.1 },
      ],
    };
    const tracing = tracingOf(product);
    const random = seededRandom(9);
    let inside = 0;
    const tries = 20_000;
    for (let i = 0; i < tries; i++) {
      const point: Vector = [0.1 * (random() - 0.5), 0.1 * (random() - 0.5), 0.1 * random() + FOOT_GAP_M];
      if (crossings(tracing, point, randomDirection(random)) % 2 === 1) inside++;
    }
    const frustum = ((Math.PI * 0.1) / 3) * (0.05 ** 2 + 0.05 * 0.02 + 0.02 ** 2);
    expect((inside / tries) * 0.1 ** 3).toBeGreaterThan(0.97 * frustum);
    expect((inside / tries) * 0.1 ** 3).toBeLessThan(1.03 * frustum);
  });

  test.each(['flat', 'heap', 'pieces'] as const)('food lies within its dish: %s', (form) => {
    const food = {
      material: { kind: 'matte' as const, reflectance: [0.9, 0, 0] as Vector },
      form,
      heightM: 0.02,
      pieceM: 0.01,
    };
    const dish: ProductInput = { ...(bodies.dish as ProductInput & { kind: 'dish' }), food };
    const tracing = tracingOf(dish);
    const { surfaces, table } = tracing.scene;
    const red = surfaces.findIndex(({ r, g }) => r > 0.8 && g === 0);
    const seen = (origin: Vector, direction: Vector) => {
      setRay(tracing.engine.ray, origin, direction);
      const hit = tracing.engine.closestHit();
      return hit >= 0 && table.front[hit] === red;
    };
    // From straight above there is food; from below and from the level of the wall there is none.
    const above = Array.from({ length: 100 }, (_, i) =>
      seen([0.004 * ((i % 10) - 5), 0.0004 * (i - 50), 1], [0, 0, -1]),
    );
    expect(above.filter(Boolean).length).toBeGreaterThan(form === 'pieces' ? 20 : 99);
    const random = seededRandom(6);
    for (let i = 0; i < 2000; i++) {
      const angle = 2 * Math.PI * random();
      const from: Vector = [Math.cos(angle), Math.sin(angle), 0.001 + 0.027 * random()];
      expect(seen(from, [-Math.cos(angle), -Math.sin(angle), 0])).toBe(false);
      expect(seen([0.2 * random() - 0.1, 0.2 * random() - 0.1, -1], [0, 0, 1])).toBe(false);
    }
  });

  test('a chain has links all along its path, each a quarter turned to the next', () => {
    const chain: ProductInput = {
      ...base,
      kind: 'chain',
      pathM: [
        [-0.05, 0, 0.003],
        [0.05, 0, 0.003],
      ],
      linkLengthM: 0.006,
      wireM: 0.001,
    };
    const { low, high } = boundsOf(chain);
    expect(high[0] - low[0]).toBeGreaterThan(0.095);
    const tracing = tracingOf(chain);
    let hit = 0;
    for (let i = 0; i < 50; i++) {
      setRay(tracing.engine.ray, [-0.045 + 0.0018 * i, 0.0022, 1], [0, 0, -1]);
      if (tracing.engine.closestHit() >= 0) hit++;
    }
    expect(hit).toBeGreaterThan(5);
    expect(hit).toBeLessThan(48);
  });
});

describe('shapes in the plans', () => {
  test.each(defaultKitProducts())('%s is drawn within its own bounds', (_id, product) => {
    const { low, high } = productBounds(product);
    const shape = productShape(product);
    expect(shape.length).toBeGreaterThan(0);
    const outside = shape
      .flat()
      .filter((point) =>
        point.some((value, a) => value < (low[a] as number) - 1e-3 || value > (high[a] as number) + 1e-3),
      );
    expect(outside).toEqual([]);
  });

  test.each(defaultKitProducts())(
    '%s has the same pieces, whether its surfaces are worked out or not',
    (_id, product) => {
      const [seen, unseen] = [new SceneParts(), new SceneParts(new UnseenSurfaces())];
      for (const parts of [seen, unseen]) addProduct(parts, product);
      const [table, bare] = [seen.list.pack(), unseen.list.pack()];
      expect(bare.kind).toEqual(table.kind);
      expect(bare.data).toEqual(table.data);
      expect(seen.surfaces.surfaces.length).toBeGreaterThan(0);
      expect(unseen.surfaces.surfaces).toEqual([]);
    },
  );
});
