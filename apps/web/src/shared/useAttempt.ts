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
