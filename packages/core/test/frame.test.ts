import { readFileSync } from 'node:fs';
import { checkDocument, type SetDocument, setDocument, type Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { aimFrame } from '../src/units/frame.js';
import { createRandom } from '../src/units/random.js';
import { cross, dot, normalise, scale } from '../src/units/vector.js';

/** What faces a way, so many degrees off straight down (or up), to a bearing. */
const way = (offDeg: number, bearingDeg: number, up = -1): Vector => {
  const [off, bearing] = [(offDeg * Math.PI) / 180, (bearingDeg * Math.PI) / 180];
  return [Math.sin(off) * Math.cos(bearing), Math.sin(off) * Math.sin(bearing), up * Math.cos(off)];
};
const right = (towards: Vector, rollDeg = 0) => aimFrame([0, 0, 0], towards, rollDeg).right;
const angleDeg = (a: Vector, b: Vector) => (Math.acos(Math.min(1, dot(a, b))) * 180) / Math.PI;

describe('how aimed things are turned', () => {
  test('axes stand square on each other, whichever way it faces', () => {
    const random = createRandom(3);
    for (let i = 0; i < 300; i++) {
      const towards = way(180 * random(), 360 * random());
      const {
        right: x,
        up,
        forward,
      } = aimFrame([1, 2, 3], [1 + towards[0], 2 + towards[1], 3 + towards[2]], 360 * random());
      for (const [a, b] of [
        [x, up],
        [up, forward],
        [forward, x],
      ] as const)
        expect(dot(a, b)).toBeCloseTo(0, 9);
      expect(dot(cross(x, forward), up)).toBeCloseTo(1, 9);
    }
  });

  test.each([-1, 1])('straight up or down (%i) right is right, and a hair aside nearly so', (up) => {
    expect(right([0, 0, up])).toEqual([1, 0, 0]);
    for (let bearing = 0; bearing < 360; bearing += 15)
      expect(angleDeg(right(way(0.5, bearing, up)), [1, 0, 0]), `to ${bearing}°`).toBeLessThanOrEqual(0.501);
  });

  test('level from 16 degrees off on', () => {
    for (let bearing = 0; bearing < 360; bearing += 15) {
      const towards = way(16.01, bearing);
      expect(right(towards)[2]).toBeCloseTo(0, 9);
      expect(right(towards)).toEqual(normalise(cross(normalise(towards), [0, 0, 1])));
    }
  });

  test.each([0, 40, 90, 130, 200, 250, 320])(
    'goes on smoothly while it is tilted to %i degrees',
    (bearing) => {
      // The furthest it can turn is half a turn, over 8 degrees of tilt: smoothly that is 34 degrees a degree at most.
      for (let off = 0; off < 20; off += 0.05)
        expect(angleDeg(right(way(off, bearing)), right(way(off + 0.05, bearing))), `${off}°`).toBeLessThan(
          1.8,
        );
    },
  );
});

test('things of older documents that face nearly straight down are turned as they were', () => {
  const kept = JSON.parse(
    readFileSync(new URL('../../contract/test/documents/set-2.json', import.meta.url), 'utf8'),
  ) as SetDocument;
  const random = createRandom(9);
  /** As it was: level, whatever the tilt. */
  const before = (forward: Vector, rollDeg: number): Vector => {
    const level = normalise(cross(forward, [0, 0, 1]));
    const roll = (rollDeg * Math.PI) / 180;
    return normalise(
      [0, 1, 2].map(
        (i) => Math.cos(roll) * (level[i] as number) - Math.sin(roll) * (cross(level, forward)[i] as number),
      ) as Vector,
    );
  };
  for (let i = 0; i < 60; i++) {
    const towards = way(20 * random() + 0.01, 360 * random(), i % 2 ? 1 : -1);
    const rollDeg = 360 * random() - 180;
    const camera = { ...kept.camera, positionM: [0.1, 0.2, 1] as Vector, rollDeg };
    const aimM = camera.positionM.map((part, axis) => part + (scale(towards, 0.8)[axis] as number)) as Vector;
    const read = checkDocument(setDocument, { ...kept, version: 2, camera: { ...camera, aimM } });
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const now = aimFrame(camera.positionM, aimM, read.value.camera.rollDeg).right;
    expect(angleDeg(now, before(towards, rollDeg))).toBeLessThan(0.001);
  }
});
