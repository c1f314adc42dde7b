import type { Product, SetDocument, Vector } from '@fendrix/contract';
import { productBounds } from '../geometry/shape.js';
import { degrees } from '../units/angle.js';

/** Nothing is moved by less than this, m, nor turned by less, degrees. */
const SAME_M = 5e-4;
const SAME_DEG = 0.25;

/** Products that stand on the table, from camera left to right. */
export function rowOf({ products }: SetDocument) {
  return products
    .map((product) => ({ product, bounds: productBounds(product) }))
    .sort((a, b) => a.bounds.low[0] + a.bounds.high[0] - b.bounds.low[0] - b.bounds.high[0]);
}

/** The set with some of its products changed; null where none is. */
function withProducts(set: SetDocument, change: (product: Product) => Product): SetDocument | null {
  const products = set.products.map(change);
  return products.some((product, i) => product !== set.products[i]) ? { ...set, products } : null;
}

const movedBy = <P extends Product>(product: P, axis: 0 | 1, by: number): P => {
  if (Math.abs(by) < SAME_M) return product;
  const positionM = product.positionM.map((value, a) => (a === axis ? value + by : value)) as Vector;
  return { ...product, positionM };
};

/**
 * Products of a row at equal gaps between their outlines, the outer two where they are.
 * @returns null for fewer than three, where they are, or where they have no room between the outer two
 */
export function spacedEvenly(set: SetDocument): SetDocument | null {
  const row = rowOf(set);
  const [first, last] = [row.at(0), row.at(-1)];
  if (row.length < 3 || !first || !last) return null;
  const widths = row.reduce((sum, { bounds: { low, high } }) => sum + high[0] - low[0], 0);
  const gap = (last.bounds.high[0] - first.bounds.low[0] - widths) / (row.length - 1);
  if (gap < 0) return null;
  const to = new Map<string, number>();
  let left = first.bounds.low[0];
  for (const { product, bounds } of row) {
    to.set(product.id, left - bounds.low[0]);
    left += bounds.high[0] - bounds.low[0] + gap;
  }
  return withProducts(set, (product) => movedBy(product, 0, to.get(product.id) ?? 0));
}

/** Products of a row with their fronts on one line across, that of the middle one. @returns null for fewer than two, or where they are */
export function linedUp(set: SetDocument): SetDocument | null {
  const row = rowOf(set);
  const middle = row[row.length >> 1];
  if (row.length < 2 || !middle) return null;
  const front = middle.bounds.low[1];
  const to = new Map(row.map(({ product, bounds }) => [product.id, front - bounds.low[1]]));
  return withProducts(set, (product) => movedBy(product, 1, to.get(product.id) ?? 0));
}

/** Bearing of the middle of a product's first label before it is turned, degrees; null without one. */
export function labelBearing(product: Product): number | null {
  if (product.kind === 'turned') {
    // One that wraps round has no middle.
    const label = product.labels.find(({ widthDeg }) => widthDeg < 360);
    return label ? label.centreBearingDeg : null;
  }
  return product.kind === 'box' && product.label ? 0 : null;
}

/** Products turned so that the middle of the label of each faces the lens. @returns null where none has to be turned */
export function labelsToLens(set: SetDocument): SetDocument | null {
  const [lensX, lensY] = set.camera.positionM;
  return withProducts(set, (product) => {
    const own = labelBearing(product);
    if (own === null) return product;
    const [x, y] = product.positionM;
    const lens = degrees(Math.atan2(lensX - x, y - lensY));
    const turnDeg = wrapped(lens - own);
    return Math.abs(wrapped(turnDeg - product.turnDeg)) < SAME_DEG ? product : { ...product, turnDeg };
  });
}

/** An angle in (-180, 180], degrees. */
const wrapped = (deg: number): number => {
  const round = ((((deg + 180) % 360) + 360) % 360) - 180;
  return Number((round === -180 ? 180 : round).toFixed(2));
};
