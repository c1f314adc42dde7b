import { type FrameFit, fitOfFrame } from './fitOfFrame.js';
import { type MoveColumns, type MovePictures, moveColumns, movedBy } from './moveColumns.js';
import type { LevelWay, StoodThing, ToldThing } from './triedMoves.js';

/** A light or sheet that stands elsewhere than planned, and what would explain it, the likeliest first. */
export interface MovedThing extends StoodThing {
  /** m that way, with one deviation. */
  moves: { way: LevelWay; byM: number; errorM: number }[];
  /** Whether it is that one; otherwise it may be another that is told as well. */
  isNamed: boolean;
}

/** Lights and sheets are tried this far out, m, and round the best of it. */
const TRIED_M = [-0.05, -0.035, -0.02, -0.01, 0.01, 0.02, 0.035, 0.05] as const;
const ROUND_M = [-0.0075, -0.004, 0.004, 0.0075] as const;
/** What a move has to explain, as a sum of squared deviations, to be there at all. */
const LEAST_GAIN = 15;
/** Less than this is what tape lets a thing be off by, m. */
const OFF_FROM_M = 0.022;
/** Between moves that were tried the picture is taken to change evenly: how far off that makes the length, a part of it. Measured: docs/physics/frames.md. */
const COARSE = 0.25;
/** Another thing that explains this part of it may be it as well. */
const RIVAL = 0.6;
/** Things that may be off by a little beside the one that is looked for. */
const ROUNDS = 3;
/** How often the frame is laid over its plan anew. */
const LAID = 4;
/** A thing is told by the picture if it is when it stands this far off, either side, m. */
const TOLD_M = 0.04;
/** What that has to explain of the plan, so that a frame of it, built as tape lets it be, tells it in nine of ten; measured: docs/physics/frames.md. */
const TOLD_GAIN = 40;
/** What explains so much is felt from millimetres on: it is tried in smaller steps. */
const FELT_GAIN = 150;

/**
 * Which of the lights and sheets a picture tells of, should they stand 4 cm elsewhere, and in which ways: that of the plan changes by it far past all that
 * building and the dials may do.
 * @param pictures of large moves
 */
export function toldThings(pictures: MovePictures): ToldThing[] {
  const columns = moveColumns(pictures);
  const fit = fitOfFrame(columns, columns.planned);
  const told = new Map<string, ToldThing>();
  for (const { thing, way, ...column } of columns.moved) {
    const explained = [-TOLD_M, TOLD_M].map((byM) => fit.explained(movedBy({ thing, way, ...column }, byM)));
    const name = `${thing.kind} ${thing.key}`;
    const own = told.get(name) ?? { ...thing, ways: [], isFelt: false };
    if (Math.min(...explained) >= TOLD_GAIN) own.ways.push(way);
    own.isFelt ||= Math.max(...explained) >= FELT_GAIN;
    // What is told in one frame or another is looked for too, though nobody is promised that it will be found.
    if (Math.max(...explained) >= LEAST_GAIN) told.set(name, own);
  }
  return [...told.values()];
}

/** What would explain the frame, and how much of it. */
interface Explained {
  column: number;
  byM: number;
  gain: number;
  errorM: number;
}

/**
 * Which lights and sheets stand elsewhere in a frame than in its plan, by all that moving each does to the picture of the products. The frame is laid over its
 * plan and taken apart in stops: lights, registration, corners, colours, and what building makes of all places, each as likely as it
 * is; one thing after the other is then let stand further off, as long as that explains more than chance does.
 * @param frame linear, red, green, blue of the cells of the window, NaN where it is clipped
 */
export function movedThings(pictures: MovePictures, frame: Float32Array): MovedThing[] {
  const columns = moveColumns(pictures);
  const fit = fitOfFrame(columns, laidOver(columns, frame));
  const found: Explained[] = [];
  let rivals: Explained[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const before = fit.cost(null);
    const all = columns.moved.flatMap((_, column) =>
      found.some((own) => own.column === column) ? [] : [explainedBy(columns, fit, column, before)],
    );
    all.sort((a, b) => b.gain - a.gain);
    const [best] = all;
    if (!best || best.gain < LEAST_GAIN) break;
    found.push(best);
    if (Math.abs(best.byM) >= OFF_FROM_M) {
      const enough = all.filter(
        ({ column, byM, gain }) =>
          column !== best.column && Math.abs(byM) >= OFF_FROM_M && gain > RIVAL * best.gain,
      );
      rivals = [...rivals, ...enough];
    }
    fit.take(movedBy(columns.moved[best.column] as (typeof columns.moved)[number], best.byM));
  }
  // What the picture hardly tells may be it beside another, never alone.
  const off = found.filter(({ byM, column }) => Math.abs(byM) >= OFF_FROM_M && columns.moved[column]?.isFine);
  if (off.length === 0) return [];
  const things = new Map<string, MovedThing>();
  for (const own of [...off, ...rivals]) {
    const { thing, way } = columns.moved[own.column] as (typeof columns.moved)[number];
    const name = `${thing.kind} ${thing.key}`;
    const told = things.get(name) ?? { ...thing, moves: [], isNamed: false };
    if (!told.moves.some((move) => move.way === way))
      told.moves.push({ way, byM: own.byM, errorM: own.errorM });
    things.set(name, told);
  }
  return [...things.values()].map((thing) => ({ ...thing, isNamed: things.size === 1 }));
}

/** How far off one thing explains the frame best, one way. @param before the cost without it */
function explainedBy(columns: MoveColumns, fit: FrameFit, column: number, before: number): Explained {
  const own = columns.moved[column] as (typeof columns.moved)[number];
  let best = { byM: 0, cost: before };
  const tryAll = (lengths: readonly number[], cost: (stops: Float64Array) => number) => {
    for (const byM of lengths) {
      const now = cost(movedBy(own, byM));
      if (now < best.cost) best = { byM, cost: now };
    }
  };
  tryAll(TRIED_M, fit.cost);
  if (best.byM === 0) return { column, byM: 0, gain: 0, errorM: Number.POSITIVE_INFINITY };
  const cost = fit.weighedFor(movedBy(own, best.byM));
  const middle = best.byM;
  tryAll([middle, ...ROUND_M.map((by) => middle + by)], cost);
  // Cost goes up by one at one deviation.
  const step = 0.005;
  const rise =
    (cost(movedBy(own, best.byM - step)) + cost(movedBy(own, best.byM + step))) / 2 -
    cost(movedBy(own, best.byM));
  const errorM = Math.hypot(step / Math.sqrt(Math.max(rise, 1e-3)), COARSE * best.byM);
  return { column, byM: best.byM, gain: before - best.cost, errorM };
}

/** The frame laid over its plan: shifted, scaled and turned by what the fit says, again until it lies. */
function laidOver(columns: MoveColumns, frame: Float32Array): Float32Array {
  const { width, height, registration } = columns;
  const by = [0, 0, 0, 0];
  let laid = frame;
  for (let round = 0; round < LAID; round++) {
    const { parts } = fitOfFrame(columns, laid);
    by.forEach((value, k) => {
      by[k] = value + (parts[registration + k] as number);
    });
    laid = moved(frame, width, height, by as [number, number, number, number]);
  }
  return laid;
}

/** Cells of a picture as they lie aside, between those that there are; NaN where one of those is. */
function moved(
  frame: Float32Array,
  width: number,
  height: number,
  [right, down, larger, turned]: readonly [number, number, number, number],
): Float32Array {
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
