import { expect, test } from 'vitest';
import { applyRelief } from '../src/engine/relief.js';
import { seededRandom } from './random.js';

const WEAVE = 3;

/** Slope of half the depth times a height of -1 to 1, by the cosine of the library. */
function slowWeave(point: number[], depthM: number, sizeM: number): number[] {
  const [x, y, z] = point.map((value) => (2 * Math.PI * value) / sizeM) as [number, number, number];
  const steep = (Math.PI * depthM) / sizeM;
  return [Math.cos(x) * Math.cos(2 * y), Math.cos(y) * Math.cos(2 * x), Math.cos(z)].map(
    (slope) => 0.5 * steep * slope,
  );
}

test('a relief turns the normal by its slope, near the centre and far from it', () => {
  const random = seededRandom(2);
  const [depthM, sizeM] = [2e-4, 2e-3];
  for (let i = 0; i < 2000; i++) {
    const point = [0, 1, 2].map(() => (i % 2 === 0 ? 0.05 : 8) * (2 * random() - 1));
    const normal = Float64Array.of(0, 0, 1);
    applyRelief(normal, WEAVE, depthM, sizeM, Float64Array.from(point));
    const [x, y] = slowWeave(point, depthM, sizeM) as [number, number];
    const long = Math.hypot(x, y, 1);
    // 8 m are 4 000 turns: what is left of a turn is known to a part in 1e12.
    expect(normal[0]).toBeCloseTo(-x / long, 8);
    expect(normal[1]).toBeCloseTo(-y / long, 8);
    expect(normal[2]).toBeCloseTo(1 / long, 8);
  }
});
