import type { SetDocument } from '@fendrix/contract';
import {
  BY_MAPS,
  type Evidence,
  evidenceOf,
  judgeOne,
  ranked,
  type SpotTrace,
  type TracedView,
  traceKey,
  VERDICT_CODES,
  type Verdict,
  type VerdictCode,
  vector,
} from '@fendrix/core';
import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';
import { useJudgedBy } from '../../kit';
import { useFigure } from '../figures/figureStore';
import { WHOLE_VIEW_SAMPLES } from '../figures/liveFigures';
import { useSession } from '../picture/useSession';
import { useSet } from '../state/hooks';

export interface Judged {
  verdicts: readonly Verdict[];
  /** What was judged. */
  evidence: Evidence;
  /** Whether only what needs no light has been judged anew: the rest is as it was before the set moved. */
  byMaps: boolean;
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

interface View {
  key: string;
  view: TracedView;
}

/** The set's view by the whole light, traced once its first one is there; null until then, and of no set but this one. */
function useWholeView(first: View | undefined): View | null {
  const set = useSet();
  const session = useSession();
  const [whole, setWhole] = useState<View | null>(null);
  const key = first?.key;
  useEffect(() => {
    if (!session || key === undefined || key !== traceKey(set)) return;
    const stop = new AbortController();
    session
      .ask({ kind: 'view', samples: WHOLE_VIEW_SAMPLES }, { ...set, takes: [] }, stop.signal)
      .then((found) => {
        if (found && !stop.signal.aborted) setWhole(found);
      })
      .catch(() => undefined);
    return () => stop.abort(new Error('the set has moved'));
    // Powers and settings do not change what is traced.
  }, [session, key]);
  return whole && whole.key === key ? whole : null;
}

/** A set that rests so long is judged, ms. */
const REST_MS = 120;
/** So long the page is kept from its work at once, ms. */
const TURN_MS = 12;

/** Judges one kind after the other and lets the page have its turn between; null where it was stopped. */
async function judgedInTurns(
  evidence: Evidence,
  codes: readonly VerdictCode[],
  signal: AbortSignal,
): Promise<Verdict[] | null> {
  const verdicts: Verdict[] = [];
  let since = performance.now();
  for (const code of codes) {
    verdicts.push(...judgeOne(evidence, code));
    if (performance.now() - since < TURN_MS) continue;
    await new Promise((turn) => setTimeout(turn));
    if (signal.aborted) return null;
    since = performance.now();
  }
  return verdicts;
}

/** Those that need no light. */
const MAP_CODES = VERDICT_CODES.filter((code) => BY_MAPS.has(code));

/**
 * Judges the set when it rests: with powers, switches, settings and wishes of now at once. After a move what is seen and mirrored
 * is judged first, then all by the first view that has been traced, and again by the whole light; what needs light and has not
 * been traced yet stays as it was judged before.
 */
export function VerdictsProvider({ children }: { children: ReactNode }) {
  const set = useSet();
  const first = useFigure('view');
  const whole = useWholeView(first ?? undefined);
  const maps = useFigure('maps');
  const read = useFigure('spots');
  const by = useJudgedBy();
  // Those that are not settled may be of the set before its newest move.
  const spots = read?.settled ? read.traces : null;
  const [judged, setJudged] = useState<Judged | null>(null);
  useEffect(() => {
    const key = traceKey(set);
    const traced = [whole, first].find((view) => view?.key === key);
    const seen = traced ?? (maps?.key === key ? maps : undefined);
    if (!seen) return;
    const stop = new AbortController();
    const timer = setTimeout(
      async () => {
        const evidence = evidenceOf(set, withSpots(seen.view, spots, set), by);
        const found = await judgedInTurns(evidence, traced ? VERDICT_CODES : MAP_CODES, stop.signal);
        if (!found || stop.signal.aborted) return;
        setJudged((before) => {
          // Of a set that was never judged by light nobody can say that nothing is wrong.
          if (!traced && !before) return null;
          const kept = traced ? [] : (before?.verdicts.filter(({ code }) => !BY_MAPS.has(code)) ?? []);
          return { verdicts: ranked([...found, ...kept]), evidence, byMaps: !traced };
        });
      },
      traced ? REST_MS : 0,
    );
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [set, first, whole, maps, spots, by]);
  return <JudgedContext.Provider value={judged}>{children}</JudgedContext.Provider>;
}

/** What is still open: neither wanted so nor left for retouching. */
export const openVerdicts = (judged: Judged | null): readonly Verdict[] =>
  judged?.verdicts.filter(({ settled }) => settled === null) ?? [];
