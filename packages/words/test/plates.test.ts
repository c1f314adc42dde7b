import type { MaskPiece, Plate } from '@fendrix/contract';
import { type PlateFinding, plannedFrames } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  frameStepWords,
  maskPieceWords,
  maskWords,
  PLATE_GIVES,
  plateFindingWords,
  plateList,
  putBackWords,
} from '../src/index.js';

const set = demoSet('cordial-frost');
const [label, liquid] = set.plates as [Plate, Plate];
const piece = (area: MaskPiece['area'], leaveOut = false): MaskPiece => ({ area, leaveOut });

describe('masks in words', () => {
  test.each<[MaskPiece['area'], string]>([
    [{ by: 'products' }, 'all products'],
    [{ by: 'thing', kind: 'product', key: 'bottle' }, 'Damson cordial bottle'],
    [{ by: 'thing', kind: 'light', key: 'A' }, 'light A'],
    [{ by: 'thing', kind: 'sheet', key: '2' }, 'sheet 2'],
    [{ by: 'thing', kind: 'backdrop', key: 'backdrop' }, 'the background'],
    [{ by: 'thing', kind: 'bench', key: 'bench' }, 'the table'],
    [{ by: 'part', product: 'bottle', part: 'part', index: 0 }, 'cap of Damson cordial bottle'],
    [{ by: 'part', product: 'bottle', part: 'label', index: 2 }, 'label 3 of Damson cordial bottle'],
    [{ by: 'part', product: 'gone', part: 'liquid', index: 0 }, 'liquid of gone'],
    [{ by: 'brush', strokes: [{ across: 0, down: 0, radius: 0.1 }] }, 'painted, 1 dab'],
    [{ by: 'sharpest' }, 'where it is the sharpest'],
  ])('%j', (area, words) => {
    expect(maskPieceWords(set, piece(area))).toBe(words);
  });

  test('pieces follow one another; nothing said is the whole frame, and so is what it is taken from', () => {
    expect(maskWords(set, { mask: [] })).toBe('the whole frame');
    expect(maskWords(set, { mask: [piece({ by: 'products' }, true)] })).toBe(
      'the whole frame without all products',
    );
    expect(
      maskWords(set, {
        mask: [piece({ by: 'products' }), piece({ by: 'thing', kind: 'light', key: 'A' }, true)],
      }),
    ).toBe('all products, without light A');
  });
});

describe('what there is to say against a plate', () => {
  test.each<[PlateFinding, RegExp]>([
    [
      { code: 'camera-moved', byM: 0.012, byDeg: 0.34 },
      /camera stands elsewhere .* 1\.2 cm and 0\.3 degrees/,
    ],
    [{ code: 'other-lens' }, /lens or zoom/],
    [{ code: 'other-sensor' }, /camera body/],
    [{ code: 'focus-moved', sizePart: -0.004 }, /0\.40 % smaller/],
    [{ code: 'product-moved', product: 'Tart', byM: 0.003 }, /^Tart stands .* elsewhere/],
    [{ code: 'product-other', product: 'Tart', how: 'gone' }, /^Tart is not there/],
    [{ code: 'product-other', product: 'Tart', how: 'new' }, /on its take only/],
    [{ code: 'product-other', product: 'Tart', how: 'changed' }, /not the same/],
    [{ code: 'light-missing', tag: 'Q' }, /^Light Q is not there/],
    [{ code: 'no-light' }, /black/],
    [{ code: 'same-as-set' }, /same as the frame of the set/],
    [{ code: 'blur-not-shown' }, /depth of field/],
    [{ code: 'mask-of-nothing' }, /not on the set/],
  ])('%j', (finding, words) => {
    expect(plateFindingWords(finding)).toMatch(words);
    expect(plateFindingWords(finding)).toMatch(/\.$/);
  });
});

describe('plates at the table', () => {
  const frames = plannedFrames(set);
  const [base, first, second] = frames;

  test('each frame says what is changed since the one before it, and its note', () => {
    if (!base || !first || !second) throw new Error('the demo has two plates');
    expect(frameStepWords(base, null)).toMatchObject({
      title: 'Take the frame of the set as it stands',
      notes: ['Camera and products are not touched.'],
    });
    const { title, numbers, notes } = frameStepWords(second, first);
    expect(title).toBe('Take the plate “Liquid”');
    expect(numbers.map(({ label: name }) => name)).toEqual(['f-stop', 'shutter', 'ISO']);
    expect(notes[0]).toMatch(/^First: A .*, C .*\.$/);
    expect(notes.at(-1)).toBe(liquid.note);
  });

  test('one that is focused elsewhere says where instead of ISO', () => {
    const focused = { ...set, plates: [{ ...label, focusM: set.camera.focusM + 0.02 }] };
    const [whole, near] = plannedFrames(focused);
    if (!whole || !near) throw new Error('there are two frames');
    expect(frameStepWords(near, whole).numbers.at(-1)?.label).toBe('focus at');
  });

  test('what is put back at the end; nothing where there is one frame', () => {
    expect(putBackWords(frames)).toMatch(/^Then back as the set has it: C /);
    expect(putBackWords(frames.slice(0, 1))).toBe('');
  });
});

test('the list names what each plate gives, and those that are left out', () => {
  const list = plateList({ ...set, plates: [label, { ...liquid, laid: false }] });
  expect(list).toContain(`1  Label: ${PLATE_GIVES.label}\n`);
  expect(list).toContain('2  Liquid: liquid, left out');
});
