import { type Camera, type SetDocument, type SetDocumentInput, setDocument } from '@fendrix/contract';

/** A camera 1 m in front of the mark, focused there: 100 mm on 36 x 24. */
export function testCamera(): Camera {
  return {
    body: {
      name: 'Test body',
      sensorWidthM: 0.036,
      sensorHeightM: 0.024,
      pixelsWide: 6000,
      pixelsHigh: 4000,
      syncSpeedS: 1 / 200,
    },
    lens: { name: 'Test lens', focalLengthM: 0.1, pupilRatio: 1 },
    positionM: [0, -1, 0.1],
    aimM: [0, 0, 0.1],
    rollDeg: 0,
    focusM: 1,
    fNumber: 8,
    shutterS: 1 / 125,
    iso: 100,
    whiteBalanceK: 5500,
    focusLocked: false,
    release: 'hand',
    depthOfField: false,
    crops: [],
  };
}

/** A set in the dark with what is given and nothing else. */
export function testSet(parts: Partial<SetDocumentInput>): SetDocument {
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Test set',
    camera: testCamera(),
    ...parts,
  });
}

/** An even softbox over the mark that faces straight down, 1000 cd/m2. */
export function overheadSoftbox(heightM: number, more: object = {}) {
  return {
    kind: 'softbox' as const,
    tag: 'A',
    name: 'Overhead',
    positionM: [0, 0, heightM] as [number, number, number],
    aimM: [0, 0, 0] as [number, number, number],
    widthM: 0.6,
    heightM: 0.9,
    output: { kind: 'luminance' as const, luminanceCdM2: 1000 },
    ...more,
  };
}

export const surroundLight = {
  kind: 'surround' as const,
  tag: 'S',
  name: 'Surround',
  output: { kind: 'luminance' as const, luminanceCdM2: 1 },
};

export const matte = (reflectance: number) => ({ kind: 'matte' as const, reflectance });
