import { z } from 'zod';
import { calibrationHour } from './calibration.js';
import { equipment } from './equipment.js';
import { light } from './light.js';
import { checkLight } from './lightRules.js';
import { material, sheetMaterial } from './material.js';
import { checkMaterials } from './materialRules.js';
import { name } from './names.js';
import { printer } from './printedWedge.js';
import { product } from './product.js';
import { checkProduct } from './productRules.js';
import { sheet } from './sheet.js';
import { checkSheet } from './sheetRules.js';
import { studio } from './studio.js';

const common = {
  id: z
    .string()
    .min(1)
    .max(60)
    .regex(/^[a-z0-9-]+$/, 'may hold small letters, digits and hyphens only.'),
  name: name.describe('What it is called in the palette'),
  count: z.int().min(0).max(99).default(2).describe('How many of it the studio has'),
  purposes: z
    .array(z.string().min(1).max(30))
    .max(12)
    .default([])
    .describe('Words it is found by: soft, hard, edge, cut, bounce, glow …'),
  source: z
    .string()
    .max(400)
    .default('')
    .describe('Where its figures come from: a data sheet, a test, a usual range'),
};

/** What an entry of the kit may hold. */
export const things = {
  light,
  sheet,
  product,
  material: z.union([material, sheetMaterial]),
  equipment,
};

const calibrated = <T extends z.ZodType>(thing: T) =>
  z
    .strictObject({
      on: z.iso.date().describe('Day of its calibration'),
      before: thing.describe('Its figures before: what the reset puts back'),
    })
    .optional()
    .describe('Set where its figures were read off a card');

export const kitEntry = z.discriminatedUnion('what', [
  z.strictObject({
    what: z.literal('light'),
    ...common,
    thing: things.light,
    calibrated: calibrated(things.light),
  }),
  z.strictObject({ what: z.literal('sheet'), ...common, thing: things.sheet }),
  z.strictObject({ what: z.literal('product'), ...common, thing: things.product }),
  z.strictObject({ what: z.literal('material'), ...common, thing: things.material }),
  z.strictObject({
    what: z.literal('equipment'),
    ...common,
    thing: things.equipment,
    calibrated: calibrated(things.equipment),
  }),
]);

/** What a studio has set for itself of one kind of verdict, in place of what is usual. */
export const ownLimit = z
  .strictObject({
    limit: z.number().min(-1000).max(100_000).optional().describe('From where on it is told'),
    off: z.boolean().default(false).describe('Never told'),
    minutesNow: z.number().min(0).max(600).optional().describe('To mend it at the set, minutes'),
    minutesRetouching: z.number().min(0).max(600).optional().describe('To mend it in retouching, minutes'),
  })
  .describe('Own limit of a kind of verdict');

/** The kit of a studio: lights, sheets, products and materials with real figures, to put on a set. */
export const kitDocument = z
  .strictObject({
    format: z.literal('fendrix-kit'),
    version: z.literal(1),
    entries: z.array(kitEntry).max(400),
    studio: studio.optional(),
    verdicts: z
      .record(z.string().regex(/^[a-z-]{1,40}$/, 'is no kind of verdict.'), ownLimit)
      .default({})
      .describe('Own limits, by the kind of verdict'),
    changeMinutes: z
      .record(z.string().regex(/^[a-z-]{1,40}$/, 'is no step of a change.'), z.number().min(0).max(240))
      .default({})
      .describe('Own minutes of each step from one set to the next, by the step'),
    calibration: calibrationHour.optional(),
    printer: printer.optional(),
  })
  .superRefine((kit, problems) => {
    const report = (path: PropertyKey[], message: string) =>
      problems.addIssue({ code: 'custom', path, message });
    const known = new Set<string>();
    kit.entries.forEach((entry, index) => {
      if (known.has(entry.id))
        report(['entries', index, 'id'], `"${entry.id}" is taken by an earlier entry.`);
      known.add(entry.id);
      const path = ['entries', index, 'thing'];
      if (entry.what === 'light') checkLight(entry.thing, path, report);
      else if (entry.what === 'sheet') checkSheet(entry.thing, path, report);
      else if (entry.what === 'product') checkProduct(entry.thing, path, report);
      checkMaterials(entry.thing, path, report);
    });
  });

export type Kit = z.infer<typeof kitDocument>;
export type OwnLimit = z.infer<typeof ownLimit>;
export type KitInput = z.input<typeof kitDocument>;
export type KitEntry = z.infer<typeof kitEntry>;
export type KitEntryInput = z.input<typeof kitEntry>;

/** The kit as stored; revision 0 is the one a studio starts with. */
export interface StoredKit {
  revision: number;
  document: Kit;
}
