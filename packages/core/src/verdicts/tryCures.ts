import type { SetDocument } from '@fendrix/contract';
import { type Overlap, overlapName, overlaps } from '../judge/overlaps.js';
import { traceKey } from '../render/traceKey.js';
import { applyChange, changeBetween, type SetChange } from '../solve/setChange.js';
import { type Evidence, evidenceOf, type JudgedBy } from './evidence.js';
import { judgeSet, type Verdict } from './judgeSet.js';
import { JUDGES } from './registry.js';
import type { TracedView } from './tracedView.js';
import { excessOf } from './verdict.js';

/** What a cure does to another verdict. */
export interface SideEffect {
  verdict: Pick<Verdict, 'id' | 'code' | 'of' | 'figure'>;
  /** Whether it is there only before, only after, or both times: then its figure is that after. */
  when: 'before' | 'after' | 'both';
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
  /** Harm of all verdicts afterwards less harm before: above 0 the picture is worse as a whole. */
  onBalance: number;
  /** What then stands in or through something else, and did not before. */
  clashes: Overlap[];
}

/** Other verdicts that change by less than this are as they were, harm. */
const TOLD_HARM = 0.05;
/** So many are offered. */
const MOST_OFFERED = 4;
/** A thing that then goes through another counts like this much harm. */
const CLASH_HARM = 1;
/** A verdict that is halved only counts like this much harm elsewhere. */
const HALVED_HARM = 0.3;

/** The usual cures of a verdict on this set, each once and untried. */
export function usualCures(evidence: Evidence, verdict: Verdict): SetChange[] {
  const changes = JUDGES[verdict.code]
    .cures(evidence, verdict)
    .map((set) => changeBetween(evidence.set, set))
    .filter((change) => change.length > 0);
  const names = changes.map((change) => JSON.stringify(change));
  return changes.filter((_, at) => names.indexOf(names[at] as string) === at);
}

/** Whether a change makes light take other paths, so that its view has to be traced. */
export const takesOtherPaths = (before: SetDocument, after: SetDocument): boolean =>
  traceKey(before) !== traceKey(after);

/**
 * Judges a changed set.
 * @param before the verdicts on the set as it is  @param view of the changed set  @param clashes see `clashesOf`
 * @returns null where the verdict is neither gone nor halved
 */
export function triedCure(
  by: JudgedBy,
  before: readonly Verdict[],
  verdict: Verdict,
  change: SetChange,
  after: SetDocument,
  view: TracedView,
  clashes: Overlap[] = [],
): TriedCure | null {
  const then = judgeSet(evidenceOf(after, view, by));
  const left = then.find(({ id }) => id === verdict.id)?.figure ?? null;
  if (left && excessOf(left) > excessOf(verdict.figure) / 2) return null;
  const onBalance = harmOf(then) - harmOf(before);
  return { change, left, sideEffects: sideEffects(before, then, verdict.id), onBalance, clashes };
}

const harmOf = (verdicts: readonly Verdict[]): number => verdicts.reduce((sum, { harm }) => sum + harm, 0);

/** Overlaps of a changed set that it did not have before. */
export function clashesOf(before: readonly Overlap[], after: readonly Overlap[]): Overlap[] {
  const names = new Set(before.map(overlapName));
  return after.filter((overlap) => !names.has(overlapName(overlap)));
}

/** Cures that work as they are offered: few, those that make least trouble elsewhere first. */
export function offered(tried: readonly TriedCure[]): TriedCure[] {
  const trouble = ({ left, onBalance, clashes }: TriedCure) =>
    (left ? HALVED_HARM : 0) + CLASH_HARM * clashes.length + onBalance;
  return [...tried].sort((a, b) => trouble(a) - trouble(b)).slice(0, MOST_OFFERED);
}

/**
 * Cures of a verdict, each applied, judged again, and kept only if it takes the verdict away or halves it.
 * @param trace traces the view of a changed set; not asked for changes of power, switches and settings
 */
export function tryCures(
  evidence: Evidence,
  verdict: Verdict,
  trace: (set: SetDocument) => TracedView,
): TriedCure[] {
  const before = judgeSet(evidence);
  const stoodBefore = overlaps(evidence.set);
  return offered(
    usualCures(evidence, verdict).flatMap((change) => {
      const after = applyChange(evidence.set, change);
      if (!after) return [];
      if (!takesOtherPaths(evidence.set, after))
        return triedCure(evidence, before, verdict, change, after, evidence.view) ?? [];
      const clashes = clashesOf(stoodBefore, overlaps(after));
      return triedCure(evidence, before, verdict, change, after, trace(after), clashes) ?? [];
    }),
  );
}

function sideEffects(before: readonly Verdict[], after: readonly Verdict[], but: string): SideEffect[] {
  const ids = new Set([...before, ...after].map(({ id }) => id));
  return [...ids]
    .flatMap((id): SideEffect[] => {
      if (id === but) return [];
      const [one, other] = [before, after].map((list) => list.find((verdict) => verdict.id === id));
      const harm = (other?.harm ?? 0) - (one?.harm ?? 0);
      const verdict = other ?? one;
      const when = one && other ? 'both' : other ? 'after' : 'before';
      return verdict && Math.abs(harm) >= TOLD_HARM ? [{ verdict, when, harm }] : [];
    })
    .sort((a, b) => b.harm - a.harm);
}
