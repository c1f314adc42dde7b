import { z } from 'zod';
import { base64 } from './base64.js';
import { partOfWhole } from './partOfWhole.js';

/** What stands in the gate of a projecting spot. */
export const gobo = z.discriminatedUnion('kind', [
  z
    .strictObject({
      kind: z.literal('disc'),
      part: partOfWhole(0.01).default(1).describe('Diameter over the field'),
    })
    .describe('A round hole'),
  z
    .strictObject({
      kind: z.literal('bars'),
      count: z.int().min(1).max(60).describe('Bright bars across the field'),
      open: partOfWhole(0.02, 0.98).default(0.5).describe('Bright part of each'),
      turnDeg: z.number().min(-180).max(180).default(0),
    })
    .describe('Parallel bars, as of a blind'),
  z
    .strictObject({
      kind: z.literal('leaves'),
      count: z.int().min(1).max(200),
      sizePart: partOfWhole(0.02).describe('Length of a leaf over the field'),
      seed: z.int().min(0).max(1e6).default(1),
    })
    .describe('Dark leaves strewn over the field'),
  z
    .strictObject({
      kind: z.literal('picture'),
      widthPx: z.int().min(1).max(512),
      heightPx: z.int().min(1).max(512),
      greyBase64: base64(400_000).describe(
        'One byte a pixel, transmittance 0 to 255, row by row from the top left, in base64',
      ),
    })
    .describe('Own picture, upright on the wall'),
]);

export type Gobo = z.infer<typeof gobo>;
