import type { SetDocument } from '@fendrix/contract';
import { greyOf } from '../../exposure/display.js';
import { GROUND_KINDS, groundLights, powersForGround } from '../../judge/ground.js';
import { frameLevels, type ProductWhite, productWhite, whiteGroundStops } from '../../judge/groundVerdict.js';
import { traceField } from '../../judge/readField.js';
import { prepareTracing } from '../../render/prepareTracing.js';
import { groundLight, poweredForGround } from '../../solve/groundLight.js';
import { mostBackM, withPlacement } from '../../solve/placements.js';
import { allByStops, byStops, switchedOff, those } from '../changes/changes.js';
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
      return beyond(evidence.limits, code, figure, () => ({
        of: evidence.things.find(({ kind }) => kind === 'backdrop') ?? null,
        places,
        causes: lightCauses(evidence, places),
        working: counted.working(meanStops(evidence.stops, places), places.length),
      }));
    },
    cures,
  };
}

const wishes =
  (ground: Evidence['set']['wishes']['ground']) =>
  ({ set }: Evidence): boolean =>
    set.wishes.ground === ground;

/** Papers and cloths as they are sold. */
const WHITE_PAPER = 0.88;
const BLACK_CLOTH = 0.02;

/** Another paper or cloth in the place of the one that is there. */
function withGround(set: SetDocument, reflectance: number): SetDocument | null {
  if (!set.backdrop) return null;
  const material = { kind: 'matte' as const, reflectance };
  const backdrop =
    set.backdrop.kind === 'boards'
      ? { ...set.backdrop, material, lyingMaterial: material }
      : { ...set.backdrop, material };
  return { ...set, backdrop };
}

/** As `toTone`, and on white paper where that is not enough. */
const toWhite: Judge['cures'] = (evidence, finding) => {
  const { set, stops } = evidence;
  const raise = surelyWhite(evidence) - meanStops(stops, finding.places);
  const paper = greyOfGround(set) < WHITE_FROM ? withGround(set, WHITE_PAPER) : null;
  const gained = Math.log2(WHITE_PAPER / Math.max(0.01, greyOfGround(set)));
  const wanted = surelyWhite(evidence);
  return [
    ...those(litGround(evidence, set, wanted), paper && litGround(evidence, paper, wanted)),
    ...toTone(surelyWhite)(evidence, finding),
    ...those(paper, paper && allByStops(paper, Math.max(0.1, raise - gained))),
  ];
};

/** Places and paths by which lights for the ground alone are dialled. */
const DIALLED = { across: 24, down: 16, samples: 8 };
const WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };

/** Two lights for the ground alone, one on either side, out of the frame and dialled to its tone; the products keep theirs. */
function litGround({ kit }: Evidence, set: SetDocument, wantedStops: number): SetDocument | null {
  const lights = kit?.entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : [])) ?? [];
  const taken = new Set(set.lights.map(({ tag }) => tag));
  const free = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].filter((letter) => !taken.has(letter));
  const added = ([1, -1] as const).flatMap((side, i) => {
    const tag = free[i];
    return tag === undefined ? [] : (groundLight(set, tag, side, lights) ?? []);
  });
  if (added.length < 2) return null;
  const field = traceField(prepareTracing({ ...set, lights: [...set.lights, ...added] }), WHOLE, DIALLED);
  const powered = poweredForGround(set, added, field, wantedStops);
  return powered && { ...set, lights: [...set.lights, ...powered] };
}

/** Lighter than this a ground is white of itself. */
const WHITE_FROM = 0.7;

const greyOfGround = ({ backdrop }: SetDocument): number =>
  backdrop && 'reflectance' in backdrop.material ? greyOf(backdrop.material.reflectance) : 1;

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

const surelyWhite = (evidence: Evidence): number => whiteGroundStops(whiteOf(evidence)?.stops ?? null);

export const groundNotWhite = groundJudge('ground-not-white', wishes('white'), () => ITS_TONE, toWhite);

export const groundTooWhite = groundJudge(
  'ground-too-white',
  wishes('white'),
  (evidence) => {
    const white = whiteOf(evidence);
    return (
      white && {
        figure: (tone) => tone - white.stops,
        working: (tone) => less({ groundTone: tone, whiteOfProducts: white.stops }),
      }
    );
  },
  (evidence, finding) => {
    const { set, limits } = evidence;
    // Where the ground is as white as it has to be, the products are too dark: their own lights up.
    const more = finding.figure.value - limits['ground-too-white'].limit + 0.2;
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
  toTone(({ set }) => set.wishes.greyStops),
);
