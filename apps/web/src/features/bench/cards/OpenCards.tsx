import Button from '@mui/material/Button';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch } from '../state/hooks';

/** Opens the search for a card or flag. */
export function OpenCards() {
  const dispatch = useBenchDispatch();
  return (
    <Button
      size="small"
      variant="outlined"
      sx={{ justifySelf: 'start' }}
      onClick={() => dispatch(benchActions.cardsOpened({}))}
    >
      Place a card or flag (B)
    </Button>
  );
}
