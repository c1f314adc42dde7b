import { describe, expect, test } from 'vitest';
import {
  CLIPPED,
  clippingOf,
  differenceStops,
  HELD,
  HIGHEST_STEP,
  LOST_BLACK,
  LOWEST_STEP,
  PAPER_WHITE,
  stepLabels,
  toneSteps,
} from '../src/index.js';

const greys = (...values: number[]) => Float32Array.from(values.flatMap((v) => [v, v, v]));

describe('tone maps', () => {
  test('steps are whole stops from mid-tone, kept within the scale', () => {
    const steps = new Int8Array(6);
    toneSteps(steps, greys(0.18, 0.35, 0.37, 0.09, 0, 50));
    expect([...steps]).toEqual([0, 0, 1, -1, LOWEST_STEP, HIGHEST_STEP]);
  });

  test('a label lies in the largest area of its step, and the frame is an edge', () => {
    const width = 9;
    const steps = new Int8Array(width * width);
    for (let y = 2; y < 7; y++) for (let x = 2; x < 7; x++) steps[y * width + x] = 1;
    const labels = stepLabels(steps, width, width);
    expect(labels.find(({ step }) => step === 1)).toMatchObject({ x: 4, y: 4, room: 3 });
    expect(labels.find(({ step }) => step === 0)?.room).toBeLessThanOrEqual(2);
  });

  test('paper white is linear 1, the sensor clips at 3.26 stops, in any colour', () => {
    const lost = new Uint8Array(5);
    const linear = greys(0.99, 1.01, 1.8, 0.001, 0.18);
    linear[3 * 4] = 1.75;
    clippingOf(lost, linear);
    expect([...lost]).toEqual([HELD, PAPER_WHITE, CLIPPED, LOST_BLACK, CLIPPED]);
  });

  test('the difference of two pictures is in stops, and black against black is none', () => {
    const out = new Float32Array(3);
    differenceStops(out, greys(0.1, 0.4, 1e-9), greys(0.4, 0.1, 1e-7));
    expect([...out].map((v) => Math.round(1000 * v) / 1000)).toEqual([2, -2, 0]);
  });
});
