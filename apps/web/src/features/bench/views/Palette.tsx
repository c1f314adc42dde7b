import type { KitEntry } from '@fendrix/contract';
import { leftInKit } from '@fendrix/core';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import List from '@mui/material/List';
import ListSubheader from '@mui/material/ListSubheader';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { ImportDialog } from '../../../shared/ImportDialog';
import { MeasuredProduct } from '../../../shared/measured/MeasuredProduct';
import { surround } from '../../../shared/theme';
import { KitEntryItem, KitReading, kitApi, searchKit, useEquipment } from '../../kit';
import { benchActions } from '../state/benchSlice';
import {
  type Addable,
  addFromKit,
  addPerson,
  freePersonName,
  giveMaterial,
  keyOfAdded,
  nameOf,
  takesMaterial,
  windowsToAdd,
} from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { addBench, addRoom, SURROUNDING_NAMES, setBackdrop } from '../state/surroundings';
import { edit } from '../state/thunks';
import { useStandClear } from './useStandClear';

/** Words people look for first. */
const PURPOSES = ['soft', 'hard', 'edge', 'bounce', 'cut', 'gradient', 'glow', 'pattern', 'fill'];
/** What goes on a set; lenses and stands are chosen elsewhere. */
type Offered = Exclude<KitEntry, { what: 'equipment' }>;

const TITLES: Record<Offered['what'], string> = {
  light: 'Lights',
  sheet: 'Cards, flags and frost',
  product: 'Products',
  material: 'Materials',
};

const KINDS = Object.keys(TITLES) as Offered['what'][];

/** Entries that are there with the dialog, about as many as it shows; the rest are drawn once it stands. */
const FIRST_ENTRIES = 8;

let additions = 0;

/** Opens the list of what can be put on the set. */
export function AddButton() {
  const dispatch = useBenchDispatch();
  return (
    <Button
      size="small"
      aria-haspopup="dialog"
      onClick={() => dispatch(benchActions.addingChanged(true))}
      sx={{
        color: surround.text,
        bgcolor: surround.raised,
        px: 1.25,
        py: 0.25,
        '&:hover': { bgcolor: surround.raisedOver },
      }}
    >
      Add
    </Button>
  );
}

/** Puts things of the kit on the set, found by name or by what they are for; by its key whatever desk is open. */
export const Palette = memo(function Palette() {
  const dispatch = useBenchDispatch();
  const adding = useBench((bench) => bench.adding);
  useHotkeys('a', () => void dispatch(benchActions.addingChanged(true)), { preventDefault: true });
  return adding && <PaletteDialog onClose={() => dispatch(benchActions.addingChanged(false))} />;
});

function PaletteDialog({ onClose }: { onClose(): void }) {
  const [search, setSearch] = useState('');
  const [importing, setImporting] = useState(false);
  const [measuring, setMeasuring] = useState(false);
  const { data } = kitApi.useReadKitQuery();
  const set = useSet();
  const selected = useBench((bench) => bench.selected);
  const dispatch = useBenchDispatch();
  const standClear = useStandClear();
  const studio = useEquipment()?.studio;
  const material = takesMaterial(selected) ? nameOf(set, selected) : null;
  const find = (words: string) =>
    searchKit(data?.document.entries ?? [], words).filter(
      (entry): entry is Offered =>
        entry.what !== 'equipment' && (entry.what !== 'material' || material !== null),
    );
  const found = find(useDeferredValue(search));
  const most = useDeferredValue(Number.POSITIVE_INFINITY, FIRST_ENTRIES);
  const kit = data?.document;
  const left = useMemo(() => (kit ? leftInKit(set, kit) : new Map<string, number>()), [set, kit]);
  const isFree = (entry: Offered) =>
    (entry.what !== 'light' && entry.what !== 'sheet') || (left.get(entry.id) ?? 0) > 0;
  // The group of the best one first: Enter takes what stands on top.
  const groups = [...new Set([...(search ? found.map(({ what }) => what) : []), ...KINDS])];

  function choose(entry: Offered) {
    if (entry.what === 'material') {
      if (selected && dispatch(edit(giveMaterial(selected, entry.thing)))) onClose();
    } else put(entry);
  }

  /** @returns whether it stands on the set now */
  function put(entry: Addable): boolean {
    const ref = keyOfAdded(set, entry);
    const gesture = `add ${++additions}`;
    if (!ref || !dispatch(edit(addFromKit(entry, ref.key), gesture))) return false;
    dispatch(benchActions.selected(ref));
    void standClear(ref, gesture);
    onClose();
    // On with the keyboard at the thing itself, once it is drawn.
    requestAnimationFrame(() =>
      document.querySelector<SVGElement>(`[data-thing="${ref.kind}:${ref.key}"]`)?.focus(),
    );
    return true;
  }

  /** What there is one of: it is put where there is none. */
  const missing = [
    ...(set.backdrop ? [] : [{ kind: 'backdrop' as const, change: setBackdrop('sweep') }]),
    ...(studio && !set.bench ? [{ kind: 'bench' as const, change: addBench(studio) }] : []),
    ...(studio && !set.room ? [{ kind: 'room' as const, change: addRoom(studio) }] : []),
  ];

  function surroundBy({ kind, change }: (typeof missing)[number]) {
    if (!dispatch(edit(change))) return;
    dispatch(benchActions.selected({ kind, key: '' }));
    onClose();
  }

  if (importing) return <ImportDialog onTake={put} onClose={onClose} />;
  if (measuring) {
    return (
      <MeasuredProduct
        takeWords="Put it on the set"
        onTake={(thing) => put({ what: 'product', thing })}
        onClose={onClose}
      />
    );
  }
  return (
    <Dialog open disableRestoreFocus onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="add-title">
      <DialogTitle id="add-title">Add to the set</DialogTitle>
      <DialogContent
        sx={{ height: 520, pt: '8px !important', display: 'flex', flexDirection: 'column', gap: 1.5 }}
      >
        <TextField
          autoFocus
          size="small"
          label="Add: a name, or what it is for"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event) => {
            event.stopPropagation();
            // What stands in the field now, even where the list is a moment behind.
            const [first] = find(search);
            if (event.key === 'Enter' && first) choose(first);
            if (event.key === 'Escape') onClose();
          }}
        />
        <Stack direction="row" spacing={0.75} useFlexGap sx={{ flexWrap: 'wrap' }}>
          {PURPOSES.map((purpose) => (
            <Chip
              key={purpose}
              size="small"
              label={purpose}
              variant={search === purpose ? 'filled' : 'outlined'}
              onClick={() => setSearch(search === purpose ? '' : purpose)}
            />
          ))}
        </Stack>
        <Stack
          direction="row"
          spacing={1}
          sx={{ alignItems: 'baseline', color: 'text.secondary', fontSize: '0.8125rem' }}
        >
          <span>Not from the kit:</span>
          <Button
            size="small"
            sx={{ py: 0 }}
            onClick={() => {
              const key = freePersonName(set);
              if (!dispatch(edit(addPerson(key)))) return;
              dispatch(benchActions.selected({ kind: 'person', key }));
              onClose();
            }}
          >
            A person
          </Button>
          <Button size="small" sx={{ py: 0 }} onClick={() => setImporting(true)}>
            From a file
          </Button>
          <Button size="small" sx={{ py: 0 }} onClick={() => setMeasuring(true)}>
            By measures
          </Button>
          {(studio ? windowsToAdd(set, studio) : []).map((window) => (
            <Button
              key={window.name}
              size="small"
              sx={{ py: 0 }}
              onClick={() => put({ what: 'light', thing: window })}
            >
              {window.name} of the room
            </Button>
          ))}
          {missing.map((one) => (
            <Button key={one.kind} size="small" sx={{ py: 0 }} onClick={() => surroundBy(one)}>
              {one.kind === 'room' ? 'The room of the studio' : SURROUNDING_NAMES[one.kind]}
            </Button>
          ))}
        </Stack>
        <KitReading />
        {data && found.length === 0 && (
          <Typography sx={{ color: 'text.secondary' }}>
            Nothing in the kit is called or good for “{search}”. The kit page has room for your own.
          </Typography>
        )}
        <List dense disablePadding sx={{ overflow: 'auto', flex: 1 }}>
          {groups.map((what, place) => {
            if (place > 0 && most === FIRST_ENTRIES) return null;
            const all = found.filter((entry) => entry.what === what);
            if (all.length === 0) return null;
            // What the studio has and is not on the set yet comes first; of what was searched the best comes first.
            const own = search ? all : [...all.filter(isFree), ...all.filter((entry) => !isFree(entry))];
            return (
              <li key={what}>
                <ul style={{ padding: 0 }}>
                  <ListSubheader>
                    {what === 'material' ? `Materials: what ${material} becomes` : TITLES[what]}
                  </ListSubheader>
                  {own.slice(0, most).map((entry) => (
                    <KitEntryItem
                      key={entry.id}
                      entry={entry}
                      selected={search !== '' && entry === found[0]}
                      note={
                        isFree(entry)
                          ? undefined
                          : entry.count > 0
                            ? 'all are on the set'
                            : 'not in the studio'
                      }
                      onChoose={() => choose(entry)}
                    />
                  ))}
                </ul>
              </li>
            );
          })}
        </List>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
