import type { BandProfile, GlareZones, MirrorBand, MirrorMap, SpotTrace, Thing } from '@fendrix/core';
import type { Pick, Task, TaskResults } from '@fendrix/workers';
import type { FromDeveloper } from '../picture/developProtocol';
import { type FrameWindow, pictureOf } from '../picture/frameWindow';
import type { Shown } from './shown';

export interface MirrorOverlay {
  map: MirrorMap;
  things: Thing[];
  window: FrameWindow;
}

/** Distance along the lens axis of what each pixel shows, m; NaN where nothing is. */
export interface DepthOverlay {
  width: number;
  height: number;
  depth: Float32Array;
  window: FrameWindow;
}

/** What is told of the set on the bench. */
export interface FigureValues {
  /** The newest picture. */
  picture: FromDeveloper;
  bands: MirrorBand[];
  mirrors: MirrorOverlay;
  depth: DepthOverlay;
  profile: BandProfile | null;
  zones: GlareZones;
  /** The place that is pointed at, parts of the frame, read again; no pick where nothing is there any more. */
  pick: { at: readonly [number, number]; pick: Pick | null };
  /** The pinned spots; `settled` once they will not be traced any finer. */
  spots: { traces: SpotTrace[]; settled: boolean };
  /** The view that judges look at, and the key of the set that it was traced of. */
  view: TaskResults['view'];
  /** The same without light: there sooner. */
  maps: TaskResults['view'];
}

export type FigureName = keyof FigureValues;

/** In what detail figures are read: while a thing moves, or once it rests. */
export interface Detail {
  mapWidth: number;
  profile: { columns: number; samples: number };
  spotSamples: number;
  /** Nothing moves: every core may help. */
  atRest: boolean;
}

export const FOLLOWING: Detail = {
  mapWidth: 240,
  profile: { columns: 48, samples: 6 },
  spotSamples: 64,
  atRest: false,
};
export const REFINED: Detail = {
  mapWidth: 520,
  profile: { columns: 120, samples: 96 },
  spotSamples: 2048,
  atRest: true,
};

/** How figures are read. */
export interface Seen {
  detail: Detail;
  window: FrameWindow;
  aspect: number;
  /** While a thing moves the light of lightmaps is not baked anew for one line of it. */
  quick: boolean;
  ambient: readonly number[] | null;
}

/** Reads a figure of a set: what the worker is asked, and what becomes of its answer. */
export interface Reading<Name extends FigureName> {
  task: Task;
  value(answer: TaskResults[Task['kind']]): FigureValues[Name];
}

/**
 * A figure that is read live. It is read again when light takes other paths and when what is wanted of it changes; while
 * things move the newest set counts, and a reading that is overtaken is cut off.
 */
export interface LiveFigure<Name extends FigureName = FigureName> {
  /** `moving`: with each picture that follows a move. `rest`: once things rest, in full detail. */
  readAt: readonly ('moving' | 'rest')[];
  /** What is wanted of it, from what is shown; null while nobody looks. */
  wish(shown: Shown): unknown;
  /** How it is read for that; null where that cannot be just now. */
  reading(shown: Shown, seen: Seen): Reading<Name> | null;
}

/** Declares a figure whose wish is told by one function and read by one kind of task. */
function declare<Name extends FigureName, Wish, K extends Task['kind']>({
  wish,
  readAt,
  task,
  value,
}: {
  readAt: LiveFigure['readAt'];
  wish(shown: Shown): Wish | null;
  task(wish: Wish, seen: Seen): Extract<Task, { kind: K }> | null;
  value(answer: TaskResults[K], seen: Seen, wish: Wish): FigureValues[Name];
}): LiveFigure<Name> {
  return {
    readAt,
    wish,
    reading(shown, seen) {
      const wanted = wish(shown);
      const asked = wanted === null ? null : task(wanted, seen);
      if (!asked) return null;
      return {
        task: asked,
        value: (answer) => value(answer as TaskResults[K], seen, wanted as Wish),
      };
    },
  };
}

const mapOf = ({ window, detail, aspect }: Seen) => {
  const { width, height, part: tile } = pictureOf(window, detail.mapWidth, aspect);
  return { width, height, tile };
};

/**
 * Paths a place of the view for judging, in each of its batches: of the first one, soon after a rest; of those that cures are
 * judged by; and of the whole one, which settles what was not sure.
 */
const FIRST_VIEW_SAMPLES = 1;
export const VIEW_SAMPLES = 4;
export const WHOLE_VIEW_SAMPLES = 12;

/** All figures but the picture, and the spots, which are read on and on until they are sure: see `LiveReader`. */
export const liveFigures: { [Name in Exclude<FigureName, 'picture' | 'spots'>]: LiveFigure<Name> } = {
  bands: declare<'bands', true, 'bands'>({
    readAt: ['moving'],
    wish: () => true,
    task: () => ({ kind: 'bands' }),
    value: (bands) => bands,
  }),
  mirrors: declare<'mirrors', true, 'mirror'>({
    readAt: ['moving', 'rest'],
    wish: ({ overlay, wholeSurface }) =>
      overlay === 'mirrors' || overlay === 'through' || wholeSurface ? true : null,
    task: (_, seen) => ({ kind: 'mirror', ...mapOf(seen) }),
    value: (found, { window }) => ({ ...found, window }),
  }),
  depth: declare<'depth', true, 'depth'>({
    readAt: ['moving', 'rest'],
    wish: ({ overlay }) => (overlay === 'focus' ? true : null),
    task: (_, seen) => ({ kind: 'depth', ...mapOf(seen) }),
    value: (depth, seen) => {
      const { width, height } = mapOf(seen).tile;
      return { width, height, depth, window: seen.window };
    },
  }),
  profile: declare<'profile', string, 'profile'>({
    readAt: ['moving', 'rest'],
    wish: ({ band }) => band,
    task: (product, { detail, quick, ambient }) => {
      if (quick && !ambient) return null;
      return { kind: 'profile', product, ...detail.profile, ...(quick && ambient ? { ambient } : {}) };
    },
    value: (profile) => profile,
  }),
  zones: declare<'zones', NonNullable<Shown['zones']>, 'zones'>({
    readAt: ['moving', 'rest'],
    wish: ({ zones }) => zones,
    task: (options) => ({ kind: 'zones', options }),
    value: (zones) => zones,
  }),
  pick: declare<'pick', readonly [number, number], 'pick'>({
    readAt: ['rest'],
    wish: ({ pick }) => pick,
    task: ([across, down]) => ({ kind: 'pick', across, down }),
    value: (pick, _, at) => ({ at, pick }),
  }),
  maps: declare<'maps', true, 'view'>({
    readAt: ['rest'],
    wish: () => true,
    task: () => ({ kind: 'view', samples: 0 }),
    value: (view) => view,
  }),
  view: declare<'view', true, 'view'>({
    readAt: ['rest'],
    wish: () => true,
    task: () => ({ kind: 'view', samples: FIRST_VIEW_SAMPLES }),
    value: (view) => view,
  }),
};
