import type { Product, Vector } from '@fendrix/contract';
import { productBounds } from '../geometry/shape.js';
import { radians } from '../units/angle.js';

export interface NamedSpot {
  name: string;
  pointM: Vector;
}

/**
 * Spots of a product whose sharpness is looked at: its front and back, its top, the middle of each label.
 * Front and back are those of its bounds at half its height.
 */
export function namedSpots(product: Product): NamedSpot[] {
  const { low, high } = productBounds(product);
  const [x, z] = [(low[0] + high[0]) / 2, (low[2] + high[2]) / 2];
  const spots: NamedSpot[] = [
    { name: 'front', pointM: [x, low[1], z] },
    { name: 'back', pointM: [x, high[1], z] },
    { name: 'top', pointM: [x, (low[1] + high[1]) / 2, high[2]] },
  ];
  const foot = product.positionM;
  if (product.kind === 'turned') {
    for (const { name, fromM, toM, centreBearingDeg } of product.labels) {
      const height = (fromM + toM) / 2;
      const radius = radiusAt(product.profile, height);
      const bearing = radians(centreBearingDeg + product.turnDeg);
      spots.push({
        name,
        pointM: [
          foot[0] + radius * Math.sin(bearing),
          foot[1] - radius * Math.cos(bearing),
          foot[2] + height,
        ],
      });
    }
  }
  if (product.kind === 'box' && product.label && product.turnDeg === 0) {
    const { name, centreHeightM } = product.label;
    spots.push({ name, pointM: [foot[0], foot[1] - product.depthM / 2, foot[2] + centreHeightM] });
  }
  return spots;
}

/** Radius of an outline at a height, straight between its points. */
function radiusAt(profile: readonly { radiusM: number; heightM: number }[], heightM: number): number {
  for (let i = 1; i < profile.length; i++) {
    const [a, b] = [profile[i - 1], profile[i]] as [(typeof profile)[number], (typeof profile)[number]];
    if (heightM > b.heightM) continue;
    const part = b.heightM > a.heightM ? (heightM - a.heightM) / (b.heightM - a.heightM) : 0;
    return a.radiusM + Math.min(1, Math.max(0, part)) * (b.radiusM - a.radiusM);
  }
  return profile.at(-1)?.radiusM ?? 0;
}
