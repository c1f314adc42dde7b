import { defaultKit } from '@fendrix/catalogue';
import type { Kit } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { cautionsFor, kitCheck, leftInKit, namedSpots, productBounds } from '../src/index.js';
import { overheadSoftbox, testSet } from './sets.js';

const kit = defaultKit();
const with26 = (count: number): Kit => ({
  ...kit,
  entries: kit.entries.map((entry) =>
    entry.id === 'softbox-40x60' ? { ...entry, count } : { ...entry, count: 0 },
  ),
});
const softbox = (tag: string) => overheadSoftbox(1, { tag, widthM: 0.4, heightM: 0.6 });

describe('what the kit holds', () => {
  test('a softbox of the size there is, turned or not, is held; each piece serves once', () => {
    expect(kitCheck(testSet({ lights: [softbox('A')] }), with26(1))).toEqual([]);
    const turned = overheadSoftbox(1, { tag: 'A', widthM: 0.6, heightM: 0.4 });
    expect(kitCheck(testSet({ lights: [turned] }), with26(1))).toEqual([]);
    const two = kitCheck(testSet({ lights: [softbox('A'), softbox('B')] }), with26(1));
    expect(two.map(({ tag }) => tag)).toEqual(['B']);
    expect(kitCheck(testSet({ lights: [softbox('A'), softbox('B')] }), with26(2))).toEqual([]);
  });

  test('one that is missing comes with what could stand in, the same kind first', () => {
    const large = overheadSoftbox(1, { tag: 'A', widthM: 2, heightM: 2 });
    const [missing] = kitCheck(testSet({ lights: [large] }), kit);
    expect(missing?.tag).toBe('A');
    expect(missing?.instead.length).toBeGreaterThan(1);
    const [first] = missing?.instead ?? [];
    expect(kit.entries.find(({ id }) => id === first?.id)?.thing.kind).toBe('softbox');
  });

  test('what is left of the kit: each thing on the set takes one piece, and what the kit has not takes none', () => {
    const set = demoSet('mill');
    const kit = defaultKit();
    const left = leftInKit(set, kit);
    const missing = kitCheck(set, kit).length;
    const counted = kit.entries.filter(({ what }) => what === 'light' || what === 'sheet');
    const used = counted.reduce((sum, { id, count }) => sum + count - (left.get(id) ?? 0), 0);
    expect(used).toBe(set.lights.length + set.sheets.length - missing);
    expect([...left.values()].every((number) => number >= 0)).toBe(true);
    const bare = leftInKit({ ...set, lights: [], sheets: [] }, kit);
    for (const { id, count } of counted) expect(bare.get(id)).toBe(count);
  });

  test('an empty kit holds nothing and offers nothing; a surround needs no kit', () => {
    const set = demoSet('cordial-frost');
    const missing = kitCheck(set, { ...kit, entries: [] });
    expect(missing).toHaveLength(set.lights.length + set.sheets.length);
    expect(missing.every(({ instead }) => instead.length === 0)).toBe(true);
  });
});

test('named spots lie on the product: front nearest, label on its side', () => {
  const [bottle] = demoSet('cordial-frost').products;
  if (!bottle) throw new Error('the demo set has a bottle');
  const { low, high } = productBounds(bottle);
  const spots = new Map(namedSpots(bottle).map(({ name, pointM }) => [name, pointM]));
  expect(spots.get('front')?.[1]).toBeCloseTo(low[1], 9);
  expect(spots.get('top')?.[2]).toBeCloseTo(high[2], 9);
  expect(spots.get('label')?.[1]).toBeCloseTo(-0.036, 3);
  expect(spots.get('label')?.[2]).toBeCloseTo(0.07, 3);
});

test('cautions come with the products they belong to', () => {
  const of = (goods: 'glass' | 'food' | 'drink' | 'other', fragile = '') =>
    cautionsFor({ goods, fragile, clear: 'clear' });
  expect(of('glass')).toEqual(['glass']);
  expect(of('food')).toEqual(['knives']);
  expect(of('drink')).toEqual(['glass', 'liquid']);
  expect(of('other', 'melts in the warmth')).toEqual(['heat']);
  expect(of('other')).toEqual([]);
});
