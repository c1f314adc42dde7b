import { fitOfFrame } from './fitOfFrame.js';
import type { LaidFrame, Place, WeighedPlaces } from './laidFrame.js';
import { type Light, type MovePictures, moveColumns, movedBy } from './moveColumns.js';
import type { LevelWay, StoodThing, ToldThing, TriedMove } from './triedMoves.js';

/** A light or sheet that stands elsewhere than planned. */
export interface MovedThing extends StoodThing {
  /** m that way, with one deviation; the longer first. */
  moves: { way: LevelWay; byM: number; errorM: number }[];
  /** Whether it is that one; otherwise it may be another that is told as well. */
  isNamed: boolean;
}

/** What stands elsewhere, and whether that, or building by tape, explains the frame. */
export interface MovedInFrame {
  things: MovedThing[];
  isExplained: boolean;
}

/** What a search for what stands elsewhere asks; each takes a while, and is best done on other threads. */
export interface MoveSearch {
  /** The frame laid over its plan. */
  laid(): Promise<LaidFrame>;
  /** See `lessFound`. */
  lessFound(laid: LaidFrame, picture: Light): Promise<LaidFrame>;
  /** See `likelyPlaces`. */
  likely(laid: LaidFrame): Promise<Place[]>;
  /** See `weighPlaces`. */
  weighed(laid: LaidFrame, pictures: readonly (Light | null)[], stepM: number): Promise<WeighedPlaces>;
  /** Pictures of the plan with things moved, of the paths of the tries. */
  traced(all: readonly (readonly TriedMove[])[]): Promise<Light[]>;
}

/** What a move has to explain, as a sum of squared deviations, to be there at all. */
const LEAST_GAIN = 15;
/** What is left of something found is this part of what it explains: what explains less beside it may be that. */
const LEFT_OVER = 0.1;
/** Less than this is what tape lets a thing be off by, m. */
const OFF_FROM_M = 0.022;
/** Another thing may be it as well that explains this part of it, if it is less by no more than this. */
const [RIVAL, RIVAL_BY] = [0.6, 50];
/** Things are looked at that may explain this part of what the likeliest does, at most so many. */
const [LOOKED_AT, MOST] = [0.2, 3];
/** Things that may be off by a little beside the one that is looked for. */
const ROUNDS = 3;
/** A frame of which more than this is left, over what is expected, is not explained. */
const UNEXPLAINED = 3;
/** A thing that leaves so much has to explain this part of what is to be explained. */
const MOST_OF_IT = 0.5;
/** Then everything is moved this far, m, between what was tried, and the best two are looked at. */
const [BESIDE_M, BEST] = [0.0375, 2];
/** Places round one that are traced lie this far off, m, the first time and the last. */
const [FIRST_STEP_M, LAST_STEP_M] = [0.01, 0.004];
/** Nothing is looked for further off, m. */
export const FURTHEST_M = 0.15;
/** How often a place is made better, and the part of what it explains by which it has to be. */
const [BETTERED, BETTER] = [8, 0.02];
/** How far off lengths are either way, a part of the distance, beside what the picture says. Measured: docs/physics/frames.md. */
const LENGTHS = 0.2;
/** A way is told if a thing stands this far off that way, m, and so many deviations. */
const [WAY_FROM_M, WAY_DEVIATIONS] = [0.01, 3];
/** A thing is told by the picture if it is when it stands this far off, either side, m. */
const TOLD_M = 0.04;
/** What that has to explain of the plan, so that a frame of it, built as tape lets it be, tells it in nine of ten; measured: docs/physics/frames.md. */
const TOLD_GAIN = 60;
/** So far off, m, it has to be there already: a card with a lens hole shows nothing until it covers the lens, and then all at once. */
const [STEADY_M, STEADY_GAIN] = [0.025, LEAST_GAIN];

/**
 * Which of the lights and sheets a picture tells of, should they stand 4 cm elsewhere, and in which ways: that of the plan changes by it far past all that
 * building and the dials may do, and does so steadily.
 * @param pictures of large moves; with those of a fault too what comes on all of a sudden is known
 */
export function toldThings(pictures: MovePictures): ToldThing[] {
  const columns = moveColumns(pictures);
  const fit = fitOfFrame(columns, columns.planned);
  const told = new Map<string, ToldThing>();
  for (const { thing, way, ...column } of columns.moved) {
    const explainedAt = (byM: number) =>
      [-byM, byM].map((own) => fit.explained(movedBy({ thing, way, ...column }, own)));
    const explained = explainedAt(TOLD_M);
    const isSteady = Math.min(...explainedAt(STEADY_M)) >= STEADY_GAIN;
    const name = nameOf(thing);
    const own = told.get(name) ?? { ...thing, ways: [] };
    if (isSteady && Math.min(...explained) >= TOLD_GAIN) own.ways.push(way);
    // What is told in one frame or another is looked for too, though nobody is promised that it will be found.
    if (Math.max(...explained) >= LEAST_GAIN) told.set(name, own);
  }
  return [...told.values()];
}

/** A place that was traced. */
interface Seen extends Place {
  picture: Light;
  errorM: [right: number, away: number];
}

/**
 * Which lights and sheets stand elsewhere in a frame than in its plan. The frame, laid over its plan, is taken apart in stops: lights, registration, corners,
 * colours, and what building makes of all places, each as likely as it is. Things that would explain most of the rest are then
 * traced where they would have to stand, again and again a little better, and compared by what is left of the frame; one after the other, as long as that
 * explains more than chance does.
 */
export async function movedThings(search: MoveSearch): Promise<MovedInFrame> {
  const found: { best: Seen; rivals: Seen[] }[] = [];
  let laid = await search.laid();
  let gains = 0;
  const leaves = (gain: number) => laid.cost - gain > UNEXPLAINED * laid.expected;
  for (let round = 0; round < ROUNDS; round++) {
    const beside = found.flatMap(({ best }) => movesTo(best));
    const isNew = (place: Place) => !found.some(({ best }) => nameOf(best) === nameOf(place));
    const likely = (await search.likely(laid)).filter(isNew).sort(byGain);
    const looked: Seen[] = [];
    const most = likely[0]?.gain ?? 0;
    for (const place of likely.slice(0, MOST))
      if (place.gain >= LEAST_GAIN && place.gain >= LOOKED_AT * most)
        looked.push(await bettered(search, laid, beside, place));
    if (found.length === 0 && leaves(Math.max(0, ...looked.map(({ gain }) => gain)))) {
      const places = await placesBeside(search, laid);
      for (const place of places.slice(0, BEST)) {
        const before = looked.findIndex((own) => nameOf(own) === nameOf(place));
        if (place.gain <= Math.max(LEAST_GAIN, looked[before]?.gain ?? 0)) continue;
        if (before >= 0) looked.splice(before, 1);
        looked.push(await bettered(search, laid, beside, place));
      }
    }
    const [best, ...others] = looked.sort(byGain);
    if (!best || best.gain < Math.max(LEAST_GAIN, LEFT_OVER * gains)) break;
    // Of a frame that stays unexplained a thing is named if it explains most of that.
    if (leaves(best.gain) && best.gain < MOST_OF_IT * (laid.cost - laid.expected)) break;
    // What leaves a frame unexplained is hardly known from another that does.
    const isNear = (other: Seen) => leaves(best.gain) || best.gain - other.gain < RIVAL_BY;
    const rivals = others.filter((other) => isOff(other) && other.gain > RIVAL * best.gain && isNear(other));
    found.push({ best, rivals });
    gains += best.gain;
    laid = await search.lessFound(laid, best.picture);
  }
  const told = new Map<string, MovedThing>();
  for (const { best, rivals } of found) {
    // What the picture hardly tells may be it beside another, never alone.
    if (!isOff(best) || !best.isFine) continue;
    for (const own of [best, ...rivals])
      if (!told.has(nameOf(own))) told.set(nameOf(own), { ...thingOf(own), isNamed: rivals.length === 0 });
  }
  return { things: [...told.values()], isExplained: !leaves(0) };
}

/** Everything moved a little further than what building does: where it explains most of the frame, the best first. */
async function placesBeside(search: MoveSearch, laid: LaidFrame): Promise<Place[]> {
  const things = new Map(
    laid.columns.moved.map(({ thing, isFine }) => [nameOf(thing), { ...thing, isFine }]),
  );
  const places = [...things.values()].flatMap((thing) =>
    [
      [BESIDE_M, 0],
      [-BESIDE_M, 0],
      [0, BESIDE_M],
      [0, -BESIDE_M],
    ].map(([rightM = 0, awayM = 0]) => ({ ...thing, rightM, awayM, gain: 0 })),
  );
  const pictures = await search.traced(places.map(movesTo));
  const { costs } = await search.weighed(laid, pictures, 0);
  const weighed = places
    .map((place, i) => ({ ...place, gain: laid.cost - (costs[i] as number) }))
    .sort(byGain);
  return weighed.filter((place, i) => weighed.findIndex((own) => nameOf(own) === nameOf(place)) === i);
}

/** A place, made better by what pictures of it and of four round it say, until that brings little. @param beside what stands elsewhere too */
async function bettered(
  search: MoveSearch,
  laid: LaidFrame,
  beside: readonly TriedMove[],
  from: Place,
): Promise<Seen> {
  const seen = new Map<string, Seen>();
  let middle: Place = from;
  let stepM: number = FIRST_STEP_M;
  let gain = 0;
  for (let round = 0; round < BETTERED && stepM >= LAST_STEP_M; round++) {
    const ring = ringRound(middle, stepM);
    const untraced = ring.filter((place) => place && !seen.has(placeKey(place))) as Place[];
    const traced = await search.traced(untraced.map((place) => [...beside, ...movesTo(place)]));
    const pictures = ring.map((place) => {
      if (!place) return null;
      return traced[untraced.indexOf(place)] ?? (seen.get(placeKey(place)) as Seen).picture;
    });
    const { costs, betweenM, betweenCost, errorM } = await search.weighed(laid, pictures, stepM);
    ring.forEach((place, i) => {
      const own = pictures[i];
      if (!place || !own) return;
      const weighed = { ...place, picture: own, gain: laid.cost - (costs[i] as number), errorM };
      if (i === 0 || !seen.has(placeKey(place))) seen.set(placeKey(place), weighed);
    });
    const best = bestOf(seen);
    const isMiddle = placeKey(best) === placeKey(middle);
    if (round > 0 && best.gain - gain < BETTER * best.gain) break;
    gain = best.gain;
    const between = { ...middle, rightM: middle.rightM + betweenM[0], awayM: middle.awayM + betweenM[1] };
    if (isMiddle) stepM /= 2;
    middle = laid.cost - betweenCost > best.gain && isWithin(between) ? between : best;
  }
  return bestOf(seen);
}

const bestOf = (seen: ReadonlyMap<string, Seen>): Seen =>
  [...seen.values()].reduce((one, other) => (other.gain > one.gain ? other : one));

/** A place and four round it; null for what is further off than things stand. */
function ringRound(place: Place, stepM: number): (Place | null)[] {
  const by = (rightM: number, awayM: number): Place | null => {
    const own = { ...place, rightM: place.rightM + rightM, awayM: place.awayM + awayM };
    return isWithin(own) ? own : null;
  };
  return [place, by(stepM, 0), by(-stepM, 0), by(0, stepM), by(0, -stepM)];
}

const isWithin = ({ rightM, awayM }: Place): boolean =>
  Math.max(Math.abs(rightM), Math.abs(awayM)) <= FURTHEST_M + 1e-9;

const nameOf = ({ kind, key }: StoodThing): string => `${kind} ${key}`;
const placeKey = ({ rightM, awayM }: Place): string =>
  [rightM, awayM].map((by) => Math.round(by * 1e4)).join(' ');
const byGain = (one: Place, other: Place): number => other.gain - one.gain;
const isOff = ({ rightM, awayM }: Place): boolean => Math.hypot(rightM, awayM) >= OFF_FROM_M;

const movesTo = ({ kind, key, rightM, awayM }: Place): TriedMove[] => [
  { part: { kind, key }, way: 'right', byM: rightM },
  { part: { kind, key }, way: 'away', byM: awayM },
];

function thingOf({ kind, key, rightM, awayM, errorM }: Seen): Omit<MovedThing, 'isNamed'> {
  // No further off than things are looked for.
  const error = (own: number) => Math.min(FURTHEST_M, Math.hypot(own, LENGTHS * rightM, LENGTHS * awayM));
  const ways = [
    { way: 'right' as const, byM: rightM, errorM: error(errorM[0]) },
    { way: 'away' as const, byM: awayM, errorM: error(errorM[1]) },
  ].sort((one, other) => Math.abs(other.byM) - Math.abs(one.byM));
  const moves = ways.filter(
    ({ byM, errorM: own }, i) =>
      i === 0 || (Math.abs(byM) >= WAY_FROM_M && Math.abs(byM) >= WAY_DEVIATIONS * own),
  );
  return { kind, key, moves };
}
