import { spotReading, type Tolerance } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { setSheetWords, sheetMarks } from '../src/index.js';

const tolerance = (change: Partial<Tolerance>): Tolerance => ({
  thing: { kind: 'light', key: 'A' },
  way: 'out',
  most: 0.0321,
  isBound: false,
  limit: { kind: 'spot', name: 'label' },
  ...change,
});
const words = (set = demoSet('cordial'), tolerances: Tolerance[] = []) =>
  setSheetWords(set, { spots: [], tolerances, marks: sheetMarks(set) });
const rowOf = (name: string, tolerances: Tolerance[]) =>
  words(undefined, tolerances).things.find((row) => row.name.startsWith(name));

describe('words of a set sheet', () => {
  test.each(['cordial', 'mill', 'perry', 'tart', 'tent', 'bottle', 'pepper', 'vinegar'] as const)(
    '%s: all that stands somewhere has a row with place, height and, where it is aimed, what it faces',
    (name) => {
      const set = demoSet(name);
      const { things, order, camera } = words(set);
      for (const row of things) {
        expect(row.stands).toMatch(/^[\d.]+ c?m+, (front|behind|[\d.]+° (left|right))$/);
        expect(row.name.length).toBeGreaterThan(1);
      }
      expect(things.filter(({ faces }) => faces !== '').length).toBeGreaterThanOrEqual(1 + set.sheets.length);
      expect(order.length).toBeGreaterThanOrEqual(things.length);
      expect(camera.map(({ value }) => value).join(' ')).not.toMatch(/NaN|undefined/);
      expect(JSON.stringify(things)).not.toMatch(/NaN|undefined|null/);
    },
  );

  test('a tolerance is told with its unit, one that is a bound says so, one of no account is left out', () => {
    expect(rowOf('A:', [tolerance({})])?.mayBeOff).toBe('distance 3.2 cm');
    expect(rowOf('A:', [tolerance({ isBound: true })])?.mayBeOff).toBe('distance at least 3.2 cm');
    expect(rowOf('A:', [tolerance({ way: 'turn', most: 4.26 }), tolerance({})])?.mayBeOff).toBe(
      'distance 3.2 cm, turn 4.3°',
    );
    expect(rowOf('A:', [tolerance({ most: null, limit: null })])?.mayBeOff).toBe('by much, whichever way');
    expect(rowOf('1:', [tolerance({})])?.mayBeOff).toBe('');
  });

  test('what has to be held closest is named by its tag and its name, with what changes', () => {
    const set = demoSet('cordial');
    const [light] = set.lights;
    const { closest } = words(set, [
      tolerance({}),
      tolerance({ thing: { kind: 'camera', key: '' }, limit: { kind: 'band', product: 'bottle' } }),
      tolerance({ most: null, limit: null }),
    ]);
    expect(closest).toEqual([
      `A (${light?.name}), distance: 3.2 cm; then “label” has changed by a tenth of a stop.`,
      'Camera, distance: 3.2 cm; then an image in Damson cordial bottle has moved by one percent of its width.',
    ]);
  });

  test('a spot that the lens does not see says so; a tone that is not sure is about', () => {
    const set = demoSet('cordial');
    const shares = set.lights.map(() => ({ direct: 1, indirect: 0, standardError: 0 }));
    const trace = {
      name: 'label',
      pointM: [0, 0, 0] as [number, number, number],
      illuminance: shares,
      samples: 8,
    };
    const told = (seen: [number, number, number][] | null, parts: [number, number, number][][]) =>
      setSheetWords(set, {
        spots: [spotReading(set, { ...trace, seen, seenParts: parts, seenBaked: seen })],
        tolerances: [],
        marks: null,
      }).tones[0]?.tone;
    expect(told(null, [])).toBe('not seen by the lens');
    const part = (value: number): [number, number, number][] => set.lights.map(() => [value, value, value]);
    expect(told(part(1), [part(1), part(1)])).toMatch(/^[+−]?\d/);
    expect(told(part(1), [part(0.2), part(1.8)])).toMatch(/^about /);
  });

  test('marks are corners of the table, else of the room, else none', () => {
    const set = demoSet('cordial');
    expect(sheetMarks(set)).toEqual(['table-front-left', 'table-front-right']);
    expect(sheetMarks({ bench: undefined, room: undefined })).toBeNull();
    const bare = words({ ...set, bench: undefined, room: undefined });
    expect(bare.tapes).toBeNull();
    expect(bare.things.every(({ tapes }) => tapes === '')).toBe(true);
  });
});
