import { z } from 'zod';
import { coordinateM, direction, lengthM, pointM } from './geometry.js';
import { light } from './light.js';
import { opaqueMaterial } from './material.js';
import { name } from './names.js';
import { product } from './product.js';
import { checkSet } from './setRules.js';
import { sheet } from './sheet.js';

export const room = z
  .strictObject({
    widthM: lengthM.describe('Left wall to right wall, m'),
    depthM: lengthM.describe('Wall behind the camera to wall behind the set, m'),
    heightM: lengthM.describe('Floor to ceiling, m'),
    markFromLeftM: lengthM.describe('Mark to the camera-left wall, m'),
    markFromFrontM: lengthM.describe('Mark to the wall behind the camera, m'),
    walls: opaqueMaterial,
    ceiling: opaqueMaterial,
    floor: opaqueMaterial,
  })
  .describe('A plain room, walls square to the camera axis. Without one the set stands in the dark');

export const bench = z
  .strictObject({
    widthM: lengthM.describe('Across, m'),
    depthM: lengthM.describe('Front to back, m'),
    thicknessM: lengthM.default(0.03),
    centreM: z
      .tuple([coordinateM, coordinateM])
      .default([0, 0])
      .describe('Middle of the top [x, y], m from the mark'),
    material: opaqueMaterial,
  })
  .describe('The table. Its top is z = 0; under a sweep it is lowered by 0.5 mm, the paper');

export const sweep = z
  .strictObject({
    kind: z.literal('sweep'),
    widthM: lengthM.describe('Across, m'),
    frontM: coordinateM.describe('y of the front edge on the bench, m'),
    backM: coordinateM.describe('y of the upright part, m'),
    radiusM: lengthM.describe('Radius of the bend, m'),
    heightM: lengthM.describe('Height of the top edge, m'),
    material: opaqueMaterial,
  })
  .describe('Paper lying on the bench at z = 0, bent up behind in one quarter round');

export const panel = z
  .strictObject({
    kind: z.literal('panel'),
    widthM: lengthM,
    heightM: lengthM,
    centreM: pointM,
    turnDeg: z
      .number()
      .min(-180)
      .max(180)
      .default(0)
      .describe('Turn about the upright, degrees; 0 faces the camera'),
    material: opaqueMaterial,
  })
  .describe('A flat upright backdrop');

export const backdrop = z.discriminatedUnion('kind', [sweep, panel]);

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
});

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
});

export const camera = z.strictObject({
  body: cameraBody,
  lens: cameraLens,
  positionM: pointM.describe('Entrance pupil, m from the mark: the point the picture is seen from'),
  aimM: pointM.describe('Point in the middle of the frame, m'),
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
        .describe('Direction it lets through, degrees from upright'),
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
});

export const spot = z
  .strictObject({
    name,
    pointM,
    normal: direction.describe('Outward normal of the surface there'),
  })
  .describe('A pinned spot: where a meter would be held, and whose tone is watched');

const setShape = z.strictObject({
  format: z.literal('fendrix-set'),
  version: z.literal(1),
  name: name.describe('Name of the set'),
  note: z.string().max(4000).default(''),
  mark: z
    .strictObject({ heightAboveFloorM: lengthM.max(5).default(0.75) })
    .default({ heightAboveFloorM: 0.75 })
    .describe('The mark: the origin, on the bench top under the product'),
  room: room.optional(),
  bench: bench.optional(),
  backdrop: backdrop.optional(),
  products: z.array(product).max(50).default([]),
  lights: z.array(light).max(26).default([]),
  sheets: z.array(sheet).max(99).default([]),
  camera,
  spots: z.array(spot).max(50).default([]),
});

/** The set document: all that stands on set, in SI units, in the frame of the mark. */
export const setDocument = setShape.superRefine(checkSet).meta({
  title: 'Fendrix set document',
  description:
    'Lengths in metres from the mark: +x camera right, +y away from the camera, +z up from the bench top.',
});

export type SetDocument = z.infer<typeof setShape>;
export type SetDocumentInput = z.input<typeof setShape>;
export type Room = z.infer<typeof room>;
export type Bench = z.infer<typeof bench>;
export type Backdrop = z.infer<typeof backdrop>;
export type Sweep = z.infer<typeof sweep>;
export type Panel = z.infer<typeof panel>;
export type Camera = z.infer<typeof camera>;
export type CameraBody = z.infer<typeof cameraBody>;
export type CameraLens = z.infer<typeof cameraLens>;
export type Spot = z.infer<typeof spot>;
