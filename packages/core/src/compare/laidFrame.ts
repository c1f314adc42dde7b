import { type FrameFit, fitOfFrame, type Times, type Unlaid } from './fitOfFrame.js';
import {
  effectOf,
  type Light,
  type MoveColumns,
  type MovedColumn,
  type MovePictures,
  moveColumns,
  stepsAt,
} from './moveColumns.js';
import type { LevelWay, StoodThing } from './triedMoves.js';

/** How a frame lies aside of its plan. */
type Aside = readonly [right: number, down: number, larger: number, turned: number];

/** A frame laid over its plan, and all that may change that. Plain data: the fits that take long are made on another thread each time. */
export interface LaidFrame {
  columns: MoveColumns;
  /** As it was taken, and as it lies. */
  taken: Light;
  frame: Light;
  /** What of it is found already, stops, and how each of its values weighs. */
  found: Float64Array | null;
  /** How it lies aside: shift, cells; size and turn, over the width of the window. */
  aside: Aside;
  weights: Float64Array;
  /** What is left of it, a robust sum of squares, and what that would be of a frame that is all explained. */
  cost: number;
  expected: number;
}

/** Where a thing would stand to explain a frame, m from where it is planned, and how much of it that explains. */
export interface Place extends StoodThing {
  rightM: number;
  awayM: number;
  gain: number;
  /** Whether it was moved by little too: otherwise the picture hardly tells of it. */
  isFine: boolean;
}

/** What pictures of one thing in five places say: each, what is left of the frame by it; and where between them least would be. */
export interface WeighedPlaces {
  costs: number[];
  /** From the first of them, m. */
  betweenM: [right: number, away: number];
  betweenCost: number;
  /** How well each is known there, one deviation; infinite where the pictures say nothing. */
  errorM: [right: number, away: number];
}

/** Lights and sheets are tried this far out, m. */
const TRIED_M = [-0.05, -0.035, -0.02, -0.01, 0.01, 0.02, 0.035, 0.05] as const;
/** Between places that were traced all of so many steps are tried, each way. */
const BETWEEN = [-1.5, -1, -0.5, 0, 0.5, 1, 1.5] as const;
/** How often a frame is laid over its plan anew; and once more when it is known better what stands elsewhere. */
const [LAID, LAID_AGAIN] = [4, 2];

/** Lengths of which the pictures say nothing. */
const NOT_KNOWN = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY] as const;

/**
 * Lays a frame over its plan.
 * @param frame linear, red, green, blue of the cells of the window, NaN where it is clipped
 */
export const layFrame = (pictures: MovePictures, frame: Light): LaidFrame =>
  laid(moveColumns(pictures), frame, null);

/** The same frame, laid anew, less what is found. @param picture of the plan with all that is found so far moved, of the paths of the tries */
export const lessFound = ({ columns, taken }: LaidFrame, picture: Light): LaidFrame =>
  laid(columns, taken, effectOf(columns, picture));

function laid(columns: MoveColumns, taken: Light, found: Float64Array | null): LaidFrame {
  const { aside, frame } = laidOver(columns, taken, { found });
  const { weights, expected, cost } = fitOfFrame(columns, frame, { taken: found });
  return { columns, taken, frame, aside, found, weights, expected, cost: cost(null) };
}

const fitOf = ({ columns, frame, found, weights }: LaidFrame) =>
  fitOfFrame(columns, frame, { taken: found, weights });

/** Where each thing would explain most of what is left of a frame, read off between the moves that were tried; those that explain nothing are left out. */
export function likelyPlaces(laid: LaidFrame): Place[] {
  const { unlaid, costOfSum } = fitOf(laid);
  const things = new Map<string, MovedColumn[]>();
  for (const column of laid.columns.moved) {
    const name = `${column.thing.kind} ${column.thing.key}`;
    things.set(name, [...(things.get(name) ?? []), column]);
  }
  return [...things.values()].flatMap((ways) => {
    const { thing, isFine } = ways[0] as MovedColumn;
    const known = new Map<Float64Array, Unlaid>();
    const along = (way: LevelWay, byM: number): Times[] => {
      const column = ways.find((own) => own.way === way);
      if (!column || byM === 0) return [];
      return stepsAt(column, byM).map(({ stops, times }) => {
        const of = known.get(stops) ?? unlaid(stops);
        known.set(stops, of);
        return { of, times };
      });
    };
    const at = (rightM: number, awayM: number): Place => {
      const gain = laid.cost - costOfSum([...along('right', rightM), ...along('away', awayM)]);
      return { ...thing, isFine, rightM, awayM, gain };
    };
    const best = (places: readonly Place[]) =>
      places.reduce((one, other) => (other.gain > one.gain ? other : one));
    const right = best(TRIED_M.map((rightM) => at(rightM, 0)));
    const away = best(TRIED_M.map((awayM) => at(0, awayM)));
    const both = best([right, away, at(right.rightM, away.awayM)]);
    return both.gain > 0 ? [both] : [];
  });
}

/**
 * What is left of a frame by each of some pictures; and by what lies between them.
 * @param pictures of a thing in one place, and so far to the right, to the left, away, and nearer; null for one that is not there  @param stepM how far; 0 where nothing between them is asked
 */
export function weighPlaces(
  laid: LaidFrame,
  pictures: readonly (Light | null)[],
  stepM: number,
): WeighedPlaces {
  const stops = pictures.map((picture) => picture && effectOf(laid.columns, picture));
  const first = stops[0];
  const { cost, costOfSum, unlaid, explained, taken } =
    stepM > 0 && first ? laidWith(laid, first) : { ...fitOf(laid), taken: laid.found };
  const costs = stops.map((own) => (own ? cost(less(own, taken)) : Number.POSITIVE_INFINITY));
  const [middle, right, left, away, near] = stops;
  let least = { betweenM: [0, 0] as [number, number], betweenCost: costs[0] as number };
  if (!middle || stepM === 0) return { costs, ...least, errorM: [...NOT_KNOWN] };
  const along = [slope(middle, right, left, stepM), slope(middle, away, near, stepM)] as const;
  const atMiddle = unlaid(less(middle, taken));
  const [toRight, further] = [unlaid(along[0]), unlaid(along[1])];
  for (const x of BETWEEN) {
    for (const y of BETWEEN) {
      const [u, v] = [x * stepM, y * stepM];
      const betweenCost = costOfSum([
        { of: atMiddle, times: 1 },
        { of: toRight, times: u },
        { of: further, times: v },
      ]);
      if (betweenCost < least.betweenCost) least = { betweenM: [u, v], betweenCost };
    }
  }
  return { costs, ...least, errorM: errorsOf(explained, along) };
}

/** The frame laid over its plan once more, as a picture tells, if it lies better then; all is weighed against that picture. @param picture stops */
function laidWith({ columns, taken, frame, aside, weights }: LaidFrame, picture: Float64Array) {
  const again = laidOver(columns, taken, { found: picture, weights, aside });
  const [before, after] = [frame, again.frame].map((lies) => fitOfFrame(columns, lies, { taken: picture }));
  const better = after && before && after.cost(null) < before.cost(null) ? after : (before as FrameFit);
  return { ...better, taken: picture };
}

/** How well two lengths are known together. @param along stops a metre, each way */
function errorsOf(
  explained: FrameFit['explained'],
  [right, away]: readonly [Float64Array, Float64Array],
): [number, number] {
  const [rr, aa] = [explained(right), explained(away)];
  const ra = (explained(right.map((value, i) => value + (away[i] as number))) - rr - aa) / 2;
  const both = Math.max(rr * aa - ra * ra, 0);
  return both > 0 ? [Math.sqrt(aa / both), Math.sqrt(rr / both)] : [...NOT_KNOWN];
}

const less = (stops: Float64Array, taken: Float64Array | null): Float64Array =>
  taken ? stops.map((value, i) => value - (taken[i] as number)) : stops;

/** Stops a metre along a way, of what lies on both sides or on one. */
function slope(
  middle: Float64Array,
  above: Float64Array | null | undefined,
  below: Float64Array | null | undefined,
  stepM: number,
): Float64Array {
  const [from, to] = [below ?? middle, above ?? middle];
  const apart = (above ? stepM : 0) + (below ? stepM : 0);
  return middle.map((_, i) => (apart === 0 ? 0 : ((to[i] as number) - (from[i] as number)) / apart));
}

/** A frame shifted, scaled and turned by what the fit says, again until it lies over its plan. @param from how it lay before */
function laidOver(
  columns: MoveColumns,
  frame: Light,
  from: { found: Float64Array | null; weights?: Float64Array; aside?: Aside },
): { aside: Aside; frame: Light } {
  const { width, height, registration } = columns;
  let aside: Aside = from.aside ?? [0, 0, 0, 0];
  let lies = from.aside ? lyingAside(frame, width, height, aside) : frame;
  for (let round = 0; round < (from.aside ? LAID_AGAIN : LAID); round++) {
    const { parts } = fitOfFrame(columns, lies, {
      taken: from.found,
      ...(from.weights ? { weights: from.weights } : {}),
    });
    aside = aside.map((value, k) => value + (parts[registration + k] as number)) as unknown as Aside;
    lies = lyingAside(frame, width, height, aside);
  }
  return { aside, frame: lies };
}

/** Cells of a picture as they lie aside, between those that there are; NaN where one of those is. */
function lyingAside(
  frame: Light,
  width: number,
  height: number,
  [right, down, larger, turned]: readonly [number, number, number, number],
): Light {
  const out = new Float32Array(frame.length);
  const at = (x: number, y: number, c: number) =>
    frame[
      3 * (Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))) + c
    ] as number;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / width - 0.5, (y + 0.5 - height / 2) / width];
      const [px, py] = [x - (right + larger * u + turned * v), y - (down + larger * v - turned * u)];
      const [left, top] = [Math.floor(px), Math.floor(py)];
      const [fx, fy] = [px - left, py - top];
      for (let c = 0; c < 3; c++)
        out[3 * (y * width + x) + c] =
          (1 - fy) * ((1 - fx) * at(left, top, c) + fx * at(left + 1, top, c)) +
          fy * ((1 - fx) * at(left, top + 1, c) + fx * at(left + 1, top + 1, c));
    }
  }
  return out;
}
