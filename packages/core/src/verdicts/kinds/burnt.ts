import type { Product, SetDocument } from '@fendrix/contract';
import { PAPER_WHITE_STOPS } from '../../exposure/exposure.js';
import { whiteGroundStops } from '../../judge/groundVerdict.js';
import { NO_PART } from '../../render/look.js';
import { allByStops, byStops, those, withFStop } from '../changes/changes.js';
import { withLitGround } from '../changes/grounds.js';
import { type Evidence, lightCauses, measured, partPlaces, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** Glass of which more comes through than this shows what is behind it, not itself. */
const SEE_THROUGH = 0.3;
/** Metal of which more is mirrored than this shows its surroundings, not itself. */
const MIRROR = 0.5;

/**
 * Places of a product that show its own surface: not what is behind clear glass, and not the image of a light or card, which
 * may be white.
 */
export function ownPlaces({ view, things }: Evidence, places: readonly number[]): number[] {
  return places.filter((place) => {
    if ((view.throughPart[place] as number) > SEE_THROUGH) return false;
    if ((view.mirroredPart[place] as number) > MIRROR) return false;
    const mirrored = view.mirrored[place] as number;
    const kind = mirrored === NO_PART ? undefined : things[mirrored]?.kind;
    return kind !== 'light' && kind !== 'sheet';
  });
}

/** Less of a product than this says nothing of it, places. */
const FEWEST = 12;

/** The brightest tone of a product that is to hold detail, stops from mid-tone. */
const whiteOf = ({ wishes }: SetDocument, product: string | undefined): number =>
  wishes.held.find((own) => own.product === product)?.brightestStops ??
  wishes.brightestStops ??
  PAPER_WHITE_STOPS;

/** Glass before a white ground is white by it, down to its rims. */
const isMeantWhite = ({ set }: Evidence, { material }: Product): boolean =>
  material.kind === 'dielectric' && set.wishes.ground === 'white';

/** Labels, and what is put on: all but the body itself. */
const printed = (evidence: Evidence, product: Product, places: readonly number[]): number[] =>
  partPlaces(evidence, product, places, ({ kind }) => kind !== 'body');

/** A product's own surface over paper white: print and colour are gone. */
export const burnt: Judge<'burnt'> = {
  code: 'burnt',
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const own = ownPlaces(
        evidence,
        isMeantWhite(evidence, product) ? printed(evidence, product, places) : places,
      );
      if (own.length < FEWEST) return [];
      const white = whiteOf(evidence.set, product.id);
      const lostBy = (stops: Float64Array) => own.filter((place) => (stops[place] as number) > white);
      const figure = measured(evidence, (stops) => lostBy(stops).length / own.length);
      return beyond(evidence.limits, 'burnt', figure, () => {
        const lost = lostBy(evidence.stops);
        return {
          of: thing,
          places: lost,
          causes: lightCauses(evidence, lost),
          working: over({ burntPlaces: lost.length, ownPlaces: own.length }, { brightestHeld: white }),
        };
      });
    }),
  cures(evidence, { of, places, causes }) {
    const { set, stops } = evidence;
    const tones = places.map((place) => stops[place] as number).sort((a, b) => b - a);
    // The brightest tenth may be a glint.
    const white = whiteOf(set, of?.key);
    const most = tones[Math.floor(tones.length / 10)] ?? white;
    const over = Math.max(0.3, most - white + 0.1);
    const [first, second] = causes;
    const alone = (tag: string | undefined, part: number | null | undefined) => {
      // What one light has to lose for the whole to lose so much.
      const left = tag && part ? (2 ** -over - (1 - part)) / part : 0;
      return tag ? byStops(set, tag, left > 0.02 ? Math.log2(left) : -2 * over) : null;
    };
    const dimmed = set.wishes.ground === 'white' ? allByStops(set, -over) : null;
    return those(
      alone(first?.thing.key, first?.part),
      alone(second?.thing.key, second?.part),
      withFStop(set, set.camera.fNumber * 2 ** (over / 2)),
      // All darker, and the ground kept white by lights of its own.
      dimmed && withLitGround(evidence, dimmed, whiteGroundStops(null)),
    );
  },
};
