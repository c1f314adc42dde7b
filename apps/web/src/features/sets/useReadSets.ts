import { useSnackbar } from 'notistack';
import { useNavigate } from 'react-router';
import { useAttempt } from '../../shared/useAttempt';
import { setsApi } from './api';
import { readSetFile } from './readSetFile';

/** What is said while files hover over the page. */
export const DROP_WORDS = 'Drop it to import it as a new set';

/** Keeps sets from files as new ones and opens the last; what cannot be read is told, the others are kept all the same. */
export function useReadSets(): (files: readonly File[]) => void {
  const navigate = useNavigate();
  const attempt = useAttempt();
  const { enqueueSnackbar } = useSnackbar();
  const [create] = setsApi.useCreateSetMutation();
  return (files) =>
    attempt(async () => {
      let newest: string | null = null;
      for (const file of files) {
        const read = await readSetFile(file);
        if ('set' in read) newest = (await create(read.set).unwrap()).id;
        else enqueueSnackbar(read.refused, { variant: 'warning' });
      }
      if (newest !== null) await navigate(`/sets/${newest}`);
    });
}
