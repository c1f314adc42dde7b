import type { Product, Vector } from '@fendrix/contract';
import { degrees } from '../../units/angle.js';
import { dot, subtract } from '../../units/vector.js';
import { poseOf } from './addProduct.js';

/** What a point of a product's outside is of. */
export interface ProductPart {
  kind: 'body' | 'part' | 'label';
  /** Its number among the parts or labels of the product; 0 for the body. */
  index: number;
  /** Whether liquid stands behind it. */
  liquid: boolean;
}

const BODY: ProductPart = { kind: 'body', index: 0, liquid: false };
/** A box's label lies this near to the front face, m. */
const ON_FRONT_M = 1e-3;

/** A point in the axes of a product, m from its foot: x to its right, y to its back, z up. */
export function inProduct(product: Product, pointM: Vector): Vector {
  const { origin, x, y, z } = poseOf(product);
  const from = subtract(pointM, origin);
  return [dot(from, x), dot(from, y), dot(from, z)];
}

/**
 * Which named part of a product a point of its outside belongs to, by its height and bearing: labels over parts over the body.
 * Limits: parts of a mesh are not told apart; a handle counts as the body.
 */
export function partAt(product: Product, pointM: Vector): ProductPart {
  const [x, y, height] = inProduct(product, pointM);
  if (product.kind === 'box') {
    const { label } = product;
    const isOn =
      label !== undefined &&
      y < -product.depthM / 2 + ON_FRONT_M &&
      Math.abs(x) <= label.widthM / 2 &&
      Math.abs(height - label.centreHeightM) <= label.heightM / 2;
    return isOn ? { kind: 'label', index: 0, liquid: false } : BODY;
  }
  if (product.kind !== 'turned') return BODY;
  const bearing = degrees(Math.atan2(x, -y));
  const within = ({ fromM, toM }: { fromM: number; toM: number }) => height >= fromM && height <= toM;
  const label = product.labels.reduce(
    (last, own, i) =>
      within(own) && Math.abs(turnBetween(bearing, own.centreBearingDeg)) <= own.widthDeg / 2 ? i : last,
    -1,
  );
  if (label >= 0) return { kind: 'label', index: label, liquid: false };
  const part = product.parts.findIndex(within);
  if (part >= 0) return { kind: 'part', index: part, liquid: false };
  const { hollow } = product;
  const fillToM = hollow?.liquid?.fillToM ?? 0;
  return hollow && height > hollow.baseM && height < fillToM ? { ...BODY, liquid: true } : BODY;
}

/** From one bearing to another the shorter way, degrees. */
export const turnBetween = (from: number, to: number): number =>
  ((((to - from + 180) % 360) + 360) % 360) - 180;
