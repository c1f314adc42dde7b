import type { SetDocument, Vector } from '@fendrix/contract';
import { productBounds } from '../../geometry/shape.js';
import { add, length, normalise, scale, subtract } from '../../units/vector.js';
import { CARDS, withWhiteCard } from '../changes/addedSheets.js';
import { those } from '../changes/changes.js';
import { measured, seenProducts, thingCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** From here on a surface shows what it mirrors, not itself. */
const MIRROR = 0.5;
/** A mirror this dark is a hole, stops from mid-tone. */
const DARK_STOPS = -4;
const FEWEST = 12;
/** A product that mirrors over less of what is seen of it does so at its rims only. */
const MIRROR_PART = 0.3;

/** Metal that mirrors nothing bright over a good part of it; not where darkness is wanted. */
export const darkHole: Judge<'dark-hole'> = {
  code: 'dark-hole',
  judge(evidence) {
    const { mood, centre, highlight } = evidence.set.wishes;
    if (mood === 'dark' || centre === 'dark' || highlight === 'none') return [];
    return seenProducts(evidence).flatMap(({ thing, places }) => {
      const { mirrored, mirroredPart } = evidence.view;
      const mirroring = places.filter((place) => (mirroredPart[place] as number) >= MIRROR);
      if (mirroring.length < Math.max(FEWEST, MIRROR_PART * places.length)) return [];
      const dark = (stops: Float64Array) =>
        mirroring.filter((place) => (stops[place] as number) < DARK_STOPS);
      const figure = measured(evidence, (stops) => dark(stops).length / mirroring.length);
      return beyond(evidence.limits, 'dark-hole', figure, () => {
        const found = dark(evidence.stops);
        return {
          of: thing,
          places: found,
          working: over(
            { darkMirrorPlaces: found.length, mirroringPlaces: mirroring.length },
            { darkFrom: DARK_STOPS },
          ),
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
      const on = (base: SetDocument, some: readonly number[]) => {
        const way = meanWay(evidence.view.mirroredPointM, some, middle);
        return way && withWhiteCard(base, middle, way, card);
      };
      const left = on(set, half(-1));
      return those(on(set, places), left, on(set, half(1)), left && on(left, half(1)));
    });
  },
};

/** Where places look by what they mirror, from the middle of the product; null where they look into the dark or all round. */
function meanWay(mirroredPointM: Float32Array, places: readonly number[], middle: Vector): Vector | null {
  let sum: Vector = [0, 0, 0];
  for (const place of places) {
    const point = [0, 1, 2].map((a) => mirroredPointM[3 * place + a]) as Vector;
    if (point.every(Number.isFinite)) sum = add(sum, normalise(subtract(point, middle)));
  }
  return length(sum) > 0.2 * places.length ? normalise(sum) : null;
}
