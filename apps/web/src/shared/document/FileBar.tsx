import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogContentText from '@mui/material/DialogContentText';
import DialogTitle from '@mui/material/DialogTitle';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { type Options, useHotkeys } from 'react-hotkeys-hook';
import { shallowEqual, useDispatch, useSelector } from 'react-redux';
import type { OpenDocument, OpenDocumentState, SaveState } from './openDocument';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving',
  kept: 'offline, kept in this browser',
  conflict: 'changed elsewhere',
};

/** In a field that holds something typed and not yet set, undo takes back typing; anywhere else it is the document's. */
const UNDO_KEYS: Options = {
  preventDefault: true,
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }) =>
    target instanceof HTMLElement &&
    target.matches('input:not([type=range], [type=checkbox]), textarea, [contenteditable]') &&
    !('settled' in target.dataset),
};

/** Undo and redo of an open document by Ctrl+Z and Ctrl+Shift+Z, and whether it is kept. */
export function FileBar<D extends { name: string }, K extends string>({
  open,
  noun,
}: {
  open: OpenDocument<D, K>;
  noun: string;
}) {
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const { canUndo, canRedo, save } = useSelector((state: Record<K, OpenDocumentState<D>>) => {
    const { history, file } = state[open.key];
    return { canUndo: history.past.length > 0, canRedo: history.future.length > 0, save: file.save };
  }, shallowEqual);
  useHotkeys('mod+z', () => void dispatch(open.undo()), UNDO_KEYS);
  useHotkeys('mod+shift+z, mod+y', () => void dispatch(open.redo()), UNDO_KEYS);
  const calm = save === 'saved' || save === 'saving';
  return (
    <>
      <BarButton label="Undo" disabled={!canUndo} onClick={() => dispatch(open.undo())} />
      <BarButton label="Redo" disabled={!canRedo} onClick={() => dispatch(open.redo())} />
      <Box
        role="status"
        data-testid="save-state"
        sx={{
          color: calm ? 'inherit' : 'warning.main',
          opacity: calm ? 0.85 : 1,
          minWidth: 54,
          textAlign: 'right',
          fontSize: '0.8125rem',
        }}
      >
        {SAVE_WORDS[save]}
      </Box>
      <ConflictDialog open={open} noun={noun} />
    </>
  );
}

function BarButton({ label, disabled, onClick }: { label: string; disabled: boolean; onClick(): void }) {
  return (
    <Button
      size="small"
      color="inherit"
      disabled={disabled}
      onClick={onClick}
      sx={{ minWidth: 0, '&.Mui-disabled': { color: 'inherit', opacity: 0.55 } }}
    >
      {label}
    </Button>
  );
}

/** Asks which of two versions to go on with when the document was changed elsewhere. */
function ConflictDialog<D extends { name: string }, K extends string>({
  open,
  noun,
}: {
  open: OpenDocument<D, K>;
  noun: string;
}) {
  const newer = useSelector((state: Record<K, OpenDocumentState<D>>) => state[open.key].file.newer);
  const dispatch = useDispatch<ThunkDispatch<Record<K, OpenDocumentState<D>>, unknown, UnknownAction>>();
  return (
    <Dialog open={newer !== null} aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title">This {noun} was changed elsewhere</DialogTitle>
      <DialogContent>
        <DialogContentText>
          Another window saved “{newer?.name}” in the meantime. Going on with yours saves it over that one; it
          stays within reach of undo here until you close the page.
        </DialogContentText>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => dispatch(open.settleConflict('newer'))}>Take the newer one</Button>
        <Button variant="contained" onClick={() => dispatch(open.settleConflict('mine'))}>
          Go on with mine
        </Button>
      </DialogActions>
    </Dialog>
  );
}
