import type { Product } from '@fendrix/contract';
import { greyOf } from '../../exposure/display.js';
import { MID_TONE } from '../../exposure/exposure.js';
import { partAt } from '../../geometry/products/partAt.js';
import { allByStops, byStops, those, withFStop } from '../changes/changes.js';
import { darkerPaper } from '../changes/grounds.js';
import { type Evidence, lightCauses, measured, pointAt, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { less } from '../working.js';
import { ownPlaces } from './burnt.js';

const FEWEST = 12;
/** The part of a product that is to be lit: its lightest tenth. */
const LIT_PART = 0.9;
/** In a dark picture so much less is meant, stops. */
const DARK_MOOD_STOPS = -1;

/** Metal shows lights and cards: the lightest of it is at least mid-tone. */
const METAL_STOPS = 0;

/**
 * Tone that a place of a product has where the light is just what the exposure is for; null for glass, and for gloss that
 * shows something else.
 */
function toneInFullLight(product: Product, evidence: Evidence, place: number, isOwn: boolean): number | null {
  const { kind, index } = partAt(product, pointAt(evidence, place));
  // But for dark pictures labels have a verdict of their own.
  if (kind === 'label' && evidence.set.wishes.mood !== 'dark') return null;
  const of = kind === 'body' ? product : partsOf(product, kind)[index];
  const material = of?.material;
  if (material?.kind === 'metal') return METAL_STOPS;
  return isOwn && material && 'reflectance' in material
    ? Math.log2(greyOf(material.reflectance) / MID_TONE)
    : null;
}

const partsOf = (product: Product, kind: 'part' | 'label') =>
  product.kind === 'turned'
    ? product[`${kind}s`]
    : product.kind === 'box' && product.label
      ? [product.label]
      : [];

/** A product whose own surface is far darker, even where it is lit best, than its material is in full light. */
export const productDark: Judge<'product-dark'> = {
  code: 'product-dark',
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const own = new Set(ownPlaces(evidence, places));
      const lit = places.flatMap((place) => {
        const full = toneInFullLight(product, evidence, place, own.has(place));
        return full === null ? [] : [{ place, full }];
      });
      if (lit.length < FEWEST) return [];
      const under = (stops: Float64Array) => (at: { place: number; full: number }) =>
        (stops[at.place] as number) - at.full;
      const best = (stops: Float64Array) => {
        const below = under(stops);
        return [...lit].sort((a, b) => below(a) - below(b))[
          Math.round(LIT_PART * (lit.length - 1))
        ] as (typeof lit)[number];
      };
      const figure = measured(evidence, (stops) => under(stops)(best(stops)));
      const usual = evidence.limits['product-dark'].limit;
      const wished = evidence.set.wishes.mood === 'dark' ? usual + DARK_MOOD_STOPS : usual;
      return beyond(
        evidence.limits,
        'product-dark',
        figure,
        () => {
          const { place, full } = best(evidence.stops);
          const counted = lit.map((at) => at.place);
          return {
            of: thing,
            places: counted,
            causes: lightCauses(evidence, counted),
            working: less({ lightestTenth: evidence.stops[place] as number, toneInFullLight: full }),
          };
        },
        wished,
      );
    }),
  /** Its own light up, all up, with a darker ground where that is to stay; a larger aperture. */
  cures({ set }, { causes, figure }) {
    const more = figure.limit - figure.value + 0.5;
    const all = allByStops(set, more);
    return those(
      ...causes.slice(0, 2).map(({ thing }) => byStops(set, thing.key, more)),
      all,
      withFStop(set, set.camera.fNumber * 2 ** (-more / 2)),
      all && darkerPaper(all, more),
    );
  },
};
