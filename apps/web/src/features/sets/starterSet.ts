import { type Light, type SetDocument, setDocument } from '@fendrix/contract';
import { firstLight, metered } from '@fendrix/core';

const white = { kind: 'matte', reflectance: 0.84 } as const;

/** What a new set starts from: a plain cylinder on white paper, one soft light of the kit from camera left, metered. */
export function starterSet(kitLights: readonly Light[]): SetDocument {
  const set = setDocument.parse({
    format: 'fendrix-set',
    version: 1,
    name: 'New set',
    bench: { widthM: 1.2, depthM: 1, material: { kind: 'matte', reflectance: 0.3 } },
    backdrop: {
      kind: 'sweep',
      widthM: 1.1,
      frontM: -0.45,
      backM: 0.55,
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
      positionM: [0, -1.2, 0.12],
      aimM: [0, 0, 0.085],
      focusM: 1.165,
      fNumber: 2 ** (7 / 2),
      shutterS: 1 / 128,
      iso: 100,
      depthOfField: true,
    },
    spots: [
      { name: 'front', pointM: [0, -0.035, 0.08], normal: [0, -1, 0] },
      { name: 'ground', pointM: [0.1, -0.08, 0], normal: [0, 0, 1] },
    ],
  });
  return metered(set);
}
