import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  channelsOf,
  createFeatures,
  createFilms,
  denoiseFeatures,
  developFilms,
  displayWeights,
  encodePfm,
  encodePicture,
  encodePicture16,
  encodeSrgb,
  exposureWeights,
  type Films,
  noiseOfMean,
  placeFeatures,
  prepareTracing,
  projectPoint,
  rayThrough,
  recordedMidToneCdSM2,
  renderTile,
  smoothFilms,
  tilesOf,
  vector,
  viewOf,
} from '../src/index.js';
import { seededRandom } from './random.js';
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

  test('sixteen bits are the formula to their last place, and clip where eight do', () => {
    const values = [0, 1e-6, 0.001, 0.0031308, 0.18, 0.5, 1, 7, -1, Number.NaN];
    const coded = encodePicture16(Float32Array.from(values));
    values.slice(0, 7).forEach((value, i) => {
      expect(Math.abs((coded[i] as number) - 65535 * encodeSrgb(value))).toBeLessThan(0.51);
    });
    expect([...coded.subarray(7)]).toEqual([65535, 0, 0]);
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

describe('filter of the picture shown', () => {
  const set = demoSet('cordial');
  const tracing = prepareTracing(set);
  const width = 90;
  const height = 60;
  const tile = { x: 0, y: 0, width, height };
  const guide = createFeatures(width, height);
  for (const part of tilesOf(width, height, 32)) {
    placeFeatures(guide, part, denoiseFeatures(tracing, width, height, part));
  }
  const channels = channelsOf(set).length;

  /** Passes of these samples, one after the other, as a picture grows. */
  function grown(passes: readonly number[], seed: number): Films {
    const films = createFilms(width, height, channels);
    let firstSample = 0;
    for (const samples of passes) {
      addTile(films, tile, renderTile(tracing, { width, height, tile, firstSample, samples, seed }), samples);
      firstSample += samples;
    }
    return films;
  }

  function smoothed(films: Films): Films {
    const smooth = createFilms(width, height, films.channels);
    smoothFilms(smooth, films, guide);
    return smooth;
  }

  function developed(films: Films): Float32Array {
    const linear = new Float32Array(width * height * 3);
    developFilms(linear, films, exposureWeights(set));
    return linear;
  }

  /** Mean relative error over what is not dark. */
  function errorOf(films: Films, reference: Float32Array): number {
    const linear = developed(films);
    const most = reference.reduce((high, value) => Math.max(high, value), 0);
    let sum = 0;
    let count = 0;
    reference.forEach((value, i) => {
      if (value < 0.01 * most) return;
      sum += Math.abs((linear[i] as number) / value - 1);
      count++;
    });
    return sum / count;
  }

  test('about half of the samples are kept apart, whatever the passes', () => {
    const films = createFilms(width, height, 1);
    const sums = new Float32Array(width * height * 3).fill(2);
    for (const [samples, apart] of [
      [1, 0],
      [1, 1],
      [2, 1],
      [4, 5],
      [4, 5],
      [4, 9],
    ] as const) {
      addTile(films, tile, sums, samples);
      expect(films.halfSamples[7]).toBe(apart);
    }
    expect(films.samples[7]).toBe(16);
    expect(films.data[21]).toBe(12);
    // Three of the six passes are apart: three colours of 2 each.
    expect(films.half[7]).toBe(18);
  });

  test('the noise of the mean is told by the two parts', () => {
    const films = createFilms(1, 1, 1);
    const pixel = { x: 0, y: 0, width: 1, height: 1 };
    addTile(films, pixel, new Float32Array([3, 0, 0]), 1);
    expect(noiseOfMean(films, 0, 0)).toBe(0);
    addTile(films, pixel, new Float32Array([7, 0, 0]), 1);
    // Two samples of 3 and 7: variance 8 of one, 4 of their mean.
    expect(noiseOfMean(films, 0, 0)).toBeCloseTo(4, 9);
  });

  test('keeps an even film even', () => {
    const films = createFilms(width, height, 1);
    films.data.fill(6);
    films.samples.fill(2);
    for (const value of smoothed(films).data) expect(value).toBeCloseTo(3, 6);
  });

  test('what is known without noise is left alone, edges of shadows too', () => {
    const films = createFilms(width, height, 1);
    const shadow = (i: number) => (i % width < 45 ? 1 : 3);
    const sums = Float32Array.from({ length: 3 * width * height }, (_, i) => shadow(Math.floor(i / 3)));
    addTile(films, tile, sums, 1);
    addTile(films, tile, sums, 1);
    smoothed(films).data.forEach((value, i) => {
      expect(value).toBeCloseTo(shadow(Math.floor(i / 3)), 5);
    });
  });

  test('does not mix across things or across edges of mirror images', () => {
    const films = createFilms(width, height, 1);
    films.samples.fill(1);
    const shiny = guide.shiny.findIndex((flag, i) => flag === 1 && i > width * 25);
    const region = guide.region[shiny];
    guide.region.forEach((other, pixel) => {
      if (other === region) films.data[3 * pixel] = 10;
    });
    const smooth = smoothed(films);
    guide.region.forEach((other, pixel) => {
      expect(smooth.data[3 * pixel]).toBeCloseTo(other === region ? 10 : 0, 5);
    });
    expect(new Set(guide.region.filter((_, i) => guide.shiny[i] === 1)).size).toBeGreaterThan(5);
  });

  test('takes a single bright pixel down to its neighbourhood', () => {
    const films = createFilms(width, height, 1);
    films.samples.fill(1);
    films.data.fill(1);
    const at = 10 * width + 10;
    films.data[3 * at] = 500;
    expect(Math.max(...smoothed(films).data)).toBeLessThan(12);
    // The same with one bright sample of two.
    films.samples.fill(2);
    films.halfSamples.fill(1);
    films.half.fill(1.5);
    films.half[at] = 500;
    expect(smoothed(films).data[3 * at]).toBeLessThan(40);
  });

  test('whatever the films, what is shown lies between the least and most of them', () => {
    const random = seededRandom(11);
    for (let round = 0; round < 20; round++) {
      const wide = 3 + Math.floor(20 * random());
      const high = 1 + Math.floor(20 * random());
      const films = createFilms(wide, high, 2);
      const whole = { x: 0, y: 0, width: wide, height: high };
      for (let samples = 1; samples <= 1 + round; samples *= 2) {
        // Now and then a firefly.
        const sums = Float32Array.from({ length: films.data.length }, () =>
          random() < 0.01 ? 1e4 * random() : samples * (0.5 + random()),
        );
        addTile(films, whole, sums, samples);
      }
      const own = createFeatures(wide, high);
      own.region.forEach((_, i) => {
        own.region[i] = Math.floor(3 * random());
        own.shiny[i] = random() < 0.5 ? 1 : 0;
        own.normal[3 * i + 2] = 1;
      });
      const smooth = createFilms(wide, high, 2);
      smoothFilms(smooth, films, own);
      const size = 3 * wide * high;
      for (const channel of [0, 1]) {
        const count = films.samples[0] as number;
        const means = films.data.subarray(channel * size, (channel + 1) * size).map((sum) => sum / count);
        const shown = smooth.data.subarray(channel * size, (channel + 1) * size);
        expect(shown.every(Number.isFinite)).toBe(true);
        expect(Math.max(...shown)).toBeLessThanOrEqual(Math.max(...means) * 1.00001);
        // Single bright pixels are taken down, colour by colour alike; nothing gets darker than the darkest of them.
        expect(Math.min(...shown)).toBeGreaterThan(0);
        own.region.forEach((region, i) => {
          if (region === 0) expect(shown[3 * i]).toBe(means[3 * i]);
        });
      }
    }
  });

  test('a pixel that nothing is known of is left as it is', () => {
    const films = grown([1, 1], 3);
    const smooth = createFilms(width, height, channels);
    smoothFilms(smooth, films, createFeatures(width, height));
    expect([...developed(smooth)]).toEqual([...developed(films)]);
  });

  test('halves the error of a few samples, and is never worse than they are', () => {
    const reference = developed(grown([64], 9));
    for (const [passes, gain] of [
      [[1, 1], 2],
      [[1, 1, 2], 1.8],
      [[1, 1, 2, 4, 4, 4], 1.2],
    ] as const) {
      const films = grown(passes, 1);
      expect(errorOf(films, reference) / errorOf(smoothed(films), reference)).toBeGreaterThan(gain);
    }
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
