import { movedWords, stoodName } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import { failureMessage } from '../../../shared/api';
import { framesApi } from './framesApi';
import { Note } from './Note';

/** Which card, flag or light stands elsewhere in a frame than planned, and which of them the picture would not tell. */
export function MovedThings({ id, of }: { id: string; of: string }) {
  const { data, error, isFetching } = framesApi.useReadMovesQuery({ id, of });
  return (
    <Box component="section" aria-label="What stands elsewhere" sx={{ my: 1 }}>
      {isFetching && (
        <Box role="status" sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          <CircularProgress size={16} aria-hidden />
          Looking for a card or light that stands elsewhere. At the first frame of a set this takes about a
          minute.
        </Box>
      )}
      {error && !isFetching && <Alert severity="warning">{failureMessage(error)}</Alert>}
      {data && !isFetching && (
        <>
          {data.moved.length > 0 ? (
            <Alert severity={data.moved.length === 1 ? 'warning' : 'info'}>{movedWords(data.moved)}</Alert>
          ) : (
            <Box>No card or light stands elsewhere by so much that the products would show it.</Box>
          )}
          {data.untold.length > 0 && (
            <Note>
              The picture does not tell where these stand: {data.untold.map(stoodName).join(', ')}. Tape them.
            </Note>
          )}
        </>
      )}
    </Box>
  );
}
