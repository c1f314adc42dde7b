import type { SetDocument, StoredSet } from '@fendrix/contract';
import type { MirrorBand, SpotTrace } from '@fendrix/core';
import type { Pick } from '@fendrix/workers';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import undoable, { type StateWithHistory } from 'redux-undo';
import { sameThing, type ThingRef } from './edits';

export interface DocumentState {
  /** null until a set is opened. */
  set: SetDocument | null;
}

const documentSlice = createSlice({
  name: 'benchDocument',
  initialState: { set: null } as DocumentState,
  reducers: {
    /** No set is open; what is opened next is no edit of the last. */
    cleared: () => ({ set: null }),
    /** A whole checked document takes the place of the last; same gesture, same step of undo. */
    replaced: {
      reducer: (_state, { payload }: PayloadAction<SetDocument, string, { gesture: string | null }>) => ({
        set: payload,
      }),
      prepare: (set: SetDocument, gesture: string | null) => ({ payload: set, meta: { gesture } }),
    },
  },
});

export const { cleared, replaced } = documentSlice.actions;

export type SaveState = 'saved' | 'saving' | 'kept' | 'conflict';

export interface PictureStatus {
  phase: 'waiting' | 'following' | 'refining' | 'done';
  samples: number;
  /** 0 to 1 of the refining. */
  progress: number;
  /** Rays traced since the page was opened. */
  rays: number;
  /** Pictures shown, and pictures that were traced for it: the rest were developed from films kept. */
  shown: number;
  traced: number;
}

export interface BenchState {
  stored: { id: string; revision: number } | null;
  save: SaveState;
  newer: StoredSet | null;
  selected: ThingRef | null;
  showMirrors: boolean;
  pinning: boolean;
  picture: PictureStatus;
  bands: MirrorBand[];
  traces: SpotTrace[];
  pick: Pick | null;
}

const initialState: BenchState = {
  stored: null,
  save: 'saved',
  newer: null,
  selected: null,
  showMirrors: false,
  pinning: false,
  picture: { phase: 'waiting', samples: 0, progress: 0, rays: 0, shown: 0, traced: 0 },
  bands: [],
  traces: [],
  pick: null,
};

const benchSlice = createSlice({
  name: 'bench',
  initialState,
  reducers: {
    opened: (_state, { payload }: PayloadAction<{ id: string; revision: number }>) => ({
      ...initialState,
      stored: payload,
    }),
    closed: () => initialState,
    saveChanged: (state, { payload }: PayloadAction<SaveState>) => {
      state.save = payload;
    },
    revisionSaved: (state, { payload }: PayloadAction<number>) => {
      if (state.stored) state.stored.revision = payload;
    },
    conflictMet: (state, { payload }: PayloadAction<StoredSet>) => {
      state.save = 'conflict';
      state.newer = payload;
    },
    selected: (state, { payload }: PayloadAction<ThingRef | null>) => {
      if (!sameThing(state.selected, payload)) state.selected = payload;
    },
    mirrorsToggled: (state) => {
      state.showMirrors = !state.showMirrors;
    },
    pinningChanged: (state, { payload }: PayloadAction<boolean>) => {
      state.pinning = payload;
    },
    pictureChanged: (state, { payload }: PayloadAction<Partial<PictureStatus>>) => {
      Object.assign(state.picture, payload);
    },
    bandsRead: (state, { payload }: PayloadAction<MirrorBand[]>) => {
      state.bands = payload;
    },
    spotsTraced: (state, { payload }: PayloadAction<SpotTrace[]>) => {
      state.traces = payload;
    },
    picked: (state, { payload }: PayloadAction<Pick | null>) => {
      state.pick = payload;
    },
  },
});

export const benchActions = benchSlice.actions;

/** Kept steps of undo. */
const HISTORY = 200;

export const benchReducers = {
  bench: benchSlice.reducer,
  benchDocument: undoable(documentSlice.reducer, {
    limit: HISTORY,
    groupBy: (action) => (action as { meta?: { gesture?: string | null } }).meta?.gesture ?? null,
    filter: (_action, current, history) => current.set !== history.present.set,
    syncFilter: true,
  }),
};

export interface WithBench {
  bench: BenchState;
  benchDocument: StateWithHistory<DocumentState>;
}
