import type { FrameMoves } from '@fendrix/contract';
import { movedWords, untoldWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect } from 'react';
import { failureMessage } from '../../../shared/api';
import { framesApi } from './framesApi';
import { Note } from './Note';

/** What is under way is asked for again after this, ms. */
const AGAIN_MS = 500;

interface Props {
  id: string;
  of: string;
  /** Of the plan that all else on the page was read against. */
  setRevision: number;
  /** The set has been changed since: all is to be read anew. */
  onSetChanged: () => void;
}

/** Which card, flag or light stands elsewhere in a frame than planned, and which of them the picture would not tell. */
export function MovedThings({ id, of, setRevision, onSetChanged }: Props) {
  const { currentData, error, isFetching, refetch } = framesApi.useReadMovesQuery({ id, of });
  const isOfOther = !isFetching && currentData !== undefined && currentData.setRevision !== setRevision;
  useEffect(() => {
    if (isOfOther) onSetChanged();
  }, [isOfOther, onSetChanged]);
  const found = isOfOther ? undefined : currentData;
  const part = found && 'part' in found ? found.part : found || error ? null : 0;
  useEffect(() => {
    if (part === null || isFetching || error) return;
    const again = setTimeout(() => void refetch(), AGAIN_MS);
    return () => clearTimeout(again);
  }, [part, isFetching, error, refetch]);
  return (
    <Box component="section" aria-label="What stands elsewhere" sx={{ my: 1 }}>
      {error ? (
        <Alert severity="warning">{failureMessage(error)}</Alert>
      ) : part !== null ? (
        <Looking part={part} />
      ) : (
        found && 'moved' in found && <Found {...found} />
      )}
    </Box>
  );
}

function Looking({ part }: { part: number }) {
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Box role="status">
        Looking for a card or light that stands elsewhere. At the first frame of a set this takes a minute or
        two.
      </Box>
      <LinearProgress
        variant="determinate"
        value={Math.round(100 * part)}
        aria-label="How much of it is done"
      />
    </Box>
  );
}

function Found({ untold, ...found }: FrameMoves) {
  const { moved, isExplained } = found;
  const isWarning = !isExplained || moved.some(({ isNamed }) => isNamed);
  return (
    <>
      {moved.length === 0 && isExplained ? (
        <Box>{movedWords(found)}</Box>
      ) : (
        <Alert severity={isWarning ? 'warning' : 'info'}>{movedWords(found)}</Alert>
      )}
      {untold.length > 0 && <Note>{untoldWords(untold)}</Note>}
    </>
  );
}
