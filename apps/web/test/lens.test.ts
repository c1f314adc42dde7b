import { createFeatures, cropRect } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { placeInWindow } from '../src/features/bench/lens/placeInWindow';
import {
  pictureOf,
  toFrame,
  toView,
  WHOLE_FRAME,
  withinFrame,
  zoomedAt,
} from '../src/features/bench/picture/frameWindow';
import { clippingLayer, stopsLayer } from '../src/features/bench/picture/toneLayer';
import { shiftExposure } from '../src/features/bench/state/shiftExposure';
import { type DevelopedSmall, SmallDeveloper } from '../src/shared/render/smallDeveloper';

fc.configureGlobal({ seed: 5 });

const part = fc.double({ min: 0, max: 1, noNaN: true });
const window = fc
  .record({ zoom: fc.double({ min: 1, max: 12, noNaN: true }), left: part, top: part })
  .map((loose) => withinFrame(loose, 12));

describe('magnifying', () => {
  test('a place of the frame is shown where it is looked for', () => {
    fc.assert(
      fc.property(window, part, part, (own, x, y) => {
        const [u, v] = toFrame(own, x, y);
        const [bx, by] = toView(own, u, v);
        expect(bx).toBeCloseTo(x, 9);
        expect(by).toBeCloseTo(y, 9);
        expect(u).toBeGreaterThanOrEqual(-1e-9);
        expect(u).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });

  test('what is under the pointer stays there while there is room', () => {
    const own = zoomedAt(WHOLE_FRAME, 4, [0.6, 0.4], 12);
    expect(toView(own, 0.6, 0.4)).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.4, 9)]);
    expect(zoomedAt(own, 100, [0.6, 0.4], 12).zoom).toBe(12);
    expect(zoomedAt(own, 0.01, [0.6, 0.4], 12)).toEqual(WHOLE_FRAME);
  });

  test('the traced part lies within the whole picture and has the size of the view', () => {
    fc.assert(
      fc.property(window, fc.integer({ min: 160, max: 900 }), (own, width) => {
        const { width: wide, height: high, part: tile } = pictureOf(own, width, 1.5);
        expect(tile.x).toBeGreaterThanOrEqual(0);
        expect(tile.y).toBeGreaterThanOrEqual(0);
        expect(tile.x + tile.width).toBeLessThanOrEqual(wide);
        expect(tile.y + tile.height).toBeLessThanOrEqual(high);
        expect(tile.width).toBe(width);
      }),
    );
  });

  test('a picture of the whole frame fills a magnified view beyond its edges', () => {
    const place = placeInWindow(WHOLE_FRAME, { zoom: 2, left: 0.25, top: 0.5 });
    expect(place).toMatchObject({ left: '-50%', top: '-100%', width: '200%', height: '200%' });
  });
});

describe('crops', () => {
  const { camera } = demoSet('bottle');
  test('as large as the frame holds in their shape, in the middle, kept within it', () => {
    const crop = {
      name: '4:5',
      widthPx: 1600,
      heightPx: 2000,
      shiftAcross: 0,
      shiftDown: 0,
      scale: 1,
      copySide: 'none' as const,
      copyPart: 0,
    };
    const rect = cropRect(camera, crop);
    expect(rect.bottom - rect.top).toBeCloseTo(1, 9);
    expect((rect.right - rect.left) * 36).toBeCloseTo(0.8 * 24, 9);
    expect(rect.left + rect.right).toBeCloseTo(1, 9);
    expect(cropRect(camera, { ...crop, shiftAcross: 1 }).right).toBeCloseTo(1, 9);
    const half = cropRect(camera, { ...crop, scale: 0.5 });
    expect(half.bottom - half.top).toBeCloseTo(0.5, 9);
  });
});

describe('tone layers', () => {
  const flat = (value: number, count: number) => new Float32Array(3 * count).fill(value);
  test('steps of one stop get a label each, well within their area', () => {
    const [width, height] = [40, 20];
    const linear = flat(0.18 * 1.2, width * height);
    for (let y = 0; y < height; y++)
      for (let x = 20; x < width; x++) linear.fill(0.18 * 4.5, 3 * (y * width + x), 3 * (y * width + x) + 3);
    const { labels } = stopsLayer(linear, width, height);
    expect(labels.map(({ step }) => step)).toEqual([0, 2]);
    expect(labels[0]?.x).toBeLessThan(20);
    expect(labels[1]?.x).toBeGreaterThanOrEqual(20);
  });

  test('what is lost is counted for the frame and for each thing', () => {
    const linear = flat(0.5, 100);
    linear.fill(2, 0, 30);
    linear.fill(1.2, 30, 60);
    linear.fill(1e-4, 60, 90);
    const regions = new Int32Array(100).fill(1);
    regions.fill(1 + 1024, 50);
    const things = [
      { kind: 'product' as const, key: 'one', name: 'One' },
      { kind: 'product' as const, key: 'two', name: 'Two' },
    ];
    const { lost, byThing } = clippingLayer(linear, 10, 10, regions, things);
    expect(lost).toEqual({ black: 0.1, paper: 0.1, clipped: 0.1 });
    expect(byThing.map(({ clipped }) => clipped)).toEqual([0.2, 0]);
  });
});

describe('sliding the exposure', () => {
  const set = demoSet('cordial');
  test('one stop by each setting is one stop', () => {
    const shifted = (by: Parameters<typeof shiftExposure>[1], stops: number) =>
      shiftExposure(set, by, stops)(set);
    expect(shifted('shutter', 1).camera.shutterS / set.camera.shutterS).toBeCloseTo(2, 1);
    expect(shifted('ISO', 1).camera.iso / set.camera.iso).toBeCloseTo(2, 1);
    expect((set.camera.fNumber / shifted('f-stop', 1).camera.fNumber) ** 2).toBeCloseTo(2, 1);
    expect(shifted('all powers', -1).lights[0]?.powerStops).toBeCloseTo(
      (set.lights[0]?.powerStops ?? 0) - 1,
      1,
    );
  });

  test('all powers together go no further than the fullest light', () => {
    const mill = demoSet('cordial-frost');
    const shifted = shiftExposure(mill, 'all powers', 9)(mill);
    const rises = shifted.lights.map((light, i) => light.powerStops - (mill.lights[i]?.powerStops ?? 0));
    expect(Math.max(...shifted.lights.map(({ powerStops }) => powerStops))).toBeCloseTo(0, 6);
    rises.forEach((rise) => {
      expect(rise).toBeCloseTo(rises[0] ?? 0, 1);
    });
  });
});

describe('developer of small pictures', () => {
  const open = () => {
    const given: DevelopedSmall[] = [];
    return { developer: new SmallDeveloper((picture) => given.push(picture)), given };
  };
  const tile = { x: 0, y: 0, width: 2, height: 2 };
  const begin = {
    type: 'begin',
    id: 1,
    width: 2,
    height: 2,
    channels: 1,
    stokes: 1,
    weights: new Float64Array([1, 1, 1]),
  } as const;

  test('means of the samples, as recorded; then it is forgotten', () => {
    const { developer, given } = open();
    developer.receive({ ...begin, levelled: false });
    developer.receive({ type: 'tile', id: 1, tile, sums: new Float32Array(12).fill(1), samples: 4 });
    developer.receive({ type: 'show', id: 1, last: true });
    expect(given[0]?.linear[0]).toBeCloseTo(0.25, 6);
    developer.receive({ type: 'show', id: 1, last: true });
    expect(given).toHaveLength(1);
  });

  test('noise is mixed away within what is of one kind, as on the bench', () => {
    const { developer, given } = open();
    const wide = { x: 0, y: 0, width: 8, height: 8 };
    developer.receive({ ...begin, width: 8, height: 8, levelled: false });
    const features = {
      ...createFeatures(8, 8),
      region: new Int32Array(64).map((_, i) => (i % 8 < 4 ? 1 : 2)),
    };
    features.normal.set(Array.from({ length: 192 }, (_, i) => (i % 3 === 2 ? 1 : 0)));
    developer.receive({ type: 'features', id: 1, tile: wide, features });
    // Two samples: one half as bright again as the other, by turns; twice as bright on the right.
    for (const odd of [0, 1]) {
      const sums = new Float32Array(192).map((_, i) => {
        const pixel = Math.floor(i / 3);
        const turn = (pixel + Math.floor(pixel / 8) + odd) % 2;
        return (pixel % 8 < 4 ? 0.1 : 0.2) * (turn === 0 ? 1.25 : 0.75) * (pixel % 3 === 0 ? 1.2 : 0.9);
      });
      developer.receive({ type: 'tile', id: 1, tile: wide, sums, samples: 1 });
    }
    developer.receive({ type: 'show', id: 1, last: true });
    const row = Array.from({ length: 8 }, (_, x) => given[0]?.linear[3 * (8 * 4 + x)] ?? 0);
    const spread = (of: number[]) => Math.max(...of) / Math.min(...of);
    // Before the filter 1.33 within each kind.
    expect(spread(row.slice(0, 4))).toBeLessThan(1.15);
    expect(spread(row.slice(4))).toBeLessThan(1.15);
    expect((row[4] ?? 0) / (row[3] ?? 1)).toBeGreaterThan(1.7);
  });

  test('levelled it is as bright as fits; a dropped one says nothing', () => {
    const { developer, given } = open();
    developer.receive({ ...begin, levelled: true });
    developer.receive({ type: 'tile', id: 1, tile, sums: new Float32Array(12).fill(0.01), samples: 1 });
    developer.receive({ type: 'show', id: 1, last: false });
    expect(given[0]?.linear[0]).toBeCloseTo(0.95, 2);
    developer.receive({ type: 'drop', id: 1 });
    developer.receive({ type: 'show', id: 1, last: true });
    expect(given).toHaveLength(1);
  });
});
