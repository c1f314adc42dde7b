import type { SetDocument, TapeMark, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  buildList,
  MOST_SPREAD,
  marksForTapes,
  marksOf,
  type PlacedMark,
  placeByTapes,
  setCautions,
  tapesTo,
} from '../src/index.js';

const CORNERS: [TapeMark, TapeMark] = ['table-front-left', 'table-front-right'];
const mill = demoSet('mill');
const cordial = demoSet('cordial');
const perry = demoSet('perry');
const at = (x: number, y: number): PlacedMark => ({ mark: 'centre', atM: [x, y] });

describe('two tapes', () => {
  test('three, four and five: one metre apart each is told with its side', () => {
    const fix = tapesTo([at(0, 0), at(3, 0)], [0, 4, 1.7]);
    expect(fix).toMatchObject({ firstM: 4, secondM: 5, side: 'back' });
    expect(tapesTo([at(0, 0), at(3, 0)], [0, -4, 1.7]).side).toBe('front');
    expect(tapesTo([at(0, 0), at(0, 3)], [-2, 1, 0]).side).toBe('left');
    expect(tapesTo([at(0, 3), at(0, 0)], [2, 1, 0]).side).toBe('right');
  });

  const coordinate = fc.double({ min: -3, max: 3, noNaN: true });
  test('meet again at the place they were laid to, from marks that lie anywhere', () => {
    fc.assert(
      fc.property(
        coordinate,
        coordinate,
        coordinate,
        coordinate,
        coordinate,
        coordinate,
        (ax, ay, bx, by, x, y) => {
          fc.pre(Math.hypot(ax - bx, ay - by) > 0.1);
          const marks = [at(ax, ay), at(bx, by)] as const;
          const fix = tapesTo(marks, [x, y, 0]);
          fc.pre(fix.spread < 100);
          const place = placeByTapes(marks, fix);
          expect(Math.hypot((place?.[0] ?? 9) - x, (place?.[1] ?? 9) - y)).toBeLessThan(1e-6);
        },
      ),
    );
  });

  test('misread by a little the place is off by the spread that is told, root mean square', () => {
    const marks = [at(-0.6, -0.4), at(0.6, -0.4)] as const;
    for (const place of [
      [0.2, 0.9, 0],
      [-1.5, 0.1, 0],
      [0.9, -0.2, 0],
    ] as Vector[]) {
      const fix = tapesTo(marks, place);
      const small = 1e-5;
      // Both ways of each tape: the mean of the squares of a round misreading.
      const off = [
        { firstM: fix.firstM + small, secondM: fix.secondM },
        { firstM: fix.firstM, secondM: fix.secondM + small },
      ].map((read) => {
        const [x = 9, y = 9] = placeByTapes(marks, { ...fix, ...read }) ?? [];
        return ((x - place[0]) ** 2 + (y - place[1]) ** 2) / small ** 2;
      });
      expect(Math.sqrt(off.reduce((sum, square) => sum + square, 0))).toBeCloseTo(fix.spread, 2);
    }
  });

  test('in one line with the marks they fix nothing, and say so', () => {
    expect(tapesTo([at(0, 0), at(1, 0)], [3, 0.01, 0]).spread).toBeGreaterThan(MOST_SPREAD);
    expect(tapesTo([at(0, 0), at(1, 0)], [0.5, 0.5, 0]).spread).toBeLessThan(MOST_SPREAD);
  });

  test('too short to reach each other they meet nowhere; one mark is no two', () => {
    expect(placeByTapes([at(0, 0), at(1, 0)], { firstM: 0.3, secondM: 0.3, side: 'back' })).toBeNull();
    expect(placeByTapes([at(0, 0), at(0, 0)], { firstM: 1, secondM: 1, side: 'back' })).toBeNull();
    expect(() => tapesTo([at(0, 0), at(0, 0)], [1, 1, 0])).toThrow(/two places/);
  });

  test('are laid from corners of the table and the room, where a set has them', () => {
    const { bench, room: _room, ...rest } = cordial;
    expect(marksForTapes({ ...rest, bench: undefined, room: undefined }).map(({ mark }) => mark)).toEqual([
      'centre',
    ]);
    const marks = marksOf({ bench, room: undefined }, CORNERS);
    expect(marks?.map(({ atM }) => atM[0])).toEqual([
      (bench?.centreM[0] ?? 0) - (bench?.widthM ?? 0) / 2,
      (bench?.centreM[0] ?? 0) + (bench?.widthM ?? 0) / 2,
    ]);
    expect(marksOf({ bench, room: undefined }, ['centre', 'room-back-left'])).toBeNull();
    expect(marksOf(cordial, ['centre', 'centre'])).toBeNull();
  });
});

describe('a build list', () => {
  const kinds = (list: ReturnType<typeof buildList>) => list.map(({ thing }) => thing.kind);

  test('from nothing: background and table, camera, products, lights one by one, cards; each judged alone', () => {
    const list = buildList(null, cordial, CORNERS);
    const order = ['bench', 'backdrop', 'camera', 'product', 'light', 'sheet', 'person'];
    const ranks = kinds(list).map((kind) => order.indexOf(kind));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    expect(
      list.filter(({ thing }) => thing.kind === 'light').map(({ thing }) => 'tag' in thing && thing.tag),
    ).toEqual(
      cordial.lights.filter(({ kind }) => kind !== 'window' && kind !== 'surround').map(({ tag }) => tag),
    );
    expect(list.filter(({ thing }) => thing.kind === 'sheet').length).toBe(cordial.sheets.length);
    for (const { judgedAlone, thing } of list)
      expect(judgedAlone).toBe(
        thing.kind === 'light' && cordial.lights.find(({ tag }) => tag === thing.tag)?.on,
      );
  });

  test('the light that gives the products most comes first, what is aimed away or off last', () => {
    const [a, b] = perry.lights as [SetDocument['lights'][number], SetDocument['lights'][number]];
    const lightsOf = (set: SetDocument) =>
      buildList(null, set, CORNERS).flatMap(({ thing }) => (thing.kind === 'light' ? [thing.tag] : []));
    const alike = { ...a, on: true, powerStops: -2 };
    const pair = (first: object, second: object): SetDocument => ({
      ...perry,
      lights: [
        { ...alike, tag: 'A', ...first },
        { ...alike, tag: 'B', ...second },
      ] as SetDocument['lights'],
    });
    expect(b.tag).toBe('B');
    expect(lightsOf(pair({}, {}))).toEqual(['A', 'B']);
    expect(lightsOf(pair({}, { powerStops: -1 }))).toEqual(['B', 'A']);
    expect(lightsOf(pair({ on: false }, { powerStops: -4 }))).toEqual(['B', 'A']);
    const away = 'aimM' in a ? a.positionM.map((value, i) => 2 * value - (a.aimM[i] as number)) : [];
    expect(lightsOf(pair({ aimM: away }, { powerStops: -4 }))).toEqual(['B', 'A']);
  });

  test('its tapes and heights put each thing where it stands', () => {
    const marks = marksOf(cordial, CORNERS);
    if (!marks) throw new Error('the set has a table');
    for (const { thing, tapes, heightM, overFloorM } of buildList(null, cordial, CORNERS)) {
      if (!tapes) continue;
      const own = [...cordial.lights, ...cordial.sheets].find(
        (one) => 'tag' in thing && one.tag === thing.tag,
      );
      if (!own || !('positionM' in own)) continue;
      const [x = 9, y = 9] = placeByTapes(marks, tapes) ?? [];
      expect(x).toBeCloseTo(own.positionM[0], 6);
      expect(y).toBeCloseTo(own.positionM[1], 6);
      expect(heightM).toBe(own.positionM[2]);
      expect(overFloorM).toBeCloseTo(own.positionM[2] + cordial.mark.heightAboveFloorM, 9);
    }
  });

  test('from the set before only what differs, what goes away first', () => {
    const [first, ...others] = perry.lights;
    const moved = {
      ...perry,
      lights: others.map((light, i) => (i === 0 ? { ...light, powerStops: light.powerStops - 1 } : light)),
    };
    const list = buildList(perry, moved, CORNERS);
    expect(list.map(({ what }) => what)).toEqual(['take-away', 'change']);
    expect(list[0]?.thing).toEqual({ kind: 'light', tag: first?.tag });
    expect(list[1]?.details.map(({ code }) => code)).toEqual(['power']);
    expect(buildList(cordial, cordial, CORNERS)).toEqual([]);
  });

  test('products of one name are told apart', () => {
    const [bottle] = cordial.products;
    const at = (id: string, x: number) => ({ ...bottle, id, positionM: [x, 0, 0] as Vector });
    const row = { ...cordial, products: [at('a', -0.2), at('b', 0.2)] } as SetDocument;
    const products = buildList(null, row, CORNERS).filter(({ thing }) => thing.kind === 'product');
    expect(products.map(({ stand }) => Math.round(stand?.bearingDeg ?? 0))).toEqual([-90, 90]);
    expect(new Set(products.map(({ key }) => key)).size).toBe(2);
  });

  test('a step that was ticked counts only for its own figures', () => {
    const key = (set: SetDocument) =>
      buildList(null, set, CORNERS).find(({ thing }) => thing.kind === 'light')?.key;
    const nudged = {
      ...cordial,
      lights: cordial.lights.map((light) =>
        'positionM' in light
          ? {
              ...light,
              positionM: [light.positionM[0] + 0.02, light.positionM[1], light.positionM[2]] as Vector,
            }
          : light,
      ),
    };
    expect(key(cordial)).toBe(key(structuredClone(cordial)));
    expect(key(nudged)).not.toBe(key(cordial));
  });

  test('without the marks the bearing and distance are left; windows are not built', () => {
    const list = buildList(null, { ...mill, bench: undefined, room: undefined }, CORNERS);
    expect(list.every(({ tapes }) => tapes === null)).toBe(true);
    expect(list.some(({ stand }) => stand !== null)).toBe(true);
    expect(kinds(list)).not.toContain('room');
  });

  test('every caution stands at the step where it matters, once', () => {
    const hazardous: SetDocument = { ...cordial, hazards: ['flame'] };
    const list = buildList(null, hazardous, CORNERS);
    const told = new Set(list.flatMap(({ cautions }) => cautions.map(({ code }) => code)));
    expect(told).toEqual(new Set(setCautions(hazardous).map(({ code }) => code)));
    const flame = list.findIndex(({ cautions }) => cautions.some(({ code }) => code === 'hazard'));
    expect(list[flame]?.thing.kind).toBe('light');
  });
});
