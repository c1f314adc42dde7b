import { type SetDocument, setDocument } from '@fendrix/contract';
import type { MirrorBand, SpotTrace } from '@fendrix/core';
import type { Pick } from '@fendrix/workers';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import {
  createOpenDocument,
  type OpenDocument,
  type OpenDocumentState,
} from '../../../shared/document/openDocument';
import { setsApi } from '../../sets';
import { sameThing, type ThingRef } from './edits';

/** The set on the bench, with undo, saved as it changes. */
export const benchSet: OpenDocument<SetDocument, 'benchSet'> = createOpenDocument(
  'benchSet',
  setDocument,
  (args) => setsApi.endpoints.saveSet.initiate(args),
);

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
  selected: ThingRef | null;
  showMirrors: boolean;
  pinning: boolean;
  picture: PictureStatus;
  bands: MirrorBand[];
  traces: SpotTrace[];
  pick: Pick | null;
}

const initialState: BenchState = {
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
    cleared: () => initialState,
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

export const benchReducers = { bench: benchSlice.reducer, benchSet: benchSet.reducer };

export interface WithBench {
  bench: BenchState;
  benchSet: OpenDocumentState<SetDocument>;
}
