import type { Product, SetDocument, Turned } from '@fendrix/contract';
import { luminanceOf } from '../../exposure/display.js';
import { inProduct } from '../../geometry/products/partAt.js';
import { profileStops } from '../../mirror/bandProfile.js';
import { productHeightM } from '../../mirror/contour.js';
import { cutReflector } from '../../solve/cutReflector.js';
import { freeSheetTag } from '../../solve/movables.js';
import { withPlacement } from '../../solve/placements.js';
import { byStops, those } from '../changes/changes.js';
import { resized } from '../changes/modifiers.js';
import {
  type Evidence,
  lightCauses,
  meanStops,
  measured,
  partPlaces,
  pointAt,
  seenProducts,
  toneBelow,
} from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { less, over } from '../working.js';

const FEWEST = 6;

/** Water that lies there is ground, not a vessel. */
const isClear = ({ kind, material }: Product): boolean =>
  kind !== 'water' &&
  material.kind === 'dielectric' &&
  material.scatteringPerCm < 1 &&
  material.roughness < 0.1;

/** The lowest part of a glass, of its height: its base. */
const BASE_PART = 0.14;
/** From here on a place shows what is behind it. */
const SHOWS_THROUGH = 0.3;
/** Light ground: so bright that it is seen as a patch, stops from mid-tone. */
const LIGHT_STOPS = -0.5;

/** Light table seen through the base of a glass, where a dark line or bright line is to draw it. */
export const glassBase: Judge<'glass-base'> = {
  code: 'glass-base',
  judge(evidence) {
    const { set, view, things } = evidence;
    if (set.wishes.edges === 'open') return [];
    return seenProducts(evidence).flatMap(({ product, thing, places }) => {
      if (!isClear(product)) return [];
      const height = productHeightM(product);
      const base = places.filter(
        (place) => inProduct(product, pointAt(evidence, place))[2] < BASE_PART * height,
      );
      if (base.length < FEWEST) return [];
      // On a light sweep the base shows the same paper as the glass above: there it is no patch.
      const onePaper = set.backdrop?.kind === 'sweep' && set.wishes.edges === 'dark-line';
      const tables = onePaper ? ['bench'] : ['bench', 'backdrop'];
      const isTable = (place: number) =>
        (view.throughPart[place] as number) > SHOWS_THROUGH &&
        tables.includes(things[view.through[place] as number]?.kind ?? '');
      const filled = (stops: Float64Array) =>
        base.filter((place) => isTable(place) && (stops[place] as number) > LIGHT_STOPS);
      const figure = measured(evidence, (stops) => filled(stops).length / base.length);
      return beyond(evidence.limits, 'glass-base', figure, () => {
        const found = filled(evidence.stops);
        const table = things.find(({ kind }) => kind === 'bench' || kind === 'backdrop');
        return {
          of: thing,
          places: found,
          causes: [...(table ? [{ thing: table, part: null }] : []), ...lightCauses(evidence, found)],
          working: over({ litBasePlaces: found.length, basePlaces: base.length }, { lightFrom: LIGHT_STOPS }),
        };
      });
    });
  },
  /** On a plinth smaller than its base, dark or clear of the table's light. */
  cures({ set }, { of }) {
    const product = set.products.find(({ id }) => id === of?.key);
    if (product?.kind !== 'turned') return [];
    return those(...[0.04, 0.08, 0.14].map((heightM) => onPlinth(set, product, heightM)));
  },
};

/** A plinth is so much narrower than the base on it. */
const PLINTH_PART = 0.7;

function onPlinth(set: SetDocument, product: Turned, heightM: number): SetDocument | null {
  const id = `plinth-${product.id}`.slice(0, 40).replace(/-+$/, '');
  if (set.products.some((own) => own.id === id)) return null;
  const radiusM = PLINTH_PART * (product.profile[0]?.radiusM ?? 0);
  if (!(radiusM > 0.003)) return null;
  const [x, y, z] = product.positionM;
  const plinth: Turned = {
    kind: 'turned',
    id,
    name: 'Plinth',
    positionM: [x, y, z],
    turnDeg: 0,
    material: { kind: 'matte', reflectance: 0.04 },
    profile: [
      { radiusM, heightM: 0, smooth: false },
      { radiusM, heightM, smooth: false },
    ],
    parts: [],
    labels: [],
    attached: [],
  };
  const lifted = set.products.map((own) =>
    own === product ? { ...own, positionM: [x, y, z + heightM] as Turned['positionM'] } : own,
  );
  return { ...set, products: [...lifted, plinth] };
}

/** A rim is what is so much darker than the middle of a glass, stops. */
const RIM_STOPS = 2;

/** Dark rims of a glass on light ground that are bars, not lines. */
export const thickRims: Judge<'thick-rims'> = {
  code: 'thick-rims',
  judge(evidence) {
    if (evidence.set.wishes.edges !== 'dark-line') return [];
    return seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const profile = evidence.view.profiles.find((own) => own.product === product.id);
      if (!profile || !isClear(product)) return [];
      const tones = profileStops(evidence.set, profile);
      const middle = [...tones].sort((a, b) => a - b)[tones.length >> 1] as number;
      const rim = (columns: readonly number[]) => {
        const end = columns.findIndex((tone) => tone > middle - RIM_STOPS);
        return end < 0 ? columns.length / 2 : end;
      };
      const wider = Math.max(rim(tones), rim([...tones].reverse()));
      return beyond(evidence.limits, 'thick-rims', { value: wider / tones.length }, () => ({
        of: thing,
        places,
        // A light that is the ground itself is seen through the glass, not on a wall.
        causes: lightCauses(evidence, places),
        working: over({ rimColumns: wider, columns: tones.length }, { rimStep: RIM_STOPS }),
      }));
    });
  },
  /** The lit ground wider or nearer. */
  cures({ set }, { causes }) {
    const { backdrop } = set;
    const nearer =
      backdrop?.kind === 'panel'
        ? [0.15, 0.3, 0.45].map((m) => ({
            ...set,
            backdrop: {
              ...backdrop,
              centreM: [backdrop.centreM[0], backdrop.centreM[1] - m, backdrop.centreM[2]] as [
                number,
                number,
                number,
              ],
            },
          }))
        : [];
    const wider =
      backdrop && [1.4, 2].map((by) => ({ ...set, backdrop: { ...backdrop, widthM: by * backdrop.widthM } }));
    return those(
      ...(wider ?? []),
      ...nearer,
      ...causes.slice(0, 2).map(({ thing }) => resized(set, 'light', thing.key, 1.6)),
      ...[0.1, 0.2].map((m) => withPlacement(set, { vary: 'backdrop-distance' }, -m)),
    );
  },
};

/** Liquid seen through glass, and the label or body beside it. */
function liquids(evidence: Evidence) {
  return seenProducts(evidence).flatMap((seen) => {
    const liquid = partPlaces(evidence, seen.product, seen.places, (part) => part.liquid);
    const label = partPlaces(evidence, seen.product, seen.places, ({ kind }) => kind === 'label');
    return liquid.length < FEWEST ? [] : [{ ...seen, liquid, label: label.length < FEWEST ? null : label }];
  });
}

/** Places with others of the same all round: the rims of a glass are dark lines and bright ones, not the liquid. */
function inner({ across }: Evidence, places: readonly number[]): number[] {
  const all = new Set(places);
  const round = [-2, -1, 1, 2, -across, across];
  return places.filter((place) => round.every((step) => all.has(place + step)));
}

/** Tone that a glowing liquid is held against where the product has no label, stops from mid-tone. */
const WITHOUT_LABEL_STOPS = -0.5;

/** Behind a drink so that it glows: a card cut to its shape, the ground lighter, more of what comes from behind. */
const behindIt: Judge['cures'] = ({ set }, { of, causes, figure }) => {
  const product = set.products.find(({ id }) => id === of?.key);
  const tag = freeSheetTag(set);
  const card = product?.kind === 'turned' && tag !== null ? cutReflector(set, product, tag) : null;
  const more = Math.max(0.5, Math.abs(figure.limit - figure.value));
  const main = causes[0]?.thing.key ?? '';
  return those(
    card && { ...set, sheets: [...set.sheets, card] },
    ...causes
      .slice(0, 3)
      .flatMap(({ thing }) => [more, 1.6 * more].map((stops) => byStops(set, thing.key, stops))),
    ...[110, -110, 150].map((deg) => withPlacement(set, { vary: 'light-bearing', light: main }, deg)),
    ...(card
      ? [more, 2 * more].map((stops) => byStops({ ...set, sheets: [...set.sheets, card] }, main, stops))
      : []),
    ...causes.slice(0, 2).flatMap(({ thing: { key: light } }) =>
      [110, -110, 150].map((deg) => {
        const round = withPlacement(set, { vary: 'light-bearing', light }, deg);
        const raised = round && (byStops(round, light, 2 * more) ?? round);
        return raised && card ? { ...raised, sheets: [...raised.sheets, card] } : raised;
      }),
    ),
  );
};

/** Of white light behind it, a liquid lets at least so much be asked of it, stops: deeper ones are judged as these. */
const DEEPEST_STOPS = -4;

/**
 * From where on a liquid glows against its label: what is wished, less what its own colour takes of white light on the way
 * through its widest place. A red wine can be no lighter than red.
 */
function glowsFrom({ set, limits }: Evidence, product: Product): number {
  const wished = set.wishes.liquidStops ?? limits['liquid-dull'].limit;
  const liquid = product.kind === 'turned' ? product.hollow?.liquid : undefined;
  if (product.kind !== 'turned' || !liquid) return wished;
  const wide = Math.max(
    ...product.profile.filter(({ heightM }) => heightM <= liquid.fillToM).map(({ radiusM }) => radiusM),
  );
  const { absorptionPerCm } = liquid.material;
  const passes = [0, 1, 2].map((c) =>
    Math.exp(
      -200 * wide * (typeof absorptionPerCm === 'number' ? absorptionPerCm : (absorptionPerCm[c] ?? 0)),
    ),
  ) as [number, number, number];
  return wished + Math.max(DEEPEST_STOPS, Math.log2(luminanceOf(...passes)));
}

/** A liquid that is to glow and is darker than the label it stands beside. */
export const liquidDull: Judge<'liquid-dull'> = {
  code: 'liquid-dull',
  judge: (evidence) =>
    evidence.set.wishes.liquid !== 'glows'
      ? []
      : liquids(evidence).flatMap(({ product, thing, liquid, label }) => {
          const figure = measured(
            evidence,
            (stops) => meanStops(stops, liquid) - (label ? meanStops(stops, label) : WITHOUT_LABEL_STOPS),
          );
          return beyond(
            evidence.limits,
            'liquid-dull',
            figure,
            () => ({
              of: thing,
              places: liquid,
              causes: lightCauses(evidence, liquid),
              working: less({
                liquidTone: meanStops(evidence.stops, liquid),
                besideLiquid: label ? meanStops(evidence.stops, label) : WITHOUT_LABEL_STOPS,
              }),
            }),
            glowsFrom(evidence, product),
          );
        }),
  cures: behindIt,
};

/** A liquid that glows here and is dark there. */
export const liquidUneven: Judge<'liquid-uneven'> = {
  code: 'liquid-uneven',
  judge: (evidence) =>
    evidence.set.wishes.liquid !== 'glows'
      ? []
      : liquids(evidence).flatMap(({ thing, liquid: all }) => {
          const liquid = inner(evidence, all);
          if (liquid.length < FEWEST) return [];
          const spread = (stops: Float64Array) =>
            toneBelow(stops, liquid, 0.8) - toneBelow(stops, liquid, 0.2);
          return beyond(evidence.limits, 'liquid-uneven', measured(evidence, spread), () => ({
            of: thing,
            places: liquid.filter(
              (place) => (evidence.stops[place] as number) < toneBelow(evidence.stops, liquid, 0.2),
            ),
            causes: lightCauses(evidence, liquid),
            working: less({
              lightestFifth: toneBelow(evidence.stops, liquid, 0.8),
              darkestFifth: toneBelow(evidence.stops, liquid, 0.2),
            }),
          }));
        }),
  cures: behindIt,
};
