import { z } from 'zod';
import { name } from './names.js';
import { plate } from './plate.js';
import { checkPlates, checkSet, checkTakes } from './setRules.js';
import { standing } from './standing.js';

export const take = z
  .strictObject({
    id: z.string().regex(/^[a-z0-9-]{1,40}$/, 'may hold small letters, digits and dashes only, at most 40.'),
    name,
    note: z.string().max(2000).default('').describe('What to look for'),
    pinned: z.boolean().default(false),
    from: z.string().max(40).optional().describe('Take that it was made from'),
    set: standing.superRefine(checkSet),
  })
  .describe('The set as it was at one moment, kept to compare and to go back to');

const setShape = z.strictObject({
  format: z.literal('fendrix-set'),
  version: z.literal(3),
  name: name.describe('Name of the set'),
  note: z.string().max(4000).default(''),
  ...standing.shape,
  takes: z.array(take).max(60).default([]).describe('Kept states of the set, oldest first'),
  takeId: z.string().max(40).optional().describe('Take that the set as it is now was made from'),
  plates: z
    .array(plate)
    .max(24)
    .default([])
    .describe('Further frames that are laid over the one of the set as it stands, lowest first'),
});

/** The set document: all that stands on set, in SI units, in the frame of the mark. */
export const setDocument = setShape
  .superRefine(checkSet)
  .superRefine(checkTakes)
  .superRefine(checkPlates)
  .meta({
    title: 'Fendrix set document',
    description:
      'Lengths in metres from the centre: +x camera right, +y away from the camera, +z up from the tabletop.',
  });

/** Named, so that types built on it stay short. */
export interface SetDocument extends z.infer<typeof setShape> {}
export type SetDocumentInput = z.input<typeof setShape>;
export type Take = z.infer<typeof take>;
