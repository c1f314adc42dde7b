import { describe, expect, test } from 'vitest';
import {
  LONG_TEXT,
  longTextReferencesOf,
  longTextsOf,
  withLongTextReferences,
  withLongTexts,
} from '../src/longTexts.js';
import { soundTexts } from '../src/soundTexts.js';

const long = 'A'.repeat(LONG_TEXT + 1);
const name = 'ab'.repeat(32);
const document = {
  name: 'A set',
  products: [{ points: long }, { points: 'short' }],
  takes: [{ products: [{ points: long }] }],
};

describe('long texts of a document', () => {
  test('each is found once, however often it stands there', () => {
    expect(longTextsOf(document)).toEqual([long]);
  });

  test('they are named and written out again, and nothing else is touched', () => {
    const short = withLongTextReferences(document, new Map([[long, name]]));
    expect(JSON.stringify(short).length).toBeLessThan(400);
    expect(longTextReferencesOf(short)).toEqual([name]);
    expect(withLongTexts(short, new Map([[name, long]]))).toEqual(document);
    expect(document.products[0]).toEqual({ points: long });
  });

  test('what has no name stays, and a name without its text stays a name', () => {
    expect(withLongTextReferences(document, new Map())).toBe(document);
    const short = { points: { longText: name } };
    expect(withLongTexts(short, new Map())).toEqual(short);
  });

  test('what only looks like a reference is none', () => {
    for (const longText of ['', 'AB'.repeat(32), 7, `${name}0`]) {
      expect(longTextReferencesOf({ points: { longText } })).toEqual([]);
    }
    expect(longTextReferencesOf({ points: { longText: name, more: 1 } })).toEqual([]);
  });

  test('what is nested without end is left to the check', () => {
    let deep: unknown = long;
    for (let i = 0; i < 100_000; i++) deep = [deep];
    expect(longTextsOf(deep)).toEqual([]);
    expect(withLongTexts(deep, new Map([[name, long]]))).toBe(deep);
  });
});

test('a sound text is known again only beside the text it was sound beside, and the oldest is forgotten', () => {
  const sound = soundTexts(1);
  sound.add('triangles', 'points');
  expect(sound.has('triangles', 'points')).toBe(true);
  expect(sound.has('triangles', 'other points')).toBe(false);
  expect(sound.has('points')).toBe(false);
  for (let i = 0; i < 30; i++) sound.add(`text ${i}`);
  expect(sound.has('triangles', 'points')).toBe(false);
  expect(sound.has('text 29')).toBe(true);
});
