import { type Product, type SetDocument, setDocument } from '@fendrix/contract';
import { productBounds, vector } from '@fendrix/core';

/** How much of the frame's height is left round the product. */
const ROOM_ROUND = 1.35;
/** Nearer than this its lens and frame would be smaller than there are, m. */
const LEAST_AWAY_M = 0.045;

/** A product on white paper under one soft light, in the middle of the frame. */
export function productPreview(product: Product): SetDocument {
  const { low, high } = productBounds(product);
  const middle = vector.scale(vector.add(low, high), 0.5);
  const size =
    ROOM_ROUND * Math.max(high[2] - low[2], (high[0] - low[0]) / 1.5, 0.7 * (high[1] - low[1]), 0.004);
  // Lens and frame are as small as the products: each is seen as a bottle by a 100 mm lens from a metre, 0.216 of the distance high.
  const away = Math.max(LEAST_AWAY_M, size / 0.216);
  const tilt = Math.PI / 9;
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Preview',
    backdrop: {
      kind: 'sweep',
      widthM: 12 * size,
      frontM: -5 * size,
      backM: 4 * size,
      radiusM: 2 * size,
      heightM: 8 * size,
      material: { kind: 'matte', reflectance: 0.6 },
    },
    products: [product],
    lights: [
      {
        kind: 'softbox',
        tag: 'A',
        name: 'Softbox',
        positionM: [middle[0] - 2 * size, middle[1] - 1.5 * size, middle[2] + 2.2 * size],
        aimM: middle,
        widthM: 2 * size,
        heightM: 2 * size,
        output: { kind: 'luminance', luminanceCdM2: 16_000 },
      },
    ],
    camera: {
      body: {
        name: 'Body',
        sensorWidthM: 0.036 * away,
        sensorHeightM: 0.024 * away,
        pixelsWide: 6000,
        pixelsHigh: 4000,
      },
      lens: { name: 'Lens', focalLengthM: 0.1 * away },
      positionM: [middle[0], middle[1] - away * Math.cos(tilt), middle[2] + away * Math.sin(tilt)],
      aimM: middle,
      focusM: away,
      fNumber: 8,
      shutterS: 1 / 60,
      iso: 100,
    },
  });
}
