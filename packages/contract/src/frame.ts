import { z } from 'zod';
import { storedId } from './ids.js';
import { rowId } from './job.js';

/** Exposure that a camera wrote into a frame; what it did not write is null. */
export interface FrameSettings {
  exposureS: number | null;
  fNumber: number | null;
  iso: number | null;
  focalMm: number | null;
  body: string | null;
}

/** A picture file that a camera wrote into the watched folder, as it is known. The file itself is never touched. */
export interface Frame extends FrameSettings {
  id: string;
  /** Its name within the folder. */
  name: string;
  bytes: number;
  widthPx: number;
  heightPx: number;
  /** When it came into the folder, by this machine's clock. */
  arrivedAt: string;
  /** When it was taken, by the camera's clock; null where the camera wrote none. */
  takenAt: string | null;
  job: string | null;
  /** The picture it is a frame of. */
  shot: string | null;
  /** The plate of it; null for the frame of the set as it stands. */
  plate: string | null;
  /** The take that its set was made from when it came; null where none was kept, or it was moved by hand. */
  take: string | null;
  /** How that is known. */
  placedBy: 'time' | 'settings' | 'hand' | null;
  state: 'new' | 'kept' | 'rejected';
  starred: boolean;
  /** Whether its file is not there any more. */
  gone: boolean;
}

export interface FrameList {
  /** Where cameras write, and whether it is there. */
  folder: { path: string; there: boolean };
  /** The job that frames come to; null for none. */
  job: string | null;
  /** Files that are being read, and those that cannot be. */
  reading: number;
  unreadable: { name: string; why: string }[];
  total: number;
  frames: Frame[];
}

export const frameListQuery = z.strictObject({
  job: storedId.optional().describe('All frames if left out'),
  limit: z.coerce.number().int().min(1).max(500).default(200),
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
});

/** Which job frames come to from now on. */
export const framesToBody = z.strictObject({ job: storedId.nullable() });

/** What of a frame is changed by hand. */
export const frameChange = z
  .strictObject({
    job: storedId.optional().describe('Another job that it belongs to; of no picture there'),
    shot: rowId.nullable().optional(),
    plate: z.string().max(40).nullable().optional().describe('Plate of its picture; none for the set itself'),
    state: z.enum(['new', 'kept', 'rejected']).optional(),
    starred: z.boolean().optional(),
  })
  .describe('What of a frame is changed');

export type FrameChange = z.infer<typeof frameChange>;

/** What is told of a frame, and the revision of the set that it was held against: the set may have been changed since. */
export type OfPlan<Told> = Told & { setRevision: number };

/** A figure with one deviation. */
export interface MeasuredFigure {
  value: number;
  error: number;
}

/** What a frame shows of the lights and spots of its set, against their plan. */
export interface FrameAgainstPlan {
  /** Whether the plan is exposed by what the camera wrote; otherwise as the set says. */
  exposedAsFrame: boolean;
  lights: {
    tag: string;
    name: string;
    /** More than in the plan, with one deviation. */
    stops: number;
    error: number;
    /** Whether that is surely more than building and dials let it be. */
    isOff: boolean;
  }[];
  /** Where all of it stands in the picture, against the plan; null where too few edges tell it. Each with one deviation. */
  shift: {
    /** Further to the right and down, m at the distance of the first product. */
    rightM: MeasuredFigure;
    downM: MeasuredFigure;
  } | null;
  /** How each product stands against the plan; null where its edges do not tell it. */
  products: {
    name: string;
    /** Further to camera right, m. */
    right: MeasuredFigure | null;
    /** Leans to camera right, degrees: or the camera leans left. */
    leanDeg: MeasuredFigure | null;
    /** Its label is turned towards camera right, degrees. */
    turnDeg: MeasuredFigure | null;
    /** Radius of the product, m: what a turn moves its front by. */
    radiusM: number;
  }[];
  /** How sharp the sharpest edges of each product are; none whose edges do not tell it. Circles of blur on the sensor, px. */
  sharpness: {
    products: { name: string; blurPx: number; plannedPx: number }[];
    /** The smallest circle that a file of this size tells. */
    resolvedPx: number;
    /** Whether that is so large that nothing is told. */
    isTooSmall: boolean;
    /** From where on blur is a fault. */
    limitPx: number;
  };
  /**
   * Verdicts that are surely so and not settled: on the frame, with its own tones, and on the plan. Each with the kind of verdict, what it is of, and
   * how far it goes; of one that is on both with the figure of the frame.
   */
  verdicts: {
    kind: string;
    on: 'frame' | 'plan' | 'both';
    of: { kind: string; key: string; name: string } | null;
    figure: { value: number; error: number; unit: string; limit: number; fault: 'above' | 'below' };
  }[];
  /** Tones at the pinned spots, stops from mid-tone; null where the frame is clipped or black there. */
  spots: { name: string; plan: number; frame: number | null }[];
}

/** What takes a minute is under way: how much of it is done, 0 to 1. It goes on while it is asked for again every few seconds. */
export interface UnderWay {
  part: number;
}

/** Which lights and sheets stand elsewhere in a frame than planned, by all that moving each would do to the picture of the products. */
export interface FrameMoves {
  /** Those that are named, and those of which it is one; none where nothing stands elsewhere that the picture would tell. */
  moved: {
    kind: 'light' | 'sheet';
    tag: string;
    name: string;
    /** m further right and away from the camera, with one deviation, the longer first. */
    moves: { way: 'right' | 'away'; byM: number; errorM: number }[];
    isNamed: boolean;
  }[];
  /** Whether that, or building by tape, explains the frame; otherwise something else is changed. */
  isExplained: boolean;
  /** Cards that the lens looks through, where something else is changed: they cover much of the frame when they stand aside. */
  atLens: { kind: 'sheet'; tag: string; name: string }[];
  /** Those that may stand 4 cm elsewhere without the picture telling it, and the ways in which they may. */
  untold: { kind: 'light' | 'sheet'; tag: string; name: string; ways: ('right' | 'away')[] }[];
}
