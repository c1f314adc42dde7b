import { describe, expect, test } from 'vitest';
import {
  type Column,
  productOf,
  productsWith,
  takenOff,
  weigh,
  weighedColumns,
} from '../src/compare/weighedColumns.js';
import { createRandom } from '../src/units/random.js';

const [COUNT, VALUES] = [7, 50];

function drawn(seed: number) {
  const random = createRandom(seed);
  const row = () => Float64Array.from({ length: VALUES }, () => random() - 0.5);
  const columns: Column[] = Array.from({ length: COUNT }, (_, a) => ({ stops: row(), deviation: 1 + a }));
  const weights = Float64Array.from({ length: VALUES }, () => Math.max(0, random() - 0.2));
  return { columns, weights, values: row(), random };
}

/** The plain sum: weight times column times what it is held against. */
const summed = (weights: Float64Array, one: Float64Array, other: Float64Array): number =>
  weights.reduce((sum, weight, k) => sum + weight * (one[k] as number) * (other[k] as number), 0);

describe('columns of a fit, side by side', () => {
  test('sums of products are those of the columns, also after weights have changed again and again', () => {
    const { columns, weights, values, random } = drawn(1);
    const sums = weighedColumns(columns, weights);
    const now = Float64Array.from(weights);
    for (let round = 0; round < 200; round++) {
      const k = Math.floor(VALUES * random());
      now[k] = random() < 0.3 ? 0 : 3 * random();
      weigh(sums, k, now[k] as number);
    }
    columns.forEach(({ stops: one }, a) => {
      columns.forEach(({ stops: other }, b) => {
        expect(productOf(sums, a, b)).toBeCloseTo(summed(now, one, other), 10);
      });
      expect(productsWith(sums, values)[a]).toBeCloseTo(summed(now, one, values), 10);
    });
    expect([...sums.weights]).toEqual([...now]);
  });

  test('what is taken off values is so much of each column', () => {
    const { columns, weights, values } = drawn(2);
    const parts = columns.map((_, a) => 0.3 * a - 1);
    const left = Float64Array.from(values);
    takenOff(weighedColumns(columns, weights), left, parts, left);
    left.forEach((value, k) => {
      const off = columns.reduce((sum, { stops }, a) => sum + (parts[a] as number) * (stops[k] as number), 0);
      expect(value).toBeCloseTo((values[k] as number) - off, 12);
    });
  });
});
