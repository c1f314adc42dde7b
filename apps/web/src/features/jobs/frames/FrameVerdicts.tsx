import type { FrameAgainstPlan } from '@fendrix/contract';
import type { VerdictCode } from '@fendrix/core';
import { type Told, verdictFigures, verdictReason, verdictTitle } from '@fendrix/words';
import Box from '@mui/material/Box';
import { Note } from './Note';

type FrameVerdict = FrameAgainstPlan['verdicts'][number];

/** Where a verdict is found: on the frame, on the plan, or on both. */
const ON: Readonly<Record<FrameVerdict['on'], string>> = {
  frame: 'not in the plan',
  both: 'in the plan too',
  plan: 'in the plan, not in the frame',
};

/** The server tells kinds, things and units by their names. */
const toldOf = ({ kind, of, figure }: FrameVerdict): Told => ({
  code: kind as VerdictCode,
  of: of as Told['of'],
  figure: figure as Told['figure'],
});

/** What building made of it comes first. */
const ORDER: readonly FrameVerdict['on'][] = ['frame', 'both', 'plan'];

/** What is wrong with a frame by its own tones, beside what is wrong with its plan. */
export function FrameVerdicts({ found: { verdicts } }: { found: FrameAgainstPlan }) {
  const onFrame = verdicts.filter(({ on }) => on !== 'plan');
  return (
    <Box component="section" aria-label="Verdicts on the frame" sx={{ my: 1 }}>
      <Box sx={{ fontWeight: 650 }}>
        {onFrame.length === 0
          ? 'Nothing is wrong with this frame.'
          : `${onFrame.length} ${onFrame.length === 1 ? 'verdict' : 'verdicts'} on this frame`}
      </Box>
      <Box component="ul" sx={{ my: 0.5, pl: 2.5, '& li': { mb: 0.5 } }}>
        {[...verdicts]
          .sort((a, b) => ORDER.indexOf(a.on) - ORDER.indexOf(b.on))
          .map((own) => {
            const verdict = toldOf(own);
            return (
              <li key={`${own.kind} ${own.of?.key}`}>
                <span>{verdictTitle(verdict)}</span>{' '}
                <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
                  ({ON[own.on]})
                </Box>
                {own.on !== 'plan' && (
                  <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
                    {verdictFigures(verdict)} {verdictReason(verdict.code)}
                  </Box>
                )}
              </li>
            );
          })}
      </Box>
      <Note>
        Tones are those of the frame; over white, and what is mirrored and where things lie, is taken from the
        plan, with lights and products as the frame tells them.
      </Note>
    </Box>
  );
}
