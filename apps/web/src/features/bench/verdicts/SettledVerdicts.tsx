import type { SettledVerdict } from '@fendrix/contract';
import type { VerdictCode } from '@fendrix/core';
import { settledWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { WordsField } from '../../../shared/form/WordsField';
import { useBenchDispatch } from '../state/hooks';
import { edit } from '../state/thunks';

/** What was said to be wanted so or left for retouching, with its note; it can be opened again. */
export function SettledVerdicts({ settled }: { settled: readonly SettledVerdict[] }) {
  const dispatch = useBenchDispatch();
  if (settled.length === 0) return null;
  const change = (id: string, to: SettledVerdict | null, gesture: string | null = null) =>
    dispatch(
      edit(
        (set) => ({
          ...set,
          settled: set.settled.flatMap((own) => (own.verdict !== id ? [own] : to ? [to] : [])),
        }),
        gesture,
      ),
    );
  const minutes = settled.reduce((sum, own) => sum + (own.minutes ?? 0), 0);
  return (
    <Box component="details" sx={{ mt: 1, fontSize: '0.75rem' }}>
      <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 650 }}>
        Settled, {settled.length}
        {minutes > 0 && `: ${minutes} min in retouching`}
      </Box>
      {settled.map((own) => (
        <Box key={own.verdict} sx={{ my: 0.5 }}>
          {settledWords(own.verdict.split(' | ')[0] as VerdictCode, own)}
          <WordsField
            label="note"
            value={own.note}
            onCommit={(note, gesture) => change(own.verdict, { ...own, note }, gesture)}
          />
          <Button size="small" color="inherit" onClick={() => change(own.verdict, null)}>
            Open again
          </Button>
        </Box>
      ))}
    </Box>
  );
}
