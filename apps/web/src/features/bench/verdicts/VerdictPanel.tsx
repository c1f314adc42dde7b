import type { Verdict } from '@fendrix/core';
import { verdictFigures, verdictTitle } from '@fendrix/words';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { type KeyboardEvent, memo, useMemo } from 'react';
import { OpenCards } from '../cards/OpenCards';
import { benchActions } from '../state/benchSlice';
import type { ThingRef } from '../state/edits';
import { useBench, useBenchDispatch } from '../state/hooks';
import { VERDICTS_ID } from '../state/useBenchKeys';
import { SettledVerdicts } from './SettledVerdicts';
import { SideHeading } from './SideHeading';
import { useFading } from './useFading';
import { VerdictDetail } from './VerdictDetail';
import { openVerdicts, useJudged } from './verdictsContext';
import { WishesRow } from './WishesRow';

/** What is wrong with the set, the gravest first, while nothing is selected; and what is wanted of it. */
export const VerdictPanel = memo(function VerdictPanel() {
  const selected = useBench(
    (bench) => bench.selected !== null || bench.pick !== null || bench.cards !== null,
  );
  if (selected) return null;
  return (
    <Box id={VERDICTS_ID} sx={{ display: 'grid', gap: 1.5 }}>
      <VerdictList />
      <WishesRow />
      <OpenCards />
    </Box>
  );
});

function VerdictList() {
  const judged = useJudged();
  const open = useMemo(() => openVerdicts(judged), [judged]);
  const shown = useFading(open);
  return (
    <Box component="section" aria-label="Verdicts">
      <SideHeading>Verdicts</SideHeading>
      {!judged && (
        <Box role="status" sx={{ color: 'text.secondary' }}>
          The picture is being judged
        </Box>
      )}
      {judged && open.length === 0 && (
        <Box role="status" data-testid="verdicts-none">
          Nothing is wrong by what is wanted. Say below what the picture is to look like.
        </Box>
      )}
      <Box
        component="ul"
        data-testid="verdicts"
        sx={{ m: 0, p: 0, listStyle: 'none' }}
        onKeyDown={moveInList}
      >
        {shown.map(({ own, gone }) => (
          <VerdictItem key={own.id} verdict={own} gone={gone} />
        ))}
      </Box>
      {judged && <SettledVerdicts settled={judged.evidence.set.settled} />}
    </Box>
  );
}

/** Arrows go from one verdict to the next. */
function moveInList(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (step === undefined) return;
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>('[aria-expanded]')];
  const to = all[all.indexOf(event.target as HTMLElement) + step];
  if (!to) return;
  event.preventDefault();
  event.stopPropagation();
  to.focus();
}

const VerdictItem = memo(function VerdictItem({ verdict, gone }: { verdict: Verdict; gone: boolean }) {
  const dispatch = useBenchDispatch();
  const chosen = useBench((bench) => bench.verdict?.id === verdict.id);
  return (
    <Box
      component="li"
      data-verdict={verdict.code}
      sx={{
        borderBottom: 1,
        borderColor: 'divider',
        opacity: gone ? 0.35 : 1,
        transition: 'opacity 400ms',
        '@keyframes come': { from: { opacity: 0 }, to: { opacity: 1 } },
        animation: 'come 200ms',
        '@media (prefers-reduced-motion: reduce)': { animation: 'none', transition: 'none' },
      }}
    >
      <ButtonBase
        aria-expanded={chosen}
        disabled={gone}
        onClick={() =>
          dispatch(benchActions.verdictChosen(chosen ? null : { id: verdict.id, causes: causesOf(verdict) }))
        }
        sx={{
          display: 'block',
          width: '100%',
          textAlign: 'left',
          font: 'inherit',
          fontSize: '0.8125rem',
          py: 0.75,
          color: verdict.danger ? 'error.main' : 'text.primary',
        }}
      >
        <Box component="span" sx={{ fontWeight: 650 }}>
          {verdict.danger && 'Danger: '}
          {verdictTitle(verdict)}
        </Box>
        <Box component="span" sx={{ display: 'block', color: 'text.secondary', fontSize: '0.75rem' }}>
          {gone
            ? 'Mended.'
            : verdict.sure
              ? verdictFigures(verdict)
              : `Not sure yet. ${verdictFigures(verdict)}`}
        </Box>
      </ButtonBase>
      {chosen && !gone && <VerdictDetail verdict={verdict} />}
    </Box>
  );
});

/** The things that cause a verdict, as the bench refers to them. */
const causesOf = ({ causes, of }: Verdict): ThingRef[] =>
  [
    ...causes.filter(({ part }) => part === null || part > 0.15).map(({ thing }) => thing),
    ...(of ? [of] : []),
  ]
    .filter(({ kind }) => kind === 'light' || kind === 'sheet' || kind === 'product' || kind === 'person')
    .map(({ kind, key }) => ({ kind, key }) as ThingRef);
