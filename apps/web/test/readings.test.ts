import type { SetDocument } from '@fendrix/contract';
import { prepareTracing, traceSpot } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import type { WithBench } from '../src/features/bench/state/benchSlice';
import { selectReadings } from '../src/features/bench/state/hooks';

const plain = demoSet('cordial');
const polarised: SetDocument = {
  ...plain,
  lights: plain.lights.map((light) => ({ ...light, polarised: { axisDeg: 0, lossStops: 1.4 } }) as never),
};

/** The store's state with a set open and spots traced of it, or of another. */
function state(set: SetDocument, traced = set): WithBench {
  const tracing = prepareTracing(traced);
  const traces = traced.spots.map((spot) => traceSpot(tracing, spot, 1024, 1));
  return { bench: { traces }, benchSet: { history: { present: { value: set } } } } as unknown as WithBench;
}

describe('what pinned spots read', () => {
  test('every spot has a reading, also where a light has two films', () => {
    for (const set of [plain, polarised, demoSet('vinegar'), demoSet('tart')]) {
      const readings = selectReadings(state(set));
      expect(readings.map(({ name }) => name)).toEqual(set.spots.map(({ name }) => name));
      expect(readings.some(({ stopsFromMidTone }) => stopsFromMidTone !== null)).toBe(true);
    }
  });

  test('film on the light costs a matte spot its loss', () => {
    const ground = (set: SetDocument) =>
      selectReadings(state(set)).find(({ name }) => name === 'table')?.stopsFromMidTone ?? Number.NaN;
    expect(ground(plain) - ground(polarised)).toBeCloseTo(1.4, 1);
  });

  test('spots traced of a set with other films are not read', () => {
    expect(selectReadings(state(polarised, plain))).toEqual([]);
  });
});
