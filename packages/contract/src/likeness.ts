import { z } from 'zod';

const ofFrame = z.number().min(-10).max(10);

/**
 * What a picture is held against, as it was read from another one: the first of a series. It is kept as figures, so that the
 * series stays what it was when that picture changes or is gone.
 */
export const likeness = z
  .strictObject({
    name: z.string().min(1).max(120).describe('Picture it was read from'),
    outline: z
      .strictObject({ left: ofFrame, top: ofFrame, right: ofFrame, bottom: ofFrame })
      .describe('Box round the main product, parts of the frame from its upper left corner'),
    heightM: z.number().min(1e-4).max(20).describe('Height of the main product, m'),
    downDeg: z.number().min(-90).max(90).describe('How far the camera looks down, degrees'),
    groundStops: z
      .number()
      .min(-40)
      .max(40)
      .optional()
      .describe('Tone of the ground, stops from mid-tone; left out where none is seen'),
    groundRgb: z
      .tuple([z.number().min(0), z.number().min(0), z.number().min(0)])
      .optional()
      .describe('Colour of the ground as it is recorded, linear, at a luminance of 1'),
    labelStops: z
      .number()
      .min(-40)
      .max(40)
      .optional()
      .describe('Tone of the lightest part of its label, stops from mid-tone'),
  })
  .describe('Figures of the picture that this one is to be like');

export type Likeness = z.infer<typeof likeness>;
