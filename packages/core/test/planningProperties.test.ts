import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  type Bounds,
  boomLoad,
  type CameraWish,
  cornersOf,
  focusBetween,
  outlineOf,
  placeCamera,
  planSeries,
  pointBlur,
  sharpestStop,
  TIP_SAFETY,
  viewOf,
} from '../src/index.js';
import { testCamera } from './sets.js';

fc.configureGlobal({ seed: 20261126 });

const { body, lens } = testCamera();
const size = fc.double({ min: 0.004, max: 0.6, noNaN: true });
const shift = fc.double({ min: -0.3, max: 0.3, noNaN: true });

/** Any product of 4 mm to 60 cm, standing anywhere near the mark. */
const bounds: fc.Arbitrary<Bounds> = fc
  .tuple(size, size, size, shift, shift)
  .map(([width, depth, height, x, y]) => ({
    low: [x - width / 2, y - depth / 2, 0],
    high: [x + width / 2, y + depth / 2, height],
  }));

const wishes: fc.Arbitrary<CameraWish> = fc
  .record({
    product: bounds,
    tiltDeg: fc.double({ min: 0, max: 90, noNaN: true }),
    fillPart: fc.double({ min: 0.1, max: 0.95, noNaN: true }),
    // Within what 60 m, the farthest that is tried, can take in.
    focalLengthM: fc.double({ min: 0.02, max: 0.2, noNaN: true }),
    upright: fc.boolean(),
  })
  .map(({ product, tiltDeg, fillPart, focalLengthM, upright }) => ({
    body: upright ? { ...body, sensorWidthM: body.sensorHeightM, sensorHeightM: body.sensorWidthM } : body,
    lens: { ...lens, focalLengthM },
    tiltDeg,
    fillPart,
    fNumber: 11,
    product,
    formats: [],
  }));

describe('wherever a camera is placed', () => {
  test('the product is centred, no larger than asked, and before the lens', () => {
    fc.assert(
      fc.property(wishes, (wish) => {
        const { camera, fill, nearM, farM } = placeCamera(wish);
        const outline = outlineOf(viewOf(camera), cornersOf(wish.product));
        expect(outline.left + outline.right).toBeCloseTo(1, 4);
        expect(outline.top + outline.bottom).toBeCloseTo(1, 4);
        expect(Math.max(fill.width, fill.height)).toBeLessThanOrEqual(wish.fillPart + 1e-6);
        expect(nearM).toBeGreaterThan(0);
        expect(farM).toBeGreaterThanOrEqual(nearM);
        expect(camera.focusM).toBeGreaterThan(wish.lens.focalLengthM);
      }),
    );
  });

  test('a bar seen end-on from very near is centred too', () => {
    const bar: Bounds = { low: [-0.002, -0.0228, 0], high: [0.002, 0.0228, 0.004] };
    const wish = { body, lens: { ...lens, focalLengthM: 0.02 }, tiltDeg: 0, fNumber: 11, formats: [] };
    const { outline } = placeCamera({ ...wish, fillPart: 0.416, product: bar });
    expect(outline.top + outline.bottom).toBeCloseTo(1, 6);
  });

  test('asking for more of the frame never moves it farther away', () => {
    fc.assert(
      fc.property(wishes, (wish) => {
        const near = placeCamera({ ...wish, fillPart: Math.min(0.95, 1.3 * wish.fillPart) });
        expect(near.distanceM).toBeLessThanOrEqual(placeCamera(wish).distanceM + 1e-6);
      }),
      { numRuns: 40 },
    );
  });

  test('a product moved sideways moves the camera by as much and changes nothing else', () => {
    fc.assert(
      fc.property(wishes, shift, (wish, by) => {
        const { low, high } = wish.product;
        const moved: Bounds = { low: [low[0] + by, low[1], low[2]], high: [high[0] + by, high[1], high[2]] };
        const [a, b] = [placeCamera(wish), placeCamera({ ...wish, product: moved })];
        expect(b.camera.positionM[0] - a.camera.positionM[0]).toBeCloseTo(by, 4);
        expect(b.distanceM).toBeCloseTo(a.distanceM, 4);
      }),
      { numRuns: 40 },
    );
  });
});

describe('depth', () => {
  const depth = fc.double({ min: 0.25, max: 3, noNaN: true });

  test('both ends blur alike from the focus between them, and any other focus blurs one of them more', () => {
    fc.assert(
      fc.property(depth, depth, fc.double({ min: 0.92, max: 1.08, noNaN: true }), (a, b, off) => {
        fc.pre(Math.abs(a - b) > 0.01 && Math.abs(off - 1) > 0.005);
        const [near, far] = [Math.min(a, b), Math.max(a, b)];
        const focusM = focusBetween(near, far);
        const worst = (at: number) => {
          const camera = { body, lens, focusM: at, fNumber: 8 };
          return Math.max(pointBlur(camera, near).defocusM, pointBlur(camera, far).defocusM);
        };
        const camera = { body, lens, focusM, fNumber: 8 };
        expect(pointBlur(camera, near).defocusM / pointBlur(camera, far).defocusM).toBeCloseTo(1, 6);
        // Within the ends only: beyond them magnification changes the comparison.
        fc.pre(off * focusM > near && off * focusM < far);
        expect(worst(off * focusM)).toBeGreaterThan(0.97 * worst(focusM));
      }),
    );
  });

  test('the sharpest stop is that of trying every point between', () => {
    const stops = [2.8, 4, 5.6, 8, 11, 16, 22];
    fc.assert(
      fc.property(depth, fc.double({ min: 0.002, max: 0.2, noNaN: true }), (near, deep) => {
        const far = near + deep;
        const { best } = sharpestStop({ body, lens, focusM: 1, fNumber: 8 }, near, far, stops);
        const focusM = focusBetween(near, far);
        const worstAt = (fNumber: number) =>
          Math.max(
            ...Array.from(
              { length: 21 },
              (_, i) => pointBlur({ body, lens, focusM, fNumber }, near + (i / 20) * deep).totalM,
            ),
          );
        for (const stop of stops) expect(best.worst.totalM).toBeLessThanOrEqual(worstAt(stop) + 1e-12);
        expect(best.worst.totalM).toBeCloseTo(worstAt(best.fNumber), 12);
      }),
    );
  });
});

describe('a series', () => {
  test('every product stands within the frame of the common camera, the largest as large as asked at most', () => {
    fc.assert(
      fc.property(fc.array(bounds, { minLength: 1, maxLength: 5 }), fc.boolean(), (list, centred) => {
        const items = list.map((own, index) => ({ id: `p${index}`, bounds: own }));
        const { places } = planSeries(items, {
          body,
          lens,
          tiltDeg: 0,
          fillPart: 0.8,
          fNumber: 11,
          formats: [],
          align: centred ? 'centre' : 'base',
        });
        expect(places.map(({ id }) => id).sort()).toEqual(items.map(({ id }) => id).sort());
        for (const { outline, fillPart, liftM } of places) {
          expect(Math.min(outline.left, outline.top)).toBeGreaterThanOrEqual(-1e-6);
          expect(Math.max(outline.right, outline.bottom)).toBeLessThanOrEqual(1 + 1e-6);
          expect(fillPart).toBeLessThanOrEqual(0.8 + 1e-6);
          expect(liftM).toBeGreaterThanOrEqual(0);
        }
        const shares = places.map(({ fillPart }) => fillPart);
        expect(shares).toEqual([...shares].sort((a, b) => b - a));
      }),
      { numRuns: 60 },
    );
  });
});

describe('a boom', () => {
  const mass = fc.double({ min: 0, max: 20, noNaN: true });
  const arm = fc.double({ min: 0, max: 2, noNaN: true });
  const booms = fc.record({
    loadKg: mass,
    armKg: mass,
    armM: arm,
    behindM: arm,
    baseRadiusM: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
    standKg: mass,
  });

  test('is safe exactly where the factor is reached; the ballast named makes it so', () => {
    fc.assert(
      fc.property(booms, (boom) => {
        const answer = boomLoad(boom, 0);
        if (Number.isFinite(answer.factor)) expect(answer.safe).toBe(answer.factor >= TIP_SAFETY);
        else expect(answer.safe).toBe(true);
        const ballasted = boomLoad({ ...boom, standKg: boom.standKg + answer.ballastKg + 1e-6 }, 0);
        expect(ballasted.safe).toBe(true);
      }),
    );
  });

  test('a heavier load never makes it safer', () => {
    fc.assert(
      fc.property(booms, mass, (boom, more) => {
        fc.pre(boom.armM > boom.baseRadiusM);
        const heavier = boomLoad({ ...boom, loadKg: boom.loadKg + more }, 0);
        expect(heavier.factor).toBeLessThanOrEqual(boomLoad(boom, 0).factor + 1e-9);
      }),
    );
  });
});
