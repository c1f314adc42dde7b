import type { SetDocument } from '@fendrix/contract';
import { type JudgedBy, traceKey, type Verdict } from '@fendrix/core';
import { useEffect, useState } from 'react';
import { smallPool } from './smallRender';

/** Paths a place in each batch: a count is asked for, not the last figure. */
const SAMPLES = 1;
/** After all pictures that are wanted, or before them where it is what one waits for. */
const PRIORITY = { later: -1000, now: 1000 };

/** What was judged; `failed` of a set that cannot be. */
export type VerdictsOf = readonly Verdict[] | 'failed';

interface Known {
  by: JudgedBy;
  verdicts: VerdictsOf;
}

/** Sets are never changed in place, so that what was judged of one stays true. */
const known = new WeakMap<SetDocument, Known>();

/**
 * The verdicts on a set that is not on the bench, judged now or when the workers have nothing better to do; null until then.
 */
export function useVerdictsOf(
  set: SetDocument | null,
  by: JudgedBy,
  wanted: keyof typeof PRIORITY = 'later',
): VerdictsOf | null {
  const [, setJudged] = useState<SetDocument | null>(null);
  useEffect(() => {
    if (!set || known.get(set)?.by === by) return;
    const stop = new AbortController();
    const options = { priority: PRIORITY[wanted], signal: stop.signal };
    smallPool()
      .run({ key: traceKey(set), set }, { kind: 'judge', samples: SAMPLES, by }, options)
      .catch((): VerdictsOf => 'failed')
      .then((verdicts) => {
        if (stop.signal.aborted) return;
        known.set(set, { by, verdicts });
        setJudged(set);
      });
    return () => stop.abort();
  }, [set, by, wanted]);
  const own = set ? known.get(set) : undefined;
  return own?.by === by ? own.verdicts : null;
}

/** What is sure and still open of them. */
export const openOf = (verdicts: readonly Verdict[]): readonly Verdict[] =>
  verdicts.filter(({ settled, sure }) => settled === null && sure);
