import {
  applyChange,
  offered,
  type SetChange,
  type TriedCure,
  takesOtherPaths,
  type Verdict,
} from '@fendrix/core';
import { useEffect, useState } from 'react';
import { VIEW_SAMPLES } from '../figures/liveFigures';
import { useSession } from '../picture/useSession';
import { useAnswer } from '../state/useAnswer';
import { useJudged } from './verdictsContext';

/**
 * The cures of a verdict, tried one by one as soon as it is looked at: each is a question of its own, so that all cores work
 * and what nobody waits for any more ends soon. Those that work are there as they are found, and keep their places.
 */
export function useCures(verdict: Verdict) {
  const session = useSession();
  const judged = useJudged();
  const { answer, busy, ask, drop } = useAnswer<readonly TriedCure[]>();
  const [done, setDone] = useState(0);
  const [soFar, setSoFar] = useState<readonly TriedCure[]>([]);
  useEffect(() => {
    // Cures are judged by light: they wait for it.
    if (!session || !judged || judged.byMaps) return;
    const { evidence, verdicts: before } = judged;
    const { view } = evidence;
    const by = { limits: evidence.limits, kit: evidence.kit };
    void ask(async (set, signal) => {
      // Of a set that has moved on its own view comes soon, and asks again.
      if (takesOtherPaths(evidence.set, set)) return null;
      setDone(0);
      setSoFar([]);
      const inOrder: TriedCure[] = [];
      const usual = (await session.ask({ kind: 'cures', verdict, view, by }, set, signal)) ?? [];
      const stoodBefore = (await session.ask({ kind: 'overlaps' }, set, signal)) ?? [];
      let tried = 0;
      const attempt = async (change: SetChange): Promise<void> => {
        const after = applyChange(evidence.set, change);
        if (!after) return;
        const known = takesOtherPaths(evidence.set, after) ? null : view;
        const samples = VIEW_SAMPLES;
        const found = await session.ask(
          { kind: 'tryCure', before, verdict, change, view: known, samples, stoodBefore, by },
          { ...after, takes: [] },
          signal,
        );
        if (signal.aborted) return;
        tried++;
        setDone(tried / usual.length);
        if (!found) return;
        inOrder.push(found);
        setSoFar([...inOrder]);
      };
      await Promise.all(usual.map(attempt));
      const best = new Set(offered(inOrder));
      return inOrder.filter((cure) => best.has(cure));
    });
    return drop;
    // Once for each verdict that is looked at, and again when the set has been judged anew.
  }, [verdict.id, judged, session]);
  return { answer, soFar, busy, done, drop };
}
