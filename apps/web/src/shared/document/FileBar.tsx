import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { type ReactNode, useState } from 'react';
import { type Options, useHotkeys } from 'react-hotkeys-hook';
import { shallowEqual, useDispatch, useSelector } from 'react-redux';
import { useAnyPending } from '../pending';
import type { OpenDocument, OpenDocumentState, SaveState } from './openDocument';
import { ConflictDialog, DraftDialog, TroubleDialog } from './VersionDialogs';

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving',
  offline: 'offline',
  conflict: 'changed elsewhere',
  gone: 'deleted elsewhere',
  refused: 'not saved: refused',
  'too-large': 'not saved: too large',
  storage: 'not saved: the disk',
  failed: 'not saved: server trouble',
};

/** In a field that holds something typed and not yet set, undo takes back typing; anywhere else it is the document's. */
const UNDO_KEYS: Options = {
  preventDefault: true,
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }) =>
    target instanceof HTMLElement &&
    target.matches('input:not([type=range], [type=checkbox], [type=radio]), textarea, [contenteditable]') &&
    !('settled' in target.dataset),
};

export interface FileBarProps<D extends { name: string }, K extends string> {
  open: OpenDocument<D, K>;
  noun: string;
  /** What tells a second state apart from a first, in words. */
  describe(before: D, after: D): string[];
  /** A small picture of a state, where there is one. */
  picture?(document: D): ReactNode;
}

/** Undo and redo of an open document by Ctrl+Z and Ctrl+Shift+Z, and whether it is kept. */
export function FileBar<D extends { name: string }, K extends string>(props: FileBarProps<D, K>) {
  const { open, noun } = props;
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const { canUndo, canRedo, save, kept, why } = useSelector((state: Record<K, OpenDocumentState<D>>) => {
    const { history, file } = state[open.key];
    const { past, future } = history;
    return { ...file, canUndo: past.length > 0, canRedo: future.length > 0 };
  }, shallowEqual);
  const typing = useAnyPending();
  const [asking, setAsking] = useState(false);
  useHotkeys('mod+z', () => void dispatch(open.undo()), UNDO_KEYS);
  useHotkeys('mod+shift+z, mod+y', () => void dispatch(open.redo()), UNDO_KEYS);
  const calm = save === 'saved' || save === 'saving';
  const where =
    calm || save === 'conflict' ? '' : kept ? ', kept in this browser' : ', NOT kept: leave this page open';
  const words = save === 'saved' && typing ? 'being typed' : `${SAVE_WORDS[save]}${where}`;
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
          pl: 1,
          textAlign: 'right',
          fontSize: '0.8125rem',
        }}
      >
        {words}
      </Box>
      {!calm && save !== 'offline' && save !== 'conflict' && (
        <BarButton label="What to do" disabled={false} onClick={() => setAsking(true)} />
      )}
      {asking && !calm && <TroubleDialog {...props} why={why} onClose={() => setAsking(false)} />}
      <ConflictDialog {...props} />
      <DraftDialog key={noun} {...props} />
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
