import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { isSure, joinedTrace, prepareTracing, type SpotTrace, spotReading, traceSpot } from '../src/index.js';
import { studentT95 } from '../src/judge/illuminance.js';

describe('how sure a tone is', () => {
  test("Student's t is that of the tables", () => {
    for (const [freedom, t] of [
      [4, 2.776],
      [7, 2.365],
      [15, 2.131],
      [31, 2.04],
      [120, 1.98],
    ] as const)
      expect(studentT95(freedom) / t, `${freedom}`).toBeCloseTo(1, 2);
  });

  // By way of the bottle light comes to the table that few paths meet; on the label there is none of it.
  for (const [name, spotName] of [
    ['vinegar', 'table'],
    ['cordial', 'label'],
  ] as const)
    test(`${name}, ${spotName}: twice the error that is told holds the tone in nine of ten`, {
      tags: ['more'],
    }, () => {
      const set = demoSet(name);
      const tracing = prepareTracing(set);
      const spot = set.spots.find((one) => one.name === spotName) as (typeof set.spots)[number];
      const traces = Array.from({ length: 6 }, (_, i) => traceSpot(tracing, spot, 32_768, 500 + i));
      const long = traces.reduce((one, other) => joinedTrace(one, other));
      const truth = spotReading(set, { ...long, seenBaked: null });
      const truthError = truth.standardErrorStops as number;
      let held = 0;
      const SEEDS = 40;
      for (let seed = 1; seed <= SEEDS; seed++) {
        const reading = spotReading(set, traceSpot(tracing, spot, 2048, 7919 * seed));
        const off = Math.abs((reading.stopsFromMidTone as number) - (truth.stopsFromMidTone as number));
        if (off <= 2 * Math.hypot(reading.standardErrorStops as number, truthError)) held++;
      }
      expect(held / SEEDS).toBeGreaterThanOrEqual(0.9);
    });

  test('few paths are never sure of themselves, however alike they are', () => {
    const set = demoSet('cordial');
    const [spot] = set.spots;
    const tracing = prepareTracing(set);
    const few = spotReading(set, traceSpot(tracing, spot as NonNullable<typeof spot>, 64, 1));
    expect(few.checked).toBe(false);
    expect(isSure({ ...few, standardErrorStops: 0.001 })).toBe(false);
    // While things move nothing is baked for it.
    expect(tracing.tables.lit).toBe(0);
  });

  test('traces that are joined one after the other count by their paths', () => {
    const grey = (value: number): [number, number, number][] => [[value, value, value]];
    const trace = (value: number): SpotTrace => ({
      name: 'spot',
      pointM: [0, 0, 0],
      illuminance: [{ direct: 1, indirect: 0, standardError: 0 }],
      seen: grey(value),
      seenParts: [grey(value)],
      seenBaked: grey(value),
      samples: 2048,
    });
    const joined = [1, 2, 3, 6].map(trace).reduce((one, other) => joinedTrace(one, other));
    expect(joined.seenBaked?.[0]?.[1]).toBeCloseTo(3, 9);
    expect(joined.seen?.[0]?.[1]).toBeCloseTo(3, 9);
    expect(joinedTrace({ ...trace(1), seenBaked: null }, trace(2)).seenBaked).toEqual(grey(2));
  });

  test('light that the picture has and the paths have not met counts as not known', () => {
    const set = demoSet('cordial');
    const grey = (value: number) => set.lights.map((): [number, number, number] => [value, value, value]);
    const trace: SpotTrace = {
      name: 'spot',
      pointM: [0, 0, 0],
      illuminance: set.lights.map(() => ({ direct: 1, indirect: 0, standardError: 0 })),
      seen: grey(1),
      seenParts: Array.from({ length: 8 }, (_, i) => grey(1 + 0.001 * (i % 2))),
      seenBaked: grey(1.005),
      samples: 2048,
    };
    const alike = spotReading(set, trace);
    expect(isSure(alike)).toBe(true);
    const other = spotReading(set, { ...trace, seenBaked: grey(1.5) });
    expect(isSure(other)).toBe(false);
    // Half of a range that reaches as far as the picture.
    expect(other.standardErrorStops).toBeCloseTo((0.5 - 0.012) / 2 / Math.LN2, 2);
  });
});
