import { demoSet } from '@fendrix/demo';
import { expect, test } from 'vitest';
import {
  addTile,
  channelsOf,
  createFilms,
  denoiseFeatures,
  prepareTracing,
  renderTile,
  smoothFilms,
  smoothTile,
} from '../src/index.js';

const [width, height] = [72, 48];
const whole = { x: 0, y: 0, width, height };
const set = demoSet('mill');
const tracing = prepareTracing(set);
const features = denoiseFeatures(tracing, width, height, whole);
const films = () => createFilms(width, height, channelsOf(set).length);
const noisy = films();
for (const firstSample of [0, 1]) {
  const job = { width, height, tile: whole, firstSample, samples: 1, seed: 1, fineBorders: true };
  addTile(noisy, whole, renderTile(tracing, job), 1);
}
const tile = { x: 24, y: 16, width: 24, height: 16 };
const isWithin = (pixel: number, { x, y, width: wide, height: high } = tile) => {
  const [across, down] = [(pixel % width) - x, Math.floor(pixel / width) - y];
  return across >= 0 && across < wide && down >= 0 && down < high;
};
/** Root mean square difference in the tile, as a part of its mean. */
function apart(one: Float32Array, other: Float32Array): number {
  let [sum, mean, count] = [0, 0, 0];
  for (let i = 0; i < 3 * width * height; i++) {
    if (!isWithin(Math.floor(i / 3))) continue;
    sum += ((one[i] as number) - (other[i] as number)) ** 2;
    mean += one[i] as number;
    count++;
  }
  return Math.sqrt(sum / count) / (mean / count);
}

test('a tile alone is nearly as it is in the whole picture, and nothing else is touched', () => {
  const all = films();
  smoothFilms(all, noisy, features);
  const own = films();
  smoothTile(own, noisy, features, tile, 2);
  own.samples.forEach((count, pixel) => {
    expect(count).toBe(isWithin(pixel) ? 1 : 0);
    if (count === 0) expect(own.data[3 * pixel]).toBe(0);
  });
  const plain = noisy.data.map((value) => value / 2);
  expect(apart(all.data, own.data)).toBeLessThan(0.2 * apart(all.data, plain));
});

test('where tiles round it have too few samples, what they have is not seen in it', () => {
  const alone = films();
  addTile(alone, tile, new Float32Array(3 * tile.width * tile.height * alone.channels).fill(2), 2);
  const flat = films();
  smoothTile(flat, alone, features, tile, 2);
  // One bright sample beside it.
  const beside = { x: 0, y: 0, width: 24, height };
  addTile(alone, beside, new Float32Array(3 * 24 * height * alone.channels).fill(1e6), 1);
  const own = films();
  smoothTile(own, alone, features, tile, 2);
  expect(own.data).toEqual(flat.data);
  expect(own.data[3 * (tile.y * width + tile.x)]).toBeCloseTo(1, 6);
});
