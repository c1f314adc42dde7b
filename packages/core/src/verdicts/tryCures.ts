import type { SetDocument } from '@fendrix/contract';
import { traceKey } from '../render/traceKey.js';
import { changeBetween, type SetChange } from '../solve/setChange.js';
import { type Evidence, evidenceOf } from './evidence.js';
import { judgeSet, type Verdict } from './judgeSet.js';
import { JUDGES } from './registry.js';
import type { TracedView } from './tracedView.js';
import { excessOf } from './verdict.js';

/** What a cure does to another verdict. */
export interface SideEffect {
  verdict: Pick<Verdict, 'id' | 'code' | 'of' | 'figure'>;
  /** Harm afterwards less harm before: above 0 is worse. */
  harm: number;
}

/** A change that was tried out and takes a verdict away, or at least halves it. */
export interface TriedCure {
  change: SetChange;
  /** The verdict's figure afterwards; null where it is gone. */
  left: Verdict['figure'] | null;
  /** What becomes better or worse elsewhere, the worst first. */
  sideEffects: SideEffect[];
}

/** Other verdicts that change by less than this are as they were, harm. */
const TOLD_HARM = 0.05;
/** So many are offered. */
const MOST_OFFERED = 4;

/**
 * Cures of a verdict, each applied, judged again, and kept only if it takes the verdict away or halves it; those that make
 * least trouble elsewhere first. Changes of power, switches and settings cost no rays.
 * @param trace traces the view of a changed set
 */
export function tryCures(
  evidence: Evidence,
  verdict: Verdict,
  trace: (set: SetDocument) => TracedView,
): TriedCure[] {
  const before = judgeSet(evidence);
  const key = traceKey(evidence.set);
  const seen = new Set<string>();
  const tried = JUDGES[verdict.code].cures(evidence, verdict).flatMap((set): TriedCure[] => {
    const change = changeBetween(evidence.set, set);
    const name = JSON.stringify(change);
    if (change.length === 0 || seen.has(name)) return [];
    seen.add(name);
    const view = traceKey(set) === key ? evidence.view : trace(set);
    const after = judgeSet(evidenceOf(set, view, evidence.limits));
    const left = after.find(({ id }) => id === verdict.id)?.figure ?? null;
    if (left && excessOf(left) > excessOf(verdict.figure) / 2) return [];
    return [{ change, left, sideEffects: sideEffects(before, after, verdict.id) }];
  });
  const trouble = ({ left, sideEffects: all }: TriedCure) =>
    (left ? 0.3 : 0) + all.reduce((sum, { harm }) => sum + harm, 0);
  return tried.sort((a, b) => trouble(a) - trouble(b)).slice(0, MOST_OFFERED);
}

function sideEffects(before: readonly Verdict[], after: readonly Verdict[], but: string): SideEffect[] {
  const ids = new Set([...before, ...after].map(({ id }) => id));
  return [...ids]
    .flatMap((id): SideEffect[] => {
      if (id === but) return [];
      const [one, other] = [before, after].map((list) => list.find((verdict) => verdict.id === id));
      const harm = (other?.harm ?? 0) - (one?.harm ?? 0);
      const verdict = other ?? one;
      return verdict && Math.abs(harm) >= TOLD_HARM ? [{ verdict, harm }] : [];
    })
    .sort((a, b) => b.harm - a.harm);
}
