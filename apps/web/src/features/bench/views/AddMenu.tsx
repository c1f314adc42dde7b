import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { memo, useState } from 'react';
import { surround } from '../../../shared/theme';
import { benchActions } from '../state/benchSlice';
import { freeTag, newSheet, newSoftbox } from '../state/edits';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';

const CHOICES = [
  { kind: 'softbox', words: 'Softbox 40 x 60, to light' },
  { kind: 'card', words: 'White card 20 x 30, to bounce' },
  { kind: 'flag', words: 'Black flag 20 x 30, to cut' },
] as const;

/** Puts another light, card or flag on the set. */
export const AddMenu = memo(function AddMenu() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);

  function add(kind: (typeof CHOICES)[number]['kind']) {
    setAnchor(null);
    const thing = kind === 'softbox' ? 'light' : 'sheet';
    const tag = freeTag(set, thing);
    if (tag === null) return;
    const added =
      kind === 'softbox'
        ? edit((old) => ({ ...old, lights: [...old.lights, newSoftbox(tag)] }))
        : edit((old) => ({ ...old, sheets: [...old.sheets, newSheet(kind, tag)] }));
    if (dispatch(added)) dispatch(benchActions.selected({ kind: thing, key: tag }));
  }

  return (
    <>
      <Button
        size="small"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{
          color: surround.text,
          bgcolor: '#5a5a5a',
          px: 1.25,
          py: 0.25,
          '&:hover': { bgcolor: '#686868' },
        }}
      >
        Add
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {CHOICES.map(({ kind, words }) => (
          <MenuItem key={kind} onClick={() => add(kind)}>
            {words}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
});
