import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  createFilms,
  developFilms,
  displayWeights,
  lightLayers,
  prepareTracing,
  renderTile,
  weightsOfChannels,
} from '../src/index.js';

describe('layers of lights', () => {
  test.each(['perry', 'mill', 'bottle'] as const)('%s: all layers together are the picture', (name) => {
    const set = demoSet(name);
    const tracing = prepareTracing(set);
    const tile = { x: 0, y: 0, width: 24, height: 16 };
    const films = createFilms(24, 16, tracing.scene.channelCount);
    const job = { width: 24, height: 16, tile, firstSample: 0, samples: 1, seed: 3, wholePaths: true };
    addTile(films, tile, renderTile(tracing, job), 1);
    const weights = displayWeights(set);
    const developed = (own: ArrayLike<number>) => {
      const out = new Float32Array(24 * 16 * 3);
      developFilms(out, films, own);
      return out;
    };
    const whole = developed(weights);
    const layers = lightLayers(set).map(({ channels }) => developed(weightsOfChannels(weights, channels)));
    expect(layers.length).toBe(set.lights.filter(({ on }) => on).length);
    whole.forEach((value, i) => {
      const sum = layers.reduce((all, layer) => all + (layer[i] as number), 0);
      expect(Math.abs(sum - value)).toBeLessThanOrEqual(1e-5 * Math.max(1, value));
    });
  });

  test('a window with sun is one layer of both its films; one that is off is none', () => {
    const set = demoSet('tart');
    const layers = lightLayers(set);
    const all = layers.flatMap(({ channels }) => channels);
    expect(new Set(all).size).toBe(all.length);
    const off = { ...set, lights: set.lights.map((light) => ({ ...light, on: false })) };
    expect(lightLayers(off)).toEqual([]);
    expect(layers[0]?.name).toBe(`${set.lights[0]?.tag} ${set.lights[0]?.name}`);
  });
});
