import type { SetDocument } from '@fendrix/contract';
import { applyChange } from '../solve/setChange.js';
import { evidenceOf } from './evidence.js';
import { judgeSet, type Verdict } from './judgeSet.js';
import type { TracedView } from './tracedView.js';
import { tryCures } from './tryCures.js';
import { excessOf } from './verdict.js';

/** A fault that is known to be in a set: the verdict it calls for, and the thing that makes it. */
export interface KnownFault {
  code: string;
  /** Key of the thing; null where there is none, or more than one would be right. */
  cause: string | null;
}

/** What the judges make of a set with a known fault. */
export interface FaultReport {
  /** Its place in the list, 0 the first; -1 where it is not told. */
  rank: number;
  /** Told first or second, with the right cause. */
  found: boolean;
  /** Whether the first cure that is offered takes it away or halves it, traced anew with more light; null where not asked. */
  cured: boolean | null;
}

/** Told among so many is told at once. */
const FIRST = 2;

export function reportFault(
  set: SetDocument,
  fault: KnownFault,
  { trace, check }: { trace(of: SetDocument): TracedView; check: ((of: SetDocument) => TracedView) | null },
): FaultReport {
  const evidence = evidenceOf(set, trace(set));
  const verdicts = judgeSet(evidence);
  const rank = verdicts.findIndex(({ code }) => code === fault.code);
  const verdict = verdicts[rank];
  const found = rank >= 0 && rank < FIRST && verdict !== undefined && names(verdict, fault.cause);
  if (!check || !verdict) return { rank, found, cured: check ? false : null };
  const [cure] = tryCures(evidence, verdict, trace);
  const after = cure && applyChange(set, cure.change);
  const left = after && judgeSet(evidenceOf(after, check(after))).find(({ id }) => id === verdict.id);
  const cured = Boolean(after) && (left ? excessOf(left.figure) <= excessOf(verdict.figure) / 2 : true);
  return { rank, found, cured };
}

const names = ({ of, causes }: Verdict, key: string | null): boolean =>
  key === null || of?.key === key || causes.some(({ thing }) => thing.key === key);
