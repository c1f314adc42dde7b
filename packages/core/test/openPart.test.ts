import { type SetDocument, setDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { PHOTON_POINT, PHOTON_STRIDE, PHOTON_SURFACE } from '../src/engine/layouts.js';
import { prepareTracing } from '../src/index.js';
import { OpenPart } from '../src/render/openPart.js';
import { overheadSoftbox, testSet } from './sets.js';

const RADIUS_M = 0.03;
const SIZE_M = 0.002;
const HALF = SIZE_M / 2;

/** A block or a round of glass on a table 1 m wide and 0.8 m deep. */
const standing = (square: boolean): SetDocument =>
  setDocument.parse(
    testSet({
      lights: [overheadSoftbox(1)],
      bench: { widthM: 1, depthM: 0.8, material: { kind: 'matte', reflectance: 0.5 } },
      products: [
        {
          id: 'glass',
          name: 'Glass',
          positionM: [0, 0, 0],
          material: { kind: 'dielectric', index: 1.5 },
          ...(square
            ? { kind: 'box', widthM: 2 * RADIUS_M, depthM: 2 * RADIUS_M, heightM: 0.05 }
            : {
                kind: 'turned',
                profile: [
                  { radiusM: RADIUS_M, heightM: 0, smooth: false },
                  { radiusM: RADIUS_M, heightM: 0.05, smooth: false },
                ],
              }),
        },
      ],
    }),
  );

/** The open part of a texel on the table, by the place of its middle and that of a photon beside it. */
function openPartOf(set: SetDocument) {
  const { tables, engine, models, scene } = prepareTracing(set);
  tables.bundles = new Int32Array(tables.count).fill(1);
  const box = [-RADIUS_M, -RADIUS_M, 0, RADIUS_M, RADIUS_M, 0.05];
  const open = new OpenPart(tables, engine, models, [box]);
  const table = scene.things.findIndex(({ kind }) => kind === 'bench');
  return (x: number, y: number, aside = [0, 0]) => {
    const photon = new Float32Array(PHOTON_STRIDE);
    photon.set([x + HALF * (aside[0] as number), y + HALF * (aside[1] as number), 0], PHOTON_POINT);
    photon[PHOTON_SURFACE] = 6 * table + 4;
    return open.of(photon, 0, x / SIZE_M, y / SIZE_M, SIZE_M);
  };
}

describe('how much of a texel light can reach', () => {
  test('half where the foot of something stands on half of it, all beside it', () => {
    for (const square of [true, false]) {
      const part = openPartOf(standing(square));
      expect(part(RADIUS_M, 0, [1, 0])).toBeCloseTo(0.5, 1);
      expect(part(0, -RADIUS_M, [0, -1])).toBeCloseTo(0.5, 1);
      expect(part(RADIUS_M + 1.01 * SIZE_M, 0)).toBe(1);
      expect(part(RADIUS_M + SIZE_M / 3, 0)).toBeCloseTo(1 - (2 / 3) ** 2 / 2, 1);
    }
    expect(openPartOf(standing(true))(RADIUS_M, RADIUS_M, [1, 1])).toBeCloseTo(0.75, 1);
  });

  test('half at the edge of the table, a quarter at its corner', () => {
    const part = openPartOf(standing(true));
    expect(part(0.5, 0.1, [-1, 0])).toBeCloseTo(0.5, 1);
    expect(part(0.5, 0.4, [-1, -1])).toBeCloseTo(0.25, 1);
    expect(part(0.3, 0.2)).toBe(1);
  });
});
