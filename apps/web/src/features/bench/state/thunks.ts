import type { StoredSet } from '@fendrix/contract';
import { withFocusKept } from '@fendrix/core';
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { benchActions, benchSet, type WithBench } from './benchSlice';
import type { Edit } from './edit';

export type BenchThunk<R = void> = ThunkAction<R, WithBench, unknown, UnknownAction>;

/** Applies a change; the focus stays on what it was on, unless it is locked or the change is about it. */
export const edit = (change: Edit, gesture: string | null = null): BenchThunk<boolean> =>
  benchSet.edit((set) => withFocusKept(set, change(set)), gesture);

/** Applies a change that brings back a state as it was kept. */
export const { edit: editAsKept } = benchSet;

/** Opens a stored set on a bench without selection and pictures. */
export function openSet(stored: StoredSet, draft: unknown): BenchThunk {
  return (dispatch) => {
    dispatch(benchActions.cleared());
    dispatch(benchSet.open(stored, draft));
  };
}
