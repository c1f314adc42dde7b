import type { Backdrop, Bench, Room, Vector } from '@fendrix/contract';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  type Bounds,
  type CameraWish,
  checkPlace,
  cornersOf,
  type Format,
  fitFormat,
  outlineOf,
  placeCamera,
  planSeries,
  tapeMarks,
  viewOf,
} from '../src/index.js';
import { matte, testCamera } from './sets.js';

fc.configureGlobal({ seed: 20261126 });

const { body, lens } = testCamera();
const square: Format = { widthPx: 2000, heightPx: 2000, marginPart: 0.05, copySide: 'none', copyPart: 0 };
const plate: Bounds = { low: [-0.06, 0, 0], high: [0.06, 0, 0.08] };
const bottle: Bounds = { low: [-0.036, -0.036, 0], high: [0.036, 0.036, 0.25] };

const wish = (changes: Partial<CameraWish> = {}): CameraWish => ({
  body,
  lens,
  tiltDeg: 0,
  fillPart: 0.5,
  fNumber: 11,
  product: plate,
  formats: [],
  ...changes,
});

describe('a crop within the frame', () => {
  const frame = { pixelsWide: 6000, pixelsHigh: 4000 };

  test('a square out of 3:2 takes the height: 4000 pixels', () => {
    const fit = fitFormat({ left: 0.4, right: 0.6, top: 0.3, bottom: 0.7 }, square, frame);
    expect(fit.pixelsWide).toBe(4000);
    expect(fit.crop?.left).toBeCloseTo(1 / 6, 9);
    expect(fit.crop?.right).toBeCloseTo(5 / 6, 9);
  });

  test('words on the right move the crop so that the product stands left in it', () => {
    const words: Format = { ...square, copySide: 'right', copyPart: 0.4 };
    const fit = fitFormat({ left: 0.4, right: 0.6, top: 0.3, bottom: 0.7 }, words, frame);
    // Free part 5 % to 60 % of a crop two thirds of the frame wide, its middle on the product's.
    expect(fit.crop?.left).toBeCloseTo(0.5 - 0.325 * (2 / 3), 9);
    expect(fit.copy?.left).toBeCloseTo((fit.crop?.left ?? 0) + 0.6 * (2 / 3), 9);
  });

  test('a product that fills the height leaves a square with margin no room', () => {
    expect(fitFormat({ left: 0.3, right: 0.7, top: 0.01, bottom: 0.99 }, square, frame).crop).toBeNull();
  });

  test('whatever fits keeps the product clear of margin and words and within the frame', () => {
    const part = fc.double({ min: 0.02, max: 0.98, noNaN: true });
    const sides = fc.constantFrom('none', 'left', 'right', 'top', 'bottom');
    const numbers = fc.tuple(part, part, part, part, sides, fc.double({ min: 0, max: 0.6, noNaN: true }));
    fc.assert(
      fc.property(
        numbers,
        fc.integer({ min: 200, max: 4000 }),
        ([a, b, c, d, copySide, copyPart], heightPx) => {
          const product = {
            left: Math.min(a, b),
            right: Math.max(a, b),
            top: Math.min(c, d),
            bottom: Math.max(c, d),
          };
          const format = { ...square, heightPx, copySide, copyPart } as Format;
          const { crop } = fitFormat(product, format, frame);
          if (!crop) return;
          const width = crop.right - crop.left;
          const height = crop.bottom - crop.top;
          const slack = 1e-9;
          expect((width * 6000) / (height * 4000)).toBeCloseTo(2000 / heightPx, 6);
          expect(Math.min(crop.left, crop.top)).toBeGreaterThanOrEqual(-slack);
          expect(Math.max(crop.right, crop.bottom)).toBeLessThanOrEqual(1 + slack);
          const left = copySide === 'left' ? Math.max(0.05, copyPart) : 0.05;
          expect(product.left).toBeGreaterThanOrEqual(crop.left + left * width - slack);
          const upright = (0.05 * 2000) / heightPx;
          const bottom = copySide === 'bottom' ? Math.max(upright, copyPart) : upright;
          expect(product.bottom).toBeLessThanOrEqual(crop.bottom - bottom * height + slack);
        },
      ),
    );
  });
});

describe('the camera is placed', () => {
  test('a flat plate that fills half the frame: m = 0.15, s = f (1 + 1/m)', () => {
    const placed = placeCamera(wish());
    expect(placed.distanceM).toBeCloseTo(0.1 * (1 + 1 / 0.15), 6);
    expect(placed.fill.width).toBeCloseTo(0.5, 6);
    expect(placed.camera.positionM[1]).toBeCloseTo(-placed.distanceM, 6);
    expect(placed.camera.positionM[2]).toBeCloseTo(0.04, 6);
  });

  test.each([0, 25, 45, 90])('at %d degrees the outline is centred and fills what was asked', (tiltDeg) => {
    const placed = placeCamera(wish({ tiltDeg, product: bottle, fillPart: 0.7 }));
    const outline = outlineOf(viewOf(placed.camera), cornersOf(bottle));
    expect(outline.left + outline.right).toBeCloseTo(1, 6);
    expect(outline.top + outline.bottom).toBeCloseTo(1, 6);
    expect(Math.max(placed.fill.width, placed.fill.height)).toBeCloseTo(0.7, 4);
    const { positionM, aimM } = placed.camera;
    const down = Math.atan2(positionM[2] - aimM[2], aimM[1] - positionM[1]);
    expect((down * 180) / Math.PI).toBeCloseTo(tiltDeg, 4);
  });

  test('a format that needs room moves the camera back, and says so', () => {
    const banner: Format = { ...square, widthPx: 3000, heightPx: 1000, marginPart: 0.05 };
    const near = placeCamera(wish({ product: bottle, fillPart: 0.8, formats: [square] }));
    const far = placeCamera(wish({ product: bottle, fillPart: 0.8, formats: [square, banner] }));
    expect(near.heldByFormats).toBe(false);
    expect(far.heldByFormats).toBe(true);
    expect(far.distanceM).toBeGreaterThan(1.5 * near.distanceM);
    // The banner is half of the frame's height less two margins of 5 % of its width, which is all of the frame's.
    expect(far.fill.height).toBeCloseTo(0.5 - 2 * 0.05 * 1.5, 3);
  });

  test('focus halves the blur between front and back', () => {
    const { camera, nearM, farM } = placeCamera(wish({ product: bottle }));
    expect(1 / camera.focusM).toBeCloseTo((1 / nearM + 1 / farM) / 2, 9);
  });

  test('a product without size is refused', () => {
    expect(() => placeCamera(wish({ product: { low: [0, 0, 0], high: [0, 0, 0] } }))).toThrow(/size/);
  });
});

describe('the place is checked', () => {
  const room: Room = {
    widthM: 3.4,
    depthM: 2.8,
    heightM: 2.4,
    markFromLeftM: 1.7,
    markFromFrontM: 1.9,
    walls: matte(0.7),
    ceiling: matte(0.8),
    floor: matte(0.2),
  } as Room;
  const bench = {
    widthM: 1.2,
    depthM: 0.9,
    thicknessM: 0.03,
    centreM: [0, 0.05],
    material: matte(0.3),
  } as Bench;
  const panel = {
    kind: 'panel',
    widthM: 0.7,
    heightM: 0.9,
    centreM: [0, 0.75, 0.35] as Vector,
    turnDeg: 0,
    material: matte(0.8),
  } as Backdrop;
  const around = { room, bench, backdrop: panel, benchHeightM: 0.75, personM: 0.6, mostNearFarRatio: 1.15 };
  const find = (placed: ReturnType<typeof placeCamera>, what: string, changes = {}) =>
    checkPlace(placed, { ...around, ...changes }).find((check) => check.what === what);

  test('near limit counts from the sensor: focus plus image distance', () => {
    const placed = placeCamera(wish({ lens: { ...lens, closestFocusM: 0.9 } }));
    const check = find(placed, 'near-limit');
    // s + f (1 + m) = 0.76667 + 0.115.
    expect(check?.value).toBeCloseTo(0.8817, 3);
    expect(check?.met).toBe(false);
    expect(check?.focalLengthM).toBeCloseTo((1.01 * 0.1 * 0.9) / 0.8817, 3);
  });

  test('room behind: 1.9 m to the wall less where the camera stands', () => {
    const placed = placeCamera(wish({ product: bottle, fillPart: 0.3 }));
    const check = find(placed, 'room-behind');
    expect(check?.value).toBeCloseTo(1.9 - placed.distanceM, 6);
    expect(check?.limit).toBeCloseTo(0.75, 6);
    expect(check?.met).toBe(false);
    const lensThatFits = { ...lens, focalLengthM: check?.focalLengthM ?? lens.focalLengthM };
    const shorter = placeCamera(wish({ product: bottle, fillPart: 0.3, lens: lensThatFits }));
    expect(find(shorter, 'room-behind')?.met).toBe(true);
  });

  test('flatness of a flat lay: 4 cm deep from straight above', () => {
    const tart: Bounds = { low: [-0.14, -0.14, 0], high: [0.14, 0.14, 0.04] };
    const placed = placeCamera(wish({ tiltDeg: 90, product: tart, fillPart: 0.6 }));
    const check = find(placed, 'flatness');
    expect(check?.value).toBeCloseTo((placed.distanceM + 0.02) / (placed.distanceM - 0.02), 4);
    expect(find(placed, 'flatness', { mostNearFarRatio: 1.01 })).toMatchObject({ met: false });
    const wanted = find(placed, 'flatness', { mostNearFarRatio: 1.01 })?.focalLengthM ?? 0;
    const farther = placeCamera(
      wish({ tiltDeg: 90, product: tart, fillPart: 0.6, lens: { ...lens, focalLengthM: wanted } }),
    );
    expect(farther.farM / farther.nearM).toBeLessThanOrEqual(1.01);
  });

  test('a background that is too narrow is told with the width it needs', () => {
    const placed = placeCamera(wish({ product: bottle, fillPart: 0.3 }));
    const view = viewOf(placed.camera);
    const needed = 2 * view.halfWidth * (placed.distanceM + 0.75);
    expect(find(placed, 'backdrop')).toMatchObject({ met: needed <= 0.7 });
    expect(find(placed, 'backdrop')?.value).toBeCloseTo(needed, 4);
  });

  test('verticals stay parallel at level and straight down only', () => {
    expect(find(placeCamera(wish()), 'verticals')?.met).toBe(true);
    expect(find(placeCamera(wish({ tiltDeg: 25 })), 'verticals')).toMatchObject({ met: false });
    expect(find(placeCamera(wish({ tiltDeg: 90 })), 'verticals')?.met).toBe(true);
  });

  test('tape marks of a straight-down crop are its corners on the bench', () => {
    const flat: Bounds = { low: [-0.1, -0.1, 0], high: [0.1, 0.1, 0.0001] };
    const { camera } = placeCamera(wish({ tiltDeg: 90, product: flat, fillPart: 0.5 }));
    const view = viewOf(camera);
    const [topLeft, , bottomRight] = tapeMarks(view, { left: 0, top: 0, right: 1, bottom: 1 }, bench);
    const halfWidth = view.halfWidth * camera.positionM[2];
    expect(topLeft?.fromLeftM).toBeCloseTo(0.6 - halfWidth, 4);
    expect(bottomRight?.fromLeftM).toBeCloseTo(0.6 + halfWidth, 4);
    expect((topLeft?.fromFrontM ?? 0) - (bottomRight?.fromFrontM ?? 0)).toBeCloseTo(
      2 * view.halfHeight * camera.positionM[2],
      4,
    );
  });
});

describe('a series from one camera', () => {
  const small: Bounds = { low: [-0.02, -0.02, 0], high: [0.02, 0.02, 0.05] };
  const wishes = { body, lens, tiltDeg: 0, fillPart: 0.7, fNumber: 11, formats: [] };

  test('fits the largest, tells each one its share, and which would need another lens', () => {
    const { places } = planSeries(
      [
        { id: 'pin', bounds: small },
        { id: 'bottle', bounds: bottle },
      ],
      { ...wishes, align: 'base' },
    );
    expect(places.map(({ id }) => id)).toEqual(['bottle', 'pin']);
    expect(places[0]?.fillPart).toBeCloseTo(0.7, 2);
    expect(places[1]).toMatchObject({ liftM: 0, wantsOwnLens: true });
    // One fifth as tall, and a little nearer to the lens than the bottle's front.
    expect(places[1]?.fillPart).toBeCloseTo(0.14, 2);
  });

  test('centres on one line: the small one is lifted by half the difference', () => {
    const { places } = planSeries(
      [
        { id: 'pin', bounds: small },
        { id: 'bottle', bounds: bottle },
      ],
      { ...wishes, align: 'centre' },
    );
    expect(places.find(({ id }) => id === 'pin')?.liftM).toBeCloseTo(0.1, 9);
  });
});
