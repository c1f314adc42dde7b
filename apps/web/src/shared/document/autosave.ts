import type { ListenerMiddlewareInstance } from '@reduxjs/toolkit';
import equal from 'fast-deep-equal';
import { enqueueSnackbar } from 'notistack';
import { settlePending } from '../pending';
import { dropDraft, keepDraft } from './drafts';
import type { OpenDocument, OpenDocumentState } from './openDocument';
import { newerOf, PASSES, reasonOf, type SaveFailure, troubleOf } from './saveFailure';

/** Quiet time after the last change before it is saved, ms. */
const QUIET_MS = 600;
/** Quiet time before a change is kept in the browser, ms. */
const DRAFT_MS = 150;
/** Time between tries while the server cannot be reached, ms. */
const RETRY_MS = 4000;

/**
 * Saves an open document a moment after each change, with its revision. What cannot be saved is kept in the browser, with
 * the reason, and tried again where that may help; a newer one elsewhere is shown and nothing is overwritten. When the page
 * goes, what is half typed is set and all of it is kept.
 */
export function startAutosave<D extends { name: string }, K extends string>(
  listeners: ListenerMiddlewareInstance,
  open: OpenDocument<D, K>,
): void {
  type State = Record<K, OpenDocumentState<D>>;

  function edited(action: unknown, now: unknown, before: unknown): boolean {
    // What has just been read is stored already.
    if ((action as { meta?: { stored?: boolean } }).meta?.stored) return false;
    const [to, from] = [now as State, before as State];
    const same = to[open.key].file.stored?.id === from[open.key].file.stored?.id;
    const [after, earlier] = [open.documentOf(to), open.documentOf(from)];
    return same && after !== null && earlier !== null && after !== earlier;
  }

  const calls = new SaveCalls(open);

  listeners.startListening({
    predicate: edited,
    effect: async (_action, api) => {
      api.cancelActiveListeners();
      const state = () => api.getState() as State;
      if (state()[open.key].file.save === 'saved') api.dispatch(open.saveChanged('saving'));
      await api.delay(DRAFT_MS);
      const { stored, save } = state()[open.key].file;
      const document = open.documentOf(state());
      if (!stored || !document || save === 'saved') return;
      api.dispatch(open.keptChanged(await keepDraft(stored.id, stored.revision, document)));
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
        await saveUntilDone(calls, stored.id, state, (action) => api.dispatch(action as never));
      } finally {
        api.subscribe();
      }
    },
  });
  // What is left unsaved when a document is closed, by going elsewhere in the page, is saved after it.
  listeners.startListening({
    predicate: (action) => (action as { type: string }).type === open.closed().type,
    effect: async (_action, api) => {
      const before = api.getOriginalState() as State;
      const { stored, save } = before[open.key].file;
      const document = open.documentOf(before);
      if (!stored || !document || save === 'saved') return;
      void keepDraft(stored.id, stored.revision, document);
      if (save === 'conflict') return;
      const revision = Math.max((await calls.last(stored.id)) ?? 0, stored.revision);
      const { failure } = await calls.save((action) => api.dispatch(action as never), {
        id: stored.id,
        revision,
        document,
      });
      if (!failure) dropDraft(stored.id);
      else if (newerOf(failure)) {
        const words = `“${document.name}” was changed elsewhere too. Your last change is kept in this browser: open it again to decide.`;
        enqueueSnackbar(words, { variant: 'warning' });
      }
    },
  });
}

/**
 * Keeps what is not saved of an open document, at once: for when the page goes.
 * @param state of the store as it is
 */
export function keepWhatIsOpen<D extends { name: string }, K extends string>(
  open: OpenDocument<D, K>,
  state: () => Record<K, OpenDocumentState<D>>,
): void {
  const before = open.documentOf(state());
  settlePending();
  const { stored, save } = state()[open.key].file;
  const document = open.documentOf(state());
  const unsaved = save !== 'saved' || document !== before;
  if (stored && document && unsaved) void keepDraft(stored.id, stored.revision, document);
}

type Send = (action: unknown) => unknown;

interface SaveArgs<D> {
  id: string;
  revision: number;
  document: D;
}

type SaveOutcome = { failure: SaveFailure; revision?: undefined } | { failure: null; revision: number };

/** Calls that save a document, with the outcome of the last one for who comes after it. */
class SaveCalls<D extends { name: string }, K extends string> {
  private pending: { id: string; outcome: Promise<SaveOutcome> } | null = null;

  constructor(readonly open: OpenDocument<D, K>) {}

  save(send: Send, args: SaveArgs<D>): Promise<SaveOutcome> {
    const outcome = this.call(send, args);
    this.pending = { id: args.id, outcome };
    return outcome;
  }

  /** Revision that the last call for a document came to, once it is there; null where there was none. */
  async last(id: string): Promise<number | null> {
    if (this.pending?.id !== id) return null;
    return (await this.pending.outcome).revision ?? null;
  }

  private async call(send: Send, args: SaveArgs<D>): Promise<SaveOutcome> {
    const call = send(this.open.save(args)) as { unwrap(): Promise<{ revision: number }> };
    try {
      return { failure: null, revision: (await call.unwrap()).revision };
    } catch (failure) {
      return { failure: failure as SaveFailure };
    }
  }
}

async function saveUntilDone<D extends { name: string }, K extends string>(
  calls: SaveCalls<D, K>,
  id: string,
  state: () => Record<K, OpenDocumentState<D>>,
  send: Send,
): Promise<void> {
  const { open } = calls;
  for (;;) {
    const { stored } = state()[open.key].file;
    const document = open.documentOf(state());
    if (!stored || stored.id !== id || !document) return;
    const { failure, revision } = await calls.save(send, { id, revision: stored.revision, document });
    const newer = failure ? newerOf<D>(failure) : undefined;
    // The same may have been saved meanwhile, as by leaving the page and coming back at once.
    const stands = newer && equal(newer.document, document) ? newer.revision : revision;
    if (state()[open.key].file.stored?.id !== id) {
      // Another document is open by now: what came back is not about it.
      if (stands === undefined) void keepDraft(id, stored.revision, document);
      return;
    }
    if (stands !== undefined) {
      send(open.revisionSaved(stands));
      if (open.documentOf(state()) !== document) continue;
      dropDraft(id);
      send(open.saveChanged('saved'));
      return;
    }
    send(open.keptChanged(await keepDraft(id, stored.revision, document)));
    if (newer) {
      send(open.conflictMet(newer));
      return;
    }
    const trouble = troubleOf(failure ?? {});
    send(open.saveChanged(trouble, failure ? reasonOf(failure) : ''));
    // What is refused is refused again: the next change tries anew.
    if (!PASSES.has(trouble)) return;
    await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
  }
}
