import type { Kit, KitEntry } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { failureMessage } from '../sets';
import { kitApi } from './api';

/** Saves changed kits whole; each change can be taken back. */
export function useKitChanges() {
  const { data } = kitApi.useReadKitQuery();
  const [save, { isLoading }] = kitApi.useSaveKitMutation();
  const { enqueueSnackbar } = useSnackbar();

  async function put(entries: KitEntry[], revision: number): Promise<number | null> {
    const document: Kit = { format: 'fendrix-kit', version: 1, entries };
    try {
      return (await save({ revision, document }).unwrap()).revision;
    } catch (error) {
      enqueueSnackbar(failureMessage(error), { variant: 'warning' });
      return null;
    }
  }

  /** @param words what was done, for the line with Undo  @returns whether it is stored */
  async function change(words: string, work: (entries: KitEntry[]) => KitEntry[]): Promise<boolean> {
    if (!data) return false;
    const before = data.document.entries;
    const revision = await put(work(before), data.revision);
    if (revision === null) return false;
    enqueueSnackbar(words, {
      autoHideDuration: 8000,
      action: <Button onClick={() => void put(before, revision)}>Undo</Button>,
    });
    return true;
  }

  return { kit: data?.document, change, saving: isLoading };
}

/** An id that no entry has, from a name. */
export function freeId(entries: readonly KitEntry[], name: string): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'entry';
  const taken = new Set(entries.map(({ id }) => id));
  if (!taken.has(base)) return base;
  for (let i = 2; ; i++) if (!taken.has(`${base}-${i}`)) return `${base}-${i}`;
}
