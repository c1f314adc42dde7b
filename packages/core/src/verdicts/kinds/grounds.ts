import type { Product, SetDocument } from '@fendrix/contract';
import { greyOf } from '../../exposure/display.js';
import { GROUND_KINDS, groundLights, powersForGround } from '../../judge/ground.js';
import { frameLevels, type ProductWhite, productWhite, whiteGroundStops } from '../../judge/groundVerdict.js';
import { mostBackM, withPlacement } from '../../solve/placements.js';
import { allByStops, byStops, switchedOff, those } from '../changes/changes.js';
import {
  BLACK_CLOTH,
  greyOfGround,
  otherPapers,
  WHITE_PAPER,
  withGround,
  withLitGround,
} from '../changes/grounds.js';
import { atDistance } from '../changes/modifiers.js';
import { type Evidence, groundPlaces, lightCauses, meanStops, measured, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, less, mean, type Working } from '../working.js';

/** Places of background and walls; fewer are no ground. */
const FEWEST = 40;

const whiteOf = (evidence: Evidence): ProductWhite | null =>
  productWhite(evidence.set, evidence.readings, frameLevels(evidence.set, evidence.view.whole), null);

/** What is counted of the mean tone of a ground. */
interface Counted {
  figure: (meanTone: number) => number;
  working: (meanTone: number, places: number) => Working;
  /** The limit that this picture asks for, in place of the usual one. */
  wishedLimit?: number | undefined;
}

/** The tone itself. */
const ITS_TONE: Counted = {
  figure: (tone) => tone,
  working: (_, places) => mean({ groundPlaces: places }),
};

type GroundCode = 'ground-not-white' | 'ground-too-white' | 'ground-not-black' | 'ground-off-grey';

/**
 * A verdict on the mean tone of the ground.
 * @param counting what is counted of that tone, and the working of it; null where nothing can be
 */
function groundJudge<C extends GroundCode>(
  code: C,
  wished: (evidence: Evidence) => boolean,
  counting: (evidence: Evidence) => Counted | null,
  cures: Judge['cures'],
): Judge<C> {
  return {
    code,
    judge(evidence) {
      if (!wished(evidence)) return [];
      const places = groundPlaces(evidence, GROUND_KINDS);
      const counted = counting(evidence);
      if (places.length < FEWEST || !counted) return [];
      const figure = measured(evidence, (stops) => counted.figure(meanStops(stops, places)));
      return beyond(
        evidence.limits,
        code,
        figure,
        () => ({
          of: evidence.things.find(({ kind }) => kind === 'backdrop') ?? null,
          places,
          causes: lightCauses(evidence, places),
          working: counted.working(meanStops(evidence.stops, places), places.length),
        }),
        counted.wishedLimit,
      );
    },
    cures,
  };
}

const wishes =
  (ground: Evidence['set']['wishes']['ground']) =>
  ({ set }: Evidence): boolean =>
    set.wishes.ground === ground;

/** Lights of the ground spill onto the products: their own are turned down by so much. */
const DIMMED_STOPS = 0.7;

/** As `toTone`, and on white paper where that is not enough. */
const toWhite: Judge['cures'] = (evidence, finding) => {
  const { set, stops } = evidence;
  const raise = surelyWhite(evidence) - meanStops(stops, finding.places);
  const paper = greyOfGround(set) < WHITE_FROM ? withGround(set, WHITE_PAPER) : null;
  const gained = Math.log2(WHITE_PAPER / Math.max(0.01, greyOfGround(set)));
  const wanted = surelyWhite(evidence);
  const dimmed = allByStops(set, -DIMMED_STOPS);
  return [
    ...those(
      withLitGround(evidence, set, wanted),
      paper && withLitGround(evidence, paper, wanted),
      dimmed && withLitGround(evidence, dimmed, wanted),
    ),
    ...toTone(surelyWhite)(evidence, finding),
    ...those(paper, paper && allByStops(paper, Math.max(0.1, raise - gained))),
  ];
};

/** Lighter than this a ground is white of itself. */
const WHITE_FROM = 0.7;

/** The ground by its own lights, so that the products stay; then by its strongest light alone; then all. */
const toTone =
  (toneOf: (evidence: Evidence) => number): Judge['cures'] =>
  (evidence, { places, causes }) => {
    const { set, stops } = evidence;
    const tone = toneOf(evidence);
    const raise = tone - meanStops(stops, places);
    const solved = powersForGround(set, evidence.view.whole, tone);
    const own = solved && {
      ...set,
      lights: set.lights.map((light) => {
        const power = solved.powers.find(({ tag }) => tag === light.tag);
        return power ? { ...light, powerStops: power.powerStops } : light;
      }),
    };
    return those(
      own,
      ...causes.slice(0, 2).map(({ thing, part }) => {
        const left = part ? (2 ** raise - (1 - part)) / part : 0;
        return left > 0.01 ? byStops(set, thing.key, Math.log2(left)) : null;
      }),
      allByStops(set, raise),
    );
  };

const surelyWhite = (evidence: Evidence): number =>
  whiteGroundStops(whiteOf(evidence)?.stops ?? null, evidence.set.wishes.overWhiteStops);

export const groundNotWhite = groundJudge('ground-not-white', wishes('white'), () => ITS_TONE, toWhite);

/** A product with a part lighter than this has a white of its own; of a dark one nothing says how white white is. */
const WHITE_PART = 0.5;

function hasWhite(product: Product): boolean {
  const parts = [
    product,
    ...('parts' in product ? product.parts : []),
    ...('labels' in product ? product.labels : []),
    ...('label' in product && product.label ? [product.label] : []),
  ];
  // Metal and glass are as white as what they show.
  return parts.some(
    ({ material }) =>
      material && (!('reflectance' in material) || greyOf(material.reflectance) >= WHITE_PART),
  );
}

/** Parts of its distance at which a light is tried nearer. */
const NEARER = [0.75, 0.55];

/** A light nearer, turned down so that the products keep their tone. */
function nearer(set: SetDocument, tag: string, part: number): SetDocument | null {
  const moved = atDistance(set, tag, part);
  return moved && (byStops(moved, tag, 2 * Math.log2(part)) ?? moved);
}

export const groundTooWhite = groundJudge(
  'ground-too-white',
  wishes('white'),
  (evidence) => {
    const white = whiteOf(evidence);
    if (!white || (white.spot === null && !evidence.set.products.some(hasWhite))) return null;
    return {
      figure: (tone) => tone - white.stops,
      working: (tone) => less({ groundTone: tone, whiteOfProducts: white.stops }),
      wishedLimit: evidence.set.wishes.overWhiteStops,
    };
  },
  (evidence, finding) => {
    const { set } = evidence;
    // Where the ground is as white as it has to be, the products are too dark: their own lights up.
    const more = finding.figure.value - finding.figure.limit + 0.2;
    const products = seenProducts(evidence).flatMap(({ places }) => places);
    const ground = new Set(
      groundLights(set, evidence.view.whole)
        .filter(({ own }) => own)
        .map(({ tag }) => tag),
    );
    const theirs = lightCauses(evidence, products).filter(({ thing }) => !ground.has(thing.key));
    const up = theirs.reduce<SetDocument>((so, { thing }) => byStops(so, thing.key, more) ?? so, set);
    return [
      ...toTone(surelyWhite)(evidence, finding),
      ...those(
        up === set ? null : up,
        ...theirs.slice(0, 2).map(({ thing }) => byStops(set, thing.key, more)),
        // Nearer to the products a light falls off sooner behind them.
        ...theirs.slice(0, 1).flatMap(({ thing }) => NEARER.map((part) => nearer(set, thing.key, part))),
      ),
    ];
  },
);

export const groundNotBlack = groundJudge(
  'ground-not-black',
  wishes('black'),
  () => ITS_TONE,
  (evidence, finding) => {
    const { set } = evidence;
    const back = mostBackM(set);
    return [
      ...those(
        ...[0.35, 0.7, 1].map((part) =>
          back > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, part * back) : null,
        ),
        ...finding.causes
          .slice(0, 1)
          .flatMap(({ thing }) =>
            [-40, 40, -75, 75].map((deg) =>
              withPlacement(set, { vary: 'light-bearing', light: thing.key }, deg),
            ),
          ),
        ...groundLights(set, evidence.view.whole)
          .filter(({ own }) => own)
          .map(({ tag }) => switchedOff(set, tag)),
      ),
      ...toTone(({ limits }) => limits['ground-not-black'].limit - 0.2)(evidence, finding),
      ...those(greyOfGround(set) > 2 * BLACK_CLOTH ? withGround(set, BLACK_CLOTH) : null),
    ];
  },
);

export const groundOffGrey = groundJudge(
  'ground-off-grey',
  wishes('grey'),
  ({ set }) => ({
    figure: (tone) => Math.abs(tone - set.wishes.greyStops),
    working: (tone) => apart({ groundTone: tone, greyWished: set.wishes.greyStops }),
  }),
  (evidence, finding) => {
    const { set } = evidence;
    const more = set.wishes.greyStops - meanStops(evidence.stops, finding.places);
    const back = mostBackM(set);
    return [
      ...toTone(() => set.wishes.greyStops)(evidence, finding),
      ...those(
        ...otherPapers(set, more),
        ...(more < 0 ? [0.5, 1] : []).map((part) =>
          back > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, part * back) : null,
        ),
      ),
    ];
  },
);
