import type { Likeness, SetDocument } from '@fendrix/contract';
import type {
  BakedLight,
  BandAnswer,
  BandProfile,
  BandWish,
  CardAnswer,
  CardTry,
  CardWish,
  DenoiseFeatures,
  FieldTrace,
  FrameRect,
  FrameTones,
  Gathered,
  GlareZones,
  GradientAnswer,
  GradientWish,
  JudgedBy,
  LaidFrame,
  LightSource,
  MirrorBand,
  MirrorMap,
  MovePictures,
  NoGradient,
  Overlap,
  PartMap,
  Place,
  RebuildWish,
  Rebuilt,
  Region,
  RimTrace,
  SetChange,
  SpotTrace,
  Thing,
  Tile,
  TileJob,
  ToldThing,
  TracedView,
  TriedCure,
  TriedMove,
  Verdict,
  WayOut,
  WeighedPlaces,
  ZoneOptions,
} from '@fendrix/core';

/** Work that a worker does on the set it holds. */
export type Task =
  | { kind: 'tile'; job: TileJob }
  /** Baking in pieces, see `bakeSpread`: a part of the patches; all of them solved; a part of what is bundled; all of it kept. */
  | { kind: 'gather'; part: number; of: number }
  | { kind: 'solve'; parts: readonly Gathered[] }
  | { kind: 'send'; solved: BakedLight; part: number; of: number }
  | { kind: 'keep'; solved: BakedLight; photons: readonly Float32Array[] }
  | { kind: 'mirror'; width: number; height: number; tile: Tile }
  | { kind: 'features'; width: number; height: number; tile: Tile }
  | { kind: 'ambient' }
  | { kind: 'bands' }
  /** Bands at several heights, parts of the usual one. */
  | { kind: 'bandsAt'; parts: readonly number[] }
  | { kind: 'touched'; before: SetDocument }
  | { kind: 'spots'; spots: SetDocument['spots']; samples: number; seed: number }
  | { kind: 'pick'; across: number; down: number }
  | { kind: 'things' }
  | { kind: 'parts'; width: number; height: number; tile: Tile }
  | { kind: 'depth'; width: number; height: number; tile: Tile }
  | { kind: 'profile'; product: string; columns: number; samples: number; ambient?: readonly number[] }
  | { kind: 'zones'; options: ZoneOptions }
  | { kind: 'field'; rect: FrameRect; across: number; down: number; samples: number }
  | { kind: 'placeForBand'; wish: BandWish }
  | { kind: 'rebuild'; wish: RebuildWish }
  | { kind: 'loseGlare'; across: number; down: number }
  | { kind: 'gradient'; wish: GradientWish }
  | { kind: 'overlaps' }
  | { kind: 'inFrame' }
  | { kind: 'rims' }
  /** A tile of the picture with things moved, of the light of the plan; none for the plan itself. */
  | { kind: 'movedTile'; moves: readonly TriedMove[]; job: TileJob }
  /** Which things the picture tells if they stand elsewhere, see `toldThings`. */
  | { kind: 'toldThings'; pictures: MovePictures }
  /** What a search for those that stand elsewhere in a frame asks, see `MoveSearch`. */
  | { kind: 'layFrame'; pictures: MovePictures; frame: Float32Array }
  | { kind: 'lessFound'; laid: LaidFrame; picture: Float32Array }
  | { kind: 'likelyPlaces'; laid: LaidFrame }
  | { kind: 'weighPlaces'; laid: LaidFrame; pictures: readonly (Float32Array | null)[]; stepM: number }
  /** The view for judging, and what it is a view of, see `traceKey`. */
  | { kind: 'view'; samples: number }
  /** All verdicts on the set, by a view of its own; with the tones of a frame of it where there is one. */
  | { kind: 'judge'; samples: number; by: JudgedBy; frame?: FrameTones }
  /** The figures of the set's picture that another one may be held against. */
  | { kind: 'likeness'; samples: number }
  /** The usual cures of a verdict on a view of the set, untried. */
  | { kind: 'cures'; verdict: Verdict; view: TracedView; by: JudgedBy }
  /** The set as a change makes it, judged; its view is traced where none is given. */
  | {
      kind: 'tryCure';
      before: readonly Verdict[];
      verdict: Verdict;
      change: SetChange;
      view: TracedView | null;
      samples: number;
      stoodBefore: readonly Overlap[];
      by: JudgedBy;
    }
  /** One way to place a card or flag, see `cardTries`. */
  | { kind: 'card'; wish: CardWish; one: CardTry; kit: JudgedBy['kit'] }
  /** Places of the frame that a region takes. */
  | { kind: 'region'; region: Region };

/** What a region is of, and places of it, parts of the frame. */
export interface RegionPlaces {
  things: string[];
  /** How much of it shows what it mirrors rather than itself: polished metal does. */
  mirrorPart: number;
  places: { across: number; down: number }[];
}

/** What the lens meets at a picture point. */
export interface Pick {
  thing: Thing;
  pointM: [number, number, number];
  normal: [number, number, number];
  mirrored: Thing | null;
  mirroredPointM: [number, number, number] | null;
  weight: number;
  through: Thing | null;
  throughPointM: [number, number, number] | null;
  throughWeight: number;
  /** Where its light comes from. */
  sources: LightSource[];
}

export interface TaskResults {
  tile: Float32Array;
  movedTile: Float32Array;
  toldThings: ToldThing[];
  layFrame: LaidFrame;
  lessFound: LaidFrame;
  likelyPlaces: Place[];
  weighPlaces: WeighedPlaces;
  /** All light, of a worker that knows it already. */
  gather: { gathered: Gathered } | { known: BakedLight };
  solve: BakedLight;
  send: Float32Array;
  keep: BakedLight;
  mirror: { map: MirrorMap; things: Thing[] };
  features: DenoiseFeatures;
  ambient: number[];
  bands: MirrorBand[];
  bandsAt: MirrorBand[];
  /** See `touchedFilms`. */
  touched: number[] | null;
  spots: SpotTrace[];
  pick: Pick | null;
  things: Thing[];
  /** See `partTile`. */
  parts: PartMap;
  /** See `depthTile`. */
  depth: Float32Array;
  profile: BandProfile | null;
  zones: GlareZones;
  field: FieldTrace;
  placeForBand: BandAnswer | null;
  rebuild: Rebuilt | null;
  loseGlare: WayOut[];
  gradient: GradientAnswer | NoGradient | null;
  overlaps: Overlap[];
  /** See `thingsInFrame`. */
  inFrame: Thing[];
  rims: RimTrace;
  view: { key: string; view: TracedView };
  judge: Verdict[];
  likeness: Likeness | null;
  cures: SetChange[];
  tryCure: TriedCure | null;
  card: CardAnswer[];
  region: RegionPlaces;
}

export type TaskResult<T extends Task> = TaskResults[T['kind']];

/** To a worker: hold this set, take this light, or do this task on the set held. */
export type ToWorker =
  | { type: 'hold'; key: string; set: SetDocument }
  /** Light that was baked for all sets of a scene, see `sceneKey`. */
  | { type: 'light'; scene: string; light: BakedLight }
  /** `moving`: see `RunOptions`. */
  | { type: 'task'; id: number; key: string; task: Task; moving: boolean };

/** From a worker: an answer, with the rays it cost. */
export type FromWorker =
  | { type: 'done'; id: number; result: TaskResults[Task['kind']]; rays: number }
  | { type: 'failed'; id: number; message: string };
