import { describe, expect, test } from 'vitest';
import { stackedLabels } from '../src/shared/stackedLabels';

describe('labels at one side', () => {
  test('those with room stay where they belong', () => {
    expect(stackedLabels([0, 40, 80], 15)).toEqual([0, 40, 80]);
  });

  test('those at the same height stand below each other', () => {
    expect(stackedLabels([10, 10, 10], 15)).toEqual([10, 25, 40]);
  });

  test('one that is pushed down is not pushed onto the next', () => {
    expect(stackedLabels([60, 30, 31], 15)).toEqual([60, 30, 45]);
    expect(stackedLabels([40, 30, 31], 15)).toEqual([40, 55, 70]);
  });

  test.each([1, 2, 3, 4, 5])('no two of many cover each other, none rises above its place (%i)', (seed) => {
    const wanted = Array.from({ length: 12 }, (_, i) => (i * i * 37 * seed) % 160);
    const tops = stackedLabels(wanted, 17);
    tops.forEach((top, i) => {
      expect(top).toBeGreaterThanOrEqual(wanted[i] as number);
      for (const other of tops.slice(0, i)) expect(Math.abs(top - other)).toBeGreaterThanOrEqual(17);
    });
  });
});
