import { type SetDocument, setDocument } from '@fendrix/contract';
import type { FrameRect, MirroredKind, Region, SetChange } from '@fendrix/core';
import type { Pick } from '@fendrix/workers';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import {
  createOpenDocument,
  type OpenDocument,
  type OpenDocumentState,
} from '../../../shared/document/openDocument';
import { setsApi } from '../../sets';
import { type FrameWindow, WHOLE_FRAME } from '../picture/frameWindow';
import { sameThing, type ThingRef } from './edits';

/** The set on the bench, with undo, saved as it changes. */
export const benchSet: OpenDocument<SetDocument, 'benchSet'> = createOpenDocument(
  'benchSet',
  setDocument,
  (args) => setsApi.endpoints.saveSet.initiate(args),
  { create: (set) => setsApi.endpoints.createSet.initiate(set), path: (id) => `/sets/${id}` },
  withoutSameTakes,
);

/** Takes are large and seldom change: at each step of a drag they would be checked again. */
function withoutSameTakes(next: SetDocument, before: SetDocument): SetDocument {
  if (next.takes !== before.takes || next.takeId !== before.takeId) return next;
  const { takeId: _takeId, ...rest } = next;
  const known = new Set(next.takes.map(({ id }) => id));
  const plates = next.plates.map(({ takeId, ...plate }) =>
    takeId === undefined || known.has(takeId) ? plate : { ...plate, takeId },
  );
  return { ...rest, takes: [], plates };
}

export interface PictureStatus {
  phase: 'waiting' | 'following' | 'refining' | 'done';
  samples: number;
  /** 0 to 1 of the refining. */
  progress: number;
  /** Whether large meshes are shown simplified: from when things move until the whole ones are there. */
  simplified: boolean;
  /** Whether one at full size is on its way: small ones elsewhere wait for it. */
  awaited: boolean;
  /** Rays traced since the page was opened. */
  rays: number;
  /** Pictures shown, and pictures that were traced for it: the rest were developed from films kept. */
  shown: number;
  traced: number;
}

/** What is laid over the picture; one at a time, so that each can be read. */
export type Overlay = 'none' | 'mirrors' | 'through' | 'stops' | 'clipping' | 'focus';

/** What stands in the middle column of the bench. */
export type Desk = 'plans' | 'walk' | 'exposure' | 'movement' | 'background' | 'plates' | 'devices';

export type CompareMode = 'side' | 'wipe' | 'blink' | 'difference' | 'verdicts';

/** What the picture of now is held against: a take that was kept, or what a change would make of it. */
export type Compared = { kind: 'take'; id: string } | { kind: 'change'; change: SetChange; words: string };

/** A card or flag that is being looked for: what for, and where. */
export interface CardsState {
  what: 'keep-off' | 'lift' | 'mirror';
  /** What a press in the picture takes. */
  by: Region['by'];
  /** What the next press in the picture says; null where it selects as usual. */
  pointing: 'region' | 'spare' | null;
  region: Region | null;
  spare: Region | null;
  /** Tag of the light that is kept off; null for the first. */
  light: string | null;
  stops: number;
  kind: MirroredKind;
}

/** Plates as they are looked at. */
export interface PlatesState {
  /** Whether they are laid over the picture. */
  shown: boolean;
  chosen: string | null;
  /** Whether the mask of the chosen one is shown. */
  maskShown: boolean;
  /** What the next press in the picture adds to that mask; null where it selects as usual. */
  pointing: PlatePointing | null;
}

export interface PlatePointing {
  by: 'thing' | 'part' | 'gradient' | 'brush';
  leaveOut: boolean;
  /** First of the two places of a gradient. */
  from?: { across: number; down: number };
}

const FIRST_CARDS: CardsState = {
  what: 'keep-off',
  by: 'part',
  pointing: 'region',
  region: null,
  spare: null,
  light: null,
  stops: 1,
  kind: 'white',
};

/** Radius of the brush, parts of the frame's width. */
export const BRUSH_RADIUS = 0.02;

export interface BenchState {
  plates: PlatesState;
  /** What a card is looked for; null while none is. */
  cards: CardsState | null;
  selected: ThingRef | null;
  overlay: Overlay;
  /** Formats drawn over the picture: not, all, or one of them alone by its name. */
  crops: { shown: boolean; only: string | null };
  /** The mirrors of the whole product instead of one height. */
  wholeSurface: boolean;
  /** The picture is traced without what is kept on large sheets. */
  wholePaths: boolean;
  /** Width at which the lens view is shown, px. */
  lensWidthPx: number;
  window: FrameWindow;
  desk: Desk;
  /** Whether something is being chosen to put on the set. */
  adding: boolean;
  /** What was typed and chosen on the desks, by name: it stays while another desk is open. */
  deskFigures: Record<string, unknown>;
  /** Tag of the light that is looked at alone, as if all others were off; null for all that are on. */
  alone: string | null;
  /** Zones in the plans: none, of the selected product, or round the spot pointed at. */
  zones: 'off' | 'product' | 'spot';
  /** What the picture is held against. */
  compare: { against: Compared; mode: CompareMode } | null;
  /** Part of the frame whose evenness is read; null for none. */
  field: FrameRect | null;
  marking: boolean;
  pinning: boolean;
  picture: PictureStatus;
  pick: Pick | null;
  /** Where in the frame was pointed, parts. */
  pickAt: [number, number] | null;
  /** The set has moved since that was read. */
  pickStale: boolean;
  /** The verdict that is looked at, and the things that cause it. */
  verdict: { id: string; causes: readonly ThingRef[] } | null;
}

const initialState: BenchState = {
  plates: { shown: true, chosen: null, maskShown: false, pointing: null },
  cards: null,
  selected: null,
  overlay: 'none',
  crops: { shown: true, only: null },
  wholeSurface: false,
  wholePaths: false,
  lensWidthPx: 560,
  window: WHOLE_FRAME,
  desk: 'plans',
  adding: false,
  deskFigures: {},
  alone: null,
  zones: 'off',
  compare: null,
  field: null,
  marking: false,
  pinning: false,
  picture: {
    phase: 'waiting',
    samples: 0,
    progress: 0,
    simplified: false,
    awaited: false,
    rays: 0,
    shown: 0,
    traced: 0,
  },
  pick: null,
  pickAt: null,
  pickStale: false,
  verdict: null,
};

const benchSlice = createSlice({
  name: 'bench',
  initialState,
  reducers: {
    cleared: () => initialState,
    selected: (state, { payload }: PayloadAction<ThingRef | null>) => {
      if (!sameThing(state.selected, payload)) state.selected = payload;
      if (payload) state.verdict = null;
    },
    overlayToggled: (state, { payload }: PayloadAction<Overlay>) => {
      state.overlay = state.overlay === payload ? 'none' : payload;
    },
    lensResized: (state, { payload }: PayloadAction<number>) => {
      state.lensWidthPx = payload;
    },
    wholeSurfaceToggled: (state) => {
      state.wholeSurface = !state.wholeSurface;
    },
    wholePathsToggled: (state) => {
      state.wholePaths = !state.wholePaths;
    },
    cropsToggled: (state) => {
      state.crops.shown = !state.crops.shown;
    },
    /** One format alone, or all again. */
    cropChosen: (state, { payload }: PayloadAction<string | null>) => {
      state.crops = { shown: true, only: payload };
    },
    windowChanged: (state, { payload }: PayloadAction<FrameWindow>) => {
      state.window = payload;
    },
    addingChanged: (state, { payload }: PayloadAction<boolean>) => {
      state.adding = payload;
    },
    /** One light alone, or all again. */
    aloneToggled: (state, { payload }: PayloadAction<string>) => {
      state.alone = state.alone === payload ? null : payload;
    },
    deskFigureSet: (state, { payload }: PayloadAction<{ name: string; figure: unknown }>) => {
      state.deskFigures[payload.name] = payload.figure;
    },
    deskChosen: (state, { payload }: PayloadAction<Desk>) => {
      state.desk = payload;
    },
    zonesChosen: (state, { payload }: PayloadAction<BenchState['zones']>) => {
      state.zones = payload;
    },
    compared: (state, { payload }: PayloadAction<BenchState['compare']>): BenchState => ({
      ...state,
      compare: payload,
    }),
    fieldMarked: (state, { payload }: PayloadAction<FrameRect | null>) => {
      state.field = payload;
      state.marking = false;
    },
    markingChanged: (state, { payload }: PayloadAction<boolean>) => {
      state.marking = payload;
    },
    pinningChanged: (state, { payload }: PayloadAction<boolean>) => {
      state.pinning = payload;
    },
    pictureChanged: (state, { payload }: PayloadAction<Partial<PictureStatus>>) => {
      Object.assign(state.picture, payload);
      if (payload.phase !== 'following') return;
      if (state.pick) state.pickStale = true;
    },
    picked: (state, { payload }: PayloadAction<{ pick: Pick; at: [number, number] } | null>) => {
      state.pick = payload?.pick ?? null;
      state.pickAt = payload?.at ?? null;
      state.pickStale = false;
    },
    /** What is looked at is shown by itself: nothing stays selected. */
    verdictChosen: (state, { payload }: PayloadAction<BenchState['verdict']>) => {
      state.verdict = payload && { id: payload.id, causes: [...payload.causes] };
      state.selected = null;
      state.pick = null;
      state.pickAt = null;
    },
    platesChanged: (state, { payload }: PayloadAction<Partial<PlatesState>>) => {
      Object.assign(state.plates, payload);
    },
    cardsOpened: (state, { payload }: PayloadAction<Partial<CardsState>>) => {
      state.cards = { ...FIRST_CARDS, ...(payload as Partial<CardsState>) } as typeof state.cards;
      state.selected = null;
      state.pick = null;
      state.pickAt = null;
      state.verdict = null;
    },
    cardsClosed: (state) => {
      state.cards = null;
      state.compare = null;
    },
    cardsChanged: (state, { payload }: PayloadAction<Partial<CardsState>>) => {
      if (state.cards) Object.assign(state.cards, payload);
    },
    /** A press in the picture, or one more stroke of the brush. */
    cardsPointed: ({ cards }, { payload: at }: PayloadAction<{ across: number; down: number }>) => {
      const which = cards?.pointing;
      if (!cards || !which) return;
      if (cards.by !== 'brush') {
        cards[which] = { by: cards.by, ...at };
        cards.pointing = null;
        return;
      }
      const painted = cards[which];
      const stroke = { ...at, radius: BRUSH_RADIUS };
      if (painted?.by === 'brush') (painted.strokes as (typeof stroke)[]).push(stroke);
      else cards[which] = { by: 'brush', strokes: [stroke] };
    },
    /** The same place, read again. */
    /** A place that was pointed at, read again; of no use once another one is pointed at. */
    pickRead: (
      state,
      { payload: { at, pick } }: PayloadAction<{ at: readonly [number, number]; pick: Pick | null }>,
    ) => {
      if (state.pickAt?.join() !== at.join()) return;
      state.pick = pick;
      if (!pick) state.pickAt = null;
      state.pickStale = false;
    },
  },
});

export const benchActions = benchSlice.actions;

export const benchReducers = { bench: benchSlice.reducer, benchSet: benchSet.reducer };

export interface WithBench {
  bench: BenchState;
  benchSet: OpenDocumentState<SetDocument>;
}
