import type { SetDocument } from '@fendrix/contract';
import { prepareTracing, type SpotReading, traceSpot } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { readingsOf } from '../src/features/bench/state/hooks';

const plain = demoSet('cordial');
const polarised: SetDocument = {
  ...plain,
  lights: plain.lights.map((light) => ({ ...light, polarised: { axisDeg: 0, lossStops: 1.4 } }) as never),
};

/** What spots of a set read, traced of it or of another. */
function readings(set: SetDocument, traced = set): SpotReading[] {
  const tracing = prepareTracing(traced);
  const traces = traced.spots.map((spot) => traceSpot(tracing, spot, 1024, 1));
  return readingsOf(set, traces);
}

describe('what pinned spots read', () => {
  test('every spot has a reading, also where a light has two films', () => {
    for (const set of [plain, polarised, demoSet('vinegar'), demoSet('tart')]) {
      const read = readings(set);
      expect(read.map(({ name }) => name)).toEqual(set.spots.map(({ name }) => name));
      expect(read.some(({ stopsFromMidTone }) => stopsFromMidTone !== null)).toBe(true);
    }
  });

  test('film on the light costs a matte spot its loss', () => {
    const ground = (set: SetDocument) =>
      readings(set).find(({ name }) => name === 'table')?.stopsFromMidTone ?? Number.NaN;
    expect(ground(plain) - ground(polarised)).toBeCloseTo(1.4, 1);
  });

  test('spots traced of a set with other films are not read', () => {
    const filter = { axisDeg: 90, lossStops: 1.5, extinction: 0.005 };
    const filtered = { ...plain, camera: { ...plain.camera, polariser: filter } };
    expect(readings(filtered, plain)).toEqual([]);
    expect(readings(plain, filtered)).toEqual([]);
  });
});
