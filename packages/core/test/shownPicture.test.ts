import { demoNames, demoSet } from '@fendrix/demo';
import { expect, test } from 'vitest';
import {
  addTile,
  channelsOf,
  createFilms,
  denoiseFeatures,
  developFilms,
  exposureWeights,
  type Films,
  luminanceOf,
  prepareTracing,
  renderTile,
  smoothFilms,
  stokesOf,
} from '../src/index.js';

const [width, height] = [42, 28];
const tile = { x: 0, y: 0, width, height };
const REFERENCE = 256;
/** The reference's own noise, and that of one picture: what is worse by less is as good. */
const AS_GOOD = 1.03;
/**
 * A single bright path among so few samples is spread over its neighbours: dark ones may then be off by more, as parts of themselves;
 * most of all where there is one sample, which the bench never shows, and small pictures for a moment.
 */
const FEW = 4;
const SPREAD = 1.2;
const SPREAD_OF_ONE = 1.3;
const allowed = (samples: number) => (samples === 1 ? SPREAD_OF_ONE : samples <= FEW ? SPREAD : AS_GOOD);

/** Root mean square errors over what is not dark: of the luminance, as a part of it, and in stops. */
function errorsOf(own: Float64Array, reference: Float64Array) {
  const least = 0.01 * Math.max(...reference);
  let [parts, stops, count] = [0, 0, 0];
  reference.forEach((value, i) => {
    if (value < least) return;
    parts += ((own[i] as number) / value - 1) ** 2;
    stops += Math.log2(Math.max(own[i] as number, 1e-6 * least) / value) ** 2;
    count++;
  });
  return { part: Math.sqrt(parts / count), stops: Math.sqrt(stops / count) };
}

/** One whose filtered picture was once the worse one. */
const ALWAYS = new Set<string>(['tart']);

for (const name of demoNames)
  test(`${name}: the picture as shown is at no number of samples worse than their mean`, {
    tags: ALWAYS.has(name) ? [] : ['more'],
  }, () => {
    const set = demoSet(name);
    const tracing = prepareTracing(set);
    const features = denoiseFeatures(tracing, width, height, tile);
    const films = (): Films =>
      createFilms(width, height, channelsOf(set).length, stokesOf(set.camera).length);
    const luminance = (of: Films) => {
      const linear = new Float32Array(width * height * 3);
      developFilms(linear, of, exposureWeights(set));
      return Float64Array.from({ length: width * height }, (_, i) =>
        luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
      );
    };
    const render = (firstSample: number, samples: number, seed: number) =>
      renderTile(tracing, { width, height, tile, firstSample, samples, seed, fineBorders: true });
    const many = films();
    addTile(many, tile, render(0, REFERENCE, 7), REFERENCE);
    const reference = luminance(many);
    const growing = films();
    let first = 0;
    for (const samples of [1, 1, 2, 4, ...Array.from({ length: 14 }, () => 4)]) {
      addTile(growing, tile, render(first, samples, 1), samples);
      first += samples;
      if (![1, 2, 4, 8, 16, 32, 64].includes(first)) continue;
      const shown = films();
      smoothFilms(shown, growing, features);
      const [plain, smooth] = [growing, shown].map((of) => errorsOf(luminance(of), reference));
      const words = `${first} samples: ${JSON.stringify(plain)} to ${JSON.stringify(smooth)}`;
      expect(smooth?.part, words).toBeLessThanOrEqual(allowed(first) * (plain?.part ?? 0));
      expect(smooth?.stops, words).toBeLessThanOrEqual(AS_GOOD * (plain?.stops ?? 0));
    }
  });
