import { z } from 'zod';
import { cameraBody, cameraLens, copySide } from './camera.js';
import { storedId } from './ids.js';
import { name, productId } from './names.js';
import { partOfWhole } from './partOfWhole.js';
import { product } from './product.js';

const words = (most: number) => z.string().max(most).default('');

/** Identifier of a row within a job: deliverable, shot, step. */
export const rowId = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'must be lower-case letters, digits and dashes, at most 40.');

export const day = z.iso.date().describe('Day, YYYY-MM-DD');

/** Time of the day, HH:MM. */
export const clock = z
  .string()
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of the day such as 09:30.');

/** A moment, ISO 8601 in UTC. */
export const instant = z.iso.datetime().describe('A moment, UTC');

/** What a tape may be laid from: the centre of the set, a corner of its table or of its room. */
export const tapeMark = z.enum([
  'centre',
  'table-front-left',
  'table-front-right',
  'table-back-left',
  'table-back-right',
  'room-front-left',
  'room-front-right',
  'room-back-left',
  'room-back-right',
]);

/** A picture kept by its content. */
export const pictureHash = z.string().regex(/^[0-9a-f]{64}$/, 'must be 64 hexadecimal digits.');

export const deliverable = z
  .strictObject({
    id: rowId,
    name: name.describe('Where it runs: shop page, square post, upright story, wide banner, print'),
    widthPx: z.int().min(16).max(40000).describe('Pixels across'),
    heightPx: z.int().min(16).max(40000).describe('Pixels up and down'),
    marginPart: partOfWhole(0, 0.4)
      .default(0.06)
      .describe('Kept free all round the product, part of the width'),
    copySide: copySide.default('none').describe('Where words will stand'),
    copyPart: partOfWhole(0, 0.9).default(0).describe('Part of the frame kept free for words'),
    background: z.enum(['as-set', 'white', 'black', 'cut-out']).default('as-set'),
    fileType: z.enum(['jpeg', 'png', 'tiff']).default('jpeg'),
  })
  .describe('A picture format that the client gets');

export const reference = z.strictObject({
  sha256: pictureHash,
  name,
  note: words(400).describe('What of it is wanted: light, angle, mood'),
});

export const brief = z.strictObject({
  need: words(2000).describe('What is sold, to whom, and what the pictures must do'),
  mood: words(400).describe('Bright and airy, dark and moody, seasonal …'),
  deliverables: z.array(deliverable).max(30).default([]),
  pictures: z.int().min(1).max(2000).optional().describe('Number of pictures agreed'),
  references: z.array(reference).max(40).default([]),
  supplied: z
    .array(
      z.strictObject({
        name,
        count: z.int().min(1).max(1000).default(1),
        arrived: z.boolean().default(false),
        goesBack: z.boolean().default(true),
      }),
    )
    .max(100)
    .default([])
    .describe('Products the client sends'),
  notes: words(4000),
});

export const step = z.strictObject({
  id: rowId,
  text: z.string().min(1).max(300),
  done: z.boolean().default(false),
});

export const jobProduct = z.strictObject({
  id: productId,
  name,
  goods: z
    .enum(['glass', 'metal', 'jewelry', 'garment', 'drink', 'food', 'other'])
    .default('other')
    .describe('What kind of product: decides the preparation proposed'),
  body: product.describe('Form and materials'),
  detail: z.enum(['side', 'top', 'both']).default('side').describe('Where its detail is'),
  shine: z.enum(['matte', 'satin', 'gloss', 'mirror']).default('satin').describe('How shiny it is'),
  clear: z.enum(['opaque', 'frosted', 'clear']).default('opaque').describe('How see-through it is'),
  fragile: words(200).describe('What may break, mark or melt; empty if nothing'),
  minutesOnSet: z.number().min(0.5).max(1440).optional().describe('How long it lasts under lights, minutes'),
  spares: z.int().min(0).max(100).default(0).describe('Further pieces at hand'),
  usedUp: z.int().min(0).max(200).default(0).describe('Pieces that were used up on the day'),
  freshAt: instant.optional().describe('When the piece that stands there now came under the lights'),
  steps: z.array(step).max(60).default([]).describe('Preparation and styling, ticked on the day'),
});

export const framing = z
  .strictObject({
    body: cameraBody,
    lens: cameraLens,
    fillPart: partOfWhole(0.05)
      .default(0.6)
      .describe('How much of the frame the product fills, part of the tighter way'),
    fNumber: z.number().min(0.5).max(128).default(11),
    mostNearFarRatio: z
      .number()
      .min(1.01)
      .max(3)
      .default(1.15)
      .describe('Nearest part of the product may look larger than the farthest by this much'),
    personM: z.number().min(0).max(3).default(0.6).describe('Room kept behind the camera, m'),
    held: z
      .enum(['level', 'upright'])
      .optional()
      .describe('How the camera is held; as the formats want it if left out'),
  })
  .describe('Body, lens and what the frame must hold');

export const shot = z.strictObject({
  id: rowId,
  name,
  products: z.array(productId).min(1).max(20),
  purpose: words(300).describe('What the picture is for'),
  view: z
    .enum(['eye-level', 'three-quarter', 'straight-down', 'between'])
    .default('eye-level')
    .describe('How it is looked at'),
  tiltDeg: z
    .number()
    .min(0)
    .max(90)
    .default(0)
    .describe('Camera looks down by this much, degrees: 0 level, 90 straight down'),
  blurGround: z.boolean().default(false).describe('Whether the background should blur'),
  deliverables: z.array(rowId).max(30).default([]).describe('Formats cut from it'),
  look: words(400).describe('Light and mood of this picture'),
  props: words(400).describe('What else stands in it'),
  plates: z
    .array(z.string().min(1).max(80))
    .max(20)
    .default([])
    .describe('Frames it is put together from: label, liquid, background …'),
  minutes: z.number().min(1).max(1440).default(30).describe('Time planned for it, minutes'),
  framing: framing.optional(),
  setId: storedId.optional().describe('The set it is taken on'),
  notBefore: clock.optional().describe('Not begun before: light of a window, a courier, drying, cooling'),
  endedBy: clock.optional().describe('Ended by then: light that goes, a courier, a client'),
  after: z.array(rowId).max(20).default([]).describe('Pictures that come before it'),
  last: z.boolean().default(false).describe('Spills, wets or wilts: after all that do not'),
  done: z.boolean().default(false),
  tries: z.int().min(0).max(1000).default(0).describe('Frames that were tried and not kept'),
  begunAt: instant.optional().describe('When the first step of its set was done'),
  takenAt: instant.optional().describe('When it was taken'),
  built: z
    .array(z.string().min(1).max(200))
    .max(200)
    .default([])
    .describe('Steps of building its set that are done, by what they are and their figures'),
});

export const series = z
  .strictObject({
    products: z.array(productId).max(200).optional().describe('All products of the job if left out'),
    align: z.enum(['base', 'centre']).default('base').describe('What stays on one line: feet or middles'),
    tiltDeg: z.number().min(0).max(90).default(0).describe('Camera looks down by this much, degrees'),
    framing: framing.optional(),
  })
  .describe('Products that are taken before one camera');

export const jobShape = z.strictObject({
  format: z.literal('fendrix-job'),
  version: z.literal(1),
  name: name.describe('Name of the job'),
  client: z.string().max(80).default(''),
  dueOn: day.optional().describe('When the pictures must be with the client'),
  delivered: z.boolean().default(false),
  archived: z.boolean().default(false),
  brief: brief.default({
    need: '',
    mood: '',
    deliverables: [],
    references: [],
    supplied: [],
    notes: '',
  }),
  products: z.array(jobProduct).max(200).default([]),
  shots: z.array(shot).max(500).default([]),
  series: series.optional(),
  day: z
    .strictObject({
      on: day.optional().describe('The day itself'),
      startsAt: clock.default('09:00').describe('When work on the first set begins'),
      pause: z
        .strictObject({ at: clock, minutes: z.number().min(5).max(240) })
        .optional()
        .describe('Lunch: nothing is done from then on'),
      order: z.array(rowId).max(500).default([]).describe('Own order of the pictures; the best one if empty'),
      metered: z
        .strictObject({
          at: clock,
          window: name.describe('The window whose light was metered'),
          stops: z.number().min(-12).max(12).describe('Stops that the exposure was off by then'),
        })
        .optional()
        .describe('Last reading of daylight: what comes after is counted from it'),
      stands: storedId.optional().describe('The set that stands there now: that of the last picture taken'),
      tapesFrom: z
        .tuple([tapeMark, tapeMark])
        .default(['table-front-left', 'table-front-right'])
        .describe('The two marks that tapes are laid from'),
    })
    .prefault({})
    .describe('The day on which the pictures are taken'),
});

export type Job = z.infer<typeof jobShape>;
export type JobInput = z.input<typeof jobShape>;
export type Brief = z.infer<typeof brief>;
export type Deliverable = z.infer<typeof deliverable>;
export type Reference = z.infer<typeof reference>;
export type JobProduct = z.infer<typeof jobProduct>;
export type Framing = z.infer<typeof framing>;
export type Shot = z.infer<typeof shot>;
export type SeriesPlan = z.infer<typeof series>;
export type TapeMark = z.infer<typeof tapeMark>;
export type Step = z.infer<typeof step>;
