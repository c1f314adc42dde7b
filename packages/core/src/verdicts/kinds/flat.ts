import { productBounds } from '../../geometry/shape.js';
import { withPlacement } from '../../solve/placements.js';
import { add, scale } from '../../units/vector.js';
import { CARDS, levelWay, withBlackCard, withWhiteCard } from '../changes/addedSheets.js';
import { byStops, switchedOff, those } from '../changes/changes.js';
import { resized } from '../changes/modifiers.js';
import { type Evidence, lightCauses, measured, partPlaces, seenProducts, toneBelow } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, less } from '../working.js';
import { ownPlaces } from './burnt.js';

const FEWEST = 30;
/** Lying things have one side: they cannot be modelled by light. */
const LYING: ReadonlySet<string> = new Set(['cloth', 'water', 'pieces']);

/** A box turned by less than this shows one face, which is of one tone, degrees. */
const ONE_FACE_DEG = 15;

function showsOneFace(turnDeg: number): boolean {
  const offSquare = ((turnDeg % 90) + 90) % 90;
  return Math.min(offSquare, 90 - offSquare) < ONE_FACE_DEG;
}

/** Light and shade of a product's own surface: its lightest tenth over its darkest, by the places that are its own. */
function modelled(evidence: Evidence) {
  return seenProducts(evidence).flatMap(({ product, thing, places }) => {
    if (LYING.has(product.kind) || (product.kind === 'box' && showsOneFace(product.turnDeg))) return [];
    const body = partPlaces(evidence, product, places, ({ kind, liquid }) => kind === 'body' && !liquid);
    const own = ownPlaces(evidence, body);
    if (own.length < FEWEST) return [];
    const spread = (stops: Float64Array) => toneBelow(stops, own, 0.9) - toneBelow(stops, own, 0.1);
    const [lightestTenth, darkestTenth] = [0.9, 0.1].map((part) => toneBelow(evidence.stops, own, part)) as [
      number,
      number,
    ];
    return [{ thing, own, figure: measured(evidence, spread), tenths: { lightestTenth, darkestTenth } }];
  });
}

/** Contrast on a product that is more than a stop off what is wished, either way. */
export const contrastOff: Judge<'contrast-off'> = {
  code: 'contrast-off',
  judge(evidence) {
    const { keyToFillStops } = evidence.set.wishes;
    if (keyToFillStops === undefined) return [];
    return modelled(evidence).flatMap(({ thing, own, figure, tenths }) =>
      beyond(
        evidence.limits,
        'contrast-off',
        { value: Math.abs(figure.value - keyToFillStops), error: figure.error },
        () => ({
          of: thing,
          places: own,
          causes: lightCauses(evidence, own),
          working: apart({ contrast: figure.value, contrastWished: keyToFillStops }, tenths),
        }),
      ),
    );
  },
  /** The fill stronger or weaker; a white card, or a black one, on the shadow side. */
  cures(evidence, { of, causes }) {
    const { set } = evidence;
    const own = modelled(evidence).find(({ thing }) => thing === of);
    const over = (own?.figure.value ?? 0) - (set.wishes.keyToFillStops ?? 0);
    const product = set.products.find(({ id }) => id === of?.key);
    const [key, fill] = causes.map(({ thing }) => set.lights.find(({ tag }) => tag === thing.key));
    const [card] = CARDS;
    if (!product || !key || key.kind === 'surround' || !card) return [];
    const { low, high } = productBounds(product);
    const middle = scale(add(low, high), 0.5);
    const away = levelWay(key.positionM, middle);
    return those(
      ...(fill ? [0.6, 1, 1.6].map((by) => byStops(set, fill.tag, by * over)) : []),
      over > 0 ? withWhiteCard(set, middle, away, card) : withBlackCard(set, middle, away, card),
      fill && over < 0 ? switchedOff(set, fill.tag) : null,
    );
  },
};

/** A matte thing with hardly any light and shade on it: nothing tells its form. */
export const flat: Judge<'flat'> = {
  code: 'flat',
  judge(evidence) {
    if (evidence.set.wishes.texture === 'smooth' || evidence.set.wishes.mood === 'bright') return [];
    return modelled(evidence).flatMap(({ thing, own, figure, tenths }) =>
      beyond(evidence.limits, 'flat', figure, () => ({
        of: thing,
        places: own,
        causes: lightCauses(evidence, own),
        working: less(tenths),
      })),
    );
  },
  /** The main light further round or higher, the fill weaker or off, a smaller face, a black card beside it. */
  cures({ set }, { of, causes }) {
    const product = set.products.find(({ id }) => id === of?.key);
    const [card] = CARDS;
    const beside = (side: 1 | -1) => {
      if (!product || !card) return null;
      const { low, high } = productBounds(product);
      return withBlackCard(set, scale(add(low, high), 0.5), [side, 0, 0], card);
    };
    const [key, fill] = causes.map(({ thing }) => thing.key);
    if (key === undefined) return [];
    return those(
      ...(fill === undefined
        ? []
        : [byStops(set, fill, -1.5), byStops(set, fill, -3), switchedOff(set, fill)]),
      ...[50, -50, 80, -80].map((deg) => withPlacement(set, { vary: 'light-bearing', light: key }, deg)),
      resized(set, 'light', key, 0.4, 0.4),
      beside(1),
      beside(-1),
    );
  },
};
