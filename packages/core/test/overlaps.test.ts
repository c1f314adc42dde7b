import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { overlapName, overlaps, vector } from '../src/index.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

const bench = { widthM: 1.2, depthM: 0.9, material: matte(0.3) };
const board = (tag: string, positionM: Vector, aimM: Vector) => ({
  kind: 'card' as const,
  tag,
  name: 'Board',
  positionM,
  aimM,
  widthM: 0.4,
  heightM: 0.4,
  front: matte(0.85),
  back: matte(0.04),
});
const jar = {
  kind: 'box' as const,
  id: 'jar',
  name: 'Jar',
  positionM: [0, 0, 0] as Vector,
  widthM: 0.08,
  depthM: 0.08,
  heightM: 0.2,
  material: matte(0.5),
};
const light = (positionM: Vector, more: object = {}) =>
  overheadSoftbox(0, { positionM, aimM: [0, 0, 0.1], widthM: 0.3, heightM: 0.3, ...more });

const found = (parts: Partial<SetDocumentInput>) => overlaps(testSet({ bench, ...parts }));

describe('things through things', () => {
  test('a light in the table is told, and clear once moved as it says', () => {
    const [one, ...more] = found({ lights: [light([-0.4, 0, 0.08], { aimM: [0, 0, 0.08] })] });
    expect(more).toEqual([]);
    expect(one).toMatchObject({ kind: 'light', key: 'A', other: { kind: 'bench' } });
    const to = vector.add([-0.4, 0, 0.08], one?.wayOutM ?? [0, 0, 0]);
    expect(to[2]).toBeGreaterThan(0.14);
    expect(found({ lights: [light(to, { aimM: [0, 0, 0.08] })] })).toEqual([]);
  });

  test('moved as told a light is clear as it then stands, turned to its aim', () => {
    const random = seededRandom(7);
    const backdrop = {
      kind: 'panel' as const,
      widthM: 1.2,
      heightM: 1.2,
      centreM: [0, 0.5, 0.6] as Vector,
      turnDeg: 0,
      material: matte(0.8),
    };
    let told = 0;
    for (let i = 0; i < 60; i++) {
      const place: Vector = [1.4 * random() - 0.7, 0.3 + 0.4 * random(), 0.2 + 0.5 * random()];
      const strip = (positionM: Vector) => ({
        backdrop,
        lights: [light(positionM, { aimM: [0, 0, 0.3], heightM: 1.2 })],
      });
      for (const { kind, wayOutM } of found(strip(place))) {
        if (kind !== 'light' || !wayOutM) continue;
        told++;
        expect(found(strip(vector.add(place, wayOutM)))).toEqual([]);
      }
    }
    expect(told).toBeGreaterThan(20);
  });

  test('a board through a lamp, a strip through the backdrop, a stand in the product', () => {
    const boards = [board('1', [-0.3, -0.1, 0.4], [0, -0.1, 0.4])];
    const lamp = light([-0.31, -0.1, 0.4], { aimM: [-0.31, 1, 0.4] });
    expect(found({ sheets: boards, lights: [lamp] }).map(overlapName)).toEqual(['light A | sheet 1']);
    const backdrop = {
      kind: 'panel' as const,
      widthM: 1,
      heightM: 1,
      centreM: [0, 0.4, 0.5] as Vector,
      turnDeg: 0,
      material: matte(0.8),
    };
    const strip = light([0.2, 0.38, 0.5], { aimM: [0.2, -1, 0.5] });
    expect(found({ backdrop, lights: [strip] }).map(overlapName)).toEqual(['backdrop | light A']);
    // Its upright stands 12 cm behind the face, down through the jar.
    const held = light([0, -0.12, 0.5], { aimM: [0, -1, 0.5], stand: true, widthM: 0.05, heightM: 0.05 });
    expect(found({ products: [jar], lights: [held] }).map(overlapName)).toContain('product jar | stand A');
  });

  test('what only touches or stands clear is none; what is allowed is not told', () => {
    const standing = board('1', [0.3, 0, 0.2], [0, 0, 0.2]);
    expect(found({ sheets: [standing], products: [jar], lights: [light([-0.5, 0, 0.5])] })).toEqual([]);
    const sunk = board('1', [0.3, 0, 0.15], [0, 0, 0.15]);
    expect(found({ sheets: [sunk] })).toHaveLength(1);
    expect(found({ sheets: [sunk], allowedOverlaps: ['bench | sheet 1'] })).toEqual([]);
  });

  test.each(demoNames)('%s: what goes through something there is left so on purpose', (name) => {
    expect(overlaps(demoSet(name)).map(overlapName)).toEqual([]);
  });
});
