import { describe, expect, test } from 'vitest';
import { type Row, timeOfCrossing, without } from '../src/bench/pictureBench.js';

const row = (seconds: number, rootMeanSquare: number | null): Row => ({
  samples: 1,
  seconds,
  errors: { rootMeanSquare, mean: 0.1, specks: 0 },
});

describe('errors of the picture bench', () => {
  test('what is left without the noise of the reference; not told where nothing is', () => {
    const noise = { rootMeanSquare: 0.1, mean: 0.05, specks: 3 };
    const left = without({ rootMeanSquare: 0.1, mean: 0.02, specks: 3 }, noise, 0.36);
    expect(left.rootMeanSquare).toBeCloseTo(0.08, 9);
    expect(left).toMatchObject({ mean: null, specks: 3 });
  });

  test('the time at which 5 % is reached lies between two rows; a row that tells nothing is passed over', () => {
    expect(timeOfCrossing([row(1, 0.1), row(4, 0.025)], 'rootMeanSquare')).toBeCloseTo(2, 9);
    expect(timeOfCrossing([row(1, 0.1), row(2, null), row(4, 0.025)], 'rootMeanSquare')).toBeCloseTo(2, 9);
    expect(timeOfCrossing([row(1, 0.1), row(2, null)], 'rootMeanSquare')).toBeNull();
    expect(timeOfCrossing([row(1, 0.04)], 'rootMeanSquare')).toBe(1);
  });
});
