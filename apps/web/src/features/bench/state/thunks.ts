import type { StoredSet } from '@fendrix/contract';
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import { benchActions, benchSet, type WithBench } from './benchSlice';

export type BenchThunk<R = void> = ThunkAction<R, WithBench, unknown, UnknownAction>;

export const { edit } = benchSet;

/** Opens a stored set on a bench without selection and pictures. */
export function openSet(stored: StoredSet, draft: unknown): BenchThunk {
  return (dispatch) => {
    dispatch(benchActions.cleared());
    dispatch(benchSet.open(stored, draft));
  };
}
