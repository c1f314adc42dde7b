import type { SetDocument } from '@fendrix/contract';
import {
  type Evidence,
  evidenceOf,
  judgeSet,
  type SpotTrace,
  THRESHOLDS,
  type TracedView,
  traceKey,
  type Verdict,
  vector,
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

/** A traced spot lies on the surface, so near to where it was pinned, m. */
const AT_ITS_PLACE_M = 6e-3;

/**
 * The view with the spots that the set has now: as they were read for the bench, which is finer, once those are settled; until
 * then those of the view that are where they were. Where a spot stands plays no part in what a view is a view of.
 */
function withSpots(
  view: TracedView,
  settled: readonly SpotTrace[] | null,
  { spots }: SetDocument,
): TracedView {
  const isHere = ({ name, pointM }: SpotTrace) =>
    spots.some((own) => own.name === name && vector.distance(own.pointM, pointM) < AT_ITS_PLACE_M);
  return { ...view, spots: (settled ?? view.spots).filter(isHere) };
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
  const spots = read?.settled ? read.traces : null;
  const [judged, setJudged] = useState<Judged | null>(null);
  useEffect(() => {
    if (!traced) return;
    const timer = setTimeout(() => {
      if (traced.key !== traceKey(set)) return;
      const evidence = evidenceOf(set, withSpots(traced.view, spots, set), THRESHOLDS);
      setJudged({ verdicts: judgeSet(evidence), evidence });
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [set, traced, spots]);
  return <JudgedContext.Provider value={judged}>{children}</JudgedContext.Provider>;
}

/** What is still open: neither wanted so nor left for retouching. */
export const openVerdicts = (judged: Judged | null): readonly Verdict[] =>
  judged?.verdicts.filter(({ settled }) => settled === null) ?? [];
