import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { failureMessage } from './api';

/** Does something with the server; a failure is told in words and changes nothing here. */
export function useAttempt(): (work: () => Promise<void>) => void {
  const { enqueueSnackbar } = useSnackbar();
  return (work) => {
    work().catch((error: unknown) => {
      enqueueSnackbar(failureMessage(error), { variant: 'warning' });
    });
  };
}

/** Tells that something is deleted, with the way to take it back. */
export function useTellDeleted(): (name: string, restore: () => Promise<unknown>) => void {
  const { enqueueSnackbar } = useSnackbar();
  const attempt = useAttempt();
  return (name, restore) => {
    enqueueSnackbar(`“${name}” is deleted.`, {
      autoHideDuration: 12_000,
      action: (
        <Button color="inherit" onClick={() => attempt(async () => void (await restore()))}>
          Undo
        </Button>
      ),
    });
  };
}
