import type { SetDocument } from '@fendrix/contract';
import { productBounds } from '../../geometry/shape.js';
import { GROUND_KINDS } from '../../judge/ground.js';
import { mostBackM, withPlacement } from '../../solve/placements.js';
import { add, scale } from '../../units/vector.js';
import { CARDS, withBlackCard } from '../changes/addedSheets.js';
import { allByStops, byStops, movedBy, those } from '../changes/changes.js';
import { otherPapers } from '../changes/grounds.js';
import { atDistance } from '../changes/modifiers.js';
import { type Evidence, groundPlaces, lightCauses, meanStops, measured } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart } from '../working.js';

/** Places at either end of the ground; fewer are no end. */
const FEWEST = 12;
/** How much of the ground's reach counts as its end. */
const END_PART = 0.2;

/** The two ends of the ground along the way that it is to fade; null where too little of it is seen. */
function endsOf(evidence: Evidence): { first: number[]; last: number[] } | null {
  const { across, set } = evidence;
  const { gradientTowards: towards } = set.wishes;
  const places = groundPlaces(evidence, GROUND_KINDS);
  const along = (place: number) => {
    const [x, y] = [place % across, Math.floor(place / across)];
    return { up: -y, down: y, left: -x, right: x }[towards];
  };
  const [least, most] = [Math.min(...places.map(along)), Math.max(...places.map(along))];
  const reach = END_PART * (most - least);
  const first = places.filter((place) => along(place) <= least + reach);
  const last = places.filter((place) => along(place) >= most - reach);
  return first.length < FEWEST || last.length < FEWEST ? null : { first, last };
}

/** A ground that is to fade from one tone to another, at either end off its tone. */
export const groundGradient: Judge<'ground-gradient'> = {
  code: 'ground-gradient',
  judge(evidence) {
    const { wishes } = evidence.set;
    const ends = wishes.ground === 'gradient' ? endsOf(evidence) : null;
    if (!ends) return [];
    const off = (stops: Float64Array) => [
      Math.abs(meanStops(stops, ends.first) - wishes.gradientFromStops),
      Math.abs(meanStops(stops, ends.last) - wishes.gradientToStops),
    ];
    const figure = measured(evidence, (stops) => Math.max(...off(stops)));
    return beyond(evidence.limits, 'ground-gradient', figure, () => {
      const [atFirst = 0, atLast = 0] = off(evidence.stops);
      const [places, greyWished] =
        atFirst >= atLast ? [ends.first, wishes.gradientFromStops] : [ends.last, wishes.gradientToStops];
      return {
        of: evidence.things.find(({ kind }) => kind === 'backdrop') ?? null,
        places,
        causes: lightCauses(evidence, places),
        working: apart({ groundTone: meanStops(evidence.stops, places), greyWished }),
      };
    });
  },
  /** All lighter or darker, another paper; what lights it nearer, farther, higher, lower or further round; a black card on the dark side. */
  cures(evidence, { causes }) {
    const { set, stops } = evidence;
    const ends = endsOf(evidence);
    const light = causes[0]?.thing.key ?? '';
    if (!ends) return [];
    const { gradientFromStops, gradientToStops, gradientTowards } = set.wishes;
    const shift =
      (gradientFromStops - meanStops(stops, ends.first) + gradientToStops - meanStops(stops, ends.last)) / 2;
    const fades = gradientFromStops > gradientToStops;
    const darkSide = { left: fades ? -1 : 1, right: fades ? 1 : -1, up: 0, down: 0 }[gradientTowards];
    const back =
      mostBackM(set) > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, 0.7 * mostBackM(set)) : null;
    const moved: (SetDocument | null)[] = [
      ...[0.6, 0.4, 1.5].map((by) => atDistance(set, light, by)),
      ...[-0.25, 0.25, -0.5].map((m) => movedBy(set, 'light', light, [0, 0, m])),
      ...[-40, 40, -80, 80, 150].map((deg) => withPlacement(set, { vary: 'light-bearing', light }, deg)),
      beside(set, darkSide),
    ];
    return those(
      allByStops(set, shift),
      ...otherPapers(set, shift),
      // A way that fades it as wished may leave all of it too light or too dark.
      ...moved.map((one) => one && (byStops(one, light, shift) ?? one)),
      // Further back it gets less light, too.
      ...[shift, 2 * shift].map((stops) => back && byStops(back, light, stops)),
    );
  },
};

function beside(set: SetDocument, side: number): SetDocument | null {
  const [product] = set.products;
  const [card] = CARDS;
  if (!product || !card || side === 0) return null;
  const { low, high } = productBounds(product);
  return withBlackCard(set, scale(add(low, high), 0.5), [side, 0, 0], card);
}
