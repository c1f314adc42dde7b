import { productBounds } from '../../geometry/shape.js';
import { penumbra } from '../../judge/penumbra.js';
import { withPlacement } from '../../solve/placements.js';
import { spacedEvenly } from '../../solve/rows.js';
import { add, scale } from '../../units/vector.js';
import { CARDS, levelWay, withFrost, withWhiteCard } from '../changes/addedSheets.js';
import { byStops, switchedOff, those } from '../changes/changes.js';
import { atDistance, fromKit, resized } from '../changes/modifiers.js';
import {
  type Evidence,
  groundPlaces,
  lightCauses,
  meanStops,
  measured,
  seenProducts,
  toneBelow,
} from '../evidence.js';
import { beyond } from '../found.js';
import { LIT } from '../shadedBy.js';
import type { Cause, Judge } from '../verdict.js';
import { from, less, over } from '../working.js';

/** Fewer places than this are no shadow, and no ground beside it. */
const FEWEST = 10;
/** The middle light is hidden in half of the soft edge too: the shadow itself is the darker part of it. */
const UMBRA_PART = 0.2;
/** Ground beside a shadow: within so many places of it. */
const BESIDE = 6;
/** A light that takes less than this from its shadow throws none that is seen, stops. */
const SEEN_STOPS = 0.5;
/** A wider soft edge than this blends into the next, m. */
const BLENDS_M = 0.08;
/** Two shadows that cover each other by more than this look like one. */
const SAME_PLACE = 0.6;

/** What lies lower throws no shadow that is judged: folds, coins, m over the table. */
const THROWS_FROM_M = 0.02;

interface Shadow {
  /** The light that throws it. */
  light: number;
  tag: string;
  places: readonly number[];
}

/** Shadows of products on the ground: where it sees not the middle of a light that gives a good part of what it gets. */
function shadowsOnGround(evidence: Evidence): { shadows: Shadow[]; ground: number[]; causes: Cause[] } {
  const { set, view } = evidence;
  const ground = groundPlaces(evidence, ['bench', 'backdrop']);
  const causes = lightCauses(evidence, ground);
  const isHigh = set.products.map((product) => productBounds(product).high[2] >= THROWS_FROM_M);
  const shadows = set.lights.flatMap((light, index) => {
    const shade = view.shade[index];
    const part = causes.find(({ thing }) => thing.key === light.tag)?.part ?? 0;
    // What goes when the light goes: less than this is not seen as a shadow.
    if (!light.on || !shade || -Math.log2(1 - Math.min(0.999, part)) < SEEN_STOPS) return [];
    const places = ground.filter((place) => isHigh[shade[place] as number]);
    return places.length < FEWEST ? [] : [{ light: index, tag: light.tag, places }];
  });
  return { shadows, ground, causes };
}

/** Lit ground beside a shadow. */
function litBeside(
  { view, across }: Evidence,
  { light, places }: Shadow,
  ground: readonly number[],
): number[] {
  const shade = view.shade[light];
  const columns = places.map((place) => place % across);
  const rows = places.map((place) => Math.floor(place / across));
  const [left, right] = [Math.min(...columns) - BESIDE, Math.max(...columns) + BESIDE];
  const [top, bottom] = [Math.min(...rows) - BESIDE, Math.max(...rows) + BESIDE];
  return ground.filter((place) => {
    const [x, y] = [place % across, Math.floor(place / across)];
    return shade?.[place] === LIT && x >= left && x <= right && y >= top && y <= bottom;
  });
}

/** The shadow of the light that gives the ground most, and how deep it is. */
export function keyShadow(evidence: Evidence) {
  const { shadows, ground, causes } = shadowsOnGround(evidence);
  const shadow = causes.flatMap(({ thing }) => shadows.find(({ tag }) => tag === thing.key) ?? [])[0];
  const lit = shadow ? litBeside(evidence, shadow, ground) : [];
  return shadow && lit.length >= FEWEST ? { shadow, lit, causes } : null;
}

/** A shadow that is darker than is wished. */
const tooDeep = <C extends 'shadow-deep' | 'shadow-unwanted'>(
  code: C,
  wished: Evidence['set']['wishes']['shadow'],
): Judge<C> => ({
  code,
  judge(evidence) {
    const found = evidence.set.wishes.shadow === wished ? keyShadow(evidence) : null;
    if (!found) return [];
    const { shadow, lit, causes } = found;
    const figure = measured(
      evidence,
      (stops) => meanStops(stops, lit) - toneBelow(stops, shadow.places, UMBRA_PART),
    );
    return beyond(
      evidence.limits,
      code,
      figure,
      () => ({
        of: null,
        places: shadow.places,
        causes: causes.filter(({ thing }) => thing.key === shadow.tag),
        working: less({
          litGround: meanStops(evidence.stops, lit),
          shadowTone: toneBelow(evidence.stops, shadow.places, UMBRA_PART),
        }),
      }),
      code === 'shadow-deep' ? evidence.set.wishes.shadowStops : undefined,
    );
  },
  /** A white card in the shadow side, more of the other light, less of this one, a larger face. */
  cures(evidence, { causes, figure }) {
    const { set } = evidence;
    const key = causes[0]?.thing.key ?? '';
    const over = figure.value - figure.limit;
    const light = set.lights.find(({ tag }) => tag === key);
    const product = set.products[0];
    const others = set.lights.filter((own) => own.on && own.tag !== key);
    if (!light || light.kind === 'surround' || !product) return [];
    const { low, high } = productBounds(product);
    const middle = scale(add(low, high), 0.5);
    const away = levelWay(light.positionM, middle);
    return those(
      ...CARDS.map((card) => withWhiteCard(set, middle, away, card)),
      ...others.slice(0, 2).flatMap(({ tag }) => [over, 2 * over].map((stops) => byStops(set, tag, stops))),
      ...others.slice(0, 1).map(({ tag }) => {
        const less = byStops(set, key, -over / 2);
        return less && byStops(less, tag, over / 2 + 0.3);
      }),
      resized(set, 'light', key, 2, 2),
      withFrost(set, key, 0.5),
    );
  },
});

/** A shadow deeper than a soft one may be. */
export const shadowDeep = tooDeep('shadow-deep', 'soft');
/** A shadow where none is wished. */
export const shadowUnwanted = tooDeep('shadow-unwanted', 'none');

/** A hard edge where a soft shadow is wished. */
export const shadowHard: Judge<'shadow-hard'> = {
  code: 'shadow-hard',
  judge(evidence) {
    const found = evidence.set.wishes.shadow === 'soft' ? keyShadow(evidence) : null;
    const light = found && evidence.set.lights[found.shadow.light];
    if (!light || light.kind === 'surround') return [];
    const edge = penumbra(evidence.set, light);
    if (!edge) return [];
    return beyond(
      evidence.limits,
      'shadow-hard',
      { value: edge.sideM },
      () => ({
        of: null,
        places: found.shadow.places,
        causes: found.causes.filter(({ thing }) => thing.key === light.tag),
        working: from({ lightFace: edge.faceM, lightToEdge: edge.lightM, edgeToShadow: edge.shadowM }),
      }),
      evidence.set.wishes.shadowEdgeM,
    );
  },
  /** A larger face, from the kit where it has one; nearer; frost between. */
  cures({ set, kit }, { causes, figure }) {
    const key = causes[0]?.thing.key ?? '';
    const wanted = (1.05 * figure.limit) / Math.max(1e-4, figure.value);
    return those(
      ...fromKit(set, kit, key, (size, now) => size >= Math.min(wanted, 1.3) * now),
      resized(set, 'light', key, wanted, wanted),
      resized(set, 'light', key, wanted),
      atDistance(set, key, 1 / wanted),
      atDistance(set, key, 0.6),
      withFrost(set, key, 0.5),
      withFrost(set, key, 0.65),
    );
  },
};

/** More than one shadow that is seen. */
export const shadowDoubled: Judge<'shadow-doubled'> = {
  code: 'shadow-doubled',
  judge(evidence) {
    const { set } = evidence;
    if (set.wishes.shadow === 'none') return [];
    const { shadows, causes } = shadowsOnGround(evidence);
    const seen = shadows.filter(({ light }) => {
      const own = set.lights[light];
      const edge = own && own.kind !== 'surround' ? penumbra(set, own) : null;
      return edge !== null && edge.sideM < BLENDS_M;
    });
    const separate = seen.filter((shadow, i) => !seen.slice(0, i).some((other) => covers(shadow, other)));
    return beyond(evidence.limits, 'shadow-doubled', { value: separate.length }, () => ({
      of: null,
      places: separate.flatMap(({ places }) => places),
      causes: causes.filter(({ thing }) => separate.some(({ tag }) => tag === thing.key)),
      working: from({ shadows: separate.length }),
    }));
  },
  /** The weaker light weaker, off, or softer. */
  cures({ set, kit }, { causes }) {
    const weak = causes.at(-1)?.thing.key ?? '';
    return those(
      byStops(set, weak, -1.5),
      byStops(set, weak, -2.5),
      switchedOff(set, weak),
      resized(set, 'light', weak, 3, 3),
      ...fromKit(set, kit, weak, (size, now) => size > 1.5 * now),
      withFrost(set, weak, 0.5),
    );
  },
};

function covers({ places }: Shadow, other: Shadow): boolean {
  const theirs = new Set(other.places);
  const both = places.filter((place) => theirs.has(place)).length;
  return both / Math.min(places.length, other.places.length) > SAME_PLACE;
}

/** A product in the shadow of another. */
export const shadowAcross: Judge<'shadow-across'> = {
  code: 'shadow-across',
  judge(evidence) {
    const { set, view } = evidence;
    return seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const causes = lightCauses(evidence, places);
      const key = set.lights.findIndex(({ tag }) => tag === causes[0]?.thing.key);
      const shade = view.shade[key];
      const own = set.products.indexOf(product);
      if (!shade || places.length < FEWEST) return [];
      // What turns away from the light is in the shadow of its own.
      const facing = places.filter((place) => shade[place] !== own);
      const shaded = facing.filter((place) => (shade[place] as number) >= 0);
      const value = facing.length < FEWEST ? 0 : shaded.length / facing.length;
      return beyond(evidence.limits, 'shadow-across', { value }, () => ({
        of: thing,
        places: shaded,
        working: over({ shadedPlaces: shaded.length, litSidePlaces: facing.length }),
        causes: [
          ...set.products.flatMap((other, i) => {
            const part = shaded.filter((place) => shade[place] === i).length / shaded.length;
            return part > 0
              ? [{ thing: { kind: 'product' as const, key: other.id, name: other.name }, part }]
              : [];
          }),
          ...causes.slice(0, 1),
        ].sort((a, b) => (b.part ?? 0) - (a.part ?? 0)),
      }));
    });
  },
  /** The light further round or higher; the row spread; the two further apart. */
  cures({ set }, { of, causes }) {
    const light = causes.find(({ thing }) => thing.kind === 'light')?.thing.key ?? '';
    const other = set.products.find(({ id }) =>
      causes.some(({ thing }) => thing.kind === 'product' && thing.key === id),
    );
    const own = set.products.find(({ id }) => id === of?.key);
    const side = own && other && own.positionM[0] < other.positionM[0] ? -1 : 1;
    const apart = (m: number) =>
      own && {
        ...set,
        products: set.products.map((product) =>
          product === own ? { ...product, positionM: add(product.positionM, [side * m, 0, 0]) } : product,
        ),
      };
    return those(
      spacedEvenly(set),
      ...[25, -25, 50, -50].map((deg) => withPlacement(set, { vary: 'light-bearing', light }, deg)),
      ...[0.25, 0.5].map((m) => withPlacement(set, { vary: 'light-height', light }, m)),
      ...[0.04, 0.08].map((m) => apart(m) ?? null),
    );
  },
};
