import type { SettledVerdict } from '@fendrix/contract';
import type { Evidence } from './evidence.js';
import { JUDGES } from './registry.js';
import type { VerdictCode } from './thresholds.js';
import { excessOf, type Finding } from './verdict.js';

/** A finding with its weight, and whether it is sure and still open. */
export interface Verdict extends Finding {
  code: VerdictCode;
  /** The same fault of the same thing has the same id, before and after a change. */
  id: string;
  danger: boolean;
  /** How grave it is: 0 is nothing, 1 spoils the picture, more can hurt someone. */
  harm: number;
  /** Whether it lies beyond its limit by more than twice its uncertainty; otherwise more light is needed to tell. */
  sure: boolean;
  minutes: { now: number; retouching: number | null };
  /** What the photographer said of it. */
  settled: SettledVerdict | null;
}

/** Whether a verdict is surely so, and not settled by the photographer. */
export const isOpen = ({ settled, sure }: Pick<Verdict, 'settled' | 'sure'>): boolean =>
  settled === null && sure;

/** Beyond its limit by this many standard errors a figure is taken for sure: 95 % of the time it is. */
const SURE_ERRORS = 1.96;

/** All that is wrong with a set, the gravest first; dangers before all else. Pure, and no rays. */
export const judgeSet = (evidence: Evidence): Verdict[] =>
  ranked(VERDICT_CODES.flatMap((code) => judgeOne(evidence, code)));

/** All kinds of verdict, for judging them one after the other. */
export const VERDICT_CODES = Object.keys(JUDGES) as VerdictCode[];

/** Those that need no light: they are known as soon as it is known what is seen and mirrored. */
export const BY_MAPS: ReadonlySet<VerdictCode> = new Set(VERDICT_CODES.filter((code) => JUDGES[code].byMaps));

/** The gravest first; dangers before all else. */
export const ranked = (verdicts: readonly Verdict[]): Verdict[] =>
  [...verdicts].sort((a, b) => Number(b.danger) - Number(a.danger) || b.harm - a.harm);

/** The verdicts of one kind. */
export function judgeOne(evidence: Evidence, code: VerdictCode): Verdict[] {
  const judge = JUDGES[code];
  const { span, harm, minutes } = evidence.limits[code];
  return judge.judge(evidence).map((finding): Verdict => {
    const excess = excessOf(finding.figure);
    const id = [code, finding.of && `${finding.of.kind} ${finding.of.key}`].filter(Boolean).join(' | ');
    return {
      ...finding,
      code,
      id,
      danger: judge.danger === true,
      harm: harm * (1 + Math.min(1, excess / span)),
      sure: excess >= SURE_ERRORS * finding.figure.error,
      minutes,
      settled: evidence.set.settled.find(({ verdict }) => verdict === id) ?? null,
    };
  });
}
