import { z } from 'zod';
import { cameraBody, lensLosses } from './camera.js';
import { lengthM } from './geometry.js';

const body = z
  .strictObject({
    kind: z.literal('body'),
    ...cameraBody.omit({ name: true }).shape,
    baseIso: z.int().min(6).max(6400).default(100).describe('Lowest sensitivity it offers'),
    handShutterS: z
      .number()
      .min(1e-4)
      .max(10)
      .default(1 / 125)
      .describe('Slowest shutter that stays sharp by hand with a 50 mm lens at a distance, s'),
  })
  .describe('A camera body');

const lens = z
  .strictObject({
    kind: z.literal('lens'),
    shortestM: z.number().min(0.002).max(2).describe('Shortest focal length, m'),
    longestM: z.number().min(0.002).max(2).describe('Longest focal length, m; the same for a prime'),
    closestFocusM: z.number().min(0.01).max(20).describe('Nearest plane of focus from the sensor, m'),
    widestFNumber: z.number().min(0.7).max(64).describe('Widest f-stop'),
    smallestFNumber: z.number().min(1).max(128).describe('Smallest f-stop'),
    pupilRatio: z
      .number()
      .min(0.1)
      .max(10)
      .default(1)
      .describe('Exit pupil over entrance pupil; 1 for a symmetrical lens'),
    losses: lensLosses.optional(),
  })
  .describe('A lens');

const support = z
  .strictObject({
    kind: z.literal('support'),
    highestM: lengthM.describe('Highest lens axis over the floor, m'),
    lowestM: lengthM.default(0.3).describe('Lowest lens axis over the floor, m'),
    mostLoadKg: z.number().min(0.1).max(200).describe('Load it is made for, kg'),
    ownKg: z.number().min(0.1).max(200).describe('Its own mass, kg'),
    baseRadiusM: lengthM.describe('From its middle to the nearest edge between two feet, m'),
    boomM: z.number().min(0).max(10).default(0).describe('Length of its arm from the column, m'),
  })
  .describe('A tripod, stand or boom');

const filter = z
  .strictObject({
    kind: z.literal('filter'),
    lossStops: z.number().min(0).max(20).describe('Light it takes, stops'),
    polarises: z.boolean().default(false),
  })
  .describe('A filter for the lens');

const meter = z
  .strictObject({
    kind: z.literal('meter'),
    receptor: z.enum(['flat', 'dome']).default('flat'),
    flash: z.boolean().default(true).describe('Whether it measures flash'),
  })
  .describe('A hand-held light meter');

/** What holds and makes the picture: bodies, lenses, supports, filters, meters. */
export const equipment = z.discriminatedUnion('kind', [body, lens, support, filter, meter]);

export type Equipment = z.infer<typeof equipment>;
export type EquipmentOf<K extends Equipment['kind']> = Extract<Equipment, { kind: K }>;
