import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  createFilms,
  createGuide,
  developFilms,
  displayWeights,
  encodePfm,
  encodePicture,
  encodeSrgb,
  filterGuide,
  placeGuide,
  prepareTracing,
  projectPoint,
  rayThrough,
  recordedMidToneCdSM2,
  smoothFilms,
  smoothingRadius,
  tilesOf,
  vector,
  viewOf,
} from '../src/index.js';
import { testCamera } from './sets.js';

describe('display', () => {
  test('mid-tone is shown as 46.1 % sRGB, paper white as 255, beyond it as 255 too', () => {
    const pixels = new Uint8ClampedArray(16);
    encodePicture(pixels, new Float32Array([0.18, 0.18, 0.18, 1, 1, 1, 7, 0, -1, Number.NaN, 0, 0]));
    expect(pixels[0]).toBe(Math.round(255 * 0.4614));
    expect([...pixels.subarray(4, 8)]).toEqual([255, 255, 255, 255]);
    expect([...pixels.subarray(8, 11)]).toEqual([255, 0, 0]);
    expect(pixels[12]).toBe(0);
  });

  test('the encoding table is within one step of the formula everywhere', () => {
    const pixels = new Uint8ClampedArray(4);
    for (let i = 0; i <= 2000; i++) {
      const linear = i / 2000;
      encodePicture(pixels, new Float32Array([linear, linear, linear]));
      expect(Math.abs((pixels[0] as number) - 255 * encodeSrgb(linear))).toBeLessThan(1);
    }
  });

  test('focusing close costs light in the picture: (1 + m)^2', () => {
    const close = { ...testCamera(), focusM: 0.6 };
    const metered = (12.5 * close.fNumber ** 2) / close.iso;
    expect(recordedMidToneCdSM2(close) / metered).toBeCloseTo(1.2 ** 2, 9);
  });

  test('one stop more power doubles, one more ISO stop doubles, one f-stop halves', () => {
    const set = demoSet('cordial');
    const [before] = displayWeights(set);
    const brighter = {
      ...set,
      lights: set.lights.map((light) => ({ ...light, powerStops: light.powerStops + 1 })),
    };
    expect((displayWeights(brighter)[0] ?? 0) / (before ?? 1)).toBeCloseTo(2, 9);
    const camera = { ...set.camera, iso: 200, fNumber: set.camera.fNumber * 2 };
    expect((displayWeights({ ...set, camera })[0] ?? 0) / (before ?? 1)).toBeCloseTo(0.5, 9);
  });
});

describe('films', () => {
  test('tiles cover a picture once', () => {
    const covered = new Uint8Array(70 * 45);
    for (const tile of tilesOf(70, 45, 32)) {
      for (let y = 0; y < tile.height; y++) {
        for (let x = 0; x < tile.width; x++) {
          const at = (tile.y + y) * 70 + tile.x + x;
          covered[at] = (covered[at] as number) + 1;
        }
      }
    }
    expect(covered.every((count) => count === 1)).toBe(true);
  });

  test('develop means over samples and weighs the lights', () => {
    const films = createFilms(2, 1, 2);
    const tile = { x: 1, y: 0, width: 1, height: 1 };
    addTile(films, tile, new Float32Array([4, 8, 12, 1, 1, 1]), 4);
    const out = new Float32Array(6);
    developFilms(out, films, [1, 1, 0.5, 2, 2, 4]);
    expect([...out]).toEqual([0, 0, 0, 1.5, 2.5, 2.5]);
  });
});

describe('preview filter', () => {
  const tracing = prepareTracing(demoSet('cordial'));
  const width = 90;
  const height = 60;
  const guide = createGuide(width, height);
  for (const tile of tilesOf(width, height, 32)) {
    placeGuide(guide, tile, filterGuide(tracing, width, height, tile));
  }

  test('keeps an even film even, and is off from 128 samples on', () => {
    const films = createFilms(width, height, 1);
    films.data.fill(6);
    films.samples.fill(2);
    const smooth = createFilms(width, height, 1);
    smoothFilms(smooth, films, guide, 5);
    for (const value of smooth.data) expect(value).toBeCloseTo(3, 6);
    expect(smoothingRadius(1)).toBeGreaterThan(4);
    expect(smoothingRadius(128)).toBe(0);
  });

  test('does not mix across things or across edges of mirror images', () => {
    const films = createFilms(width, height, 1);
    films.samples.fill(1);
    const shiny = guide.shiny.findIndex((flag, i) => flag === 1 && i > width * 25);
    const region = guide.region[shiny];
    guide.region.forEach((other, pixel) => {
      if (other === region) films.data[3 * pixel] = 10;
    });
    const smooth = createFilms(width, height, 1);
    smoothFilms(smooth, films, guide, 5);
    guide.region.forEach((other, pixel) => {
      expect(smooth.data[3 * pixel]).toBeCloseTo(other === region ? 10 : 0, 5);
    });
    expect(new Set(guide.region.filter((_, i) => guide.shiny[i] === 1)).size).toBeGreaterThan(5);
  });

  test('takes a single bright pixel down to its neighbourhood', () => {
    const films = createFilms(width, height, 1);
    films.samples.fill(1);
    films.data.fill(1);
    films.data[3 * (10 * width + 10)] = 500;
    const smooth = createFilms(width, height, 1);
    smoothFilms(smooth, films, guide, 5);
    expect(Math.max(...smooth.data)).toBeLessThan(4);
  });
});

describe('view', () => {
  test('a ray through a picture point goes back to that point', () => {
    const view = viewOf({ ...testCamera(), positionM: [0.4, -1.2, 0.6], rollDeg: 12 });
    const direction = new Float64Array(3);
    for (const [across, down] of [
      [0.1, 0.2],
      [0.5, 0.5],
      [0.93, 0.71],
    ] as const) {
      rayThrough(direction, view, across, down);
      const point = vector.add(view.origin, vector.scale([...direction] as [number, number, number], 1.7));
      const back = projectPoint(view, point);
      expect(back?.[0]).toBeCloseTo(across, 12);
      expect(back?.[1]).toBeCloseTo(down, 12);
    }
    expect(projectPoint(view, vector.subtract(view.origin, view.forward))).toBeNull();
  });

  test('camera right is right in the picture, up is up', () => {
    const view = viewOf(testCamera());
    expect(projectPoint(view, [0.05, 0, 0.1])?.[0]).toBeGreaterThan(0.5);
    expect(projectPoint(view, [0, 0, 0.15])?.[1]).toBeLessThan(0.5);
  });
});

test('PFM: header, bottom row first, little endian', () => {
  const file = encodePfm(1, 2, new Float32Array([1, 2, 3, 4, 5, 6]));
  const head = 'PF\n1 2\n-1.0\n';
  expect(new TextDecoder().decode(file.subarray(0, head.length))).toBe(head);
  const floats = new DataView(file.buffer, head.length);
  expect(floats.getFloat32(0, true)).toBe(4);
  expect(floats.getFloat32(20, true)).toBe(3);
});
