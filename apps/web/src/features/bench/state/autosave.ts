import type { ApiError, SetDocument } from '@fendrix/contract';
import type { ListenerMiddlewareInstance } from '@reduxjs/toolkit';
import { setsApi } from '../../sets';
import { benchActions, type WithBench } from './benchSlice';
import { dropDraft, keepDraft } from './drafts';
import { type BenchThunk, openSet } from './thunks';

/** Quiet time after the last change before it is saved, ms. */
const QUIET_MS = 600;
/** Quiet time before a change is kept in the browser, ms. */
const DRAFT_MS = 150;
/** Time between tries while the server cannot be reached, ms. */
const RETRY_MS = 4000;

interface SaveFailure {
  status?: number | string;
  data?: ApiError;
}

/**
 * Saves the set a moment after each change, with its revision. While the server is away the set is kept in the
 * browser and tried again; a newer one elsewhere is shown and nothing is overwritten.
 */
export function startAutosave(listeners: ListenerMiddlewareInstance): void {
  listeners.startListening({
    predicate: documentEdited,
    effect: async (_action, api) => {
      api.cancelActiveListeners();
      if ((api.getState() as WithBench).bench.save === 'saved') {
        api.dispatch(benchActions.saveChanged('saving'));
      }
      await api.delay(DRAFT_MS);
      const { bench, benchDocument } = api.getState() as WithBench;
      const { set } = benchDocument.present;
      if (bench.stored && set && bench.save !== 'saved')
        keepDraft(bench.stored.id, bench.stored.revision, set);
    },
  });
  listeners.startListening({
    predicate: documentEdited,
    effect: async (_action, api) => {
      api.cancelActiveListeners();
      const state = () => api.getState() as WithBench;
      await api.delay(QUIET_MS);
      const { stored, save } = state().bench;
      if (!stored || save === 'conflict') return;
      // A later change must not cut the call in two: the loop sees it when the answer is there.
      api.unsubscribe();
      try {
        await saveUntilDone(stored.id, state, api.dispatch);
      } finally {
        api.subscribe();
      }
    },
  });
}

function documentEdited(_action: unknown, now: unknown, before: unknown): boolean {
  const to = now as WithBench;
  const from = before as WithBench;
  const sameSet = to.bench.stored?.id === from.bench.stored?.id;
  const [after, earlier] = [to.benchDocument.present.set, from.benchDocument.present.set];
  return sameSet && after !== null && earlier !== null && after !== earlier;
}

/** Settles a conflict: the newer set from the server, or this one saved over it. */
export function settleConflict(keep: 'mine' | 'newer'): BenchThunk {
  return (dispatch, getState) => {
    const { newer } = getState().bench;
    const mine = getState().benchDocument.present.set;
    if (!newer || !mine) return;
    if (keep === 'newer') dropDraft(newer.id);
    dispatch(openSet(newer, keep === 'mine' ? mine : null));
  };
}

async function saveUntilDone(
  id: string,
  state: () => WithBench,
  dispatch: (action: never) => unknown,
): Promise<void> {
  const send = dispatch as (action: unknown) => unknown;
  for (;;) {
    const { stored } = state().bench;
    const document = state().benchDocument.present.set;
    if (!stored || stored.id !== id || !document) return;
    const { revision } = stored;
    const failure = await trySave(send, id, revision, document);
    if (failure === null) {
      if (state().benchDocument.present.set === document) {
        dropDraft(id);
        send(benchActions.saveChanged('saved'));
        return;
      }
      continue;
    }
    const newer = failure.data?.error.newer;
    if (newer) {
      send(benchActions.conflictMet(newer));
      return;
    }
    send(benchActions.saveChanged('kept'));
    keepDraft(id, revision, document);
    await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
  }
}

async function trySave(
  send: (action: unknown) => unknown,
  id: string,
  revision: number,
  document: SetDocument,
): Promise<SaveFailure | null> {
  const call = send(setsApi.endpoints.saveSet.initiate({ id, revision, document })) as {
    unwrap(): Promise<{ revision: number }>;
  };
  try {
    const saved = await call.unwrap();
    send(benchActions.revisionSaved(saved.revision));
    return null;
  } catch (failure) {
    return failure as SaveFailure;
  }
}
