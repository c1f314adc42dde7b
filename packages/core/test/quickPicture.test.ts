import { type DemoName, demoSet } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ambientByLight, displayWeights, luminanceOf, prepareTracing, renderTile } from '../src/index.js';
import { renderSparsely } from '../src/render/renderSparsely.js';

const width = 240;
const height = 160;

/** Quick pictures of a set in luminance, with the rays they cost. */
function quickPictures(name: DemoName) {
  const set = demoSet(name);
  const tracing = prepareTracing(set);
  const ambient = ambientByLight(tracing, 1);
  const weights = displayWeights(set);
  const films = tracing.scene.channelCount;
  return (sparse: boolean, samples: number, seed = 3) => {
    const tile = { x: 0, y: 0, width, height };
    const before = tracing.engine.rays[0] as number;
    const sums = renderTile(tracing, { width, height, tile, firstSample: 0, samples, seed, ambient, sparse });
    const rays = (tracing.engine.rays[0] as number) - before;
    const luminance = Float64Array.from({ length: width * height }, (_, i) => {
      let all = 0;
      for (let film = 0; film < films; film++) {
        const [r = 0, g = 0, b = 0] = [0, 1, 2].map(
          (c) => (sums[3 * (film * width * height + i) + c] as number) * (weights[3 * film + c] as number),
        );
        all += luminanceOf(r, g, b);
      }
      return all / samples;
    });
    return { luminance, rays };
  };
}

function meanError(picture: Float64Array, reference: Float64Array): number {
  const least = 0.01 * Math.max(...reference);
  let sum = 0;
  let count = 0;
  reference.forEach((value, i) => {
    if (value < least) return;
    sum += Math.abs((picture[i] as number) - value) / value;
    count++;
  });
  return sum / count;
}

describe('a picture that follows a moving thing', () => {
  for (const [name, tags] of [
    ['cordial', []],
    ['mill', ['more']],
    ['tart', ['more']],
    ['tent', ['more']],
  ] as const)
    test(`${name}: under a third of the rays, and nearer to the truth than a sample for each pixel`, {
      tags: [...tags],
    }, () => {
      const picture = quickPictures(name);
      const truth = picture(false, 32, 9).luminance;
      const whole = picture(false, 1);
      const sparse = picture(true, 1);
      expect(sparse.rays).toBeLessThan(0.33 * whole.rays);
      expect(meanError(sparse.luminance, truth)).toBeLessThan(0.95 * meanError(whole.luminance, truth));
    });

  test('mirrored strips end at the same pixels as in the whole picture', () => {
    const picture = quickPictures('mill');
    const truth = picture(false, 64, 9).luminance;
    const sparse = picture(true, 1).luminance;
    // Steps between neighbours of the truth that are more than fourfold, across the middle of the mill.
    let steps = 0;
    let kept = 0;
    for (let y = 60; y < 100; y++) {
      for (let x = 80; x < 160; x++) {
        const at = (from: Float64Array, dx: number) => from[y * width + x + dx] as number;
        if (Math.abs(Math.log2(at(truth, 1) / at(truth, 0))) < 2) continue;
        steps++;
        // A pixel on the edge shows one side or the other of it.
        const there = Math.max(
          ...[-1, 0, 1].map((d) => Math.abs(Math.log2(at(sparse, d + 1) / at(sparse, d)))),
        );
        if (there > 1) kept++;
      }
    }
    expect(steps).toBeGreaterThan(20);
    expect(kept / steps).toBeGreaterThan(0.9);
  });

  test('it is the same each time', () => {
    const picture = quickPictures('cordial');
    expect(picture(true, 1).luminance).toEqual(picture(true, 1).luminance);
  });
});

describe('films that are weighed as they are traced', () => {
  test('are the films weighed afterwards; lights that are off cost no rays', () => {
    const set = demoSet('cordial-frost');
    const tracing = prepareTracing(set);
    const { channelCount } = tracing.scene;
    const ambient = ambientByLight(tracing, 1);
    const tile = { x: 3, y: 2, width: 60, height: 40 };
    const job = { width, height, tile, firstSample: 0, samples: 1, seed: 3, ambient, sparse: true };
    const size = 3 * tile.width * tile.height;
    const films = renderTile(tracing, job);
    const all = displayWeights(set);
    const firstAlone = all.map((weight, i) => (i < 3 ? weight : 0));
    const raysOf = (mixes: Float64Array[]) => {
      const before = tracing.engine.rays[0] as number;
      const linear = renderTile(tracing, { ...job, mixes });
      return { linear, rays: (tracing.engine.rays[0] as number) - before };
    };
    const both = raysOf([all, firstAlone]);
    expect(both.linear.length).toBe(2 * size);
    [all, firstAlone].forEach((weights, mix) => {
      for (let i = 0; i < size; i++) {
        let sum = 0;
        for (let film = 0; film < channelCount; film++)
          sum += (weights[3 * film + (i % 3)] as number) * (films[film * size + i] as number);
        expect(Math.abs((both.linear[mix * size + i] as number) - sum)).toBeLessThan(1e-5 * sum + 1e-9);
      }
    });
    expect(raysOf([firstAlone]).rays).toBeLessThan(0.8 * both.rays);
  });
});

describe('sparse rendering of tiles of any size', () => {
  test('of one thing: a sixteenth is traced, every pixel is set to what was traced', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 23 }), fc.integer({ min: 1, max: 23 }), (w, h) => {
        const sums = new Float32Array(6 * w * h).fill(-1);
        let traced = 0;
        renderSparsely(sums, { x: 0, y: 0, width: w, height: h }, (places) => {
          traced += places.length;
          for (const place of places) {
            for (let film = 0; film < 2; film++) sums.set([1, 2, 3], 3 * (film * w * h + place));
          }
        });
        const lines = (length: number) => Math.ceil((length - 1) / 4) + 1;
        expect(traced).toBe(lines(w) * lines(h));
        for (let i = 0; i < 2 * w * h; i++) expect([...sums.subarray(3 * i, 3 * i + 3)]).toEqual([1, 2, 3]);
      }),
    );
  });

  test('of things that differ from pixel to pixel: all is traced once and kept as it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 17 }), fc.integer({ min: 1, max: 17 }), (w, h) => {
        const sums = new Float32Array(3 * w * h).fill(-1);
        const asked = new Int32Array(w * h);
        renderSparsely(sums, { x: 0, y: 0, width: w, height: h }, (places, seen) => {
          for (const place of places) {
            asked[place] = (asked[place] as number) + 1;
            seen[place] = place;
            sums.fill(place, 3 * place, 3 * place + 3);
          }
        });
        expect(asked.every((times) => times === 1)).toBe(true);
        expect(sums.every((value, i) => value === Math.floor(i / 3))).toBe(true);
      }),
    );
  });

  test('two things keep the edge between them to the pixel', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 29 }), fc.integer({ min: -2, max: 2 }), (edge, slope) => {
        const [w, h] = [30, 9];
        const sums = new Float32Array(3 * w * h);
        const isRight = (place: number) => (place % w) + slope * Math.floor(place / w) >= edge;
        renderSparsely(sums, { x: 0, y: 0, width: w, height: h }, (places, seen) => {
          for (const place of places) {
            seen[place] = isRight(place) ? 2 : 1;
            sums.fill(isRight(place) ? 10 : 1, 3 * place, 3 * place + 3);
          }
        });
        for (let place = 0; place < w * h; place++) {
          expect(sums[3 * place]).toBe(isRight(place) ? 10 : 1);
        }
      }),
    );
  });
});
