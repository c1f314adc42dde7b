import type { ApiError } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { failureMessage } from '../api';

interface UnreadableNoteProps {
  error: unknown;
  /** Where the document is kept. */
  address: string;
  /** The place that lists others. */
  list: string;
  onTryAgain(): void;
}

/** Why a document cannot be opened; one that is stored in a way that cannot be read can be saved as a file or removed. */
export function UnreadableNote({ error, address, list, onTryAgain }: UnreadableNoteProps) {
  const navigate = useNavigate();
  const [sure, setSure] = useState(false);
  const failure = (error as { data?: ApiError }).data?.error;
  const unreadable = failure?.code === 'unreadable';
  async function remove() {
    const answer = await fetch(address, { method: 'DELETE' }).catch(() => null);
    if (answer?.ok) await navigate(list);
  }
  return (
    <Alert severity="warning" action={<Button onClick={onTryAgain}>Try again</Button>}>
      {unreadable ? `${failure.message} ${failure.hint ?? ''}` : failureMessage(error)}
      {unreadable && (
        <>
          <Box component="ul" sx={{ my: 1, pl: 2.5 }}>
            {(failure.problems ?? []).slice(0, 6).map(({ path, message }) => (
              <li key={`${path} ${message}`}>{[path || 'It', message].join(' ')}</li>
            ))}
          </Box>
          <Button component="a" href={`${address}/raw`} size="small" variant="outlined" sx={{ mr: 1 }}>
            Save it as a file
          </Button>
          {sure ? (
            <Button size="small" color="error" variant="contained" onClick={() => void remove()}>
              Remove it for good
            </Button>
          ) : (
            <Button size="small" color="error" onClick={() => setSure(true)}>
              Remove it
            </Button>
          )}
        </>
      )}
    </Alert>
  );
}
