import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { cornersOf } from '../geometry/bounds.js';
import { lightShape, productBounds } from '../geometry/shape.js';
import { add, cross, dot, length, normalise, scale, subtract, toTenthMm } from '../units/vector.js';
import { BLACK_CARD } from './cardMaterials.js';
import { freeSheetTag } from './movables.js';

export interface FlagWish {
  light: string;
  product: string;
  /** Where the flags stand: part of the way from the light to the product. */
  part: number;
  /** The product is kept fully lit from this height above its foot, m: lower and the table is lit too. */
  fromHeightM: number;
}

export interface FlagGap {
  /** Distance of the flags from the middle of the product, m. */
  distanceM: number;
  /** Upper edge of the lower flag and lower edge of the upper one, m above the bench. */
  lowerEdgeM: number;
  upperEdgeM: number;
  gapM: number;
  /** The two flags, with free tags. */
  flags: Sheet[];
}

const FLAG_M = { wide: 0.7, high: 0.5 };

/**
 * Two black flags between a light and a product with a gap as narrow as leaves every point of the product, from a
 * height up, the whole light: the gap spans all lines from the light's face to those points. Above it light passes
 * to the wall and ceiling beyond, below it to the table: the flags take that. Light that passes through the gap
 * still reaches what stands right behind the product.
 * @returns null where light or product is not there, or two numbers for the flags are not free
 */
export function flagGap(set: SetDocument, wish: FlagWish): FlagGap | null {
  const light = set.lights.find(({ tag }) => tag === wish.light);
  const product = set.products.find(({ id }) => id === wish.product);
  if (!light || light.kind === 'surround' || !product) return null;
  const bounds = productBounds(product);
  const low: Vector = [
    bounds.low[0],
    bounds.low[1],
    Math.min(bounds.high[2], bounds.low[2] + wish.fromHeightM),
  ];
  const corners = cornersOf({ low, high: bounds.high });
  const middle = scale(add(low, bounds.high), 0.5);
  const face = lightShape(light as Exclude<Light, { kind: 'surround' }>).flat();
  const towards = normalise(subtract(middle, light.positionM));
  const across = normalise(Math.abs(towards[2]) > 0.99 ? [1, 0, 0] : cross(towards, [0, 0, 1]));
  const up = cross(across, towards);
  const distance = length(subtract(middle, light.positionM));
  const centre = add(light.positionM, scale(towards, wish.part * distance));
  // Where each line from the face to the product passes the plane of the flags, along its up axis.
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  for (const from of face) {
    for (const to of corners) {
      const way = subtract(to, from);
      const t = dot(subtract(centre, from), towards) / dot(way, towards);
      const height = dot(subtract(add(from, scale(way, t)), centre), up);
      least = Math.min(least, height);
      most = Math.max(most, height);
    }
  }
  const first = freeSheetTag(set);
  if (first === null) return null;
  const flag = (tag: string, name: string, at: number): Sheet => ({
    kind: 'flag',
    tag,
    name,
    positionM: toTenthMm(add(centre, scale(up, at))),
    aimM: add(add(centre, scale(up, at)), scale(towards, 0.2)),
    rollDeg: 0,
    widthM: FLAG_M.wide,
    heightM: FLAG_M.high,
    front: BLACK_CARD,
    back: BLACK_CARD,
    stand: false,
  });
  const upper = flag(first, 'Upper flag', most + FLAG_M.high / 2);
  const second = freeSheetTag({ ...set, sheets: [...set.sheets, upper] });
  if (second === null) return null;
  const lower = flag(second, 'Lower flag', least - FLAG_M.high / 2);
  return {
    distanceM: (1 - wish.part) * distance,
    lowerEdgeM: centre[2] + least * up[2],
    upperEdgeM: centre[2] + most * up[2],
    gapM: most - least,
    flags: [upper, lower],
  };
}
