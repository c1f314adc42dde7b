import type { ApiError, Stored } from '@fendrix/contract';
import type { ListenerMiddlewareInstance } from '@reduxjs/toolkit';
import { dropDraft, keepDraft } from './drafts';
import type { OpenDocument, OpenDocumentState } from './openDocument';

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
 * Saves an open document a moment after each change, with its revision. While the server is away the document is
 * kept in the browser and tried again; a newer one elsewhere is shown and nothing is overwritten.
 */
export function startAutosave<D extends { name: string }, K extends string>(
  listeners: ListenerMiddlewareInstance,
  open: OpenDocument<D, K>,
): void {
  type State = Record<K, OpenDocumentState<D>>;

  function edited(_action: unknown, now: unknown, before: unknown): boolean {
    const [to, from] = [now as State, before as State];
    const same = to[open.key].file.stored?.id === from[open.key].file.stored?.id;
    const [after, earlier] = [open.documentOf(to), open.documentOf(from)];
    return same && after !== null && earlier !== null && after !== earlier;
  }

  listeners.startListening({
    predicate: edited,
    effect: async (_action, api) => {
      api.cancelActiveListeners();
      const state = () => api.getState() as State;
      if (state()[open.key].file.save === 'saved') api.dispatch(open.saveChanged('saving'));
      await api.delay(DRAFT_MS);
      const { stored, save } = state()[open.key].file;
      const document = open.documentOf(state());
      if (stored && document && save !== 'saved') keepDraft(stored.id, stored.revision, document);
    },
  });
  listeners.startListening({
    predicate: edited,
    effect: async (_action, api) => {
      api.cancelActiveListeners();
      const state = () => api.getState() as State;
      await api.delay(QUIET_MS);
      const { stored, save } = state()[open.key].file;
      if (!stored || save === 'conflict') return;
      // A later change must not cut the call in two: the loop sees it when the answer is there.
      api.unsubscribe();
      try {
        await saveUntilDone(open, stored.id, state, (action) => api.dispatch(action as never));
      } finally {
        api.subscribe();
      }
    },
  });
}

async function saveUntilDone<D extends { name: string }, K extends string>(
  open: OpenDocument<D, K>,
  id: string,
  state: () => Record<K, OpenDocumentState<D>>,
  send: (action: unknown) => unknown,
): Promise<void> {
  for (;;) {
    const { stored } = state()[open.key].file;
    const document = open.documentOf(state());
    if (!stored || stored.id !== id || !document) return;
    const { revision } = stored;
    const failure = await trySave(open, send, { id, revision, document });
    if (failure === null) {
      if (open.documentOf(state()) === document) {
        dropDraft(id);
        send(open.saveChanged('saved'));
        return;
      }
      continue;
    }
    const newer = failure.data?.error.newer;
    if (newer) {
      send(open.conflictMet(newer as unknown as Stored<D>));
      return;
    }
    send(open.saveChanged('kept'));
    keepDraft(id, revision, document);
    await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
  }
}

async function trySave<D extends { name: string }, K extends string>(
  open: OpenDocument<D, K>,
  send: (action: unknown) => unknown,
  args: { id: string; revision: number; document: D },
): Promise<SaveFailure | null> {
  const call = send(open.save(args)) as { unwrap(): Promise<{ revision: number }> };
  try {
    const saved = await call.unwrap();
    send(open.revisionSaved(saved.revision));
    return null;
  } catch (failure) {
    return failure as SaveFailure;
  }
}
