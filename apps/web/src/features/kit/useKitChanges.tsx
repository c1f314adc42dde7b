import { checkDocument, type Kit, kitDocument } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { failureMessage } from '../../shared/api';
import { problemWords } from '../../shared/document/problemWords';
import { tellRefusal } from '../../shared/refusals';
import { kitApi } from './api';

/** Saves changed kits whole; each change can be taken back. */
export function useKitChanges() {
  const { data } = kitApi.useReadKitQuery();
  const [save, { isLoading }] = kitApi.useSaveKitMutation();
  const { enqueueSnackbar } = useSnackbar();

  async function put(document: Kit, revision: number): Promise<number | null> {
    try {
      return (await save({ revision, document }).unwrap()).revision;
    } catch (error) {
      enqueueSnackbar(failureMessage(error), { variant: 'warning' });
      return null;
    }
  }

  /**
   * @param words what was done, for the line with Undo; null where what was changed is taken back beside itself
   * @returns whether it is stored
   */
  async function change(words: string | null, work: (kit: Kit) => Kit): Promise<boolean> {
    if (!data) return false;
    const before = data.document;
    const next = work(before);
    const checked = checkDocument(kitDocument, next);
    if (!checked.ok) {
      const [problem] = checked.problems;
      tellRefusal(problem ? problemWords(problem, next) : 'This cannot be.');
      return false;
    }
    const revision = await put(next, data.revision);
    if (revision === null) return false;
    if (words === null) return true;
    enqueueSnackbar(words, {
      autoHideDuration: 8000,
      action: (
        <Button color="inherit" onClick={() => void put(before, revision)}>
          Undo
        </Button>
      ),
    });
    return true;
  }

  return { kit: data?.document, change, saving: isLoading };
}
