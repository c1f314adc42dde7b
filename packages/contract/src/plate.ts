import { z } from 'zod';
import { lightTag, name, productId } from './names.js';
import { partOfWhole } from './partOfWhole.js';

const inFrame = z.number().min(-1).max(2);
const framePoint = { across: inFrame.describe('Parts of the frame from its left'), down: inFrame };

/** What of the frame a piece of a mask takes. */
const maskArea = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('products') }).describe('All products'),
  z
    .strictObject({
      by: z.literal('thing'),
      kind: z.enum(['light', 'sheet', 'product', 'bench', 'backdrop', 'room', 'camera', 'person', 'stand']),
      key: z.string().min(1).max(80).describe('Tag or short name of the thing'),
    })
    .describe('One thing as the lens sees it'),
  z
    .strictObject({
      by: z.literal('part'),
      product: productId,
      part: z.enum(['body', 'part', 'label', 'liquid']),
      index: z.int().min(0).max(50).default(0).describe('Number among the parts or labels of the product'),
    })
    .describe('The label, the liquid, a part or the body of a product'),
  z
    .strictObject({
      by: z.literal('gradient'),
      fromPoint: z.strictObject(framePoint).describe('Nothing on this side'),
      toPoint: z.strictObject(framePoint).describe('All on this side'),
    })
    .describe('From nothing to all between two places of the frame'),
  z
    .strictObject({
      by: z.literal('brush'),
      strokes: z
        .array(z.strictObject({ ...framePoint, radius: z.number().min(0.0005).max(0.5) }))
        .max(4000)
        .describe('Discs that were painted; radius in parts of the width of the frame'),
    })
    .describe('Painted over'),
  z
    .strictObject({ by: z.literal('sharpest') })
    .describe('Where this frame is the sharpest of all that are put together so'),
]);

export const maskPiece = z.strictObject({
  area: maskArea,
  leaveOut: z.boolean().default(false).describe('Takes it out of what the pieces before it took'),
});

/** What a plate is for. */
export const plateGives = z.enum([
  'label',
  'liquid',
  'outline',
  'ground',
  'clean',
  'splash',
  'focus',
  'other',
]);

export const plate = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9-]{1,40}$/, 'may hold small letters, digits and dashes only, at most 40.'),
    name,
    gives: plateGives.default('other').describe('What it is taken for'),
    note: z.string().max(400).default(''),
    takeId: z
      .string()
      .max(40)
      .optional()
      .describe('Take that it is made on; the set as it stands if left out'),
    lights: z
      .array(
        z.strictObject({
          tag: lightTag,
          on: z.boolean(),
          powerStops: z.number().min(-20).max(0).describe('Stops from full power'),
        }),
      )
      .max(26)
      .default([])
      .describe('Lights that are set otherwise for it'),
    shutterS: z.number().min(1e-5).max(3600).optional(),
    iso: z.number().min(6).max(1e6).optional(),
    fNumber: z.number().min(0.5).max(128).optional(),
    focusM: z.number().min(0.005).max(1000).optional(),
    mask: z
      .array(maskPiece)
      .max(12)
      .default([])
      .describe('What of it goes into the picture; the whole frame if empty'),
    featherPart: partOfWhole(0, 0.2)
      .default(0.003)
      .describe('The mask fades over this much to either side of its edge, part of the width of the frame'),
    laid: z.boolean().default(true).describe('Whether it is laid into the picture'),
  })
  .describe('A further frame from the locked camera, laid over the one of the set as it stands');

export type Plate = z.infer<typeof plate>;
export type MaskPiece = z.infer<typeof maskPiece>;
export type MaskArea = z.infer<typeof maskArea>;
