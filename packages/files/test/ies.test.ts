import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { FileError, readIes } from '../src/index.js';

/** A table of 0, 45, 90 degrees, one turn, in feet. */
const lines = [
  'IESNA:LM-63-2002',
  '[TEST] made up',
  '[LUMINAIRE] Bench lamp',
  'TILT=NONE',
  '1 1000 2 3 1 1 1 0.5 -0.25 0',
  '1 1 60',
  '0 45 90',
  '0',
  '100 50 0',
];
const file = (changes: Record<number, string> = {}) =>
  lines.map((line, i) => changes[i] ?? line).join('\r\n');

function failure(text: string): FileError {
  try {
    readIes(text);
  } catch (error) {
    if (error instanceof FileError) return error;
    throw error;
  }
  throw new Error('the file was taken');
}

describe('IES files', () => {
  test('angles, intensities times the multiplier, opening in metres', () => {
    const light = readIes(file());
    expect(light.name).toBe('Bench lamp');
    expect(light.distribution).toEqual({
      verticalDeg: [0, 45, 90],
      horizontalDeg: [0],
      candela: [[200, 100, 0]],
    });
    expect(light.openingWidthM).toBeCloseTo(0.1524, 6);
    expect(light.openingLengthM).toBeCloseTo(0.0762, 6);
    expect(light.inputWatts).toBe(60);
  });

  test('an even intensity of 100 cd has a flux of 200 pi lm ahead; a cosine one of 100 pi', () => {
    const even = readIes(file({ 4: '1 -1 1 3 1 1 2 0.1 0.1 0', 8: '100 100 100' }));
    expect(even.lumens).toBeCloseTo(200 * Math.PI, 6);
    const angles = Array.from({ length: 91 }, (_, i) => i);
    const cosine = readIes(
      file({
        4: '1 -1 1 91 1 1 2 0.1 0.1 0',
        6: angles.join(' '),
        8: angles.map((deg) => 100 * Math.cos((deg * Math.PI) / 180)).join('\n'),
      }),
    );
    expect(cosine.lumens / (100 * Math.PI)).toBeCloseTo(1, 3);
  });

  test('numbers may run over lines; TILT=INCLUDE is read over; light behind is left out', () => {
    const spread = file({ 3: 'TILT=INCLUDE\n1\n2\n0 90\n1 0.9', 6: '0\n45 90', 8: '100\n50\n0' });
    expect(readIes(spread).distribution.candela).toEqual([[200, 100, 0]]);
    const behind = readIes(file({ 4: '1 1000 1 4 1 1 2 0.1 0.1 0', 6: '0 60 90 180', 8: '9 5 1 70' }));
    expect(behind.distribution.verticalDeg).toEqual([0, 60, 90]);
    const turned = readIes(file({ 6: '90 120 180', 8: '0 50 100' }));
    expect(turned.distribution).toEqual({
      verticalDeg: [0, 60, 90],
      horizontalDeg: [0],
      candela: [[200, 100, 0]],
    });
  });

  test.each<[string, Record<number, string>, number, string]>([
    ['no TILT', { 3: '[MORE] x' }, 1, 'TILT'],
    ['a tilt file', { 3: 'TILT=lamp.tlt' }, 4, 'another file'],
    ['a word for a number', { 4: '1 1000 two 3 1 1 1 0.5 0.25 0' }, 5, '"two"'],
    ['type B', { 4: '1 1000 1 3 1 2 1 0.5 0.25 0' }, 5, 'type C'],
    ['half an angle', { 4: '1 1000 1 2.5 1 1 1 0.5 0.25 0' }, 5, 'whole number'],
    ['unknown units', { 4: '1 1000 1 3 1 1 3 0.5 0.25 0' }, 5, 'metres'],
    ['falling angles', { 6: '0 45 30' }, 7, 'rise'],
    ['an angle beyond', { 6: '0 45 200' }, 7, '180'],
    ['horizontals from 90', { 7: '90' }, 8, '0, 90, 180 or 360'],
    ['an intensity below 0', { 8: '100 -5 0' }, 9, 'below 0'],
    ['too few intensities', { 8: '100 50' }, 9, 'ends before'],
    ['no multiplier', { 4: '1 1000 0 3 1 1 1 0.5 0.25 0' }, 5, 'above 0'],
  ])('%s is refused with the line', (_name, changes, line, words) => {
    const error = failure(file(changes));
    expect(error.line).toBe(line);
    expect(error.message).toContain(`Line ${line}:`);
    expect(error.message).toContain(words);
  });

  test('whatever the text, it is read or refused in words', () => {
    const word = fc.oneof(
      fc.constantFrom('TILT=NONE', 'TILT=INCLUDE', '0', '1', '2', '3', '90', '-1', '\n', 'x'),
      fc.string(),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 60 }), (words) => {
        try {
          readIes(words.join(' '));
        } catch (error) {
          expect(error).toBeInstanceOf(FileError);
        }
      }),
      { numRuns: 500 },
    );
  });
});
