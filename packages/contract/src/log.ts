import { z } from 'zod';
import type { FrameAgainstPlan, FrameSettings } from './frame.js';
import { storedId } from './ids.js';
import { day } from './job.js';

/** What was measured of a kept frame against the plan of its set. */
export type MeasuredFrame = Pick<FrameAgainstPlan, 'exposedAsFrame' | 'lights' | 'spots'>;

/** A frame that was kept, with what is known of how it came about. */
export interface LogEntry extends FrameSettings {
  /** The frame. */
  id: string;
  /** Its file, and whether that is not there any more. */
  name: string;
  gone: boolean;
  job: string;
  jobName: string;
  client: string;
  shot: string;
  shotName: string;
  plate: string | null;
  /** The take that its set was made from. */
  take: string | null;
  /** When it was taken, by the camera's clock where it wrote one. */
  at: string;
  products: string[];
  lights: string[];
  look: string;
  /** Wished mood and ground, in words. */
  tone: string;
  /** From the first step of its set until the picture was marked as taken; null where that was not told. */
  minutes: number | null;
  plannedMinutes: number;
  /** Frames of the picture until this one. */
  tries: number;
  /** Kinds of verdicts that were open on its set; null until they are worked out. */
  verdicts: string[] | null;
  /** Null until it was held against its plan. */
  measured: MeasuredFrame | null;
  note: string;
  retouchMinutes: number | null;
  /** The set it is of, while that is there. */
  set: string | null;
  setName: string;
}

export interface LogList {
  total: number;
  entries: LogEntry[];
}

export const logQuery = z.strictObject({
  search: z.string().max(200).default(''),
  job: storedId.optional(),
  from: day.optional(),
  to: day.optional(),
  limit: z.coerce.number().int().min(1).max(200).default(30),
  offset: z.coerce.number().int().min(0).max(10_000_000).default(0),
});

export type LogQuery = z.infer<typeof logQuery>;

export const logScope = z.strictObject({ job: storedId.optional() });

/** What of an entry is written by hand. */
export const logChange = z.strictObject({
  note: z.string().max(2000).optional(),
  retouchMinutes: z.number().min(0).max(10_000).nullable().optional(),
});

export type LogChange = z.infer<typeof logChange>;

/** How long one picture took, and on what; null where it was not told. */
export interface PictureMinutes {
  job: string;
  shot: string;
  name: string;
  at: string;
  planned: number;
  /** From the first step of its set to the first frame. */
  building: number | null;
  /** From the first frame until it was marked as taken. */
  shooting: number | null;
  retouching: number | null;
}

/** A change price as the studio's own days tell it. */
export interface LearnedPrice {
  step: string;
  usual: number;
  /** Minutes, with one deviation. */
  learned: number;
  error: number;
  /** How often it was done. */
  times: number;
}

export interface LogStatistics {
  /** The last pictures first. */
  pictures: PictureMinutes[];
  /** Pictures whose verdicts are worked out. */
  judged: number;
  /** How many of those had each kind of verdict open. */
  verdicts: { kind: string; pictures: number }[];
  /** Those that were done at least once. */
  prices: LearnedPrice[];
}
