import { z } from 'zod';
import { keepsDirection, lengthM, pointM } from './geometry.js';
import { name, productId } from './names.js';
import { partOfWhole } from './partOfWhole.js';

export const cameraBody = z.strictObject({
  name,
  sensorWidthM: z.number().min(0.001).max(0.3),
  sensorHeightM: z.number().min(0.001).max(0.3),
  pixelsWide: z.int().min(16).max(40000),
  pixelsHigh: z.int().min(16).max(40000),
  syncSpeedS: z
    .number()
    .min(1e-5)
    .max(1)
    .default(1 / 200)
    .describe('Shortest shutter at which flash fills the frame, s'),
  response: z
    .strictObject({
      isoStops: z.number().min(-3).max(3).describe('More light recorded than its ISO says, stops'),
      slope: z.number().min(0.5).max(2).describe('Stops recorded for a stop of light, at mid-tone'),
      bend: z.number().min(-0.05).max(0.05).describe('How that changes away from mid-tone, by its square'),
    })
    .optional()
    .describe('How it records, as calibrated; as its ISO and the sRGB curve say if left out'),
});

/** What a lens adds and takes, as calibrated. */
export const lensLosses = z
  .strictObject({
    cornerStops: z.number().min(0).max(4).describe('Corners of the frame under its middle, stops'),
    veilPart: z
      .number()
      .min(0)
      .max(0.2)
      .describe('Light of the whole frame that veils each place of it, part'),
  })
  .describe('What it takes and adds, as calibrated');

export const cameraLens = z.strictObject({
  name,
  focalLengthM: z.number().min(0.002).max(2),
  pupilRatio: z
    .number()
    .min(0.1)
    .max(10)
    .default(1)
    .describe('Exit pupil over entrance pupil; 1 for a symmetrical lens'),
  closestFocusM: z
    .number()
    .min(0.001)
    .max(100)
    .optional()
    .describe('Nearest plane of focus from the sensor, m'),
  widestFNumber: z.number().min(0.5).max(64).optional().describe('Widest f-stop it has'),
  smallestFNumber: z.number().min(1).max(128).optional().describe('Smallest f-stop it has'),
  losses: lensLosses.optional(),
});

const rig = z
  .strictObject({
    bodyWidthM: lengthM.max(1).default(0.14),
    bodyHeightM: lengthM.max(1).default(0.1),
    lensDiameterM: lengthM.max(0.5).default(0.08),
    lensLengthM: lengthM.max(1).default(0.12).describe('From the front of the lens to the body, m'),
    tripod: z.boolean().default(true).describe('Three dark legs from the body to the floor'),
  })
  .describe('The camera as a thing of the set: dark, it mirrors in the products and shades them');

/** Where words will stand in a format. */
export const copySide = z.enum(['none', 'left', 'right', 'top', 'bottom']);

const crop = z
  .strictObject({
    name,
    widthPx: z.int().min(16).max(40000),
    heightPx: z.int().min(16).max(40000),
    shiftAcross: z.number().min(-1).max(1).default(0).describe('From the middle, parts of the frame'),
    shiftDown: z.number().min(-1).max(1).default(0),
    scale: z.number().min(0.05).max(1).default(1).describe('Of the largest crop of its shape'),
    copySide: copySide.default('none'),
    copyPart: partOfWhole(0, 0.8).default(0).describe('Kept free for words, part of the crop'),
  })
  .describe('A format that is cut from the frame');

export const camera = z.strictObject({
  body: cameraBody,
  lens: cameraLens,
  positionM: pointM.describe('Entrance pupil, m from the centre: the point the picture is seen from'),
  aimM: pointM.describe('Point in the middle of the frame, m'),
  keepsDirection,
  rollDeg: z
    .number()
    .min(-180)
    .max(180)
    .default(0)
    .describe('Turn about the lens axis, degrees, clockwise seen from behind the camera'),
  focusM: z
    .number()
    .min(0.005)
    .max(1000)
    .describe('Distance from the entrance pupil to the plane in focus, along the lens axis, m'),
  focusOn: z
    .strictObject({
      product: productId.optional(),
      pointM: pointM.describe('m from the foot of the product, or from the centre where there is none'),
    })
    .optional()
    .describe('What the focus is on: it goes along when camera or product moves'),
  focusLocked: z.boolean().default(false).describe('Focus ring taped: it stays where it is'),
  fNumber: z.number().min(0.5).max(128),
  shutterS: z.number().min(1e-5).max(3600).describe('Exposure time, s'),
  iso: z.number().min(6).max(1e6),
  whiteBalanceK: z
    .number()
    .min(1000)
    .max(25000)
    .default(5500)
    .describe('Colour temperature that is recorded as neutral, K'),
  polariser: z
    .strictObject({
      axisDeg: z
        .number()
        .min(-180)
        .max(180)
        .default(90)
        .describe(
          'Direction it lets through, degrees from upright, clockwise as seen from behind the camera',
        ),
      lossStops: z.number().min(1).max(4).default(1.5).describe('Of unpolarised light, stops'),
      extinction: z
        .number()
        .min(0)
        .max(0.5)
        .default(0.005)
        .describe('Part of crossed light that still passes'),
    })
    .optional()
    .describe('Polarising filter on the lens'),
  depthOfField: z
    .boolean()
    .default(false)
    .describe('Whether the picture shows the blur before and behind the plane of focus'),
  release: z
    .enum(['hand', 'self-timer', 'cable'])
    .default('hand')
    .describe(
      'hand: the button is pressed, which shakes the camera; self-timer or cable: nobody touches it, and nobody need stand there',
    ),
  rig: rig.optional().describe('Without one the camera is not there: nothing mirrors it'),
  crops: z.array(crop).max(20).default([]).describe('Formats marked in the lens view'),
});

export type Camera = z.infer<typeof camera>;
export type CameraBody = z.infer<typeof cameraBody>;
export type CameraLens = z.infer<typeof cameraLens>;
