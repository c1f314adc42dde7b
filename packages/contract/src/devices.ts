import { z } from 'zod';
import { storedId } from './ids.js';
import { rowId } from './job.js';
import { name } from './names.js';

const tag = z.string().min(1).max(4);
const offM = z.number().min(-2).max(2);

/** A camera that is not there: it takes what stands, a little off its plan, and wrong where it is told. */
export const standInCamera = z
  .strictObject({
    on: z.boolean().default(false),
    piecesSeed: z
      .int()
      .min(0)
      .max(1_000_000)
      .default(0)
      .describe(
        'Which pieces of lights, camera and lens are there: the same number, the same ones; 0 as by their figures',
      ),
    seed: z.int().min(1).max(1_000_000).default(1).describe('The same seed stands and records the same'),
    batteryPart: z.number().min(0).max(1).default(1).describe('What is left of the battery'),
    framesLeft: z.int().min(0).max(10_000).default(500).describe('What still goes on the card'),
    linked: z.boolean().default(true).describe('Whether the cable holds'),
    powerStops: z
      .record(tag, z.number().min(-8).max(8))
      .default({})
      .describe('Powers set otherwise than in the plan, stops, by tag'),
    sheetByM: z
      .record(tag, z.tuple([offM, offM, offM]))
      .default({})
      .describe('Sheets that stand elsewhere, m off their place, by tag'),
  })
  .describe('The stand-in for a camera');

export type StandInCamera = z.infer<typeof standInCamera>;

const linked = z.boolean().default(true).describe('Whether the link holds');
const on = z.boolean().default(false);

/** A flash trigger that is not there: powers are read and set by it, and it fires. */
export const standInTrigger = z
  .strictObject({
    on,
    linked,
    powers: z
      .record(tag, z.number().min(-12).max(0))
      .default({})
      .describe('Powers that were set by it, stops from full, by tag; others stand as their dials do'),
    recycleS: z
      .number()
      .min(0)
      .max(30)
      .default(1.5)
      .describe('Until a flash is ready again after full power, s'),
    misfirePart: z.number().min(0).max(1).default(0).describe('How often a flash does not fire'),
  })
  .describe('The stand-in for a flash trigger');

export const standInTurntable = z
  .strictObject({
    on,
    linked,
    turnDeg: z
      .number()
      .min(-360)
      .max(360)
      .default(0)
      .describe('From where it began, the front towards camera right, degrees'),
  })
  .describe('The stand-in for a turntable under the products');

export const standInRail = z
  .strictObject({
    on,
    linked,
    forwardM: z.number().min(-0.3).max(0.3).default(0).describe('From its middle towards the products, m'),
  })
  .describe('The stand-in for a focus rail under the camera');

export type StandInTrigger = z.infer<typeof standInTrigger>;
export type StandInTurntable = z.infer<typeof standInTurntable>;
export type StandInRail = z.infer<typeof standInRail>;

/** The frame that is meant: of a picture of a job, or of a set by itself; of the set as it stands or one of its plates. */
const frameOf = {
  job: storedId.optional(),
  shot: rowId.optional(),
  set: storedId.optional().describe('A set by itself, in place of job and shot'),
  plate: z.string().max(40).optional().describe('Plate that is taken; the set as it stands if left out'),
};

function requireFrame(
  { job, shot, set }: { job?: string | undefined; shot?: string | undefined; set?: string | undefined },
  problems: z.RefinementCtx,
): void {
  const isOfShot = job !== undefined && shot !== undefined && set === undefined;
  const isOfSet = set !== undefined && job === undefined && shot === undefined;
  if (!isOfShot && !isOfSet)
    problems.addIssue({
      code: 'custom',
      path: ['set'],
      message: 'or job and shot say what is taken. Give the one or the two others.',
    });
}

const several = <T extends z.ZodType>(value: T, what: string) =>
  z.array(value).min(1).max(120).optional().describe(what);

/** Body of a release: one frame, or one for each exposure of a bracket, each turn of the table, or each place of the rail. */
export const takeFramesBody = z
  .strictObject({
    ...frameOf,
    bracketStops: z.array(z.number().min(-5).max(5)).min(1).max(9).default([0]),
    turnsDeg: several(z.number().min(-360).max(360), 'Turns of the turntable, degrees'),
    railM: several(z.number().min(-0.3).max(0.3), 'Places of the rail, m towards the products'),
    waits: z.boolean().default(true).describe('Whether it waits until all flashes are ready'),
  })
  .superRefine(requireFrame)
  .superRefine(({ bracketStops, turnsDeg, railM }, problems) => {
    const many = [bracketStops, turnsDeg, railM].filter((list) => (list?.length ?? 1) > 1);
    if (many.length > 1)
      problems.addIssue({
        code: 'custom',
        path: ['turnsDeg'],
        message: 'goes with one bracket or one run of the rail only. Take one of them at a time.',
      });
  });

export type TakeFrames = z.input<typeof takeFramesBody>;

/** Query of the live view. */
export const liveQuery = z.strictObject(frameOf).superRefine(requireFrame);

/** Frames that are being taken one after the other. */
export interface Taking {
  done: number;
  of: number;
}

/** Outside devices, as far as they have stand-ins. */
export interface Devices {
  camera: StandInCamera;
  trigger: StandInTrigger;
  turntable: StandInTurntable;
  rail: StandInRail;
  /** Null while nothing is being taken. */
  taking: Taking | null;
  /** Tags of flashes that did not fire in the last frame. */
  misfired: string[];
}

export interface TakenFrames {
  /** Names of the files in the watched folder. */
  names: string[];
}

/** Body of a reading: a pinned spot of the set of a picture, by its name. */
export const readMeterBody = z
  .strictObject({
    ...frameOf,
    spot: name,
    how: z
      .enum(['incident', 'reflected'])
      .default('incident')
      .describe('Light that falls on the spot, or the tone of the spot as the lens sees it'),
    light: z.enum(['all', 'ambient']).default('all').describe('With the flashes, or without them'),
  })
  .superRefine(requireFrame);

export type ReadMeter = z.input<typeof readMeterBody>;

/** What a meter says at a spot, stops against the settings of the camera; null where it reads nothing. */
export interface MeterReading {
  spot: string;
  stops: number | null;
  /** The same in the plan. */
  plannedStops: number | null;
}
