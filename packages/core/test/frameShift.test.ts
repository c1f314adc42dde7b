import { describe, expect, test } from 'vitest';
import { createNormal, frameShift } from '../src/index.js';

const [WIDTH, HEIGHT] = [120, 80];
const SIZE = { width: WIDTH, height: HEIGHT };

/** A bottle, its label and a shadow, soft as a lens draws them; light of a place in cells from the middle. */
function scene(u: number, v: number): number {
  const edge = (x: number) => 1 / (1 + Math.exp(-x / 0.6));
  const within = (x: number, from: number, to: number) => edge(x - from) * edge(to - x);
  const body = within(u, -9, 9) * within(v, -18, 26);
  const neck = within(u, -3, 3) * within(v, -32, -18);
  const label = within(u, -8, 8) * within(v, 2, 14);
  const ground = 0.35 + 0.1 * edge(v - 20);
  return (
    ground * (1 - 0.7 * Math.max(body, neck)) + 0.35 * label + 0.06 * within(u, -30, -20) * within(v, -10, 20)
  );
}

function picture(
  { right = 0, down = 0, larger = 0, turnedDeg = 0, stops = 0 }: Record<string, number> = {},
  seed = 0,
): Float32Array {
  const normal = createNormal(seed + 1);
  const turn = (-turnedDeg * Math.PI) / 180;
  return Float32Array.from({ length: WIDTH * HEIGHT }, (_, i) => {
    const x = (i % WIDTH) - (WIDTH - 1) / 2 - right;
    const y = Math.floor(i / WIDTH) - (HEIGHT - 1) / 2 - down;
    const [u, v] = [Math.cos(turn) * x - Math.sin(turn) * y, Math.sin(turn) * x + Math.cos(turn) * y];
    const light = 2 ** stops * scene(u / (1 + larger), v / (1 + larger));
    return seed === 0 ? light : light * (1 + 0.02 * normal());
  });
}

describe('how a frame stands off its plan', () => {
  test.each([
    ['nothing', {}],
    ['to the right', { right: 2.3 }],
    ['up and to the left', { right: -1.4, down: -0.8 }],
    ['nearer', { larger: 0.02 }],
    ['turned', { turnedDeg: 1.2 }],
    [
      'all of it, and half a stop darker',
      { right: 1.1, down: 1.7, larger: -0.015, turnedDeg: -0.7, stops: -0.5 },
    ],
  ])('%s', (_, by: Record<string, number>) => {
    const found = frameShift(picture(), picture(by, 7), SIZE);
    expect(Math.abs((found?.right.value ?? 9) * WIDTH - (by.right ?? 0))).toBeLessThan(0.15);
    expect(Math.abs((found?.down.value ?? 9) * WIDTH - (by.down ?? 0))).toBeLessThan(0.15);
    expect(Math.abs((found?.larger.value ?? 9) - (by.larger ?? 0))).toBeLessThan(0.004);
    expect(Math.abs((found?.turnedDeg.value ?? 9) - (by.turnedDeg ?? 0))).toBeLessThan(0.2);
  });

  test('is as sure as it says, over many seeds', () => {
    const offs = Array.from({ length: 20 }, (_, seed) => {
      const { right } = frameShift(picture(), picture({ right: 1 }, seed + 1), SIZE) ?? {};
      return Math.abs((right?.value ?? 9) * WIDTH - 1) / ((right?.error ?? 1) * WIDTH);
    });
    expect(offs.filter((off) => off < 3).length).toBeGreaterThanOrEqual(18);
  });

  test('a light that gives more on one side moves nothing', () => {
    const lit = picture({}, 3).map((value, i) => value * (1 + 0.25 * ((i % WIDTH) / WIDTH - 0.5)));
    const found = frameShift(picture(), lit, SIZE);
    expect(Math.abs((found?.right.value ?? 9) * WIDTH)).toBeLessThan(0.3);
  });

  test('without edges, or too far off, it says nothing', () => {
    const even = new Float32Array(WIDTH * HEIGHT).fill(1);
    expect(frameShift(even, even, SIZE)).toBeNull();
    expect(frameShift(picture(), picture({ right: 40 }), SIZE)).toBeNull();
  });
});
