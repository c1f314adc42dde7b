import { solveLinear } from '../units/solveLinear.js';
import { FLOOR, isTold, type MoveColumns, type MovePictures, moveColumns, movedBy } from './moveColumns.js';
import type { StoodThing, TriedMove } from './triedMoves.js';

/** Up and down it is not told. */
type Way = Exclude<TriedMove['way'], 'up'>;

/** A light or sheet that stands elsewhere than planned, and what would explain it, the likeliest first. */
export interface MovedThing extends StoodThing {
  /** m that way, with one deviation. */
  moves: { way: Way; byM: number; errorM: number }[];
  /** Whether it is that one; otherwise it may be another that is told as well. */
  isNamed: boolean;
}

/** So many values beside each other are off together, and count as one. */
const ALIKE = 20;
/** A value that is off by so many deviations counts as far as its square root (Huber 1964). */
const HUBER = 2;
/** Lights and sheets are tried this far out, m, and round the best of it. */
const TRIED_M = [-0.05, -0.035, -0.02, -0.01, 0.01, 0.02, 0.035, 0.05] as const;
const ROUND_M = [-0.0075, -0.004, 0.004, 0.0075] as const;
/** What a move has to explain, as a sum of squared deviations, to be there at all. */
const LEAST_GAIN = 15;
/** Less than this is what tape lets a thing be off by, m. */
const OFF_FROM_M = 0.02;
/** Between moves that were tried the picture is taken to change evenly: how far off that makes the length, a part of it. Measured: docs/physics/frames.md. */
const COARSE = 0.25;
/** Another thing that explains this part of it may be it as well. */
const RIVAL = 0.6;
/** Things that may be off by a little beside the one that is looked for. */
const ROUNDS = 3;
/** How often the frame is laid over its plan anew, and lights fitted with Huber's weights. */
const [LAID, WEIGHED] = [4, 3];
/** A thing is told by the picture if it is when it stands this far off, m. */
const TOLD_M = 0.04;

/**
 * Which of the lights and sheets a picture tells at all, should they stand 4 cm elsewhere: that of the plan changes by it past all that building and the
 * dials may do.
 * @param pictures of large moves
 */
export function toldThings(pictures: MovePictures): StoodThing[] {
  const columns = moveColumns(pictures);
  const fit = fitOf(columns, columns.planned);
  const told = new Map<string, StoodThing>();
  for (const column of columns.moved) {
    const most = Math.max(...[-TOLD_M, TOLD_M].map((byM) => fit.explained(movedBy(column, byM))));
    if (most >= LEAST_GAIN) told.set(`${column.thing.kind} ${column.thing.key}`, column.thing);
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
  const fit = fitOf(columns, laidOver(columns, frame));
  const found: Explained[] = [];
  let rivals: Explained[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const all = columns.moved.flatMap((_, column) =>
      found.some((own) => own.column === column) ? [] : [explainedBy(columns, fit, column)],
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

/** How far off one thing explains the frame best, one way. */
function explainedBy(columns: MoveColumns, fit: Fit, column: number): Explained {
  const own = columns.moved[column] as (typeof columns.moved)[number];
  const before = fit.cost(null);
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

/** A frame against all that may change it. */
interface Fit {
  /** What is left of the frame when something is taken off it, a robust sum of squares; null for nothing. */
  cost(stops: Float64Array | null): number;
  /** The same, each value weighed as it is once that is taken off. */
  weighedFor(stops: Float64Array): (stops: Float64Array) => number;
  /** How much of a change cannot be laid on anything else, as a sum of squares. */
  explained(stops: Float64Array): number;
  /** Takes something off the frame for good. */
  take(stops: Float64Array): void;
  /** How much of each column there is. */
  parts: readonly number[];
}

/** @param frame linear, on the cells of the window */
function fitOf({ always, plan, planned, variance }: MoveColumns, frame: Float32Array): Fit {
  const used = Int32Array.from(
    [...plan.keys()].filter((i) => isTold(frame[i] as number, planned[i] as number)),
  );
  const many = always.length;
  const taken = Float64Array.from(
    used,
    (i) => Math.log2(Math.min(1, frame[i] as number) + FLOOR) - (plan[i] as number),
  );
  const deviations = Float64Array.from(used, (i) => Math.sqrt(variance[i] as number));
  /** Columns at the values that are used. */
  const columns = always.map(({ stops }) => Float64Array.from(used, (i) => stops[i] as number));
  const rest = new Float64Array(used.length);
  const weighed = new Float64Array(used.length);
  const equations = (weights: Float64Array): Float64Array[] => {
    const rows = Array.from({ length: many }, () => new Float64Array(many + 1));
    for (let a = 0; a < many; a++) {
      const [own, row] = [columns[a] as Float64Array, rows[a] as Float64Array];
      for (let k = 0; k < weighed.length; k++) weighed[k] = (weights[k] as number) * (own[k] as number);
      for (let b = 0; b <= a; b++) {
        const other = columns[b] as Float64Array;
        let sum = 0;
        for (let k = 0; k < used.length; k++) sum += (weighed[k] as number) * (other[k] as number);
        row[b] = sum / ALIKE;
        (rows[b] as Float64Array)[a] = sum / ALIKE;
      }
      row[a] = (row[a] as number) + 1 / (always[a]?.deviation as number) ** 2;
    }
    return rows;
  };
  const rightSide = (values: Float64Array, weights: Float64Array): Float64Array => {
    for (let k = 0; k < weighed.length; k++) weighed[k] = (weights[k] as number) * (values[k] as number);
    return Float64Array.from(columns, (own) => {
      let sum = 0;
      for (let k = 0; k < weighed.length; k++) sum += (own[k] as number) * (weighed[k] as number);
      return sum / ALIKE;
    });
  };
  const solved = (rows: readonly Float64Array[], right: Float64Array): number[] =>
    solveLinear(
      rows.map((row, a) => {
        const own = Float64Array.from(row);
        own[many] = right[a] as number;
        return own;
      }),
    );
  /** What is left of some values by a solution; the weights that follow from it are written where they are wanted. */
  const left = (values: Float64Array, parts: readonly number[], weights?: Float64Array): number => {
    rest.set(values);
    for (let a = 0; a < many; a++) {
      const [own, part] = [columns[a] as Float64Array, parts[a] as number];
      for (let k = 0; k < rest.length; k++) rest[k] = (rest[k] as number) - part * (own[k] as number);
    }
    let sum = 0;
    for (let k = 0; k < rest.length; k++) {
      const deviation = deviations[k] as number;
      const off = Math.abs(rest[k] as number) / deviation;
      sum += off < HUBER ? off * off : 2 * HUBER * off - HUBER * HUBER;
      if (weights) weights[k] = (off < HUBER ? 1 : HUBER / off) / (deviation * deviation);
    }
    return parts.reduce((all, part, a) => all + (part / (always[a]?.deviation as number)) ** 2, sum / ALIKE);
  };
  const without = (stops: Float64Array | null): Float64Array =>
    stops ? taken.map((value, k) => value - (stops[used[k] as number] as number)) : taken;
  const weights = deviations.map((deviation) => 1 / (deviation * deviation));
  let rows = equations(weights);
  let parts: number[] = [];
  const weigh = () => {
    for (let round = 0; round < WEIGHED; round++) {
      parts = solved(rows, rightSide(taken, weights));
      left(taken, parts, weights);
      rows = equations(weights);
    }
    parts = solved(rows, rightSide(taken, weights));
  };
  weigh();
  return {
    cost(stops) {
      const values = without(stops);
      return left(values, solved(rows, rightSide(values, weights)));
    },
    weighedFor(stops) {
      const values = without(stops);
      const own = new Float64Array(weights);
      left(values, solved(rows, rightSide(values, own)), own);
      const ownRows = equations(own);
      return (of) => {
        const rest = without(of);
        return left(rest, solved(ownRows, rightSide(rest, own)));
      };
    },
    explained(stops) {
      const values = Float64Array.from(used, (i) => stops[i] as number);
      const right = rightSide(values, weights);
      const laid = solved(rows, right).reduce((sum, part, a) => sum + part * (right[a] as number), 0);
      const whole = values.reduce((sum, value, k) => sum + (weights[k] as number) * value * value, 0);
      return whole / ALIKE - laid;
    },
    take(stops) {
      for (let k = 0; k < used.length; k++)
        taken[k] = (taken[k] as number) - (stops[used[k] as number] as number);
      weigh();
    },
    get parts() {
      return parts;
    },
  };
}

/** The frame laid over its plan: shifted, scaled and turned by what the fit says, again until it lies. */
function laidOver(columns: MoveColumns, frame: Float32Array): Float32Array {
  const { width, height, registration } = columns;
  const by = [0, 0, 0, 0];
  let laid = frame;
  for (let round = 0; round < LAID; round++) {
    const { parts } = fitOf(columns, laid);
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
