import { createRandom } from '../units/random.js';

/** A leaf as an ellipse in a plane. */
export interface Leaf {
  x: number;
  y: number;
  angleRad: number;
  lengthM: number;
  widthM: number;
}

/** Leaves strewn over a rectangle round the origin; the same seed gives the same branch. */
export function strewLeaves(
  count: number,
  lengthM: number,
  widthM: number,
  heightM: number,
  seed: number,
): Leaf[] {
  const random = createRandom(seed);
  return Array.from({ length: count }, () => {
    const size = lengthM * (0.7 + 0.6 * random());
    return {
      x: widthM * (random() - 0.5),
      y: heightM * (random() - 0.5),
      angleRad: Math.PI * random(),
      lengthM: size,
      widthM: size * (0.3 + 0.2 * random()),
    };
  });
}
