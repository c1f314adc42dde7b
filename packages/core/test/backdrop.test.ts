import type { Backdrop, Vector } from '@fendrix/contract';
import { describeChange } from '@fendrix/words';
import { describe, expect, test } from 'vitest';
import {
  backdropProfile,
  buildScene,
  createLook,
  fresnelMean,
  liesOnTable,
  look,
  prepareTracing,
  vector,
  withPlacement,
} from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';
import { seenLuminance } from './tracing.js';

const boards = {
  kind: 'boards' as const,
  widthM: 1,
  frontM: -0.4,
  backM: 0.5,
  heightM: 0.8,
  material: matte(0.8),
  lyingMaterial: { kind: 'coated' as const, reflectance: 0, coatIndex: 1.5, roughness: 0 },
} satisfies Backdrop;
const sweep = {
  kind: 'sweep' as const,
  widthM: 1,
  frontM: -0.4,
  backM: 0.5,
  radiusM: 0.2,
  heightM: 0.8,
  material: matte(0.8),
} satisfies Backdrop;
const bench = { widthM: 1.2, depthM: 1.2, material: matte(0.3) };

/** What is met from one point towards another. */
function met(set: Parameters<typeof testSet>[0], from: Vector, to: Vector) {
  const tracing = prepareTracing(testSet(set));
  const seen = createLook();
  look(seen, tracing, from, vector.normalise(vector.subtract(to, from)));
  return tracing.scene.things[seen.thing]?.key;
}

describe('boards in an L', () => {
  test('one lies at the centre and covers the table under it, the other stands behind and faces the camera', () => {
    const set = { backdrop: boards, bench };
    expect(met(set, [0, -0.2, 0.3], [0, -0.2, 0])).toBe('backdrop');
    expect(met(set, [0.55, -0.2, 0.3], [0.55, -0.2, 0])).toBe('bench');
    expect(met(set, [0, -1, 0.6], [0, 0.5, 0.6])).toBe('backdrop');
    expect(met(set, [0, -1, 0.85], [0, 0.5, 0.85])).not.toBe('backdrop');
    const { table, things } = buildScene(testSet(set));
    const own = Array.from({ length: table.count }, (_, i) => i).filter(
      (i) => things[table.thing[i] as number]?.kind === 'backdrop',
    );
    expect(own).toHaveLength(2);
    expect(new Set(own.map((i) => table.front[i])).size).toBe(2);
  });

  test('a black glossy lying board mirrors the upright one by Fresnel and shows nothing of its own', () => {
    const set = testSet({ backdrop: boards, bench, lights: [overheadSoftbox(1.2)] });
    const eye: Vector = [0, -0.9, 0.5];
    const floor: Vector = [0, 0, 0];
    const board = seenLuminance(set, eye, floor, 4000);
    const upright = seenLuminance(set, floor, [0, 0.9, 0.5], 4000);
    expect(board / upright / fresnelMean(0.5 / Math.hypot(0.9, 0.5), 1.5)).toBeCloseTo(1, 1);
    expect(board).toBeGreaterThan(0);
  });

  test('they go back as a whole and are described when they change', () => {
    const before = testSet({ backdrop: boards, bench });
    expect(withPlacement(before, { vary: 'backdrop-distance' }, 0.3)?.backdrop).toMatchObject({
      backM: expect.closeTo(0.8, 9),
      frontM: -0.4,
    });
    const words = (changes: object) =>
      describeChange(before, { ...before, backdrop: { ...boards, ...changes } as never });
    expect(words({ lyingMaterial: matte(0.5) })).toEqual([
      'the background its lying board of another material',
    ]);
    expect(words({ backM: 0.7 })).toEqual(['the background 20 cm further back']);
    expect(describeChange({ ...before, backdrop: sweep }, before)).toEqual([
      'the background of two boards in an L',
    ]);
  });
});

describe('what lies on the table too', () => {
  test('a sweep and boards do, a flat upright one and none do not', () => {
    expect([boards, sweep].map((one) => liesOnTable(one))).toEqual([true, true]);
    const panel = { kind: 'panel', widthM: 1, heightM: 1, centreM: [0, 1, 0.5], turnDeg: 0 } as never;
    expect([panel, undefined].map((one) => liesOnTable(one))).toEqual([false, false]);
  });

  test('profiles run from the front edge to the top edge; the bend touches both straight parts', () => {
    expect(backdropProfile(boards)).toEqual([
      [-0.4, 0],
      [0.5, 0],
      [0.5, 0.8],
    ]);
    const bent = backdropProfile(sweep);
    expect(bent[0]).toEqual([-0.4, 0]);
    expect(bent.at(-1)).toEqual([0.5, 0.8]);
    for (const [y, z] of bent.slice(1, -1)) expect(Math.hypot(y - 0.3, z - 0.2)).toBeCloseTo(0.2, 9);
  });
});
