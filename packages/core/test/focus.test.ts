import type { SetDocument, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  depthAlongLens,
  depthOfField,
  focusPoint,
  lensFigures,
  outOfFocus,
  withFocusKept,
} from '../src/index.js';
import { matte, testCamera, testSet } from './sets.js';

const box = (id: string, positionM: Vector) => ({
  kind: 'box' as const,
  id,
  name: id,
  positionM,
  widthM: 0.06,
  depthM: 0.06,
  heightM: 0.2,
  material: matte(0.5),
});

/** The same set with other boxes on it. */
const withBoxes = (of: SetDocument, boxes: [string, Vector][]): SetDocument => ({
  ...of,
  products: testSet({ products: boxes.map(([id, at]) => box(id, at)) }).products,
});

/** A box on the mark, its front 0.97 m before a level lens and in focus. */
const set = (): SetDocument =>
  testSet({ products: [box('jar', [0, 0, 0])], camera: { ...testCamera(), focusM: 0.97 } });

const withCamera = (of: SetDocument, changes: Partial<SetDocument['camera']>): SetDocument => ({
  ...of,
  camera: { ...of.camera, ...changes },
});

describe('focus', () => {
  test('is on the product that the lens axis meets there, and goes along when the camera moves', () => {
    const before = set();
    expect(focusPoint(before).product).toBe('jar');
    const back = withFocusKept(before, withCamera(before, { positionM: [0, -1.5, 0.1] }));
    expect(back.camera.focusM).toBeCloseTo(1.47, 9);
    // From the side the same point is kept, not the same distance.
    const side = withFocusKept(before, withCamera(before, { positionM: [1, 0, 0.1] }));
    expect(side.camera.focusM).toBeCloseTo(depthAlongLens(side.camera, [0, -0.03, 0.1]), 9);
  });

  test('goes along with the product, and with a chosen point of it', () => {
    const before = set();
    const moved = withBoxes(before, [['jar', [0, 0.4, 0]]]);
    expect(withFocusKept(before, moved).camera.focusM).toBeCloseTo(1.37, 9);
    const chosen = withCamera(before, { focusOn: { product: 'jar', pointM: [0, 0.03, 0.2] }, focusM: 1.03 });
    const away = withBoxes(chosen, [['jar', [0, -0.2, 0]]]);
    expect(withFocusKept(chosen, away).camera.focusM).toBeCloseTo(0.83, 9);
  });

  test('locked it stays as taped; typed it is what was typed; other changes leave it alone', () => {
    const before = withCamera(set(), { focusLocked: true });
    const moved = withCamera(before, { positionM: [0, -1.5, 0.1] });
    expect(withFocusKept(before, moved)).toBe(moved);
    const open = set();
    const typed = withCamera(open, { positionM: [0, -1.5, 0.1], focusM: 1.2 });
    expect(withFocusKept(open, typed)).toBe(typed);
    const lit = { ...open, name: 'Another' };
    expect(withFocusKept(open, lit)).toBe(lit);
  });

  test('never closer than the lens can form an image', () => {
    const before = set();
    const near = withCamera(before, { positionM: [0, -0.12, 0.1] });
    expect(withFocusKept(before, near)).toBe(near);
  });

  test('a product with no part within the depth is told, with how far and to which side', () => {
    const before = set();
    expect(outOfFocus(before)).toEqual([]);
    const { nearM, farM } = depthOfField(before.camera, 2 * lensFigures(before.camera).pixelPitchM);
    const behind = withBoxes(before, [
      ['jar', [0, 0, 0]],
      ['tin', [0.1, 0.5, 0]],
    ]);
    const [tin] = outOfFocus(behind);
    expect(tin).toMatchObject({ product: 'tin', focusIs: 'before', nearM: expect.closeTo(1.47, 9) });
    expect(tin?.byM).toBeCloseTo(1.47 - farM, 9);
    const nearer = withBoxes(before, [['cup', [0, -0.3, 0]]]);
    expect(outOfFocus(nearer)[0]).toMatchObject({ focusIs: 'behind', byM: expect.closeTo(nearM - 0.73, 9) });
  });
});
