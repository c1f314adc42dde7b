import type { LearnedPrice } from '@fendrix/contract';
import { solveLinear } from '../../units/solveLinear.js';
import { type ChangeStep, USUAL_PRICES } from './changePrices.js';

/** What was built on one set, and the minutes it took. */
export interface BuiltSet {
  steps: readonly ChangeStep[];
  minutes: number;
}

/** How well a step's usual minutes are known to hold for a studio, part of them, one deviation; never less than this. */
const PRIOR_PART = 0.7;
const PRIOR_LEAST_MIN = 0.5;
/** What one building scatters by beside its steps: a call, a dropped clamp, a look at the picture. Minutes, and part of the whole. */
const SCATTER_MIN = 3;
const SCATTER_PART = 0.15;
/** A building that takes longer than this times what was usual was interrupted, a shorter one ticked afterwards: neither tells of steps. */
const INTERRUPTED = 4;
const TICKED = 0.2;

/**
 * What each step of a set change takes here, from buildings that were timed: least squares of the minutes on the counts of steps, held
 * to the usual minutes as far as the buildings say nothing else (Gaussian prior and scatter; Tarantola 2005, section 3.2). Limits:
 * steps that always come together are not told apart, and stay near their usual share; no price goes below a tenth of its usual one.
 * @returns the steps that were done, those done most often first; one deviation each
 */
export function learnPrices(built: readonly BuiltSet[]): LearnedPrice[] {
  const names = Object.keys(USUAL_PRICES) as ChangeStep[];
  const usable = built.filter(({ steps, minutes }) => {
    const usual = steps.reduce((sum, step) => sum + USUAL_PRICES[step], 0);
    return (
      steps.length > 0 && minutes > TICKED * usual && minutes <= INTERRUPTED * Math.max(usual, SCATTER_MIN)
    );
  });
  const done = names.map((step) => ({ step, times: countOf(usable, step) })).filter(({ times }) => times > 0);
  if (done.length === 0) return [];
  const counts = usable.map(({ steps }) =>
    done.map(({ step }) => steps.filter((own) => own === step).length),
  );
  const usual = done.map(({ step }) => USUAL_PRICES[step]);
  const priorWeights = usual.map((price) => 1 / Math.max(PRIOR_LEAST_MIN, PRIOR_PART * price) ** 2);
  const weights = usable.map(({ minutes }) => 1 / Math.hypot(SCATTER_MIN, SCATTER_PART * minutes) ** 2);
  /** The inverse of the covariance of the prices. */
  const information = done.map((_, i) =>
    done.map((_other, j) =>
      counts.reduce(
        (sum, row, k) => sum + (weights[k] as number) * (row[i] as number) * (row[j] as number),
        i === j ? (priorWeights[i] as number) : 0,
      ),
    ),
  );
  const right = done.map((_, i) =>
    counts.reduce(
      (sum, row, k) => sum + (weights[k] as number) * (row[i] as number) * (usable[k] as BuiltSet).minutes,
      (priorWeights[i] as number) * (usual[i] as number),
    ),
  );
  const solved = solveLinear(information.map((row, i) => Float64Array.from([...row, right[i] as number])));
  return done
    .map(({ step, times }, i) => {
      const unit = solveLinear(information.map((row, j) => Float64Array.from([...row, j === i ? 1 : 0])));
      return {
        step,
        times,
        usual: usual[i] as number,
        learned: Math.max(0.1 * (usual[i] as number), solved[i] as number),
        error: Math.sqrt(unit[i] as number),
      };
    })
    .sort((a, b) => b.times - a.times);
}

const countOf = (built: readonly BuiltSet[], step: ChangeStep): number =>
  built.reduce((sum, { steps }) => sum + steps.filter((own) => own === step).length, 0);
