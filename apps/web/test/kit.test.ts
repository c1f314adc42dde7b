import { defaultKit } from '@fendrix/catalogue';
import { kitDocument } from '@fendrix/contract';
import { expect, test } from 'vitest';
import { searchKit } from '../src/features/kit';
import { choiceFor, choicesOf, firstValue, kindsOf, thingSchema } from '../src/shared/form/schema';
import { labelOf, quantityOf } from '../src/shared/form/words';
import { freeId } from '../src/shared/rows';

const { entries } = defaultKit();
const names = (search: string) => searchKit(entries, search).map(({ name }) => name);

test('the kit is searched by name, by purpose and by kind', () => {
  expect(names('')).toHaveLength(entries.length);
  expect(names('softbox')[0]).toMatch(/^Softbox/);
  for (const [purpose, one] of [
    ['edge', 'Strip 30 x 120'],
    ['bounce', 'White card 20 x 30'],
    ['cut', 'Black flag 20 x 30'],
    ['soft', 'Octa 90'],
    ['gobo', 'Projecting spot, leaves'],
  ] as const)
    expect(names(purpose)).toContain(one);
  // What is called so comes before what is good for it.
  for (const [search, first] of [
    ['bottle', /bottle/i],
    ['cylinder', /cylinder/i],
    ['ring', /^ring/i],
  ] as const)
    expect(names(search)[0]).toMatch(first);
  expect(names('black card lens')).toEqual(['Black card with lens hole']);
  expect(names('no such thing')).toEqual([]);
});

test('a new entry gets an id of its own', () => {
  expect(freeId(entries, 'Octa 90', 'entry')).toBe('octa-90-2');
  expect(freeId(entries, 'Ölpapier, 2×', 'entry')).toBe('olpapier-2');
});

test('every kind of thing has first values that the contract takes', () => {
  for (const what of ['light', 'sheet', 'product', 'material'] as const) {
    for (const choice of choicesOf(thingSchema(what))) {
      for (const kind of kindsOf(choice)) {
        // Meshes, measured lights and pictures come from files.
        if (kind === 'mesh' || kind === 'ies') continue;
        const made: Record<string, unknown> = { ...(firstValue(choice) as object), kind };
        if ('positionM' in made) made.positionM = [0, 0.5, 0.3];
        if ('tag' in made) made.tag = what === 'light' ? 'A' : '1';
        if ('name' in made) made.name = 'new';
        if ('id' in made) made.id = 'new';
        if (kind === 'turned') {
          made.profile = [
            { radiusM: 0.03, heightM: 0 },
            { radiusM: 0.03, heightM: 0.1 },
          ];
        }
        if (kind === 'cut-out') {
          made.outline = [
            { halfWidthM: 0.03, heightM: 0 },
            { halfWidthM: 0.03, heightM: 0.1 },
          ];
        }
        if (kind === 'ring' && what === 'light') made.innerDiameterM = 0.05;
        const kit = {
          format: 'fendrix-kit',
          version: 1,
          entries: [{ what, id: 'a', name: 'a', thing: made }],
        };
        expect(kitDocument.safeParse(kit).error?.issues, `${what} ${kind}`).toBeUndefined();
      }
    }
  }
});

test('a choice is found by its kind', () => {
  expect(choiceFor(thingSchema('sheet'), 'flag')?.properties?.holeDiameterM).toBeDefined();
  expect(choiceFor(thingSchema('sheet'), 'none')).toBeUndefined();
});

test('fields are words with the unit their name carries', () => {
  expect(labelOf('openingWidthM')).toBe('opening width');
  expect(labelOf('cutoffDeg')).toBe('cut-off, full angle');
  const back = (field: string, value: number) => {
    const { format, parse } = quantityOf(field);
    return parse(format(value));
  };
  expect(quantityOf('widthM').format(0.45)).toBe('45 cm');
  for (const [field, value] of [
    ['widthM', 0.45],
    ['temperatureK', 5500],
    ['lossStops', -0.5],
    ['lumens', 1200],
    ['guideNumberM', 40],
    ['index', 1.47],
  ] as const)
    expect(back(field, value)).toBeCloseTo(value, 6);
  expect(quantityOf('index').parse('glass')).toBeNull();
});
