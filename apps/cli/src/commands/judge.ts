import type { SetDocument } from '@fendrix/contract';
import { applyChange, evidenceOf, judgeSet, prepareTracing, traceView, tryCures } from '@fendrix/core';
import { sideEffectWords, verdictFigures, verdictReason, verdictTitle, workingWords } from '@fendrix/words';
import { InputError, readSet, readWords, wholeNumber } from '../input.js';

/** All verdicts on a set, or the set with the best cure of one of them. */
export async function judge(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    { samples: { type: 'string' }, cure: { type: 'string' }, cures: { type: 'boolean' } },
    1,
  );
  const samples = wholeNumber('samples', values.samples, 16, 4096);
  const set = await readSet(positionals[0] ?? '');
  const trace = (of: SetDocument) => traceView(prepareTracing(of), of, { samples });
  const evidence = evidenceOf(set, trace(set));
  const verdicts = judgeSet(evidence);
  const curesOf = (verdict: (typeof verdicts)[number]) => tryCures(evidence, verdict, trace);
  if (values.cure !== undefined) {
    const verdict = verdicts.find(({ id }) => id === values.cure);
    const known = verdicts.map(({ id }) => `"${id}"`).join(', ') || 'none';
    if (!verdict) throw new InputError(`there is no verdict "${values.cure}" on this set; there is ${known}`);
    const [best] = curesOf(verdict);
    const cured = best && applyChange(set, best.change);
    if (!cured) throw new InputError(`no cure that was tried takes "${verdict.id}" away`);
    return cured;
  }
  return {
    set: set.name,
    wishes: set.wishes,
    verdicts: verdicts.map((verdict) => {
      const { id, code, of, figure, causes, harm, danger, sure, minutes, settled } = verdict;
      return {
        id,
        code,
        title: verdictTitle(verdict),
        figures: verdictFigures(verdict),
        reason: verdictReason(code),
        of,
        figure,
        working: workingWords(verdict),
        causes,
        harm,
        danger,
        sure,
        minutes,
        settled,
        ...(values.cures
          ? {
              cures: curesOf(verdict).map((cure) => ({
                ...cure,
                sideEffects: cure.sideEffects.map(sideEffectWords),
              })),
            }
          : {}),
      };
    }),
  };
}
