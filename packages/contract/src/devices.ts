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

/** Body of a release: one frame, or one for each exposure of a bracket. */
export const takeFramesBody = z.strictObject({
  job: storedId,
  shot: rowId,
  plate: z.string().max(40).optional().describe('Plate that is taken; the set as it stands if left out'),
  bracketStops: z.array(z.number().min(-5).max(5)).min(1).max(9).default([0]),
});

/** Outside devices, as far as they have stand-ins. */
export interface Devices {
  camera: StandInCamera;
}

export interface TakenFrames {
  /** Names of the files in the watched folder. */
  names: string[];
}

/** Body of a reading: a pinned spot of the set of a picture, by its name. */
export const readMeterBody = z.strictObject({ job: storedId, shot: rowId, spot: name });

/** What an incident meter says at a spot, stops against the settings of the camera; null where it reads nothing. */
export interface MeterReading {
  spot: string;
  stops: number | null;
  /** The same in the plan. */
  plannedStops: number | null;
}
