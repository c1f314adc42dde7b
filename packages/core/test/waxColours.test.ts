import type { AnyMaterial, Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { singleAlbedo } from '../src/geometry/surface.js';
import { prepareTracing } from '../src/index.js';
import { makeCoat } from '../src/optics/coat.js';
import { seededRandom } from './random.js';
import { overheadSoftbox, surroundLight, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

type Wax = Extract<AnyMaterial, { kind: 'wax' }>;

const THICK_M = 0.002;
const wax = (meanFreePathM: Wax['meanFreePathM'], reflectance: Wax['reflectance']): Wax => ({
  kind: 'wax',
  reflectance,
  meanFreePathM,
  index: 1.4,
  roughness: 0,
});
const sheetOf = (material: Wax) => ({
  kind: 'box' as const,
  id: 'sheet',
  name: 'sheet',
  positionM: [0, 0, -THICK_M] as Vector,
  widthM: 2,
  depthM: 2,
  heightM: THICK_M,
  material,
});

/** Part of even light that enters a sheet of wax and leaves it on either side: steps up and down alone, written apart. */
function keptBySheet(pathM: number, reflectance: number): number {
  const random = seededRandom(29);
  const inside = makeCoat(1.4, 0).insideDiffuse;
  const albedo = singleAlbedo(reflectance, inside);
  const walks = 100_000;
  let kept = 0;
  for (let walk = 0; walk < walks; walk++) {
    let depth = 0;
    let down = Math.sqrt(random());
    let left = 1;
    while (left > 1e-4) {
      const to = depth - Math.log(1 - random()) * pathM * down;
      if (to > 0 && to < THICK_M) {
        depth = to;
        left *= albedo;
        down = 2 * random() - 1;
        continue;
      }
      if (random() >= inside) {
        kept += left / walks;
        break;
      }
      depth = to <= 0 ? 0 : THICK_M;
      down = Math.sqrt(random()) * (to <= 0 ? 1 : -1);
    }
  }
  return kept;
}

describe('flesh in which colours go different ways', () => {
  const paths: [number, number, number] = [0.004, 0.001, 0.0006];
  const reflectances: [number, number, number] = [0.8, 0.6, 0.4];

  test('a thin sheet in even light keeps of each colour what steps up and down alone say', () => {
    const tracing = prepareTracing(
      testSet({ lights: [surroundLight], products: [sheetOf(wax(paths, reflectances))] }),
    );
    const mirrored = (0.4 / 2.4) ** 2;
    for (const colour of [0, 1, 2]) {
      const seen = luminanceFrom(tracing, [0, 0, 1], [0, 0, 0], { samples: 16_384, colour });
      const kept = keptBySheet(paths[colour] as number, reflectances[colour] as number);
      expect((seen - mirrored) / (1 - mirrored) / kept).toBeCloseTo(1, 1.5);
    }
  });

  test('each colour is that of a wax in which all colours go its way, before and behind a lamp', () => {
    for (const height of [0.5, -0.5]) {
      const lamp = overheadSoftbox(height, { widthM: 0.3, heightM: 0.3 });
      const seen = (pathM: Wax['meanFreePathM'], colour: number) =>
        luminanceFrom(
          prepareTracing(testSet({ lights: [lamp], products: [sheetOf(wax(pathM, 0.7))] })),
          [0.3, 0, 0.4],
          [0, 0, 0],
          { samples: 32_768, colour },
        );
      for (const colour of [0, 1, 2])
        expect(seen(paths, colour) / seen(paths[colour] as number, colour)).toBeCloseTo(1, 1.3);
    }
  });
});
