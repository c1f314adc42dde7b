import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  createLook,
  fresnelMean,
  look,
  luminanceOf,
  NO_PART,
  pickSources,
  prepareTracing,
  rayThrough,
  vector,
} from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

const wall = {
  kind: 'panel' as const,
  widthM: 4,
  heightM: 4,
  centreM: [0, 0.5, 0] as Vector,
  material: matte(0.5),
};
const plate = (material: object, turnDeg = 0): NonNullable<SetDocumentInput['products']> => [
  {
    kind: 'box',
    id: 'plate',
    name: 'plate',
    positionM: [0, 0, -1],
    turnDeg,
    widthM: 2,
    depthM: 0.05,
    heightM: 2,
    material,
  } as never,
];

function seenFrom(set: Partial<SetDocumentInput>, from: Vector, to: Vector) {
  const tracing = prepareTracing(testSet(set));
  const seen = createLook();
  look(seen, tracing, from, vector.normalise(vector.subtract(to, from)));
  const name = (index: number) => tracing.scene.things[index]?.key ?? index;
  return { seen, name };
}

describe('what is seen through', () => {
  test('a glass plate at 45 degrees: shifted by Snell, weakened by both faces and the way inside', () => {
    const glass = { kind: 'dielectric', index: 1.5, absorptionPerCm: 0.1 };
    const { seen, name } = seenFrom(
      { backdrop: wall, products: plate(glass, 45) },
      [0, -1, 0.1],
      [0, 0, 0.1],
    );
    expect([name(seen.thing), name(seen.through)]).toEqual(['plate', 'backdrop']);
    const sine = Math.SQRT1_2 / 1.5;
    const cosine = Math.sqrt(1 - sine * sine);
    const path = 0.05 / cosine;
    const shift = 0.05 * Math.SQRT1_2 * (1 - Math.SQRT1_2 / (1.5 * cosine));
    expect(Math.abs(seen.geometry[9] as number)).toBeCloseTo(shift, 4);
    const passed = (1 - fresnelMean(Math.SQRT1_2, 1.5)) ** 2 * Math.exp(-0.1 * 100 * path);
    expect(seen.throughWeight).toBeCloseTo(passed, 6);
    expect(seen.weight).toBeCloseTo(fresnelMean(Math.SQRT1_2, 1.5), 6);
  });

  test('a net by its openness, thin frost by its straight part, a card not at all', () => {
    const sheet = (material: object): SetDocumentInput['sheets'] => [
      {
        kind: 'frame',
        tag: '1',
        name: 'frame',
        positionM: [0, 0, 0],
        aimM: [0, -1, 0],
        widthM: 1,
        heightM: 1,
        front: material,
        back: material,
      } as never,
    ];
    const through = (material: object) => {
      const { seen, name } = seenFrom({ backdrop: wall, sheets: sheet(material) }, [0, -1, 0.1], [0, 0, 0.1]);
      return [name(seen.through), Number(seen.throughWeight.toFixed(6))];
    };
    expect(through({ kind: 'net', openness: 0.3 })).toEqual(['backdrop', 0.3]);
    expect(through({ kind: 'translucent', reflectance: 0.3, transmittance: 0.6, haze: 0.75 })).toEqual([
      'backdrop',
      0.15,
    ]);
    expect(through({ kind: 'translucent', reflectance: 0.3, transmittance: 0.6, haze: 1 })).toEqual([
      NO_PART,
      0,
    ]);
    expect(through(matte(0.5))).toEqual([NO_PART, 0]);
  });

  test('the middle of the demo bottle shows its background, dyed by the liquid', () => {
    const tracing = prepareTracing(demoSet('cordial-frost'));
    const seen = createLook();
    look(seen, tracing, [0, -1, 0.15], [0, 1, 0]);
    expect(tracing.scene.things[seen.through]?.kind).toBe('backdrop');
    expect(seen.throughWeight).toBeGreaterThan(0.0001);
    expect(seen.throughWeight).toBeLessThan(0.3);
  });
});

describe('where the light of a spot comes from', () => {
  const lamp = { ...overheadSoftbox(1), positionM: [0, -1, 0.6] as Vector, aimM: [0, 0, 0.1] as Vector };

  test('a gloss surface: what it mirrors by Fresnel, the rest its own; together the whole', () => {
    const set = testSet({
      lights: [lamp],
      backdrop: { ...wall, centreM: [0, 0, 0.1], material: { kind: 'coated', reflectance: 0.4 } },
    });
    const tracing = prepareTracing(set);
    const from: Vector = [0, -1, -0.4];
    const to: Vector = [0, 0, 0.1];
    const sources = pickSources(tracing, from, vector.normalise(vector.subtract(to, from)), 512);
    const part = (how: string) =>
      sources.filter((source) => source.how === how).reduce((sum, { unit }) => sum + luminanceOf(...unit), 0);
    const cosine = 1 / Math.hypot(1, 0.5);
    expect(part('mirrored')).toBeCloseTo(fresnelMean(cosine, 1.5), 4);
    expect(sources.find(({ how }) => how === 'mirrored')?.thing?.key).toBe('A');
    expect(part('own')).toBeGreaterThan(0.001);
    const whole = luminanceFrom(tracing, from, to, { samples: 512 });
    expect((part('mirrored') + part('own')) / whole).toBeCloseTo(1, 2);
  });

  test('every pixel of a demo picture: the parts make up what is seen there', () => {
    const tracing = prepareTracing(demoSet('cordial-frost'));
    const direction = new Float64Array(3);
    for (const [x, y] of [
      [0.5, 0.35],
      [0.49, 0.62],
      [0.2, 0.3],
      [0.5, 0.9],
    ] as const) {
      rayThrough(direction, tracing.view, x, y);
      const sources = pickSources(tracing, tracing.view.origin, direction, 1024);
      const sum = sources.reduce((all, { unit }) => all + luminanceOf(...unit), 0);
      const at = vector.add(tracing.view.origin, Array.from(direction) as Vector);
      const whole = [0, 1, 2].reduce(
        (all, channel) => all + luminanceFrom(tracing, tracing.view.origin, at, { samples: 4096, channel }),
        0,
      );
      expect(Math.abs(sum / whole - 1)).toBeLessThan(0.25);
    }
  });
});
