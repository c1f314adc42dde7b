import type { SetDocument, Sheet, Vector } from '@fendrix/contract';
import { standsInRoom } from '../../geometry/roomBounds.js';
import { productBounds } from '../../geometry/shape.js';
import { prepareTracing } from '../../render/prepareTracing.js';
import { comesIntoFrame } from '../../solve/comesIntoFrame.js';
import { freeSheetTag } from '../../solve/movables.js';
import { add, length, normalise, scale, subtract } from '../../units/vector.js';
import { those } from '../changes.js';
import { type Evidence, measured, seenProducts, thingCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';

/** From here on a surface shows what it mirrors, not itself. */
const MIRROR = 0.5;
/** A mirror this dark is a hole, stops from mid-tone. */
const DARK_STOPS = -4;
const FEWEST = 12;

/** Metal that mirrors nothing bright over a good part of it; not where darkness is wanted. */
export const darkHole: Judge<'dark-hole'> = {
  code: 'dark-hole',
  judge(evidence) {
    const { mood, centre, highlight } = evidence.set.wishes;
    if (mood === 'dark' || centre === 'dark' || highlight === 'none') return [];
    return seenProducts(evidence).flatMap(({ thing, places }) => {
      const { mirrored, mirroredPart } = evidence.view;
      const mirroring = places.filter((place) => (mirroredPart[place] as number) >= MIRROR);
      if (mirroring.length < FEWEST) return [];
      const dark = (stops: Float64Array) =>
        mirroring.filter((place) => (stops[place] as number) < DARK_STOPS);
      const figure = measured(evidence, (stops) => dark(stops).length / mirroring.length);
      return beyond(evidence.limits, 'dark-hole', figure, () => {
        const found = dark(evidence.stops);
        return {
          of: thing,
          places: found,
          causes: thingCauses(evidence, found, (place) => mirrored[place] as number),
        };
      });
    });
  },
  /** A white card where the hole looks: where all of it does, its left or its right half; and one on either side. */
  cures(evidence, { of, places }) {
    const { set, across } = evidence;
    const product = set.products.find(({ id }) => id === of?.key);
    if (!product) return [];
    const { low, high } = productBounds(product);
    const middle = scale(add(low, high), 0.5);
    const columns = places.map((place) => place % across);
    const centre = columns.reduce((sum, column) => sum + column, 0) / columns.length;
    const half = (side: -1 | 1) => places.filter((place) => side * ((place % across) - centre) >= 0);
    return CARDS.flatMap((card) => {
      const on = (base: SetDocument, some: readonly number[]) => withCard(base, evidence, some, middle, card);
      const left = on(set, half(-1));
      return those(on(set, places), left, on(set, half(1)), left && on(left, half(1)));
    });
  },
};

/** Distances from the product that are tried, m: the nearest that is clear of the frame is taken. */
const AWAY_M = [0.3, 0.4, 0.55, 0.75];
/** Foam boards as they are sold, the smaller first. */
const CARDS: readonly CardSize[] = [
  { widthM: 0.5, heightM: 0.7 },
  { widthM: 0.7, heightM: 1 },
  { widthM: 1, heightM: 1.4 },
];

interface CardSize {
  widthM: number;
  heightM: number;
}

/** Free over the table, m. */
const OVER_TABLE_M = 0.005;
const white = { kind: 'matte' as const, reflectance: 0.85 };

function withCard(
  set: SetDocument,
  { view }: Evidence,
  places: readonly number[],
  middle: Vector,
  size: CardSize,
): SetDocument | null {
  const tag = freeSheetTag(set);
  const way = meanWay(view.mirroredPointM, places, middle);
  if (tag === null || !way) return null;
  for (const awayM of AWAY_M) {
    const [x, y, z] = add(middle, scale(way, awayM));
    const standsM = Math.max(z, size.heightM / 2 + OVER_TABLE_M);
    const card: Sheet = {
      kind: 'card',
      tag,
      name: 'White card',
      positionM: [x, y, standsM],
      // Upright: tilted down a tall one would look into its own shade.
      aimM: [middle[0], middle[1], standsM],
      rollDeg: 0,
      ...size,
      front: white,
      back: white,
      stand: false,
    };
    if (!standsInRoom(set, card.positionM)) return null;
    const changed = { ...set, sheets: [...set.sheets, card] };
    if (!comesIntoFrame(prepareTracing(changed, 'plain'), { kind: 'sheet', key: tag })) return changed;
  }
  return null;
}

/** Where places look by what they mirror, from the middle of the product; null where they look into the dark or all round. */
function meanWay(mirroredPointM: Float32Array, places: readonly number[], middle: Vector): Vector | null {
  let sum: Vector = [0, 0, 0];
  for (const place of places) {
    const point = [0, 1, 2].map((a) => mirroredPointM[3 * place + a]) as Vector;
    if (point.every(Number.isFinite)) sum = add(sum, normalise(subtract(point, middle)));
  }
  return length(sum) > 0.2 * places.length ? normalise(sum) : null;
}
