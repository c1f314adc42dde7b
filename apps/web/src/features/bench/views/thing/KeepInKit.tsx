import type { KitEntry } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { freeId } from '../../../../shared/rows';
import { useKitChanges } from '../../../kit';
import type { Addable } from '../../state/edits';

/** Puts a thing with its figures into the kit, for other sets. */
export function KeepInKit({ entry }: { entry: Addable }) {
  const { kit, change, saving } = useKitChanges();
  const { name } = entry.thing;
  return (
    <Button
      size="small"
      color="inherit"
      disabled={!kit || saving}
      sx={{ mt: 0.5, px: 0, display: 'block' }}
      onClick={() =>
        void change(`“${name}” is in the kit.`, (all) => {
          const id = freeId(all.entries, name, 'entry');
          const kept = { ...entry, id, name, count: 1, purposes: [], source: 'From a set.' } as KitEntry;
          return { ...all, entries: [...all.entries, kept] };
        })
      }
    >
      Keep in the kit
    </Button>
  );
}
