import type { SetDocument } from '@fendrix/contract';
import type { Thing } from '../../geometry/scene.js';
import { withPlacement } from '../../solve/placements.js';
import { linedUp, rowOf, spacedEvenly } from '../../solve/rows.js';
import { byStops, those } from '../changes/changes.js';
import { atDistance, resized } from '../changes/modifiers.js';
import { groundPlaces, lightCauses, meanStops, measured, seenProducts, thingCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, less, over } from '../working.js';

/** Fewer than this is no row. */
const LEAST_ROW = 3;
/** Depth of a row over its width: deeper, it is a group. */
const ROW_DEPTH = 0.25;

/** Three or more products side by side, left to right; null where they are no row. */
function row(set: SetDocument) {
  const own = rowOf(set).filter(({ product }) => product.positionM[2] < 0.02);
  const [first, last] = [own.at(0), own.at(-1)];
  if (own.length < LEAST_ROW || !first || !last) return null;
  const middles = own.map(
    ({ bounds: { low, high } }) => [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2] as const,
  );
  const wide = (middles.at(-1)?.[0] ?? 0) - (middles[0]?.[0] ?? 0);
  const depths = middles.map(([, y]) => y);
  const deep = Math.max(...depths) - Math.min(...depths);
  return wide > 0 && deep <= ROW_DEPTH * wide ? own : null;
}

const thingOf = ({ id, name }: { id: string; name: string }): Thing => ({ kind: 'product', key: id, name });

/** Gaps of a row that are not alike. */
export const rowSpacing: Judge<'row-spacing'> = {
  code: 'row-spacing',
  byMaps: true,
  judge({ set, limits }) {
    const own = row(set);
    if (!own) return [];
    const gaps = own.slice(1).map(({ bounds }, i) => bounds.low[0] - (own[i]?.bounds.high[0] ?? 0));
    const [widestGap, narrowestGap] = [Math.max(...gaps), Math.min(...gaps)];
    const widest = gaps.indexOf(widestGap);
    const causes = own
      .slice(widest, widest + 2)
      .map(({ product }) => ({ thing: thingOf(product), part: 0.5 }));
    return beyond(limits, 'row-spacing', { value: widestGap - narrowestGap }, () => ({
      of: null,
      places: [],
      causes,
      working: less({ widestGap, narrowestGap }),
    }));
  },
  cures: ({ set }) => those(spacedEvenly(set)),
};

/** Fronts of a row that are not on one line. */
export const rowLine: Judge<'row-line'> = {
  code: 'row-line',
  byMaps: true,
  judge({ set, limits }) {
    const own = row(set);
    if (!own) return [];
    const fronts = own.map(({ bounds }) => bounds.low[1]);
    const middle = [...fronts].sort((a, b) => a - b)[fronts.length >> 1] as number;
    const value = Math.max(...fronts.map((front) => Math.abs(front - middle)));
    const off = fronts.findIndex((front) => Math.abs(front - middle) === value);
    const product = own[off]?.product;
    return beyond(limits, 'row-line', { value }, () => ({
      of: null,
      places: [],
      causes: product ? [{ thing: thingOf(product), part: 1 }] : [],
      working: apart({ frontOff: fronts[off] as number, middleFront: middle }),
    }));
  },
  cures: ({ set }) => those(linedUp(set)),
};

/** Products of one kind in a row that do not get the same light. */
export const rowUneven: Judge<'row-uneven'> = {
  code: 'row-uneven',
  judge(evidence) {
    const own = row(evidence.set);
    if (!own) return [];
    const looks = ({ material, kind }: SetDocument['products'][number]) => JSON.stringify([kind, material]);
    const [first] = own;
    if (!first || own.some(({ product }) => looks(product) !== looks(first.product))) return [];
    const seen = seenProducts(evidence).filter(({ product }) => own.some((one) => one.product === product));
    if (seen.length < LEAST_ROW) return [];
    const tones = (stops: Float64Array) => seen.map(({ places }) => meanStops(stops, places));
    const spread = (stops: Float64Array) => Math.max(...tones(stops)) - Math.min(...tones(stops));
    return beyond(evidence.limits, 'row-uneven', measured(evidence, spread), () => {
      const darkest = [...seen].sort(
        (a, b) => meanStops(evidence.stops, a.places) - meanStops(evidence.stops, b.places),
      )[0];
      const places = darkest?.places ?? [];
      return {
        of: darkest?.thing ?? null,
        places,
        causes: lightCauses(
          evidence,
          seen.flatMap((one) => one.places),
        ),
        working: less({
          lightestProduct: Math.max(...tones(evidence.stops)),
          darkestProduct: Math.min(...tones(evidence.stops)),
        }),
      };
    });
  },
  cures: (evidence, { causes }) => evenAcross(evidence.set, causes[0]?.thing.key, causes[1]?.thing.key),
};

/** The light farther, higher, wider, or further round; more of the other one. */
function evenAcross(set: SetDocument, light = '', other = ''): SetDocument[] {
  const farther = (by: number) => {
    const moved = atDistance(set, light, by);
    return moved && (byStops(moved, light, 2 * Math.log2(by)) ?? moved);
  };
  return those(
    ...[1.4, 1.9, 2.5].map(farther),
    ...[0.7, 1.4].map((stops) => byStops(set, other, stops)),
    ...[-20, 20, -45, 45].map((deg) => withPlacement(set, { vary: 'light-bearing', light }, deg)),
    resized(set, 'light', light, 2),
  );
}

/** Products seen in each other. */
export const rowMirrored: Judge<'row-mirrored'> = {
  code: 'row-mirrored',
  byMaps: true,
  judge(evidence) {
    const { view, things } = evidence;
    return seenProducts(evidence).flatMap(({ thing, index, places }) => {
      const mirrors = places.filter((place) => (view.mirroredPart[place] as number) >= SEEN_FROM);
      const other = mirrors.filter((place) => {
        const mirrored = view.mirrored[place] as number;
        return mirrored !== index && things[mirrored]?.kind === 'product';
      });
      if (mirrors.length < MIRRORS_PART * places.length) return [];
      const value = other.length / mirrors.length;
      return beyond(evidence.limits, 'row-mirrored', { value }, () => ({
        of: thing,
        places: other,
        working: over({ otherProductPlaces: other.length, mirroringPlaces: mirrors.length }),
        causes: thingCauses(evidence, other, (place) => view.mirrored[place] as number),
      }));
    });
  },
  /** Further apart. */
  cures({ set }, { of, causes }) {
    const own = set.products.find(({ id }) => id === of?.key);
    const other = set.products.find(({ id }) => id === causes[0]?.thing.key);
    if (!own || !other) return [];
    const side = own.positionM[0] < other.positionM[0] ? -1 : 1;
    return [0.04, 0.08, 0.14].map((m) => ({
      ...set,
      products: set.products.map((product) =>
        product === own
          ? {
              ...product,
              positionM: [
                own.positionM[0] + side * m,
                own.positionM[1],
                own.positionM[2],
              ] as typeof own.positionM,
            }
          : product,
      ),
    }));
  },
};

/** A product that mirrors over less of what is seen of it is none that others are seen in. */
const MIRRORS_PART = 0.2;
/** A dark thing beside it is seen in a mirror that sends back this much. */
const SEEN_FROM = 0.3;

/** A lens that looks down by more than this sees a flat lay, part of a unit way. */
const LOOKS_DOWN = 0.9;
/** Sides of the frame that are held against each other. */
const THIRDS = 3;
const FEWEST = 60;

/** A flat lay that is lighter on one side. */
export const layUneven: Judge<'lay-uneven'> = {
  code: 'lay-uneven',
  judge(evidence) {
    const { set, across, down } = evidence;
    const { positionM, aimM } = set.camera;
    const whole = Math.hypot(...positionM.map((value, a) => value - (aimM[a] as number)));
    if ((positionM[2] - aimM[2]) / whole < LOOKS_DOWN || set.wishes.mood === 'dark') return [];
    const ground = groundPlaces(evidence, ['bench', 'backdrop']);
    if (ground.length < FEWEST) return [];
    const ninth = (place: number) =>
      THIRDS * Math.floor((THIRDS * Math.floor(place / across)) / down) +
      Math.floor((THIRDS * (place % across)) / across);
    const groups = Array.from({ length: THIRDS ** 2 }, (_, i) =>
      ground.filter((place) => ninth(place) === i),
    ).filter((group) => group.length >= FEWEST / THIRDS ** 2);
    const tones = (stops: Float64Array) => groups.map((group) => meanStops(stops, group));
    const figure = measured(evidence, (stops) => Math.max(...tones(stops)) - Math.min(...tones(stops)));
    return beyond(evidence.limits, 'lay-uneven', figure, () => {
      const own = tones(evidence.stops);
      const places = groups[own.indexOf(Math.min(...own))] ?? [];
      return {
        of: null,
        places,
        causes: lightCauses(evidence, ground),
        working: less({ lightestNinth: Math.max(...own), darkestNinth: Math.min(...own) }),
      };
    });
  },
  cures: (evidence, { causes }) => evenAcross(evidence.set, causes[0]?.thing.key, causes[1]?.thing.key),
};
