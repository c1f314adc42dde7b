import { checkDocument, type StoredSet, setDocument } from '@fendrix/contract';
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { enqueueSnackbar } from 'notistack';
import { ActionCreators } from 'redux-undo';
import { benchActions, cleared, replaced, type WithBench } from './benchSlice';
import type { Edit } from './edits';

export type BenchThunk<R = void> = ThunkAction<R, WithBench, unknown, UnknownAction>;

/**
 * Applies a change and checks the whole document; a change that would break it is refused with the field and
 * the cure, and nothing happens.
 * @param gesture changes of one gesture are undone together
 */
export function edit(change: Edit, gesture: string | null = null): BenchThunk<boolean> {
  return (dispatch, getState) => {
    const { set } = getState().benchDocument.present;
    if (!set) return false;
    const next = change(set);
    const checked = checkDocument(setDocument, next);
    if (!checked.ok) {
      const problem = checked.problems[0];
      const text = `${problem?.path ?? 'The set'} ${problem?.message ?? 'is not valid.'}`;
      enqueueSnackbar(text, { variant: 'warning', key: text, preventDuplicate: true });
      return false;
    }
    // The changed set itself, not its checked copy: what did not change stays the same object.
    dispatch(replaced(next, gesture));
    return true;
  };
}

/** Opens a stored set; a draft that was kept in this browser and fits its revision comes first. */
export function openSet(stored: StoredSet, draft: unknown): BenchThunk {
  return (dispatch) => {
    dispatch(cleared());
    dispatch(benchActions.opened({ id: stored.id, revision: stored.revision }));
    dispatch(replaced(stored.document, null));
    dispatch(ActionCreators.clearHistory());
    if (draft === null) return;
    const checked = checkDocument(setDocument, draft);
    if (checked.ok) dispatch(replaced(checked.value, null));
  };
}

export const undo = (): UnknownAction => ActionCreators.undo();
export const redo = (): UnknownAction => ActionCreators.redo();
