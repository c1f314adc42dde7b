import { z } from 'zod';
import { partOfWhole } from './partOfWhole.js';

const ofFile = z.number().min(0).max(255);

/** A patch of the wedge as a frame shows it: it is printed twice, in rows that run against each other. */
export const wedgePatch = z.strictObject({
  grey: z.int().min(0).max(255).describe('Value that was printed, of 255'),
  upper: ofFile.describe('What the frame shows of it in the upper row, mean of green, of 255'),
  lower: ofFile.describe('The same in the lower row'),
});

export const printedWedge = z
  .strictObject({
    cardReflectance: partOfWhole(0.01).default(0.18).describe('Of the card beside it: grey card 0.18'),
    card: ofFile.describe('What the frame shows of the card, mean of green, of 255'),
    patches: z.array(wedgePatch).max(40).default([]),
  })
  .describe('A wedge of greys printed by the own printer, photographed with a card of known reflectance');

/** What the printer makes of a value. */
export const printerTone = z.strictObject({
  grey: z.number().min(0).max(255),
  reflectance: z.number().min(0.001).max(1),
  error: z.number().min(0).max(1).describe('One deviation'),
});

export const printer = z
  .strictObject({
    wedge: printedWedge.optional().describe('As it was read last'),
    calibrated: z
      .strictObject({
        on: z.iso.date(),
        tones: z.array(printerTone).min(3).max(40).describe('From solid ink to bare paper'),
      })
      .optional(),
  })
  .describe('The printer that gradient cards and masks come from');

export type PrintedWedge = z.infer<typeof printedWedge>;
export type PrinterTone = z.infer<typeof printerTone>;
export type Printer = z.infer<typeof printer>;

/** Body of the question for a wedge as the stand-in camera sees that of the stand-in printer. */
export const standInWedgeBody = z.strictObject({ cardReflectance: partOfWhole(0.01) });
