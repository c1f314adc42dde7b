import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  edgeSigma,
  frameSharpness,
  type MeasuredPatch,
  prepareTracing,
  sharpnessPatches,
  traceView,
} from '../src/index.js';
import { blurPx } from '../src/optics/blur.js';
import { createRandom } from '../src/units/random.js';

const SIDE = 60;

/** Half of a picture bright, its edge at an angle, blurred as a Gaussian of a deviation; with noise. */
function edge(sigma: number, angleDeg: number, noise = 0, seed = 1): Float32Array {
  const [cos, sin] = [Math.cos((angleDeg * Math.PI) / 180), Math.sin((angleDeg * Math.PI) / 180)];
  const random = createRandom(seed);
  return Float32Array.from({ length: SIDE * SIDE }, (_, i) => {
    const off = ((i % SIDE) - SIDE / 2 + 0.3) * cos + (Math.floor(i / SIDE) - SIDE / 2 + 0.2) * sin;
    return (
      0.15 +
      0.5 * normalUpTo(off / Math.max(sigma, 1e-3)) +
      noise * (random() + random() + random() - 1.5) * 2
    );
  });
}

/** The normal distribution. Source: Abramowitz and Stegun, formula 26.2.17. */
function normalUpTo(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x > 0 ? 1 - tail : tail;
}

describe('how wide an edge is blurred', () => {
  test.each([0.8, 1.5, 2.5, 4, 6])(
    'a Gaussian of %d px is found within a tenth, at any angle, with noise',
    (sigma) => {
      for (const angle of [0, 20, 45, 70, 90, 130]) {
        for (const noise of [0, 0.01]) {
          const found = edgeSigma(edge(sigma, angle, noise, angle + 1), SIDE, SIDE);
          expect(Math.abs((found ?? 0) / sigma - 1), `${angle} degrees, noise ${noise}`).toBeLessThan(
            noise > 0 && sigma >= 4 ? 0.35 : 0.1,
          );
        }
      }
    },
  );

  test('fine lines, which would look sharper than they are, are passed over for the edge beside them', () => {
    const sigma = 1.5;
    const line = (at: number) => (i: number) =>
      0.4 * (normalUpTo(((i % SIDE) - at) / sigma) - normalUpTo(((i % SIDE) - at - 2) / sigma));
    const lines = [8, 14, 19, 24].map(line);
    const beside = Float32Array.from(
      { length: SIDE * SIDE },
      (_, i) =>
        0.1 + lines.reduce((sum, own) => sum + own(i), 0) + 0.3 * normalUpTo(((i % SIDE) - 44) / sigma),
    );
    expect(Math.abs((edgeSigma(beside, SIDE, SIDE) ?? 0) / sigma - 1)).toBeLessThan(0.1);
    const alone = Float32Array.from({ length: SIDE * SIDE }, (_, i) => 0.1 + (lines[1]?.(i) ?? 0));
    expect(edgeSigma(alone, SIDE, SIDE)).toBeNull();
  });

  test('an edge of what is clipped, which looks sharp whatever its blur, is passed over', () => {
    const clipped = edge(4, 20).map((value) => Math.min(1, 6 * value));
    expect(edgeSigma(clipped, SIDE, SIDE)).toBeNull();
  });

  test('none in an even picture, in noise, or in slow shading', () => {
    expect(edgeSigma(new Float32Array(SIDE * SIDE).fill(0.4), SIDE, SIDE)).toBeNull();
    expect(edgeSigma(edge(1000, 0, 0), SIDE, SIDE)).toBeNull();
    const shading = Float32Array.from({ length: SIDE * SIDE }, (_, i) => 0.2 + (0.2 * (i % SIDE)) / SIDE);
    expect(edgeSigma(shading, SIDE, SIDE)).toBeNull();
    // Noise alone has the sharpest edges of all: it is known by its evenness.
    for (let seed = 1; seed <= 20; seed++)
      expect(edgeSigma(edge(1000, 0, 0.05, seed), SIDE, SIDE), `seed ${seed}`).toBeNull();
  });
});

describe('how sharp a frame is', () => {
  const set = demoSet('bottle');
  const { camera } = set;
  const WIDTH = camera.body.pixelsWide;
  /** Patches over a depth, as blurred as a focus makes them. */
  const patches = (focusM: number, fNumber: number): MeasuredPatch[] =>
    Array.from({ length: 30 }, (_, i) => {
      const depthM = camera.focusM - 0.05 + (0.1 * i) / 29;
      const disc = blurPx({ ...camera, fNumber, focusM }, depthM);
      const at = { product: 'bottle', depthM, across: 0.5, down: 0.5, half: 0.01 };
      // Two of three are penumbras and shading.
      return { ...at, sigmaPx: i % 3 === 0 ? Math.hypot(disc / 4, 0.6) : 9 + (i % 5) };
    });
  const open = { camera: { ...camera, fNumber: 4 } };
  const told = (focusM: number, width = WIDTH) => frameSharpness(open, patches(focusM, 4), width).products[0];

  test('the sharpest of it counts, whatever lies before and behind, and what is soft of itself', () => {
    expect(told(camera.focusM)?.blurPx).toBeLessThan(3);
    expect(told(camera.focusM)?.plannedPx).toBeLessThan(1);
    // Focused in front of all of it, its nearest part is the sharpest.
    const before = camera.focusM - 0.1;
    const nearest = blurPx({ ...open.camera, focusM: before }, camera.focusM - 0.05);
    expect(Math.abs((told(before)?.blurPx ?? 0) / nearest - 1)).toBeLessThan(0.3);
  });

  test('a small file tells larger circles alone; a product without a clear edge is left out', () => {
    const found = frameSharpness(open, patches(camera.focusM, 4), 480);
    expect(found.resolvedPx).toBeCloseTo((2 * WIDTH) / 480, 9);
    expect(frameSharpness(open, [], WIDTH).products).toEqual([]);
    const bare = patches(camera.focusM, 4).map((patch) => ({ ...patch, sigmaPx: null }));
    expect(frameSharpness(open, bare, WIDTH).products).toEqual([]);
  });
});

test('places with contrast are looked at, on each product, layer by layer', () => {
  const set = demoSet('tart');
  const view = traceView(prepareTracing(set), set, { samples: 0 });
  const [width, height] = [240, 160];
  const bright = (i: number) => (Math.floor((i % width) / 2) % 2 ? 0.4 : 0.1);
  // Contrast in the left half alone.
  const luminance = Float32Array.from({ length: width * height }, (_, i) =>
    i % width < 120 ? bright(i) : 0.3,
  );
  const found = sharpnessPatches(set, view, { width, height, luminance });
  const of = (id: string) => found.filter(({ product }) => product === id);
  expect(of('tart').length).toBeGreaterThan(5);
  expect(of('tart').length).toBeLessThanOrEqual(30);
  const depths = of('tart').map(({ depthM }) => depthM);
  expect(Math.max(...depths) - Math.min(...depths)).toBeGreaterThan(0.005);
  const inContrast = of('tart').filter(({ across }) => across < 0.5).length;
  expect(inContrast).toBeGreaterThan(of('tart').length / 2);
});
