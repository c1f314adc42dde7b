import { describe, expect, test } from 'vitest';
import {
  backgroundBlur,
  circleOfConfusionM,
  depthOfField,
  focusBetween,
  focusStack,
  handHeldShutterS,
  pointBlur,
  sharpestStop,
} from '../src/index.js';
import { testCamera } from './sets.js';

const { body, lens } = testCamera();
const camera = { body, lens, focusM: 0.6, fNumber: 11 };

describe('blur', () => {
  test('at the limits of depth of field it is the circle of confusion: 590.3 and 610.1 mm', () => {
    const { nearM, farM } = depthOfField(camera, 3e-5);
    expect(nearM).toBeCloseTo(0.5903, 4);
    expect(farM).toBeCloseTo(0.6101, 4);
    expect(pointBlur(camera, nearM).defocusM).toBeCloseTo(3e-5, 7);
    expect(pointBlur(camera, farM).defocusM).toBeCloseTo(3e-5, 7);
  });

  test.each([0.6, 1, 1.6])('limits and blur agree for a lens of pupil ratio %d', (pupilRatio) => {
    const close = { body, lens: { ...lens, focalLengthM: 0.1, pupilRatio }, focusM: 0.3, fNumber: 11 };
    const { nearM, farM } = depthOfField(close, 12e-6);
    expect(pointBlur(close, nearM).defocusM).toBeCloseTo(12e-6, 12);
    expect(pointBlur(close, farM).defocusM).toBeCloseTo(12e-6, 12);
    const stack = focusStack(close, 0.29, 0.32, 12e-6, 0, 1);
    const blurs = Array.from({ length: 200 }, (_, i) => {
      const depthM = 0.29 + (0.03 * i) / 199;
      const each = (stack?.positionsM ?? []).map(
        (focusM) => pointBlur({ ...close, focusM }, depthM).defocusM,
      );
      return Math.min(...each);
    });
    expect(Math.max(...blurs)).toBeLessThan(12.01e-6);
  });

  test('in focus only diffraction is left: m 0.2, f/11 gives 17.7 micrometres, 2.95 pixels of 6', () => {
    const blur = pointBlur(camera, 0.6);
    expect(blur.defocusM).toBe(0);
    expect(blur.totalM).toBeCloseTo(17.7e-6, 7);
    expect(blur.pixels).toBeCloseTo(2.95, 2);
  });

  test('a background one metre behind: pupil times magnification times the share of the way', () => {
    // 9.09 mm x 0.2 x 1/1.6 = 1.136 mm of 36.
    expect(backgroundBlur(camera, 1)).toBeCloseTo(0.03157, 4);
  });

  test('the circle follows what will be looked at, never finer than the sensor', () => {
    expect(circleOfConfusionM(body, 4000, 2000)).toBeCloseTo(12e-6, 9);
    expect(circleOfConfusionM(body, 4000, 8000)).toBeCloseTo(6e-6, 9);
  });
});

describe('the sharpest stop', () => {
  const stops = [4, 5.6, 8, 11, 16, 22, 32];

  test('a flat thing wants a wide stop, a deep one a small stop', () => {
    expect(sharpestStop(camera, 0.6, 0.6001, stops).best.fNumber).toBe(4);
    expect(sharpestStop(camera, 0.56, 0.64, stops).best.fNumber).toBeGreaterThanOrEqual(22);
  });

  test('is the least of its curve, and both ends are alike', () => {
    const { best, curve } = sharpestStop(camera, 0.59, 0.61, stops);
    expect(Math.min(...curve.map(({ worst }) => worst.totalM))).toBe(best.worst.totalM);
    const focusM = focusBetween(0.59, 0.61);
    const ends = [0.59, 0.61].map((depth) => pointBlur({ ...camera, focusM }, depth).defocusM);
    expect(ends[0]).toBeCloseTo(ends[1] as number, 9);
  });
});

describe('a focus stack', () => {
  const macro = { ...camera, lens: { ...lens, focalLengthM: 0.09 }, fNumber: 16 };

  test('one frame at 0.4 m holds 395.2 to 405.0 mm; 30 mm take 4 of them with a fifth of overlap', () => {
    const one = depthOfField({ ...macro, focusM: 0.4 }, 2e-5);
    expect([one.nearM, one.farM].map((m) => Math.round(m * 1e4))).toEqual([3952, 4050]);
    const stack = focusStack(macro, 0.3952, 0.4252, 2e-5, 0.2, 12);
    expect(stack?.positionsM[0]).toBeCloseTo(0.4, 3);
    // Step 9.8 mm x 0.8 and growing: 30 / 7.8 = 3.8.
    expect(stack?.positionsM.length).toBe(4);
    expect(stack?.minutes).toBeCloseTo(0.8, 9);
  });

  test('each frame reaches into the next, and all is covered', () => {
    const stack = focusStack(macro, 0.36, 0.5, 2e-5, 0.25, 10);
    const held = (stack?.positionsM ?? []).map((focusM) => depthOfField({ ...macro, focusM }, 2e-5));
    expect(held[0]?.nearM).toBeCloseTo(0.36, 6);
    expect(held.at(-1)?.farM).toBeGreaterThanOrEqual(0.5);
    for (let i = 1; i < held.length; i++) {
      const before = held[i - 1] as (typeof held)[number];
      const overlap = (before.farM - (held[i]?.nearM ?? 0)) / (before.farM - before.nearM);
      expect(overlap).toBeCloseTo(0.25, 3);
    }
  });

  test('is no plan over 500 frames; nonsense is refused', () => {
    expect(focusStack({ ...macro, fNumber: 2.8 }, 0.2, 2, 1e-6, 0.9, 1)).toBeNull();
    expect(() => focusStack(macro, 0.5, 0.4, 2e-5, 0.2, 1)).toThrow(/near depth/);
    expect(() => focusStack(macro, 0.4, 0.5, 2e-5, 1, 1)).toThrow(/overlap/);
  });
});

test('by hand: 1/125 s at 50 mm is 1/300 s at 100 mm and m 0.2', () => {
  expect(1 / handHeldShutterS(camera, 1 / 125)).toBeCloseTo(300, 6);
});
