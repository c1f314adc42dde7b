import { flatInPlan, planExtent } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { hatchOf, shortName } from '../src/features/bench/lens/hatch';
import { makePlan } from '../src/features/bench/plan/plan';

const set = demoSet('cordial');

describe('plans', () => {
  test('everything lies within the extent, and the plan puts it on the page', () => {
    for (const kind of ['above', 'side'] as const) {
      const { min, max } = planExtent(kind, set);
      const [x, y] = flatInPlan(kind, set.camera.positionM);
      expect(x).toBeGreaterThanOrEqual(min[0]);
      expect(y).toBeLessThanOrEqual(max[1]);
      const plan = makePlan(kind, { scale: 100, originX: 50, originY: 60 });
      expect(plan.at([0, 0, 0])).toEqual([50, 60]);
      expect(
        plan.path(
          [
            [0, 0],
            [0.1, 0.2],
          ],
          false,
        ),
      ).toBe('M50.0 60.0 L60.0 80.0');
    }
  });
});

describe('hatches', () => {
  test('lights and sheets are told apart by hatch as well as tone', () => {
    const [a, b, one] = [hatchOf('light', 'A'), hatchOf('light', 'B'), hatchOf('sheet', '1')];
    expect(a.angleDeg).not.toBe(b.angleDeg);
    expect(a.angleDeg).not.toBeNull();
    expect([a.angleDeg, a.gapPx]).not.toEqual([one.angleDeg, one.gapPx]);
    expect(hatchOf('dark', null).angleDeg).toBeNull();
  });

  test('every kind has a word', () => {
    expect(shortName('light', 'A')).toBe('A');
    expect(shortName('room', 'wall behind the set')).toBe('wall');
    expect(shortName('dark', null)).toBe('room: dark');
    expect(shortName('hidden', '2')).toBe('behind 2');
  });
});
