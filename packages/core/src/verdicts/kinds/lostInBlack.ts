import type { Product, SetDocument } from '@fendrix/contract';
import { allByStops, byStops, those, withFStop } from '../changes/changes.js';
import { lightCauses, meanStops, measured, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';
import { ownPlaces } from './burnt.js';

const FEWEST = 12;
/** A product darker than this is black of itself. */
const BLACK_REFLECTANCE = 0.08;

const isBlack = ({ material }: Product): boolean => {
  const reflectance = 'reflectance' in material ? material.reflectance : undefined;
  const grey = Array.isArray(reflectance) ? Math.max(...reflectance) : reflectance;
  return typeof grey === 'number' && grey < BLACK_REFLECTANCE;
};

/** The darkest tone of a product that is to hold detail, stops from mid-tone. */
const darkestOf = ({ wishes }: SetDocument, product: string | undefined): number =>
  wishes.held.find((own) => own.product === product)?.darkestStops ?? wishes.darkestStops;

/** A product of which too much is under the darkest tone that is to hold detail. */
export const lostInBlack: Judge<'lost-in-black'> = {
  code: 'lost-in-black',
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const own = ownPlaces(evidence, places);
      if (own.length < FEWEST || isBlack(product)) return [];
      const darkestStops = darkestOf(evidence.set, product.id);
      const under = (stops: Float64Array) => own.filter((place) => (stops[place] as number) < darkestStops);
      const figure = measured(evidence, (stops) => under(stops).length / own.length);
      return beyond(evidence.limits, 'lost-in-black', figure, () => {
        const lost = under(evidence.stops);
        return {
          of: thing,
          places: lost,
          causes: lightCauses(evidence, own),
          working: over({ blackPlaces: lost.length, ownPlaces: own.length }, { darkestHeld: darkestStops }),
        };
      });
    }),
  cures({ set, stops }, { of, places, causes }) {
    const under = Math.max(0.5, darkestOf(set, of?.key) - meanStops(stops, places) + 0.3);
    return those(
      ...causes.slice(0, 2).map(({ thing }) => byStops(set, thing.key, under)),
      allByStops(set, under),
      withFStop(set, set.camera.fNumber * 2 ** (-under / 2)),
    );
  },
};
