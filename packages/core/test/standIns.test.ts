import type { SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  displayWeights,
  FlashCharge,
  firedAs,
  isFlash,
  onRail,
  projectPoint,
  turnedOnTable,
  viewOf,
  withoutFlash,
} from '../src/index.js';

describe('a turntable', () => {
  const set = demoSet('bottle');
  const pair: SetDocument = {
    ...set,
    products: [0, 1].map((i) => ({
      ...(set.products[0] as SetDocument['products'][number]),
      id: `bottle-${i}`,
      positionM: [0.1 * i, 0, 0],
    })),
  };

  test('turns products together about the foot of the first, the front towards camera right', () => {
    const [first, second] = turnedOnTable(pair, 90).products;
    expect(first?.positionM).toEqual([0, 0, 0]);
    expect(first?.turnDeg).toBe(90 + (pair.products[0]?.turnDeg ?? 0));
    // What stood at the right goes to the back.
    expect(second?.positionM[0]).toBeCloseTo(0, 9);
    expect(second?.positionM[1]).toBeCloseTo(0.1, 9);
  });

  test('comes round again, and turns nothing where nothing stands', () => {
    const turned = turnedOnTable(pair, 360).products;
    turned.forEach(({ positionM }, i) => {
      positionM.forEach((value, axis) => {
        expect(value).toBeCloseTo(pair.products[i]?.positionM[axis] as number, 9);
      });
    });
    const bare = { ...set, products: [] };
    expect(turnedOnTable(bare, 45)).toBe(bare);
  });
});

test('a rail moves the camera along its axis: the middle of the frame stays, the focus goes along', () => {
  const set = demoSet('mill');
  const moved = onRail(set, 0.01);
  const [before, after] = [viewOf(set.camera), viewOf(moved.camera)];
  expect(Math.hypot(...after.origin.map((value, i) => value - (before.origin[i] as number)))).toBeCloseTo(
    0.01,
    9,
  );
  expect(moved.camera.focusM).toBe(set.camera.focusM);
  const [across, down] = projectPoint(after, set.camera.aimM) ?? [0, 0];
  expect(across).toBeCloseTo(0.5, 9);
  expect(down).toBeCloseTo(0.5, 9);
  expect(onRail(set, 0)).toBe(set);
});

describe('flashes by a trigger', () => {
  const set = demoSet('cordial-frost');

  test('fire with the power they are given, or not at all; a lamp that burns is left alone', () => {
    const lamp = { ...set.lights[1], output: { kind: 'lumens', lumens: 800, modifierEfficiency: 1 } };
    const mixed = { ...set, lights: [set.lights[0], lamp, set.lights[2]] } as SetDocument;
    const fired = firedAs(mixed, { A: -4, B: -4, C: null });
    expect(fired.lights[0]?.powerStops).toBe(-4);
    expect(fired.lights[1]).toBe(mixed.lights[1]);
    const weights = displayWeights(fired);
    expect(weights[0]).toBeGreaterThan(0);
    // Nothing that an 8-bit file can hold.
    expect((weights[6] as number) / (displayWeights(mixed)[6] as number)).toBeLessThan(1e-12);
    expect(displayWeights(withoutFlash(mixed))[3]).toBe(displayWeights(mixed)[3]);
    expect(mixed.lights.filter(isFlash)).toHaveLength(2);
  });

  test('are ready after the part of the time that their power is of full power', () => {
    const charge = new FlashCharge();
    expect(charge.fire('A', 0, 2, 1000)).toBeCloseTo(0, 9);
    expect(charge.waitMs('A', 1000)).toBe(2000);
    expect(charge.waitMs('A', 4000)).toBe(0);
    expect(charge.waitMs('B', 1000)).toBe(0);
    charge.fire('B', -3, 2, 1000);
    expect(charge.waitMs('B', 1000)).toBeCloseTo(250, 9);
  });

  test('that are half charged give a stop less; nearly empty ones nothing, and go on charging', () => {
    const charge = new FlashCharge();
    charge.fire('A', 0, 2, 0);
    expect(charge.fire('A', 0, 2, 50)).toBeNull();
    expect(charge.waitMs('A', 1000)).toBe(1000);
    expect(charge.fire('A', 0, 2, 1000)).toBeCloseTo(-1, 9);
  });
});
