import type { SetDocument, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  exposureWeights,
  lensFigures,
  lightColourRgb,
  prepareTracing,
  renderTile,
  shiftedTemperatureK,
} from '../src/index.js';
import { matte, overheadSoftbox, testCamera, testSet } from './sets.js';

const factors = (set: SetDocument, channel: number) =>
  Array.from(exposureWeights(set).subarray(3 * channel, 3 * channel + 3));

describe('film on the lamp, filter on the lens', () => {
  const light = {
    ...overheadSoftbox(1),
    output: { kind: 'flash-energy' as const, energyJ: 400 },
    colour: { temperatureK: 5500 },
    polarised: { axisDeg: 0, lossStops: 1.4 },
  };
  const bare = { ...light, polarised: undefined };
  const set = (lamp: object, axisDeg?: number) =>
    testSet({
      lights: [lamp as typeof light],
      camera: {
        ...testCamera(),
        ...(axisDeg === undefined ? {} : { polariser: { axisDeg, lossStops: 1.5, extinction: 1 / 200 } }),
      },
    });

  test('what is scattered evenly loses film and filter, 2.9 stops, however the filter is turned', () => {
    const [free] = factors(set(bare), 0) as [number];
    for (const axisDeg of [0, 30, 90]) {
      const [paper] = factors(set(light, axisDeg), 0) as [number];
      expect(Math.log2(free / paper)).toBeCloseTo(2.9, 6);
    }
  });

  test('polarised light passes by the law of Malus, crossed light by the extinction', () => {
    // Level light: its plane is its all.
    const passes = (axisDeg: number) => {
      const [all, plane] = [0, 1].map((film) => factors(set(light, axisDeg), film)[0]) as [number, number];
      return all + plane;
    };
    const along = passes(90);
    expect(passes(0) / along).toBeCloseTo(1 / 200, 6);
    expect(passes(45) / along).toBeCloseTo((1 + 1 / 200) / 2, 6);
    expect(passes(30) / along).toBeCloseTo(Math.cos(Math.PI / 3) ** 2 + Math.sin(Math.PI / 3) ** 2 / 200, 6);
    // Slanted light, by its own film.
    const [all = 0] = factors(set(light, 45), 0);
    const [slant = 0] = factors(set(light, 45), 2);
    expect(Math.abs(slant / all)).toBeCloseTo((1 - 1 / 200) / (1 + 1 / 200), 6);
  });
});

describe('colour of light', () => {
  test('5500 to 3000 K is +151.5 mired, and back', () => {
    expect(1e6 / 3000 - 1e6 / 5500).toBeCloseTo(151.5, 1);
    expect(shiftedTemperatureK(5500, 151.515)).toBeCloseTo(3000, 0);
    expect(shiftedTemperatureK(3000, -151.515)).toBeCloseTo(5500, 0);
  });

  test('a light of the balanced temperature is neutral; a warmer one is red, a cooler one blue', () => {
    for (const kelvin of [2700, 4300, 5500, 8000]) {
      for (const value of lightColourRgb(kelvin, kelvin)) expect(value).toBeCloseTo(1, 6);
    }
    const [r, , b] = lightColourRgb(3000, 5500);
    expect(r).toBeGreaterThan(1.2);
    expect(b).toBeLessThan(0.6);
    const [r2, , b2] = lightColourRgb(9000, 5500);
    expect(r2).toBeLessThan(1);
    expect(b2).toBeGreaterThan(1);
  });

  test('luminance stays as it was', () => {
    for (const kelvin of [2700, 4300, 5500, 8000]) {
      const [r, g, b] = lightColourRgb(kelvin, 5500);
      expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(1, 6);
    }
  });
});

describe('depth of field in the picture', () => {
  /** A thin bright strip at a distance behind the plane in focus, and how wide its image is, m on the sensor. */
  function widthOfImage(distanceM: number, fNumber: number, depthOfField: boolean): number {
    const camera = { ...testCamera(), fNumber, depthOfField, focusM: 1 };
    const strip = {
      ...overheadSoftbox(1),
      positionM: [0, distanceM - 1, 0.1] as Vector,
      aimM: [0, -1, 0.1] as Vector,
      widthM: 0.001,
      heightM: 1,
    };
    const set = testSet({ lights: [strip], camera });
    const width = 301;
    const tile = { x: 0, y: 0, width, height: 1 };
    const job = { width, height: 1, tile, firstSample: 0, samples: 1024, seed: 1 };
    // A picture one pixel high is a narrow crop; the frame's width stays.
    const sums = renderTile(prepareTracing(set), job);
    const lit = Array.from({ length: width }, (_, i) => sums[3 * i] as number);
    const most = Math.max(...lit);
    const columns = lit.filter((value) => value > most * 0.02).length;
    return (columns / width) * camera.body.sensorWidthM;
  }

  test('the blur of a strip behind the focus is the disc of the thin lens', () => {
    const far = 1.3;
    const { imageDistanceM } = lensFigures({ ...testCamera(), focusM: 1 });
    // Blur on the plane in focus is D (s - f) / s; on the sensor times the magnification v / f.
    const pupil = 0.1;
    const expected = ((pupil * (far - 1)) / far) * imageDistanceM;
    const blurred = widthOfImage(far, 1, true);
    expect(Math.abs(blurred / expected - 1)).toBeLessThan(0.12);
    expect(widthOfImage(far, 1, false)).toBeLessThan(0.2 * blurred);
  });

  test('a smaller stop blurs less; in focus nothing blurs', () => {
    expect(widthOfImage(1.3, 4, true)).toBeLessThan(0.35 * widthOfImage(1.3, 1, true));
    expect(widthOfImage(1, 4, true)).toBeLessThan((3 * 0.036) / 301 + 1e-9);
  });

  test('mean light of an even field is the same with and without', () => {
    const level = (depthOfField: boolean) => {
      const set = testSet({
        lights: [{ ...overheadSoftbox(1), positionM: [0, -0.9, 1] as Vector }],
        backdrop: { kind: 'panel', widthM: 2, heightM: 2, centreM: [0, 0.2, 0.1], material: matte(0.8) },
        camera: { ...testCamera(), depthOfField, fNumber: 2.8 },
      });
      const tile = { x: 0, y: 0, width: 8, height: 8 };
      const sums = renderTile(prepareTracing(set), {
        width: 8,
        height: 8,
        tile,
        firstSample: 0,
        samples: 256,
        seed: 1,
      });
      return sums.reduce((sum, value) => sum + value, 0);
    };
    expect(level(true) / level(false)).toBeCloseTo(1, 2);
  });
});
