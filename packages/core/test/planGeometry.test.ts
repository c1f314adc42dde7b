import type { Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { coneOfView, faceCorners, flatInPlan, hull, productOutline, shiftInPlan } from '../src/index.js';

const set = demoSet('cordial');

describe('plans', () => {
  test('from above camera right is right and away is up; from the side away is right', () => {
    expect(flatInPlan('above', [1, 2, 3])).toEqual([1, -2]);
    expect(flatInPlan('side', [1, 2, 3])).toEqual([2, -3]);
  });

  test('a drag in a plan moves what the plan shows and keeps the rest', () => {
    expect(shiftInPlan('above', [0, 0, 5], 0.1, -0.2)).toEqual([0.1, 0.2, 5]);
    expect(shiftInPlan('side', [5, 0, 0], 0.1, -0.2)).toEqual([5, 0.1, 0.2]);
    for (const kind of ['above', 'side'] as const) {
      const from: Vector = [0.3, -0.4, 0.5];
      const [right, down] = [0.07, -0.03];
      const to = flatInPlan(kind, shiftInPlan(kind, from, right, down));
      const before = flatInPlan(kind, from);
      expect(to[0] - before[0]).toBeCloseTo(right, 12);
      expect(to[1] - before[1]).toBeCloseTo(down, 12);
    }
  });

  test('a hull goes round the outermost points once', () => {
    const square = hull([
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
      [0.5, 0.5],
      [0.5, 0],
    ]);
    expect(square).toHaveLength(4);
    expect(
      hull([
        [0, 0],
        [1, 1],
      ]),
    ).toHaveLength(2);
  });

  test('an upright softbox seen from above is a line as long as it is wide', () => {
    const corners = faceCorners({
      positionM: [0, -1, 0.5],
      aimM: [0, 0, 0.5],
      rollDeg: 0,
      widthM: 0.6,
      heightM: 0.9,
    });
    const flats = corners.map((corner) => flatInPlan('above', corner));
    expect(Math.max(...flats.map(([x]) => x)) - Math.min(...flats.map(([x]) => x))).toBeCloseTo(0.6, 12);
    expect(Math.max(...flats.map(([, y]) => y)) - Math.min(...flats.map(([, y]) => y))).toBeCloseTo(0, 12);
  });

  test('the bottle is a circle from above and its profile from the side', () => {
    const [bottle] = set.products;
    if (!bottle) throw new Error('the demo set has a bottle');
    for (const [x, y] of productOutline('above', bottle)) expect(Math.hypot(x, y)).toBeCloseTo(0.036, 6);
    const side = productOutline('side', bottle);
    expect(Math.min(...side.map(([, down]) => down))).toBeCloseTo(-0.25, 6);
    expect(Math.max(...side.map(([right]) => right))).toBeCloseTo(0.036, 6);
  });

  test('the cone of view opens from the lens', () => {
    const [lens, left, right] = coneOfView('above', set.camera, 2);
    expect(lens).toEqual(flatInPlan('above', set.camera.positionM));
    const width = Math.hypot((right?.[0] ?? 0) - (left?.[0] ?? 0), (right?.[1] ?? 0) - (left?.[1] ?? 0));
    expect(width).toBeCloseTo((2 * 0.036) / (0.1 * (1 + 0.0733)), 2);
  });
});
