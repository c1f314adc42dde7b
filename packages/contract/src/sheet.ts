import { z } from 'zod';
import { keepsDirection, lengthM, pointM } from './geometry.js';
import { sheetMaterial } from './material.js';
import { name, sheetTag } from './names.js';

const common = {
  tag: sheetTag,
  name,
  positionM: pointM.describe('Its middle, m from the centre'),
  aimM: pointM.describe('Point that the front side faces, m'),
  keepsDirection,
  rollDeg: z
    .number()
    .min(-180)
    .max(180)
    .default(0)
    .describe('Turn about the aim axis, degrees, clockwise seen from behind'),
  front: sheetMaterial,
  back: sheetMaterial.describe(
    'Material of the side away from the aim point. The same as front where light passes through',
  ),
  stand: z
    .boolean()
    .default(false)
    .describe('Whether its stand is there to be mirrored: an upright pole behind it, down to the floor'),
};

const rectangle = {
  widthM: lengthM,
  heightM: lengthM,
  holeDiameterM: lengthM.optional().describe('Round hole in the middle, for the lens, m'),
};

export const flatSheet = z
  .strictObject({
    kind: z
      .enum(['card', 'flag', 'frame', 'roof'])
      .describe(
        'card: to bounce; flag: to cut; frame: to spread; roof: overhead. Words only: the materials decide',
      ),
    ...common,
    ...rectangle,
  })
  .describe('A thin rectangle with two sides');

export const discSheet = z
  .strictObject({
    kind: z.literal('disc'),
    ...common,
    diameterM: lengthM,
    holeDiameterM: lengthM.optional().describe('Round hole in the middle, for the lens, m'),
  })
  .describe('A round sheet');

export const foldSheet = z
  .strictObject({
    kind: z.literal('fold'),
    ...common,
    positionM: pointM.describe('Middle of the fold, m from the centre'),
    aimM: pointM.describe('Point that the V opens to, m'),
    widthM: lengthM.describe('Each leaf, from the fold to its outer edge, m'),
    heightM: lengthM,
    openingDeg: z.number().min(5).max(355).default(90).describe('Angle between the leaves, degrees'),
  })
  .describe('A folded V of two leaves that stands by itself');

export const curveSheet = z
  .strictObject({
    kind: z.literal('curve'),
    ...common,
    positionM: pointM.describe('Middle of the sheet itself, m from the centre'),
    widthM: lengthM.describe('Along the bend, m'),
    heightM: lengthM,
    bendDeg: z
      .number()
      .min(1)
      .max(350)
      .describe('How far it is bent round, degrees; the front is the hollow side'),
  })
  .describe('A sheet bent round the upright');

export const coneSheet = z
  .strictObject({
    kind: z.literal('cone'),
    ...common,
    positionM: pointM.describe('Middle of the opening away from the aim point (at the lens), m'),
    aimM: pointM.describe('Point that the cone opens to, m'),
    diameterM: lengthM.describe('Of the opening at positionM, m'),
    farDiameterM: lengthM.describe('Of the opening towards the aim point, m'),
    lengthM: lengthM.describe('From one opening to the other, m'),
  })
  .describe('A cone or tube of paper; its front is the inside');

export const tentSheet = z
  .strictObject({
    kind: z.literal('tent'),
    ...common,
    positionM: pointM.describe('Middle of its floor, m from the centre'),
    aimM: pointM.describe('Point that the opening faces; taken level, m'),
    form: z.enum(['box', 'dome']),
    widthM: lengthM.describe('Across the opening; a dome is round, m'),
    depthM: lengthM.describe('Front to back; not used by a dome, m'),
    heightM: lengthM,
    floor: z.boolean().default(false).describe('Whether cloth lies on the table too'),
    opening: z
      .strictObject({ widthM: lengthM, heightM: lengthM })
      .describe('Slot in the front, from the floor up, m'),
  })
  .describe('A light tent; its front is the inside');

export const leavesSheet = z
  .strictObject({
    kind: z.literal('leaves'),
    ...common,
    widthM: lengthM,
    heightM: lengthM,
    count: z.int().min(1).max(200).describe('Number of leaves'),
    leafM: lengthM.describe('Length of a leaf, m'),
    seed: z.int().min(0).max(1e6).default(1).describe('Another number is another branch'),
  })
  .describe('A plant that throws a pattern: leaves strewn over a rectangle');

export const cutOutSheet = z
  .strictObject({
    kind: z.literal('cut-out'),
    ...common,
    positionM: pointM.describe('Halfway up its middle line, m from the centre'),
    outline: z
      .array(
        z.strictObject({
          halfWidthM: z.number().min(0).max(5).describe('From the middle line to the edge, m'),
          heightM: z.number().min(0).max(10).describe('Above the lower edge, m'),
        }),
      )
      .min(2)
      .max(60)
      .describe('Its edge from the lower end up, the same left and right; straight between the points'),
  })
  .describe('A card cut to an outline, as a reflector that hides behind a drink');

export const sheet = z.discriminatedUnion('kind', [
  flatSheet,
  discSheet,
  foldSheet,
  curveSheet,
  coneSheet,
  tentSheet,
  leavesSheet,
  cutOutSheet,
]);

export type Sheet = z.infer<typeof sheet>;
export type SheetOf<K extends Sheet['kind']> = Extract<Sheet, { kind: K }>;
