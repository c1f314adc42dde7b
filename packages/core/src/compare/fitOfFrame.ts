import { solveLinear } from '../units/solveLinear.js';
import { ALIKE, FLOOR, isTold, type MoveColumns } from './moveColumns.js';
import { productOf, productsWith, takenOff, type WeighedColumns, weigh } from './weighedColumns.js';

/** A value that is off by so many deviations counts as far as its square root (Huber 1964). */
const HUBER = 2;
/** How often weights follow from what is left. */
const WEIGHED = 3;

/** What of a change of the picture cannot be laid on anything else, stops, and how much of each column the rest of it is. Linear in the change. */
export interface Unlaid {
  rest: Float64Array;
  parts: readonly number[];
}

/** Several times a change. */
export interface Times {
  of: Unlaid;
  times: number;
}

/** A frame against all that may change it. */
export interface FrameFit {
  /** What is left of the frame when something is taken off it, a robust sum of squares; null for nothing. */
  cost(stops: Float64Array | null): number;
  /** The same of a sum of changes, each of which is laid on the columns once, however many sums it is in. */
  costOfSum(changes: readonly Times[]): number;
  unlaid(stops: Float64Array): Unlaid;
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
  const columns: WeighedColumns = {
    ...always,
    weights: Float64Array.from(always.weights),
    products: Float64Array.from(always.products),
  };
  const { weights, deviations: likely } = columns;
  const taken = new Float64Array(plan.length);
  /** Without end where a value tells nothing. */
  const deviations = new Float64Array(plan.length).fill(Number.POSITIVE_INFINITY);
  let used = 0;
  for (let k = 0; k < plan.length; k++) {
    const value = frame[k] as number;
    if (isTold(value, planned[k] as number)) {
      used++;
      taken[k] = Math.log2(Math.min(1, value) + FLOOR) - (plan[k] as number) - (off?.[k] ?? 0);
      deviations[k] = Math.sqrt(variance[k] as number);
      weigh(columns, k, known?.[k] || 1 / (variance[k] as number));
    } else weigh(columns, k, 0);
  }
  const rest = new Float64Array(plan.length);
  const partsOf = (values: Float64Array): number[] => {
    const right = productsWith(columns, values);
    return solveLinear(
      Array.from(right, (sum, a) => {
        const row = new Float64Array(columns.count + 1);
        for (let b = 0; b < columns.count; b++) row[b] = productOf(columns, a, b) / ALIKE;
        row[a] = (row[a] as number) + 1 / (likely[a] as number) ** 2;
        row[columns.count] = sum / ALIKE;
        return row;
      }),
    );
  };
  const reweigh = (): void => {
    takenOff(columns, taken, partsOf(taken), rest);
    for (let k = 0; k < rest.length; k++) {
      const deviation = deviations[k] as number;
      const off = Math.abs(rest[k] as number) / deviation;
      weigh(columns, k, (off < HUBER ? 1 : HUBER / off) / (deviation * deviation));
    }
  };
  for (let round = 0; round < (known ? 0 : WEIGHED); round++) reweigh();
  const unlaid = (values: Float64Array): Unlaid => {
    const parts = partsOf(values);
    const own = new Float64Array(plan.length);
    takenOff(columns, values, parts, own);
    return { rest: own, parts };
  };
  const frameLeft = unlaid(taken);
  const costOf = ({ rest: own, parts }: Unlaid): number => {
    let sum = 0;
    for (let k = 0; k < own.length; k++) {
      const off = Math.abs(own[k] as number) / (deviations[k] as number);
      sum += off < HUBER ? off * off : 2 * HUBER * off - HUBER * HUBER;
    }
    return parts.reduce((all, part, a) => all + (part / (likely[a] as number)) ** 2, sum / ALIKE);
  };
  const costOfSum = (changes: readonly Times[]): number => {
    rest.set(frameLeft.rest);
    const parts = [...frameLeft.parts];
    for (const { of, times } of changes) {
      for (let k = 0; k < rest.length; k++) rest[k] = (rest[k] as number) - times * (of.rest[k] as number);
      of.parts.forEach((part, a) => {
        parts[a] = (parts[a] as number) - times * part;
      });
    }
    return costOf({ rest, parts });
  };
  return {
    cost: (stops) => costOfSum(stops ? [{ of: unlaid(stops), times: 1 }] : []),
    costOfSum,
    unlaid,
    explained(values) {
      const { rest: own } = unlaid(values);
      return (
        values.reduce((sum, value, k) => sum + (weights[k] as number) * value * (own[k] as number), 0) / ALIKE
      );
    },
    parts: frameLeft.parts,
    weights,
    expected: used / ALIKE,
  };
}
