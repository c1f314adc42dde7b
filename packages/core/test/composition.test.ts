import { describe, expect, test } from 'vitest';
import {
  type CompositionFinding,
  type CompositionWish,
  isCaution,
  type JudgedFrame,
  judgeComposition,
} from '../src/index.js';

const WIDTH = 250;
const HEIGHT = 200;
const WALL = 0;
const BENCH = 1;
const HERO = 2;

/** A picture of discs (x, y, radius) on wall and bench; the hero is the first and four times as bright as the ground. */
function picture(discs: readonly [number, number, number][], horizonY = 150): JudgedFrame {
  const thing = new Int32Array(WIDTH * HEIGHT);
  const luminance = new Float32Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const i = y * WIDTH + x;
      thing[i] = y < horizonY ? WALL : BENCH;
      luminance[i] = 1;
      discs.forEach(([cx, cy, radius], index) => {
        if (Math.hypot(x - cx, y - cy) > radius) return;
        thing[i] = HERO + index;
        luminance[i] = index === 0 ? 4 : 1;
      });
    }
  }
  const grid = { width: WIDTH, height: HEIGHT, thing };
  return { ...grid, pixelM: 0.001, tones: { ...grid, luminance } };
}

const wish = (count: number, changes: Partial<CompositionWish> = {}): CompositionWish => ({
  hero: HERO,
  things: Array.from({ length: count }, (_, i) => HERO + i),
  ground: [WALL, BENCH],
  scattered: false,
  copy: null,
  ...changes,
});

const only = <W extends CompositionFinding['what']>(
  frame: JudgedFrame,
  wanted: CompositionWish,
  what: W,
): Extract<CompositionFinding, { what: W }>[] =>
  judgeComposition(frame, wanted).filter(
    (finding): finding is Extract<CompositionFinding, { what: W }> => finding.what === what,
  );

test('outlines a pixel apart are a tangent; far apart or well overlapped they are not', () => {
  expect(
    only(
      picture([
        [80, 100, 30],
        [141, 100, 30],
      ]),
      wish(2),
      'tangent',
    ),
  ).toHaveLength(1);
  expect(
    only(
      picture([
        [80, 100, 30],
        [160, 100, 30],
      ]),
      wish(2),
      'tangent',
    ),
  ).toHaveLength(0);
  expect(
    only(
      picture([
        [80, 100, 30],
        [115, 100, 30],
      ]),
      wish(2),
      'tangent',
    ),
  ).toHaveLength(0);
});

test('just touching the frame is told with its side; cut through or clear of it is not', () => {
  expect(only(picture([[31, 100, 30]]), wish(1), 'edge')).toMatchObject([{ side: 'left' }]);
  expect(only(picture([[10, 100, 30]]), wish(1), 'edge')).toHaveLength(0);
  expect(only(picture([[125, 100, 30]]), wish(1), 'edge')).toHaveLength(0);
});

test('three of four scattered things on a line are a row', () => {
  const row = picture([
    [200, 60, 20],
    [40, 40, 8],
    [80, 60, 8],
    [120, 80, 8],
    [60, 150, 8],
  ]);
  expect(only(row, wish(5, { scattered: true }), 'row')).toMatchObject([{ things: [3, 4, 5] }]);
  const loose = picture([
    [200, 60, 20],
    [40, 40, 8],
    [80, 90, 8],
    [120, 80, 8],
    [60, 150, 8],
  ]);
  expect(only(loose, wish(5, { scattered: true }), 'row')).toHaveLength(0);
  expect(only(row, wish(5), 'row')).toHaveLength(0);
});

test('a hero four times as bright as its background stands two stops over it', () => {
  const [finding] = only(picture([[125, 100, 30]]), wish(1), 'tone');
  expect(finding).toMatchObject({ stops: 2 });
});

test('a horizon behind the hero is told with its height; below its foot it is not', () => {
  const [finding] = only(picture([[125, 100, 30]], 115), wish(1), 'horizon');
  expect(finding).toMatchObject({ what: 'horizon' });
  expect(finding?.atPart).toBeCloseTo(0.25, 1);
  expect(only(picture([[125, 100, 30]], 150), wish(1), 'horizon')).toHaveLength(0);
});

test('symmetry: 10 pixels off are 10 mm here, a disc is like its mirror image, a pair of discs is not', () => {
  const [finding] = only(picture([[134.5, 100, 30]]), wish(1), 'symmetry');
  expect(finding?.offMm).toBeCloseTo(10, 1);
  expect(finding?.unlikePart).toBeLessThan(0.05);
});

test('the place for words is free where there is even background', () => {
  const copy = { left: 0, top: 0, right: 0.4, bottom: 0.7 };
  const [clear] = only(picture([[200, 100, 30]]), wish(1, { copy }), 'copy');
  expect(clear?.freePart).toBe(1);
  const [taken] = only(picture([[50, 70, 40]]), wish(1, { copy }), 'copy');
  expect(taken?.freePart).toBeLessThan(0.75);
});

test('a finding is a caution from the usual thresholds on', () => {
  expect([-0.49, 0.51].map((stops) => isCaution({ what: 'tone', stops }))).toEqual([true, false]);
  expect([-2.1, 1.9].map((offMm) => isCaution({ what: 'symmetry', offMm, unlikePart: 0 }))).toEqual([
    true,
    false,
  ]);
  expect([0.89, 0.9].map((freePart) => isCaution({ what: 'copy', freePart }))).toEqual([true, false]);
  expect(isCaution({ what: 'edge', thing: 1, side: 'left', gapPart: 0.004 })).toBe(true);
});

test('arrays that do not fit are refused', () => {
  const frame = picture([]);
  const short = new Int32Array(3);
  for (const wrong of [
    { ...frame, thing: short },
    { ...frame, tones: { ...frame.tones, thing: short } },
  ])
    expect(() => judgeComposition(wrong, wish(0))).toThrow(/each pixel/);
});

test('the place a horizon crosses is not even; noise of single places is', () => {
  const copy = { left: 0, top: 0, right: 0.4, bottom: 1 };
  const [width, height] = [50, 40];
  const noise = (i: number) => 1 + (i % 2 === 0 ? 0.2 : -0.2) * ((i % width) % 2 === 0 ? 1 : -1);
  const freeOf = (luminance: (place: number) => number) => {
    const thing = new Int32Array(width * height).fill(WALL);
    const tones = { width, height, thing, luminance: Array.from(thing, (_, i) => luminance(i)) };
    const frame = { ...picture([]), thing: new Int32Array(WIDTH * HEIGHT).fill(WALL), tones };
    return only(frame, wish(0, { copy }), 'copy')[0]?.freePart;
  };
  expect(freeOf(noise)).toBe(1);
  // Twice as bright from row 20 on: the two rows of places above it are not even.
  expect(freeOf((i) => (i < 20 * width ? 1 : 2))).toBeCloseTo(0.95, 6);
});

test('a tone is that beside the outline, not that of places which the outline crosses', () => {
  const [width, height] = [50, 40];
  const column = (i: number) => i % width;
  const thing = Int32Array.from({ length: width * height }, (_, i) =>
    column(i) < 20 || column(i) > 29 ? WALL : HERO,
  );
  const crossed = [19, 20, 29, 30];
  const luminance = Array.from(thing, (own, i) => (crossed.includes(column(i)) ? 2 : own === HERO ? 4 : 1));
  const toneOf = (of: Int32Array) => {
    const tones = { width, height, thing: of, luminance };
    return only({ ...picture([[125, 100, 30]]), tones }, wish(1), 'tone')[0]?.stops;
  };
  expect(toneOf(thing)).toBeCloseTo(2, 6);
  // Of a thread a place wide there are no others.
  expect(toneOf(thing.map((_, i) => (column(i) === 25 ? HERO : WALL)))).toBeCloseTo(0, 6);
});

describe('an empty picture', () => {
  test('has nothing to say', () => {
    expect(judgeComposition(picture([]), wish(1))).toEqual([]);
  });
});
