import type { Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  illuminanceByLight,
  METER_AGAIN_STOPS,
  minutesOfDrift,
  penumbra,
  prepareTracing,
  shakesByHand,
} from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

/** A thin board that floats over the table, its top at a height. */
const floating = (topM: number, more: object = {}) => ({
  kind: 'box' as const,
  id: 'board',
  name: 'Board',
  positionM: [0, 0, topM - 0.001] as Vector,
  widthM: 0.4,
  depthM: 0.8,
  heightM: 0.001,
  material: matte(0.5),
  ...more,
});
const light = (set: ReturnType<typeof testSet>) => set.lights[0] as never;

describe('the soft edge of a shadow', () => {
  test('is the size of the light times the way to the shadow over the way to the light', () => {
    const set = testSet({ lights: [overheadSoftbox(1.2)], products: [floating(0.2)] });
    expect(penumbra(set, light(set))).toMatchObject({
      on: 'table',
      sideM: expect.closeTo(0.6 * 0.2, 3),
      endM: expect.closeTo(0.9 * 0.2, 3),
      lightM: expect.closeTo(1, 3),
      shadowM: expect.closeTo(0.2, 3),
    });
  });

  test('traced light runs from none to all within it, and no further', () => {
    const set = testSet({ lights: [overheadSoftbox(1.2)], products: [floating(0.2)] });
    const { sideM } = penumbra(set, light(set)) ?? { sideM: 0 };
    const lux = (x: number, products = set.products) =>
      illuminanceByLight(prepareTracing({ ...set, products }), [x, 0, 0], [0, 0, 1], {
        samples: 4000,
        seed: 1,
        directOnly: true,
      }).reduce((sum, { direct }) => sum + direct, 0);
    // The edge of the board is at 20 cm: straight below it the penumbra is 20 % of the way further out.
    const middle = 0.2 + 0.2 * 0.2;
    expect(lux(middle - sideM / 2 - 0.004)).toBe(0);
    expect(lux(middle + sideM / 2 + 0.004)).toBeCloseTo(lux(middle + sideM / 2 + 0.004, []), 6);
    const half = lux(middle) / lux(middle, []);
    expect(half).toBeGreaterThan(0.4);
    expect(half).toBeLessThan(0.6);
  });

  test('where the shadow of the top falls beside the table, a lower point counts', () => {
    const side = overheadSoftbox(0.5, {
      positionM: [-0.6, 0, 0.5],
      aimM: [0, 0, 0.1],
      widthM: 0.1,
      heightM: 0.1,
    });
    const tall = floating(0.4, { positionM: [0, 0, 0], widthM: 0.05, depthM: 0.05, heightM: 0.4 });
    const bench = { widthM: 1, depthM: 1, material: matte(0.3) };
    const set = testSet({ lights: [side], products: [tall], bench });
    const edge = penumbra(set, light(set));
    // A ray past a point h high comes down 0.6 h / (0.5 - h) behind it: 50 cm, the edge of the table, for h = 0.25 / 1.1.
    expect(edge?.heightM).toBeLessThan((0.5 * 0.5) / 1.1 + 0.001);
    expect(edge?.heightM).toBeGreaterThan((0.5 * 0.5) / 1.1 - 0.4 / 40 - 0.001);
    expect(edge?.sideM).toBeCloseTo((0.1 * (edge?.shadowM ?? 0)) / (edge?.lightM ?? 1), 9);
  });

  test('a low light draws the end of the shadow out; a wall behind catches it first', () => {
    const low = overheadSoftbox(0.5, {
      positionM: [0, -1, 0.5],
      aimM: [0, 0, 0.1],
      widthM: 0.1,
      heightM: 0.1,
    });
    const open = testSet({ lights: [low], products: [floating(0.2)] });
    const onTable = penumbra(open, light(open));
    expect(onTable?.on).toBe('table');
    expect((onTable?.endM ?? 0) / (onTable?.sideM ?? 1)).toBeGreaterThan(2);
    const backdrop = {
      kind: 'panel' as const,
      widthM: 1,
      heightM: 1,
      centreM: [0, 0.3, 0.5] as Vector,
      material: matte(0.8),
    };
    const walled = testSet({ lights: [low], products: [floating(0.2)], backdrop });
    expect(penumbra(walled, light(walled))?.on).toBe('background');
  });

  test('a light that reaches below the top of the product throws a shadow that never ends; its sides are told', () => {
    const strip = overheadSoftbox(0.3, {
      positionM: [0, -1, 0.3],
      aimM: [0, 0, 0.3],
      widthM: 0.2,
      heightM: 0.5,
    });
    const set = testSet({ lights: [strip], products: [floating(0.2)] });
    const edge = penumbra(set, light(set));
    expect(edge?.endM).toBeNull();
    // From 0.3 m high through 0.2 m it meets the table twice as far behind the product as the light is before it.
    expect(edge?.sideM).toBeCloseTo(0.2 * 2, 2);
  });

  test('a small bulb is hard, and there is none without a product or with the light below it', () => {
    const bulb = { ...overheadSoftbox(1.2), kind: 'bare-lamp' as const, radiusM: 0.01 };
    const { widthM: _w, heightM: _h, aimM: _a, ...lamp } = bulb;
    const set = testSet({ lights: [lamp as never], products: [floating(0.2)] });
    expect(penumbra(set, light(set))?.sideM).toBeCloseTo(0.02 * 0.2, 4);
    const bare = testSet({ lights: [overheadSoftbox(1.2)] });
    expect(penumbra(bare, light(bare))).toBeNull();
    const under = testSet({ lights: [overheadSoftbox(0.1)], products: [floating(0.2)] });
    expect(penumbra(under, light(under))).toBeNull();
  });

  test.each(demoNames)('%s: what is told is finite and above nothing', (name) => {
    const set = demoSet(name);
    for (const one of set.lights) {
      const edge = one.kind === 'surround' ? null : penumbra(set, one);
      if (edge)
        for (const value of [edge.sideM, edge.endM ?? 1, edge.lightM, edge.shadowM])
          expect(value).toBeGreaterThan(0);
      if (edge) expect(edge.endM).not.toBe(Infinity);
    }
  });
});

test('daylight is metered again after a third of a stop', () => {
  expect(minutesOfDrift(-0.5, METER_AGAIN_STOPS)).toBeCloseTo(40, 9);
  expect(minutesOfDrift(2, METER_AGAIN_STOPS)).toBeCloseTo(10, 9);
  expect(minutesOfDrift(0, METER_AGAIN_STOPS)).toBeNull();
});

test.each([
  ['hand', 1 / 30, true],
  ['hand', 1 / 125, false],
  ['self-timer', 2, false],
  ['cable', 2, false],
] as const)('released by %s at %f s: shakes is %s', (release, shutterS, shakes) => {
  expect(shakesByHand({ release, shutterS })).toBe(shakes);
});
