import type { Product, SetDocument, Vector } from '@fendrix/contract';
import { PAPER_WHITE_STOPS } from '../exposure/exposure.js';
import type { Thing } from '../geometry/scene.js';
import { productBounds } from '../geometry/shape.js';
import { GROUND_KINDS, PRODUCT_KINDS, type WhiteParts } from './ground.js';
import { type FieldFigures, type FieldTrace, fieldFigures, fieldStops, veiledStops } from './readField.js';
import type { SpotReading } from './readSpot.js';

/** From here down a ground is black: five stops under mid-tone, or under the products. Usual practice. */
export const BLACK_STOPS = -5;
/** Half to one stop over the white of the products is white; more wraps round the edges. Usual practice. */
const OVER_STOPS = { least: 0.5, aim: 0.7, most: 1 };
/** A white ground is aimed this far over paper white, stops. */
const SURELY_WHITE_STOPS = 0.1;
/** Even enough: a third of a stop. */
const EVEN_STOPS = 1 / 3;
/** From here up a grey is a light grey, stops from mid-tone. */
const LIGHT_GREY_STOPS = 0.5;
/** Of a ninth that is to be white, this much is. */
const WHITE_NINTH = 0.98;
/** A spot this far outside of a product's bounds is still on it, m. */
const ON_PRODUCT_M = 2e-3;

const TABLE: readonly Thing['kind'][] = ['bench'];

/** Levels of what is seen in a frame; null for what is not. */
export interface FrameLevels {
  ground: FieldFigures | null;
  table: FieldFigures | null;
  products: FieldFigures | null;
  whole: FieldFigures | null;
}

/** Levels of ground, table and products with the powers and settings of a set. No rays. */
export function frameLevels(set: SetDocument, field: FieldTrace): FrameLevels {
  const stops = fieldStops(set, field);
  const of = (kinds?: readonly Thing['kind'][]) => fieldFigures(field, stops, kinds);
  return { ground: of(GROUND_KINDS), table: of(TABLE), products: of(PRODUCT_KINDS), whole: of() };
}

/**
 * The darkest part of the products once the lens has spread a part of the mean of the frame over all of it, stops from
 * mid-tone; null where no product is seen.
 */
export const veiledDarkest = ({ products, whole }: FrameLevels, veil: number): number | null =>
  products && whole ? veiledStops(products.leastStops, whole.meanStops, veil) : null;

/** What is taken for the white of the products: a pinned spot, or their brightest place. */
export interface ProductWhite {
  spot: string | null;
  stops: number;
}

/**
 * The white of the products: the spot that is chosen, or the brightest pinned on a product. Glass shows the ground behind
 * it, so a spot is a better white than the brightest place of the products, which is taken where there is none.
 * @param chosen name of a spot; null for the best there is, and what is no spot for the brightest place
 * @returns null where there is neither
 */
export function productWhite(
  { products }: SetDocument,
  readings: readonly SpotReading[],
  levels: FrameLevels,
  chosen: string | null,
): ProductWhite | null {
  let best: ProductWhite | null = null;
  for (const { name, pointM, stopsFromMidTone: stops } of readings) {
    if (stops === null) continue;
    if (name === chosen) return { spot: name, stops };
    const counts = chosen === null && (best === null || stops > best.stops);
    if (counts && products.some((product) => holds(product, pointM))) best = { spot: name, stops };
  }
  if (best) return best;
  return levels.products ? { spot: null, stops: levels.products.mostStops } : null;
}

/** Whether a point lies on a product, by its bounds. */
function holds(product: Product, point: Vector): boolean {
  const { low, high } = productBounds(product);
  return point.every(
    (value, axis) =>
      value >= (low[axis] as number) - ON_PRODUCT_M && value <= (high[axis] as number) + ON_PRODUCT_M,
  );
}

/**
 * The tone that makes a ground white against the white of the products, stops from mid-tone.
 * @param whiteOfProducts stops from mid-tone; null where none is seen: then paper white is enough
 * @param mostOver how far over it the ground may be, stops
 */
export const whiteGroundStops = (
  whiteOfProducts: number | null,
  mostOver: number = Number.POSITIVE_INFINITY,
): number =>
  Math.max(
    PAPER_WHITE_STOPS + SURELY_WHITE_STOPS,
    whiteOfProducts === null
      ? Number.NEGATIVE_INFINITY
      : whiteOfProducts + Math.min(OVER_STOPS.aim, mostOver),
  );

/** What a ground is, stops. */
export type GroundVerdict =
  /** White, but the products are too dark against it: they want so much more light. */
  | { code: 'white-over-dark-products'; overStops: number; byStops: number }
  /** White by more than helps. */
  | { code: 'white-by-too-much'; byStops: number }
  /** White, and hardly lighter than the white of the products. */
  | { code: 'white-by-too-little'; overStops: number; byStops: number }
  /** White as it should be; uneven by so much where it is uneven. */
  | { code: 'white'; unevenStops: number | null }
  /** White, and no product is seen to compare it with. */
  | { code: 'white-alone' }
  | { code: 'black' }
  | { code: 'light-grey'; toWhiteStops: number }
  | { code: 'grey'; overBlackStops: number };

/** Judges the ground by its mean and range against the white of the products, null where none is seen. */
export function judgeGround(
  { meanStops: level, rangeStops }: Pick<FieldFigures, 'meanStops' | 'rangeStops'>,
  white: ProductWhite | null,
): GroundVerdict {
  if (level <= BLACK_STOPS) return { code: 'black' };
  if (level < PAPER_WHITE_STOPS)
    return level > LIGHT_GREY_STOPS
      ? { code: 'light-grey', toWhiteStops: PAPER_WHITE_STOPS - level }
      : { code: 'grey', overBlackStops: level - BLACK_STOPS };
  if (!white) return { code: 'white-alone' };
  const overStops = level - white.stops;
  const tooMuch = overStops - OVER_STOPS.most;
  if (tooMuch > 0)
    return level - tooMuch < PAPER_WHITE_STOPS
      ? { code: 'white-over-dark-products', overStops, byStops: tooMuch }
      : { code: 'white-by-too-much', byStops: tooMuch };
  if (overStops < OVER_STOPS.least)
    return { code: 'white-by-too-little', overStops, byStops: OVER_STOPS.least - overStops };
  return { code: 'white', unevenStops: rangeStops > EVEN_STOPS ? rangeStops : null };
}

/** Ninths of the frame, rows from the top left, in which some of the ground is not white. */
export const greyNinths = ({ ninths }: WhiteParts): number[] =>
  ninths.flatMap((part, ninth) => (part !== null && part < WHITE_NINTH ? [ninth] : []));
