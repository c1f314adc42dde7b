import type { Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  aimFacing,
  aimTargetOf,
  aimTargets,
  aimTowards,
  facingOf,
  formatTilt,
  parseTiltDeg,
  traceKey,
  vector,
} from '../src/index.js';
import { matte, overheadSoftbox, testCamera, testSet } from './sets.js';

const place = fc.tuple(
  fc.double({ min: -3, max: 3, noNaN: true }),
  fc.double({ min: -3, max: 3, noNaN: true }),
  fc.double({ min: 0, max: 2, noNaN: true }),
) as fc.Arbitrary<Vector>;

describe('which way a thing faces', () => {
  test.each<[Vector, number, number]>([
    [[0, -1, 0], 0, 0],
    [[1, 0, 0], 90, 0],
    [[0, 1, 0], 180, 0],
    [[-1, 0, 0], -90, 0],
    [[0, 0, 1], 0, 90],
    [[0, 1, -1], 180, -45],
  ])('towards %j it is %f round and %f over the level', (aim, bearingDeg, tiltDeg) => {
    const facing = facingOf([0, 0, 0], aim);
    expect(facing.bearingDeg).toBeCloseTo(bearingDeg, 9);
    expect(facing.tiltDeg).toBeCloseTo(tiltDeg, 9);
  });

  test('the point it faces is found again from bearing, tilt and distance', () => {
    fc.assert(
      fc.property(place, place, (at, aim) => {
        fc.pre(vector.distance(at, aim) > 1e-3);
        expect(vector.distance(aimFacing(at, facingOf(at, aim)), aim)).toBeLessThan(1e-9);
      }),
    );
  });

  test('steeper than upright, or at nothing, is refused', () => {
    expect(() => aimFacing([0, 0, 0], { bearingDeg: 0, tiltDeg: 91, distanceM: 1 })).toThrow('tilt');
    expect(() => aimFacing([0, 0, 0], { bearingDeg: 0, tiltDeg: 0, distanceM: 0 })).toThrow('some way off');
  });

  test.each([
    ['30 down', -30],
    ['12° up', 12],
    ['-7.5', -7.5],
    ['Level', 0],
    ['sideways', null],
  ])('%s is understood as %s', (typed, tilt) => {
    expect(parseTiltDeg(typed)).toBe(tilt);
  });

  test('a tilt is told with its way', () => {
    expect([-30, 12.34, 0.01].map(formatTilt)).toEqual(['30° down', '12.3° up', 'level']);
  });
});

describe('what a thing is aimed at', () => {
  const card = {
    kind: 'card' as const,
    tag: '1',
    name: 'Card',
    positionM: [-0.4, -0.3, 0.2] as Vector,
    aimM: [0, 0, 0.1] as Vector,
    widthM: 0.2,
    heightM: 0.3,
    front: matte(0.8),
    back: matte(0.04),
  };
  const box = (id: string, x: number) => ({
    kind: 'box' as const,
    id,
    name: id,
    positionM: [x, 0, 0] as Vector,
    widthM: 0.06,
    depthM: 0.06,
    heightM: 0.2,
    material: matte(0.5),
  });
  const set = testSet({
    products: [box('near', -0.1), box('far', 0.3)],
    bench: { widthM: 1.2, depthM: 0.9, material: matte(0.3) },
    backdrop: {
      kind: 'panel',
      widthM: 1,
      heightM: 1,
      centreM: [0, 0.6, 0.5],
      turnDeg: 20,
      material: matte(0.8),
    },
    sheets: [card],
    camera: testCamera(),
  });

  test('the middle of the nearest product, and the lens', () => {
    const product = aimTowards(set, card.positionM, card.aimM, 'product');
    expect(product).toEqual([expect.closeTo(-0.1, 6), expect.closeTo(0, 6), expect.closeTo(0.1, 3)]);
    expect(aimTowards(set, card.positionM, card.aimM, 'lens')).toEqual(set.camera.positionM);
    expect(aimTowards(set, set.camera.positionM, [0, 0, 0], 'lens')).toBeNull();
  });

  test('parallel to another flat sheet, never to itself', () => {
    const other = {
      ...card,
      tag: '2',
      positionM: [0.5, 0.2, 0.3] as Vector,
      aimM: [0.2, -0.1, 0.1] as Vector,
    };
    const cone = { ...card, kind: 'cone' as const, tag: '3', positionM: [0, -1, 0] as Vector };
    const two = { ...set, sheets: [card, other, cone] } as typeof set;
    expect(aimTargets(two, card.positionM, card.aimM)).toEqual([
      'product',
      'lens',
      'background',
      'table',
      'sheet 2',
    ]);
    const aim = aimTowards(two, card.positionM, card.aimM, 'sheet 2') ?? [0, 0, 0];
    const way = vector.normalise(vector.subtract(aim, card.positionM));
    const along = vector.normalise(vector.subtract(other.aimM, other.positionM));
    expect(Math.abs(vector.dot(way, along))).toBeCloseTo(1, 9);
    expect(aimTargetOf(two, card.positionM, aim)).toBe('sheet 2');
    expect(aimTowards(set, card.positionM, card.aimM, 'sheet 9')).toBeNull();
  });

  test('parallel to a turned background, on the side it faces already and as far off as before', () => {
    for (const [aimM, away] of [
      [[-0.4, 0.3, 0.2], 1],
      [[-0.4, -0.9, 0.2], -1],
    ] as const) {
      const aim = aimTowards(set, card.positionM, [...aimM], 'background') ?? [0, 0, 0];
      const way = vector.normalise(vector.subtract(aim, card.positionM));
      const turn = (20 * Math.PI) / 180;
      expect(vector.dot(way, [-Math.sin(turn), Math.cos(turn), 0])).toBeCloseTo(away, 9);
      expect(vector.distance(card.positionM, aim)).toBeCloseTo(0.6, 9);
    }
    const down = aimTowards(set, card.positionM, card.aimM, 'table');
    expect(down?.[2]).toBeLessThan(card.positionM[2]);
  });

  test.each(['product', 'lens', 'background', 'table'] as const)('%s is told once it is so', (target) => {
    const aim = aimTowards(set, card.positionM, card.aimM, target);
    if (!aim) throw new Error('there is one');
    expect(aimTargetOf(set, card.positionM, aim)).toBe(target);
    expect(aimTargetOf(set, card.positionM, vector.add(aim, [0.05, 0.03, 0.07]))).toBeNull();
  });

  test('what is not there is not aimed at', () => {
    for (const name of demoNames) {
      const { backdrop: _backdrop, bench: _bench, ...bare } = demoSet(name);
      const nothing = { ...bare, products: [] };
      for (const target of ['product', 'background', 'table'] as const)
        expect(aimTowards(nothing, [1, 1, 1], [0, 0, 0], target)).toBeNull();
    }
  });

  test('keeping a direction for when it is moved changes no path of light', () => {
    const lit = { ...set, lights: [overheadSoftbox(1)] };
    const keeps = {
      ...lit,
      lights: lit.lights.map((light) => ({ ...light, keepsDirection: true })),
      sheets: lit.sheets.map((sheet) => ({ ...sheet, keepsDirection: true })),
      camera: { ...lit.camera, keepsDirection: true },
    };
    expect(traceKey(keeps as never)).toBe(traceKey(lit as never));
  });
});
