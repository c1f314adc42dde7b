import { type Light, type SetDocument, type Studio, setDocument, type Vector } from '@fendrix/contract';
import { firstLight, inStudio, metered } from '@fendrix/core';

const white = { kind: 'matte', reflectance: 0.84 } as const;

/** The lens stands so far before the mark, and so far from the wall behind it at least, m. */
const LENS_M = 1.2;
const FROM_WALL_M = 0.3;
/** The paper ends so far before the wall behind it, m. */
const BEFORE_WALL_M = 0.05;

/**
 * What a new set starts from: a plain cylinder on white paper, one soft light of the kit from camera left, metered; in the
 * room of the studio, on its table.
 */
export function starterSet(kitLights: readonly Light[], studio?: Studio): SetDocument {
  const lensM = Math.min(LENS_M, (studio?.room.markFromFrontM ?? Number.POSITIVE_INFINITY) - FROM_WALL_M);
  const wallM = studio ? studio.room.depthM - studio.room.markFromFrontM : Number.POSITIVE_INFINITY;
  const backM = Math.min(0.55, wallM - BEFORE_WALL_M);
  const positionM: Vector = [0, -lensM, 0.12];
  const set = setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'New set',
    bench: { widthM: 1.2, depthM: 1, material: { kind: 'matte', reflectance: 0.3 } },
    backdrop: {
      kind: 'sweep',
      widthM: 1.1,
      frontM: -0.45,
      backM,
      radiusM: 0.25,
      heightM: 0.9,
      material: white,
    },
    products: [
      {
        kind: 'turned',
        id: 'cylinder',
        name: 'Gloss cylinder',
        positionM: [0, 0, 0],
        material: { kind: 'coated', reflectance: 0.35 },
        profile: [
          { radiusM: 0.035, heightM: 0 },
          { radiusM: 0.035, heightM: 0.16 },
        ],
      },
    ],
    lights: [firstLight({ low: [-0.035, -0.035, 0], high: [0.035, 0.035, 0.16] }, [0, 0, 0.09], kitLights)],
    camera: {
      body: {
        name: '36 x 24 mm, 24 megapixels',
        sensorWidthM: 0.036,
        sensorHeightM: 0.024,
        pixelsWide: 6000,
        pixelsHigh: 4000,
      },
      lens: { name: '100 mm', focalLengthM: 0.1 },
      positionM,
      aimM: [0, 0, 0.085],
      focusM: lensM - 0.035,
      fNumber: 2 ** (7 / 2),
      shutterS: 1 / 128,
      iso: 100,
      depthOfField: true,
    },
    spots: [
      { name: 'front', pointM: [0, -0.035, 0.08], normal: [0, -1, 0] },
      { name: 'background', pointM: [0.1, -0.08, 0], normal: [0, 0, 1] },
    ],
  });
  const lit = metered(set);
  return studio ? inStudio(lit, studio) : lit;
}
