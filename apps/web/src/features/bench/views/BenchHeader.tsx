import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputBase from '@mui/material/InputBase';
import { memo, useState } from 'react';
import { Link } from 'react-router';
import { SchemeSwitch } from '../../../shared/SchemeSwitch';
import { surround } from '../../../shared/theme';
import type { SaveState } from '../state/benchSlice';
import { renameSet } from '../state/edits';
import { useBench, useBenchDispatch, useHistory, useSetPart } from '../state/hooks';
import { edit, redo, undo } from '../state/thunks';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving',
  kept: 'offline, kept in this browser',
  conflict: 'changed elsewhere',
};

/** Name of the set, undo and redo, and whether it is kept. */
export const BenchHeader = memo(function BenchHeader() {
  const dispatch = useBenchDispatch();
  const { canUndo, canRedo } = useHistory();
  const save = useBench((bench) => bench.save);
  return (
    <Box
      component="header"
      sx={{ height: 44, px: 2.5, display: 'flex', alignItems: 'center', gap: 1.5, bgcolor: surround.deep }}
    >
      <Button
        component={Link}
        to="/sets"
        size="small"
        sx={{ color: surround.text, fontWeight: 650, px: 0, minWidth: 0 }}
      >
        Fendrix
      </Button>
      <Box sx={{ color: surround.quiet }}>/</Box>
      <SetName />
      <Box sx={{ flex: 1 }} />
      <HeaderButton label="Undo" disabled={!canUndo} onClick={() => dispatch(undo())} />
      <HeaderButton label="Redo" disabled={!canRedo} onClick={() => dispatch(redo())} />
      <Box sx={{ color: surround.text }}>
        <SchemeSwitch />
      </Box>
      <Box
        role="status"
        data-testid="save-state"
        sx={{
          color: save === 'saved' || save === 'saving' ? surround.quiet : surround.caution,
          minWidth: 54,
          textAlign: 'right',
        }}
      >
        {SAVE_WORDS[save]}
      </Box>
    </Box>
  );
});

function SetName() {
  const name = useSetPart((set) => set.name);
  const dispatch = useBenchDispatch();
  const [draft, setDraft] = useState<string | null>(null);
  return (
    <InputBase
      value={draft ?? name}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => {
        if (draft?.trim()) dispatch(edit(renameSet(draft.trim())));
        setDraft(null);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === 'Escape') {
          if (event.key === 'Escape') setDraft(null);
          (event.target as HTMLElement).blur();
        }
        event.stopPropagation();
      }}
      slotProps={{ input: { 'aria-label': 'Name of the set', maxLength: 80 } }}
      sx={{ color: surround.text, fontSize: '0.875rem', flex: '0 1 340px', minWidth: 60 }}
    />
  );
}

function HeaderButton({ label, disabled, onClick }: { label: string; disabled: boolean; onClick(): void }) {
  return (
    <Button
      size="small"
      disabled={disabled}
      onClick={onClick}
      sx={{ color: surround.text, minWidth: 0, '&.Mui-disabled': { color: '#8f8f8f' } }}
    >
      {label}
    </Button>
  );
}
