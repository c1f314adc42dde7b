import type { ApiError, Stored } from '@fendrix/contract';
import { failureMessage } from '../api';

/** Why a document could not be saved, as the call tells it. */
export interface SaveFailure {
  status?: number | string;
  data?: ApiError;
}

/** What became of a save that failed. */
export type Trouble = 'offline' | 'gone' | 'refused' | 'too-large' | 'storage' | 'failed';

/** Each has its own way out: waiting, a copy, a field to mend, space to free. */
export function troubleOf({ status, data }: SaveFailure): Trouble {
  if (typeof status === 'string') return status === 'PARSING_ERROR' ? 'failed' : 'offline';
  if (status === 404) return 'gone';
  if (status === 413) return 'too-large';
  if (status === 507 || data?.error.code === 'storage') return 'storage';
  if (status !== undefined && status >= 400 && status < 500) return 'refused';
  return status === undefined ? 'offline' : 'failed';
}

/** Troubles that may be over by themselves: the save is tried again. */
export const PASSES: ReadonlySet<Trouble> = new Set(['offline', 'storage', 'failed']);

/** The newer document that a save met. */
export const newerOf = <D>({ data }: SaveFailure): Stored<D> | undefined =>
  data?.error.newer as Stored<D> | undefined;

/** What the server said of it. */
export const reasonOf = (failure: SaveFailure): string => failureMessage(failure);
