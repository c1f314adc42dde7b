import { dispersion, type SetDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { prepareTracing } from '../src/index.js';
import { indexAt, indexByColour } from '../src/optics/dispersion.js';
import { radians } from '../src/units/angle.js';
import { base64OfBytes } from '../src/units/base64.js';
import { surroundLight, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

describe('index by wavelength', () => {
  test.each([
    // At the yellow line, and the Abbe number of the data sheets: how little it splits.
    ['crown glass', 1.5168, 64.2],
    ['flint glass', 1.62, 36.4],
    ['quartz glass', 1.4585, 67.8],
    ['water', 1.3334, 55.8],
    ['sapphire', 1.7682, 72.2],
    ['zirconia', 2.159, 33.5],
    ['diamond', 2.4175, 55.3],
  ] as const)('%s: %d at 587.6 nm, Abbe number %d', (substance, index, abbe) => {
    const [yellow, blue, red] = [587.56, 486.13, 656.27].map((nm) => indexAt(substance, nm)) as [
      number,
      number,
      number,
    ];
    expect(yellow).toBeCloseTo(index, 3);
    expect(Math.abs((yellow - 1) / (blue - red) / abbe - 1)).toBeLessThan(0.03);
  });

  test('of a material keeps its own for green; blue is bent most', () => {
    for (const substance of dispersion.options) {
      const [red, green, blue] = indexByColour({ index: 1.6, dispersion: substance }) as [
        number,
        number,
        number,
      ];
      expect(green).toBe(1.6);
      expect(red).toBeLessThan(green);
      expect(blue).toBeGreaterThan(green);
    }
    expect(indexByColour({ index: 1.5, dispersion: undefined })).toBeNull();
    expect(indexByColour({ index: 1, dispersion: 'diamond' })).toBeNull();
  });
});

/** An upright prism of 30 degrees whose first face is met square by rays along +y, as a mesh of eight triangles. */
function prism(material: object): SetDocument['products'][number] {
  const corners = [
    [-0.05, -0.03],
    [0.05, -0.03],
    [-0.05, -0.03 + 0.1 * Math.tan(radians(30))],
  ] as const;
  const points = Float32Array.from([0, 0.2].flatMap((z) => corners.flatMap(([x, y]) => [x, y, z])));
  const triangles = Uint32Array.from([
    ...[0, 2, 1],
    ...[3, 4, 5],
    ...[0, 1, 4],
    ...[0, 4, 3],
    ...[1, 2, 5],
    ...[1, 5, 4],
    ...[2, 0, 3],
    ...[2, 3, 5],
  ]);
  const text = (array: Float32Array | Uint32Array) => base64OfBytes(new Uint8Array(array.buffer));
  return {
    kind: 'mesh',
    id: 'prism',
    name: 'Prism',
    positionM: [0, 0, 0],
    turnDeg: 0,
    smoothDeg: 10,
    material,
    positionsBase64: text(points),
    trianglesBase64: text(triangles),
    parts: [{ name: 'prism', triangles: 8, material }],
  } as never;
}

describe('a prism', () => {
  const glass = { kind: 'dielectric', index: 1.62, dispersion: 'flint glass' };
  const [red, green, blue] = indexByColour(glass as never) as [number, number, number];
  /** By how much a ray along +y is turned where it leaves the slanted face, radians. */
  const leaves = (n: number) => Math.asin(n * Math.sin(radians(30))) - radians(30);
  const exit = [0, -0.03 + 0.05 * Math.tan(radians(30))] as const;

  /** Light, red green blue, along a ray into the base when a small lamp stands where one index would send it. */
  const seen = (n: number, material: object, which: 'best' | 'plain' = 'best') => {
    const angle = leaves(n);
    // The slanted face looks to the right: rays are turned to the left.
    const away = 3;
    const lamp = {
      kind: 'bare-lamp',
      tag: 'A',
      name: 'Lamp',
      positionM: [exit[0] - away * Math.sin(angle), exit[1] + away * Math.cos(angle), 0.1],
      radiusM: 0.004,
      output: { kind: 'luminance', luminanceCdM2: 1000 },
    };
    const set = testSet({ lights: [lamp as never], products: [prism(material)] });
    return [0, 1, 2].map((colour) =>
      luminanceFrom(prepareTracing(set, which), [exit[0], -1, 0.1], [exit[0], 1, 0.1], {
        samples: 64,
        colour,
      }),
    ) as [number, number, number];
  };

  test('sends each colour where its own index does', () => {
    for (const [place, n] of [red, green, blue].entries()) {
      const light = seen(n, glass);
      expect(light[place]).toBeGreaterThan(0.5);
      for (const other of [0, 1, 2]) if (other !== place) expect(light[other]).toBeLessThan(1e-9);
    }
  });

  test('of what splits nothing sends all of them one way', () => {
    const plain = { kind: 'dielectric', index: 1.62 };
    const light = seen(1.62, plain);
    expect(light[0]).toBeGreaterThan(0.5);
    expect(light[1]).toBeCloseTo(light[0], 9);
    expect(light[2]).toBeCloseTo(light[0], 9);
    expect(seen(red, plain)).toEqual([0, 0, 0]);
  });

  test('loses no light: in an even surround it cannot be seen', () => {
    const set = testSet({ lights: [surroundLight], products: [prism(glass)] });
    const tracing = prepareTracing(set);
    for (const x of [-0.03, 0.004, 0.03]) {
      const light = luminanceFrom(tracing, [x, -1, 0.1], [x, 1, 0.1], { samples: 400 });
      expect(light).toBeCloseTo(1, 2);
    }
  });

  test('both engines split it alike', () => {
    for (const n of [red, blue]) {
      const [fast, plain] = (['best', 'plain'] as const).map((which) => seen(n, glass, which));
      fast?.forEach((value, colour) => {
        expect(value).toBeCloseTo(plain?.[colour] ?? -1, 6);
      });
      expect(Math.max(...(fast ?? []))).toBeGreaterThan(0.5);
    }
  });
});
