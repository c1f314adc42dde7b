import {
  type Evidence,
  evidenceOf,
  judgeSet,
  type SpotTrace,
  THRESHOLDS,
  type TracedView,
  traceKey,
  type Verdict,
} from '@fendrix/core';
import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';
import { useFigure } from '../figures/figureStore';
import { useSet } from '../state/hooks';

export interface Judged {
  verdicts: readonly Verdict[];
  /** What was judged. */
  evidence: Evidence;
}

const JudgedContext = createContext<Judged | null>(null);

/** What is wrong with the set as it was judged last; null before it was judged at all. */
export const useJudged = (): Judged | null => useContext(JudgedContext);

const NO_TRACES: readonly SpotTrace[] = [];

/** The view with its spots as they were read for the bench, where they have been: those are traced finer. */
function withSpots(view: TracedView, finer: readonly SpotTrace[]): TracedView {
  const better = (spot: SpotTrace) =>
    finer.find((own) => own.name === spot.name && own.illuminance.length === spot.illuminance.length) ?? spot;
  return { ...view, spots: view.spots.map(better) };
}

/** A set that rests so long is judged, ms. */
const REST_MS = 120;

/**
 * Judges the set when it rests: with powers, switches, settings and wishes of now at once, and after a move as soon as its
 * view has been traced. Until then what was judged before stays.
 */
export function VerdictsProvider({ children }: { children: ReactNode }) {
  const set = useSet();
  const traced = useFigure('view');
  const read = useFigure('spots');
  // Those that are not settled may be of the set before its newest move.
  const spots = read?.settled ? read.traces : NO_TRACES;
  const [judged, setJudged] = useState<Judged | null>(null);
  useEffect(() => {
    if (!traced) return;
    const timer = setTimeout(() => {
      if (traced.key !== traceKey(set)) return;
      const evidence = evidenceOf(set, withSpots(traced.view, spots), THRESHOLDS);
      setJudged({ verdicts: judgeSet(evidence), evidence });
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [set, traced, spots]);
  return <JudgedContext.Provider value={judged}>{children}</JudgedContext.Provider>;
}

/** What is still open: neither wanted so nor left for retouching. */
export const openVerdicts = (judged: Judged | null): readonly Verdict[] =>
  judged?.verdicts.filter(({ settled }) => settled === null) ?? [];
