import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { SURFACE_STRIDE } from '../src/engine/layouts.js';
import { prepareTracing } from '../src/index.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, surroundLight, testSet } from './sets.js';
import { oneSurface } from './surfaces.js';
import { luminanceFrom } from './tracing.js';

type ProductInput = NonNullable<SetDocumentInput['products']>[number];
type MaterialInput = ProductInput['material'];

const slab = (material: MaterialInput): ProductInput =>
  ({
    kind: 'box',
    id: 'slab',
    name: 'slab',
    positionM: [0, 0, -0.4],
    widthM: 4,
    depthM: 4,
    heightM: 0.4,
    material,
  }) as ProductInput;

/** Luminance of a wide slab in even light of 1 cd/m2, seen at a slant. */
function inEvenLight(material: MaterialInput, from: Vector = [0.5, 0, 1], samples = 4096): number {
  const tracing = prepareTracing(testSet({ lights: [surroundLight], products: [slab(material)] }));
  return luminanceFrom(tracing, from, [0, 0, 0], { samples });
}

describe('even light: what keeps all of it cannot be seen', () => {
  test.each<[string, MaterialInput]>([
    ['cloth with sheen', { kind: 'cloth', reflectance: 1, sheen: 0.4 }],
    ['weave', { ...matte(1), relief: { kind: 'weave', depthM: 2e-4, sizeM: 2e-3 } }],
    [
      'crumpled foil',
      { kind: 'mirror', reflectance: 1, relief: { kind: 'crumple', depthM: 2e-3, sizeM: 0.02 } },
    ],
  ])('%s', (name, material) => {
    // Shading normals that differ from the outline lose a little at their edges (docs/physics/surfaces.md).
    const allowed = name === 'weave' || name === 'crumpled foil' ? 0.06 : 0.015;
    const steep = inEvenLight(material);
    const low = inEvenLight(material, [2, 0, 0.7]);
    for (const seen of [steep, low]) {
      expect(seen).toBeLessThan(1 + 0.015);
      expect(seen).toBeGreaterThan(1 - allowed);
    }
  });
});

describe('reflectance as stated', () => {
  test.each<[string, MaterialInput, number]>([
    ['cloth', { kind: 'cloth', reflectance: 0.5, sheen: 0 }, 0.5],
    ['printed mid grey', { ...matte(0.9), tone: { kind: 'gradient', from: 0.18, to: 0.18 } }, 0.18],
    // What the skin mirrors comes on top: 2.8 % straight on.
    ['wax', { kind: 'wax', reflectance: 0.5, meanFreePathM: 0.002 }, 0.028 + 0.972 * 0.5],
    ['white wax', { kind: 'wax', reflectance: 0.9, meanFreePathM: 0.002 }, 0.028 + 0.972 * 0.9],
  ])('%s', (_name, material, expected) => {
    const seen = inEvenLight(material, [0.2, 0, 1], 8192);
    expect(Math.abs(seen / expected - 1)).toBeLessThan(0.02);
  });

  test('wax spreads light: a lit stripe glows beyond its edge by about the mean free path', () => {
    const glow = (meanFreePathM: number, beside: number) => {
      const material: MaterialInput = { kind: 'wax', reflectance: 0.9, meanFreePathM };
      const flag = {
        kind: 'flag' as const,
        tag: '1',
        name: 'flag',
        positionM: [-0.5, 0, 0.002] as Vector,
        aimM: [-0.5, 0, 1] as Vector,
        widthM: 1,
        heightM: 1,
        front: matte(0),
        back: matte(0),
      };
      const lamp = { ...overheadSoftbox(2), widthM: 0.01, heightM: 0.01 };
      const tracing = prepareTracing(testSet({ lights: [lamp], sheets: [flag], products: [slab(material)] }));
      // From below the flag's level, along the surface.
      return luminanceFrom(tracing, [-beside, -0.01, 0.001], [-beside, 0, 0], { samples: 8192 });
    };
    expect(glow(0.004, 0.004)).toBeGreaterThan(3 * glow(0.0005, 0.004));
  });
});

describe('scattering of every finish is the same both ways', () => {
  const finishes: MaterialInput[] = [
    { kind: 'cloth', reflectance: 0.6, sheen: 0.5 },
    { kind: 'coated', reflectance: 0.5, roughness: 0.4 },
    { kind: 'mirror', reflectance: 0.8, roughness: 0.3 },
    { kind: 'metal', metal: 'brass', roughness: 0.1, brushed: { along: 'round', acrossRoughness: 0.4 } },
  ];
  test.each(finishes.map((finish) => [JSON.stringify(finish), finish] as const))('%s', (_name, finish) => {
    const { products } = testSet({ products: [slab(finish)] });
    const { tables, model, albedo } = oneSurface((products[0] as (typeof products)[0]).material);
    expect(tables.surfaces.length).toBeGreaterThanOrEqual(SURFACE_STRIDE);
    const random = seededRandom(5);
    const direction = () => {
      const z = 0.05 + 0.95 * random();
      const phi = 2 * Math.PI * random();
      return Float64Array.of(Math.sqrt(1 - z * z) * Math.cos(phi), Math.sqrt(1 - z * z) * Math.sin(phi), z);
    };
    const there = new Float64Array(7);
    const back = new Float64Array(7);
    for (let i = 0; i < 200; i++) {
      const [o, way] = [direction(), direction()];
      model.evaluate(there, 0, albedo, 0.5, o, way, 1);
      model.evaluate(back, 0, albedo, 0.5, way, o, 1);
      for (let c = 0; c < 3; c++) expect(back[c]).toBeCloseTo(there[c] as number, 9);
    }
  });
});

describe('water', () => {
  test('still water mirrors a lamp at 2 % straight on; ripples spread it', () => {
    const pool = (relief: object): SetDocumentInput['products'] => [
      {
        kind: 'water',
        id: 'water',
        name: 'water',
        positionM: [0, 0, -0.1],
        widthM: 2,
        depthM: 2,
        waterDepthM: 0.1,
        material: { kind: 'dielectric', index: 1.333, absorptionPerCm: 10, ...relief },
      } as ProductInput,
    ];
    const lights = [{ ...overheadSoftbox(1), widthM: 0.1, heightM: 0.1 }];
    const seen = (relief: object, x: number, samples = 256) =>
      luminanceFrom(prepareTracing(testSet({ lights, products: pool(relief) })), [0.1, 0, 1], [x, 0, 0], {
        samples,
      });
    expect(seen({}, 0.05)).toBeCloseTo(0.02, 3);
    expect(seen({}, 0.3)).toBeLessThan(1e-6);
    // One spot shows one slope: the glitter is the mean over a stretch.
    const rippled = { relief: { kind: 'ripples', depthM: 0.002, sizeM: 0.03 } };
    const stretch = (middle: number) =>
      Array.from({ length: 60 }, (_, i) => seen(rippled, middle + 0.002 * (i - 30), 8)).reduce(
        (a, b) => a + b,
      ) / 60;
    expect(stretch(0.15)).toBeGreaterThan(1e-4);
    expect(stretch(0.05)).toBeLessThan(0.015);
  });
});
