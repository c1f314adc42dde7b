import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  PATH_GUIDE_CELLS,
  PATH_GUIDE_STRIDE,
  PathGuide,
  pathGuideCell,
} from '../src/engine/path/pathGuide.js';
import { SceneTables } from '../src/engine/tables.js';
import { cosineAbove } from '../src/engine/vectors.js';
import { bakeLightmaps, prepareTracing, renderTile, type Tracing } from '../src/index.js';
import { seededRandom } from './random.js';

/** A guide of two patches: one without a preference, one that prefers some cells many times over others. */
function guideOf(weights: number[]): PathGuide {
  const tables = new SceneTables();
  tables.pathGuide = new Float32Array(2 * PATH_GUIDE_STRIDE);
  [weights.map(() => 1), weights].forEach((own, patch) => {
    const total = own.reduce((sum, weight) => sum + weight, 0);
    let running = 0;
    for (let row = 0; row < 8; row++) {
      const columns = own.slice(8 * row, 8 * row + 8);
      const rowSum = columns.reduce((sum, weight) => sum + weight, 0);
      running += rowSum / total;
      tables.pathGuide[patch * PATH_GUIDE_STRIDE + row] = running;
      let within = 0;
      columns.forEach((weight, column) => {
        within += weight / rowSum;
        tables.pathGuide[patch * PATH_GUIDE_STRIDE + 8 + 8 * row + column] = within;
      });
    }
  });
  return new PathGuide(tables);
}

const WEIGHTS = Array.from({ length: PATH_GUIDE_CELLS }, (_, cell) => 1 + (cell % 7) * (cell % 5));

describe('directions by known light', () => {
  test('cells are equally likely by the cosine law', () => {
    const random = seededRandom(1);
    const uv = new Float64Array(2);
    const way = new Float64Array(3);
    const counts = new Float64Array(PATH_GUIDE_CELLS);
    for (let i = 0; i < 64000; i++) {
      uv[0] = random();
      uv[1] = random();
      cosineAbove(way, uv);
      counts[pathGuideCell(way)] = (counts[pathGuideCell(way)] as number) + 1;
    }
    for (const count of counts) expect(Math.abs(count - 1000)).toBeLessThan(160);
  });

  test('directions come as often as their gain says', () => {
    const guide = guideOf(WEIGHTS);
    guide.aim(1);
    const random = seededRandom(2);
    const uv = new Float64Array(2);
    const way = new Float64Array(3);
    const counts = new Float64Array(PATH_GUIDE_CELLS);
    const gains = new Float64Array(PATH_GUIDE_CELLS);
    for (let i = 0; i < 128000; i++) {
      uv[0] = random();
      uv[1] = random();
      guide.bend(uv);
      cosineAbove(way, uv);
      const cell = pathGuideCell(way);
      counts[cell] = (counts[cell] as number) + 1;
      gains[cell] = guide.gain(way);
    }
    const mean = WEIGHTS.reduce((sum, weight) => sum + weight, 0) / PATH_GUIDE_CELLS;
    counts.forEach((count, cell) => {
      expect(gains[cell]).toBeCloseTo((WEIGHTS[cell] as number) / mean, 4);
      expect(Math.abs(count / 2000 / (gains[cell] as number) - 1)).toBeLessThan(0.2);
    });
  });

  test('without a patch, and below the surface, the cosine law stays', () => {
    const guide = guideOf(WEIGHTS);
    const uv = Float64Array.of(0.3, 0.7);
    guide.aim(-1);
    guide.bend(uv);
    expect([...uv]).toEqual([0.3, 0.7]);
    expect(guide.gain(Float64Array.of(0.1, 0.2, 0.97))).toBe(1);
    guide.aim(1);
    expect(guide.gain(Float64Array.of(0.1, 0.2, -0.97))).toBe(1);
    guide.aim(2);
    expect(guide.isOn).toBe(false);
  });

  test('the same light with less noise where it comes from few places', () => {
    const guided = prepareTracing(demoSet('mill'));
    const even = prepareTracing(demoSet('mill'));
    bakeLightmaps(guided);
    bakeLightmaps(even);
    even.tables.pathGuide = new Float32Array(0);
    even.engine.renewLightmaps();
    const reference = picture(even, 512, 9);
    const noise = (tracing: Tracing) => {
      let off = 0;
      picture(tracing, 16, 1).forEach((value, i) => {
        off += Math.abs(value / (reference[i] as number) - 1);
      });
      return off / reference.length;
    };
    expect(noise(guided)).toBeLessThan(0.92 * noise(even));
    const sum = (values: Float32Array) => values.reduce((all, value) => all + value, 0);
    expect(sum(picture(guided, 128, 3)) / sum(reference)).toBeCloseTo(1, 2);
  });
});

/** Mean red light of the middle of the frame: backdrop beside the mill. */
function picture(tracing: Tracing, samples: number, seed: number): Float32Array {
  const tile = { x: 4, y: 24, width: 24, height: 12 };
  const sums = renderTile(tracing, { width: 96, height: 64, tile, firstSample: 0, samples, seed });
  return sums.filter((_, i) => i % 3 === 0).map((value) => value / samples);
}
