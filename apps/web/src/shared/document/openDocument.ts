import { checkDocument, type Stored } from '@fendrix/contract';
import {
  combineReducers,
  createAction,
  type Reducer,
  type ThunkAction,
  type UnknownAction,
} from '@reduxjs/toolkit';
import equal from 'fast-deep-equal';
import undoable, { type StateWithHistory } from 'redux-undo';
import { tellRefusal } from '../refusals';
import { type Draft, dropDraft } from './drafts';
import { problemWords } from './problemWords';
import type { Trouble } from './saveFailure';
import { ownWindow } from './windows';

export type SaveState = 'saved' | 'saving' | 'conflict' | Trouble;

/** Where the open document is kept, and whether what is here is there too. */
export interface FileState<D> {
  stored: { id: string; revision: number } | null;
  save: SaveState;
  newer: Stored<D> | null;
  /** What the server said of the last save that failed. */
  why: string;
  /** Whether what is not saved is kept in this browser. */
  kept: boolean;
  /** What is kept in this browser beside the open document: not saved, and to be decided on. */
  offered: Draft[];
}

interface Value<D> {
  /** null until a document is opened. */
  value: D | null;
}

export interface OpenDocumentState<D> {
  history: StateWithHistory<Value<D>>;
  file: FileState<D>;
}

/** An open document: what may be done with it. */
export interface OpenDocument<D extends { name: string }, K extends string> {
  key: K;
  reducer: Reducer<OpenDocumentState<D>, UnknownAction>;
  save: SaveCall<D>;
  /** Stores a document anew, and where it is then opened. */
  copies: Copies<D>;
  documentOf(state: Record<K, OpenDocumentState<D>>): D | null;
  /**
   * Applies a change and checks the whole document; a change that would break it is refused with the field and the
   * cure, and nothing happens.
   * @param gesture changes of one gesture are undone together
   */
  edit(change: (document: D) => D, gesture?: string | null): Thunk<Record<K, OpenDocumentState<D>>, boolean>;
  /** Opens a stored document; what this window kept of it comes first, as a change that can be undone. */
  open(stored: Stored<D>, draft: unknown): Thunk<Record<K, OpenDocumentState<D>>>;
  /** Settles a conflict: the newer document from the server, or this one saved over it. Both can be undone. */
  settleConflict(keep: 'mine' | 'newer'): Thunk<Record<K, OpenDocumentState<D>>>;
  /** Takes over a newer stored document where all that was done here is stored; otherwise nothing happens. Can be undone. */
  catchUp(newer: Stored<D>): Thunk<Record<K, OpenDocumentState<D>>>;
  /** Drafts that are to be decided on. */
  draftsMet(drafts: Draft[]): UnknownAction;
  /** Goes on with a draft, as a change that can be undone; told and left where it is if it cannot be. */
  takeDraft(draft: Draft): Thunk<Record<K, OpenDocumentState<D>>, boolean>;
  /** Not asked about any more, here. */
  draftSettled(window: string): UnknownAction;
  undo(): UnknownAction;
  redo(): UnknownAction;
  closed(): UnknownAction;
  saveChanged(save: SaveState, why?: string): UnknownAction;
  keptChanged(kept: boolean): UnknownAction;
  revisionSaved(revision: number): UnknownAction;
  conflictMet(newer: Stored<D>): UnknownAction;
}

type Thunk<S, R = void> = ThunkAction<R, S, unknown, UnknownAction>;
type DocumentSchema<D> = Parameters<typeof checkDocument<D>>[0];
type SaveCall<D> = (args: { id: string; revision: number; document: D }) => unknown;

export interface Copies<D> {
  create(document: D): unknown;
  path(id: string): string;
}

/** Kept steps of undo. */
const HISTORY = 200;

/**
 * A document that is open in the page: its value with undo, checked at every edit, and where it is kept.
 * @param key place in the store  @param save the call that stores it, for autosave  @param copies the one that stores it anew
 * @param toCheck leaves out of an edit's check what is the same as in the document before
 */
export function createOpenDocument<D extends { name: string }, K extends string>(
  key: K,
  schema: DocumentSchema<D>,
  save: SaveCall<D>,
  copies: Copies<D>,
  toCheck: (next: D, before: D) => D = (next) => next,
): OpenDocument<D, K> {
  type State = Record<K, OpenDocumentState<D>>;

  /** Nothing is open; what is opened next is no edit of the last. */
  const cleared = createAction(`${key}/cleared`);
  /** A whole checked document takes the place of the last; same gesture, same step of undo. */
  const replaced = createAction(`${key}/replaced`, (document: D, gesture: string | null, stored = false) => ({
    payload: document,
    meta: { gesture, stored },
  }));
  const value = (state: Value<D> = { value: null }, action: UnknownAction): Value<D> => {
    if (cleared.match(action)) return { value: null };
    return replaced.match(action) ? { value: action.payload } : state;
  };

  const nothing: FileState<D> = {
    stored: null,
    save: 'saved',
    newer: null,
    why: '',
    kept: true,
    offered: [],
  };
  const opened = createAction<{ id: string; revision: number }>(`${key}/opened`);
  const closed = createAction(`${key}/closed`);
  const saveChanged = createAction(`${key}/saveChanged`, (save: SaveState, why = '') => ({
    payload: { save, why },
  }));
  const keptChanged = createAction<boolean>(`${key}/keptChanged`);
  const draftsMet = createAction(`${key}/draftsMet`, (drafts: Draft[]) => ({ payload: drafts }));
  const draftSettled = createAction<string>(`${key}/draftSettled`);
  const revisionSaved = createAction<number>(`${key}/revisionSaved`);
  const conflictMet = createAction(`${key}/conflictMet`, (newer: Stored<D>) => ({ payload: newer }));
  const file = (state: FileState<D> = nothing, action: UnknownAction): FileState<D> => {
    if (opened.match(action)) return { ...nothing, stored: action.payload };
    if (closed.match(action)) return nothing;
    if (saveChanged.match(action)) return { ...state, ...action.payload };
    if (keptChanged.match(action)) return { ...state, kept: action.payload };
    if (draftsMet.match(action)) return { ...state, offered: action.payload };
    if (draftSettled.match(action)) {
      return { ...state, offered: state.offered.filter(({ window }) => window !== action.payload) };
    }
    if (conflictMet.match(action)) return { ...state, save: 'conflict', newer: action.payload };
    if (!revisionSaved.match(action) || !state.stored) return state;
    return { ...state, stored: { ...state.stored, revision: action.payload } };
  };

  const types = { undo: `${key}/undo`, redo: `${key}/redo`, clear: `${key}/clearHistory` };
  const history = undoable(value, {
    limit: HISTORY,
    groupBy: (action) => (action as { meta?: { gesture?: string | null } }).meta?.gesture ?? null,
    filter: (_action, current, past) => current.value !== past.present.value,
    syncFilter: true,
    undoType: types.undo,
    redoType: types.redo,
    clearHistoryType: types.clear,
    // Those of one open document leave the others alone.
    jumpType: `${key}/jump`,
    jumpToPastType: `${key}/jumpToPast`,
    jumpToFutureType: `${key}/jumpToFuture`,
  });

  const reducer = combineReducers({ history, file });

  const documentOf = (state: State): D | null => state[key].history.present.value;

  function edit(change: (document: D) => D, gesture: string | null = null): Thunk<State, boolean> {
    return (dispatch, getState) => {
      const document = documentOf(getState());
      if (!document) return false;
      const next = change(document);
      // What changes nothing is no step of undo.
      if (equal(next, document)) return true;
      const checked = checkDocument(schema, toCheck(next, document));
      if (!checked.ok) {
        const [problem] = checked.problems;
        tellRefusal(problem ? problemWords(problem, next) : 'This cannot be.');
        return false;
      }
      // The changed document itself, not its checked copy: what did not change stays the same object.
      dispatch(replaced(next, gesture));
      return true;
    };
  }

  function open(stored: Stored<D>, draft: unknown): Thunk<State> {
    return (dispatch) => {
      dispatch(cleared());
      dispatch(opened({ id: stored.id, revision: stored.revision }));
      dispatch(replaced(stored.document, null, true));
      dispatch({ type: types.clear });
      // The first check builds the checks of all fields: some 30 ms that would be felt where the first drag begins.
      setTimeout(() => checkDocument(schema, stored.document));
      if (draft === null) return;
      const checked = checkDocument(schema, draft);
      if (checked.ok) dispatch(replaced(checked.value, null));
    };
  }

  function settleConflict(keep: 'mine' | 'newer'): Thunk<State> {
    return (dispatch, getState) => {
      const { newer } = getState()[key].file;
      const mine = documentOf(getState());
      if (!newer || !mine) return;
      dispatch(opened({ id: newer.id, revision: newer.revision }));
      // Either can be gone back to by undo.
      dispatch(replaced(newer.document, null, true));
      if (keep === 'mine') dispatch(replaced(mine, null));
      else dropDraft(newer.id);
    };
  }

  function catchUp(newer: Stored<D>): Thunk<State> {
    return (dispatch, getState) => {
      const { stored, save } = getState()[key].file;
      if (stored?.id !== newer.id || save !== 'saved' || newer.revision <= stored.revision) return;
      dispatch(revisionSaved(newer.revision));
      dispatch(replaced(newer.document, null, true));
    };
  }

  function takeDraft({ document, window }: Draft): Thunk<State, boolean> {
    return (dispatch, getState) => {
      const { stored } = getState()[key].file;
      const checked = checkDocument(schema, document);
      if (!stored || !checked.ok) {
        const [problem] = checked.ok ? [] : checked.problems;
        tellRefusal(problem ? problemWords(problem, document) : 'This cannot be opened.');
        return false;
      }
      dispatch(replaced(checked.value, null));
      dispatch(draftSettled(window));
      // Saved from here on under this window's name.
      if (window !== ownWindow()) dropDraft(stored.id, window);
      return true;
    };
  }

  return {
    key,
    reducer,
    save,
    copies,
    documentOf,
    edit,
    open,
    settleConflict,
    catchUp,
    draftsMet,
    takeDraft,
    draftSettled,
    undo: (): UnknownAction => ({ type: types.undo }),
    redo: (): UnknownAction => ({ type: types.redo }),
    closed,
    saveChanged,
    keptChanged,
    revisionSaved,
    conflictMet,
  };
}
