import { solveLinear } from '../units/solveLinear.js';
import { FLOOR, isTold, type MoveColumns } from './moveColumns.js';

/** So many values beside each other are off together, and count as one. */
const ALIKE = 20;
/** A value that is off by so many deviations counts as far as its square root (Huber 1964). */
const HUBER = 2;
/** How often weights follow from what is left. */
const WEIGHED = 3;

/** A frame against all that may change it. */
export interface FrameFit {
  /** What is left of the frame when something is taken off it, a robust sum of squares; null for nothing. */
  cost(stops: Float64Array | null): number;
  /** How much of a change cannot be laid on anything else, as a sum of squares. */
  explained(stops: Float64Array): number;
  /** How much of each column there is. */
  parts: readonly number[];
  /** How each value of the window weighs; 0 where it is not used. */
  weights: Float64Array;
  /** What the cost would be of a frame in which each value were off by its deviation. */
  expected: number;
}

/** What is known of a fit before it begins. */
export interface FitStart {
  /** Taken off the frame, stops. */
  taken?: Float64Array | null;
  /** Of a fit of a frame that lies a little else: they are not sought again. */
  weights?: Float64Array;
}

/**
 * A frame as a sum of all that may change it, each column as likely as it is: weighted least squares with Huber's weights.
 * @param frame linear, on the cells of the window, NaN where it is clipped
 */
export function fitOfFrame(
  { always, plan, planned, variance }: MoveColumns,
  frame: Float32Array,
  { taken: off = null, weights: known }: FitStart = {},
): FrameFit {
  const used = Int32Array.from(
    [...plan.keys()].filter((i) => isTold(frame[i] as number, planned[i] as number)),
  );
  const many = always.length;
  const taken = Float64Array.from(
    used,
    (i) => Math.log2(Math.min(1, frame[i] as number) + FLOOR) - (plan[i] as number) - (off?.[i] ?? 0),
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
  const weights = deviations.map((deviation, k) => known?.[used[k] as number] || 1 / (deviation * deviation));
  let rows = equations(weights);
  for (let round = 0; round < (known ? 0 : WEIGHED); round++) {
    left(taken, solved(rows, rightSide(taken, weights)), weights);
    rows = equations(weights);
  }
  return {
    cost(stops) {
      const values = without(stops);
      return left(values, solved(rows, rightSide(values, weights)));
    },
    explained(stops) {
      const values = Float64Array.from(used, (i) => stops[i] as number);
      const right = rightSide(values, weights);
      const laid = solved(rows, right).reduce((sum, part, a) => sum + part * (right[a] as number), 0);
      const whole = values.reduce((sum, value, k) => sum + (weights[k] as number) * value * value, 0);
      return whole / ALIKE - laid;
    },
    parts: solved(rows, rightSide(taken, weights)),
    weights: spread(weights, used, plan.length),
    expected: used.length / ALIKE,
  };
}

/** Values at some places of many. */
function spread(values: Float64Array, places: Int32Array, length: number): Float64Array {
  const out = new Float64Array(length);
  places.forEach((place, k) => {
    out[place] = values[k] as number;
  });
  return out;
}
