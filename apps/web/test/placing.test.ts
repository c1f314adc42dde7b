import { type SetDocument, setDocument, type Vector } from '@fendrix/contract';
import { productBounds } from '@fendrix/core';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { copyKey, copyToOtherSide, plinthKey, standOnPlinth } from '../src/features/bench/state/placing';
import { SHEET_PLACES, type SheetPlace, sheetAt } from '../src/features/bench/state/sheetPlaces';

const isSound = (set: SetDocument) => setDocument.safeParse(set).error?.issues ?? [];

describe('a plinth', () => {
  test.each(demoNames)(
    '%s: what stands on it stands on its top, within its edges, and the set is sound',
    (name) => {
      const set = demoSet(name);
      for (const { id } of set.products) {
        const key = plinthKey(set, id);
        if (!key) throw new Error('there is place for a plinth');
        const lifted = standOnPlinth(id, key.key)(set);
        const bounds = (of: string) => {
          const product = lifted.products.find((one) => one.id === of);
          if (!product) throw new Error('it is on the set');
          return productBounds(product);
        };
        const [own, plinth] = [bounds(id), bounds(key.key)];
        expect(own.low[2]).toBeCloseTo(plinth.high[2], 3);
        for (const axis of [0, 1] as const) {
          expect(plinth.low[axis]).toBeLessThanOrEqual(own.low[axis]);
          expect(plinth.high[axis]).toBeGreaterThanOrEqual(own.high[axis]);
        }
        expect(isSound(lifted)).toEqual([]);
      }
    },
  );

  test('a product that is gone gets none', () => {
    const set = demoSet(demoNames[0] as (typeof demoNames)[number]);
    expect(plinthKey(set, 'gone')).toBeNull();
    expect(standOnPlinth('gone', 'plinth')(set)).toBe(set);
  });
});

describe('the same on the other side', () => {
  const set = demoSet('cordial');
  const gradient = {
    kind: 'card' as const,
    tag: '7',
    name: 'Gradient card',
    positionM: [-0.4, -0.3, 0.2] as Vector,
    aimM: [0, 0.1, 0.1] as Vector,
    rollDeg: 20,
    stand: false,
    widthM: 0.2,
    heightM: 0.3,
    front: {
      kind: 'matte' as const,
      reflectance: 0.8,
      tone: {
        kind: 'gradient' as const,
        direction: 'across' as const,
        from: 0.04,
        to: 0.8,
        start: 0.1,
        end: 1,
        gamma: 2,
      },
    },
    back: { kind: 'matte' as const, reflectance: 0.04 },
  };
  const withCard = { ...set, sheets: [...set.sheets, gradient] };

  test('a card stands and faces as its mirror image; its gradient runs the other way', () => {
    const key = copyKey(withCard, { kind: 'sheet', key: '7' });
    const copied = copyToOtherSide({ kind: 'sheet', key: '7' }, key?.key ?? '')(withCard);
    expect(copied.sheets.at(-1)).toMatchObject({
      positionM: [0.4, -0.3, 0.2],
      aimM: [-0, 0.1, 0.1],
      rollDeg: 160,
      front: gradient.front,
    });
    expect(copied.lights).toEqual(withCard.lights);
    expect(isSound(copied)).toEqual([]);
  });

  test('twice across is where it stood, and every aimed light can be copied', () => {
    for (const { tag } of set.lights) {
      const once = copyToOtherSide({ kind: 'light', key: tag }, 'X')(set);
      const twice = copyToOtherSide({ kind: 'light', key: 'X' }, 'Y')(once);
      const [own, back] = [set.lights.find((one) => one.tag === tag), twice.lights.at(-1)];
      if (!own || !('positionM' in own)) continue;
      expect(back).toEqual({ ...own, tag: 'Y' });
      expect(isSound(twice)).toEqual([]);
    }
  });

  test('a product has no other side, and without a free tag there is no copy', () => {
    expect(copyKey(set, { kind: 'product', key: 'bottle' })).toBeNull();
    const full = {
      ...set,
      sheets: Array.from({ length: 99 }, (_, i) => ({ ...gradient, tag: `${i + 1}` })),
    };
    expect(copyKey(full, { kind: 'sheet', key: '1' })).toBeNull();
  });
});

describe('a sheet is put by one press', () => {
  const set = demoSet('cordial');
  const bench = set.bench;
  const [sheet] = set.sheets;
  if (!bench || !sheet) throw new Error('the demo has a table and a sheet');

  test.each(Object.keys(SHEET_PLACES) as SheetPlace[])(
    '%s: it stands there and faces the products',
    (place) => {
      const put = sheetAt(set, sheet, place);
      if (!put) throw new Error('there is such a place');
      const way = put.aimM.map((to, axis) => to - (put.positionM[axis] as number));
      const inwards = put.positionM.map((at, axis) => (bench.centreM[axis] ?? 0) - at);
      expect(
        (way[0] as number) * (inwards[0] as number) + (way[1] as number) * (inwards[1] as number),
      ).toBeGreaterThan(0);
      if (place !== 'lens' && 'heightM' in put) expect(put.positionM[2]).toBeCloseTo(put.heightM / 2, 9);
    },
  );

  test('along an edge its middle is over that edge; without a table there is none', () => {
    expect(sheetAt(set, sheet, 'left')?.positionM[0]).toBeCloseTo(bench.centreM[0] - bench.widthM / 2, 9);
    expect(sheetAt(set, sheet, 'behind')?.positionM[1]).toBeCloseTo(bench.centreM[1] + bench.depthM / 2, 9);
    expect(sheetAt({ camera: set.camera }, sheet, 'left')).toBeNull();
    expect(sheetAt({ camera: set.camera }, sheet, 'lens')).not.toBeNull();
  });
});
