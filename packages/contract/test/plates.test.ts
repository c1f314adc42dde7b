import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { checkDocument, setDocument } from '../src/index.js';

const set = demoSet('perry');
const { focalLengthM } = set.camera.lens;

/** Fields complained about, with the words, of the set with these plates. */
function problems(plates: unknown, changes: object = {}): string[] {
  const checked = checkDocument(setDocument, { ...set, ...changes, plates });
  return checked.ok ? [] : checked.problems.map(({ path, message }) => `${path} ${message}`);
}

const plate = { id: 'a', name: 'A' };

describe('plates of a set', () => {
  test('have defaults for all but their name: nothing is other, all of it is laid', () => {
    const checked = checkDocument(setDocument, { ...set, plates: [plate] });
    expect(checked.ok && checked.value.plates).toEqual([
      { ...plate, gives: 'other', note: '', lights: [], mask: [], featherPart: 0.003, laid: true },
    ]);
    expect(setDocument.parse({ ...set, plates: undefined }).plates).toEqual([]);
  });

  test.each<[string, object, RegExp]>([
    ['a take that is not there', { takeId: 'gone' }, /^plates\[0\]\.takeId names no take "gone"/],
    [
      'a light twice',
      {
        lights: [
          { tag: 'A', on: true, powerStops: -1 },
          { tag: 'A', on: false, powerStops: -1 },
        ],
      },
      /^plates\[0\]\.lights\[1\]\.tag "A" stands there twice/,
    ],
    [
      'a power over full',
      { lights: [{ tag: 'A', on: true, powerStops: 1 }] },
      /powerStops must be at most 0/,
    ],
    [
      'a focus closer than the lens can',
      { focusM: focalLengthM },
      /^plates\[0\]\.focusM must be longer than the focal/,
    ],
    ['a feather wider than a fifth', { featherPart: 0.3 }, /featherPart must be at most 20 %/],
    ['a mask of nothing known', { mask: [{ area: { by: 'colour' } }] }, /^plates\[0\]\.mask\[0\]\.area/],
    ['a misspelt field', { lihgts: [] }, /lihgts/],
    ['an id with spaces', { id: 'a b' }, /^plates\[0\]\.id/],
  ])('%s is refused at its field', (_, changes, words) => {
    expect(problems([{ ...plate, ...changes }]).join('\n')).toMatch(words);
  });

  test('two of one id are refused, 24 are as many as there may be', () => {
    expect(problems([plate, plate])).toEqual(['plates[1].id "a" is taken by an earlier one.']);
    const many = Array.from({ length: 25 }, (_, i) => ({ id: `p-${i}`, name: `P ${i}` }));
    expect(problems(many.slice(1))).toEqual([]);
    expect(problems(many).join()).toMatch(/^plates /);
  });

  test('the focus is held against the lens that the plate is taken with: that of its take', () => {
    const long = { ...set.camera, lens: { ...set.camera.lens, focalLengthM: 3 * focalLengthM }, focusM: 5 };
    const takes = set.takes.map((take) => ({ ...take, set: { ...take.set, camera: long } }));
    const near = { ...plate, focusM: 2 * focalLengthM };
    expect(problems([near], { takes })).toEqual([]);
    expect(problems([{ ...near, takeId: takes[0]?.id }], { takes }).join()).toMatch(/focusM must be longer/);
  });

  test('a lens of short entrance pupil cannot focus as close: of the set and of its plates', () => {
    const lens = { ...set.camera.lens, pupilRatio: 0.5 };
    const camera = { ...set.camera, lens };
    const focusM = 1.5 * focalLengthM;
    expect(problems([], { camera: { ...camera, focusM } })).toEqual([
      'camera.focusM must be longer than the focal length. No lens focuses closer.',
    ]);
    expect(problems([{ ...plate, focusM }], { camera }).join()).toMatch(/^plates\[0\]\.focusM/);
    expect(problems([{ ...plate, focusM: 2.1 * focalLengthM }], { camera })).toEqual([]);
  });
});
