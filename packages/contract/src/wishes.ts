import { z } from 'zod';
import { likeness } from './likeness.js';
import { partOfWhole } from './partOfWhole.js';

const OPEN = 'open';

const darkestStops = z.number().min(-12).max(0);
const brightestStops = z.number().min(-2).max(4);

const heldTones = z
  .strictObject({
    product: z.string().min(1).max(40).describe('Id of the product'),
    darkestStops: darkestStops.optional(),
    brightestStops: brightestStops.optional(),
  })
  .describe('Tones of one product that are to hold detail, where they differ from those of the others');

/** What is wanted of a picture; every choice may be left open, and then nothing is judged by it. */
export const wishes = z
  .strictObject({
    mood: z.enum(['bright', 'neutral', 'dark']).default('neutral').describe('Mood of the picture'),
    ground: z.enum(['white', 'grey', 'black', 'gradient', OPEN]).default(OPEN).describe('Background'),
    greyStops: z.number().min(-5).max(2.4).default(0).describe('Tone of a grey background, from mid-tone'),
    gradientFromStops: z
      .number()
      .min(-8)
      .max(4)
      .default(0)
      .describe('Tone that a gradient background begins with, from mid-tone'),
    gradientToStops: z.number().min(-8).max(4).default(-2).describe('Tone that it ends with, from mid-tone'),
    gradientTowards: z
      .enum(['up', 'down', 'left', 'right'])
      .default('up')
      .describe('Which way it goes from the one to the other in the picture'),
    groundBlurPart: partOfWhole(0.0005, 0.2)
      .optional()
      .describe('How blurred the background is at least, part of the width of the frame'),
    edges: z
      .enum(['dark-line', 'bright-line', OPEN])
      .default(OPEN)
      .describe('Edges of glass and gloss: a dark line on light ground, or a bright line on dark ground'),
    highlight: z
      .enum(['one-strip', 'two-strips', 'broad', 'bright-front', 'bright-back', 'none', OPEN])
      .default(OPEN)
      .describe('Highlight on gloss and metal'),
    centre: z
      .enum(['dark', 'bright', 'closed', OPEN])
      .default(OPEN)
      .describe(
        'What the middle of a mirroring thing shows: dark for a logo, bright, or closed by a lens-hole card',
      ),
    shadow: z.enum(['soft', 'hard', 'none', OPEN]).default(OPEN).describe('Shadow on the table'),
    shadowTowards: z
      .enum(['left', 'right', 'front', 'back', OPEN])
      .default(OPEN)
      .describe('Which way the shadow falls in the picture'),
    words: z
      .enum(['readable', 'picked-out', OPEN])
      .default(OPEN)
      .describe('Label and logo: flat and readable, or engraved and printed detail picked out'),
    liquid: z.enum(['glows', 'clear', OPEN]).default(OPEN).describe('Liquid: glows over the label, or clear'),
    texture: z
      .enum(['raked', 'smooth', OPEN])
      .default(OPEN)
      .describe('Texture: raked by the light, or smooth'),
    sharp: z
      .enum(['front-to-back', 'front', OPEN])
      .default('front-to-back')
      .describe('What is to be sharp of the products'),
    movement: z.enum(['frozen', 'flowing', OPEN]).default(OPEN).describe('What moves'),
    darkestStops: darkestStops
      .default(-5)
      .describe('Darkest tone of the products that is to hold detail, stops from mid-tone'),
    brightestStops: brightestStops
      .optional()
      .describe('Brightest tone of the products that is to hold detail; paper white if left out'),
    held: z
      .array(heldTones)
      .max(40)
      .default([])
      .describe('Products with darkest and brightest tones of their own'),
    overWhiteStops: z
      .number()
      .min(0.1)
      .max(3)
      .optional()
      .describe('How far a white background may be over the white of the products, stops'),
    highlightPart: partOfWhole(0.02, 1)
      .optional()
      .describe('How broad a broad highlight is, or how wide a strip, part of the visible width'),
    highlightBendPart: partOfWhole(0.0005, 0.2)
      .optional()
      .describe('How far a strip may wander along a straight side, part of the visible width'),
    shadowStops: z
      .number()
      .min(0.2)
      .max(8)
      .optional()
      .describe('How deep a soft shadow may be, stops under the lit ground'),
    shadowEdgeM: z
      .number()
      .min(0.001)
      .max(1)
      .optional()
      .describe('How wide the soft edge of a shadow is at least, m'),
    liquidStops: z
      .number()
      .min(-3)
      .max(3)
      .optional()
      .describe('How far a glowing liquid is over its label, stops'),
    keyToFillStops: z
      .number()
      .min(0.2)
      .max(8)
      .optional()
      .describe('Contrast on the products: main light over what fills the shadow side, stops'),
    like: likeness.optional(),
  })
  .describe('What is wanted of the picture: verdicts are counted from it');

/** A verdict that is not to be told again: it is wanted so, or is left for retouching. */
export const settledVerdict = z
  .strictObject({
    verdict: z.string().min(1).max(120).describe('Which verdict, and of what'),
    as: z.enum(['wanted', 'retouching']),
    note: z.string().max(400).default(''),
    minutes: z.number().min(0).max(600).optional().describe('In retouching'),
  })
  .describe('A verdict that was settled by the photographer');

export type Wishes = z.infer<typeof wishes>;
export type SettledVerdict = z.infer<typeof settledVerdict>;

/** What the wishes start from: as much of a set as is looked at, of any version and unchecked. */
export interface StartingFrom {
  products?: unknown;
  backdrop?: unknown;
}

/** Reflectance up to which a background is meant to be black. */
const BLACK_UP_TO = 0.06;

/** Tone of the ground in a dark picture: dark, and not yet black. */
const DARK_GROUND_STOPS = -3;

/**
 * Wishes that make sense for what stands on a set, before anybody said what is wanted: words on a label are to be read,
 * glass wants edges, liquid is to glow, black cloth is to be black.
 */
export function startWishes({ products, backdrop }: StartingFrom, mood: Wishes['mood'] = 'neutral'): Wishes {
  const goods = (Array.isArray(products) ? products : []).map(fieldsOf);
  const isClear = goods.some(
    ({ kind, material }) => kind !== 'water' && fieldsOf(material).kind === 'dielectric',
  );
  const hollows = goods.map(({ hollow }) => fieldsOf(hollow));
  const hasWords = goods.some(
    ({ label, labels }) => label !== undefined || (Array.isArray(labels) && labels.length > 0),
  );
  const hasLiquid = hollows.some(({ liquid }) => liquid !== undefined);
  const behind = reflectanceOf(fieldsOf(fieldsOf(backdrop).material).reflectance);
  const isBlack = behind !== null && behind <= BLACK_UP_TO;
  const ofMood = ({ bright: 'white', dark: 'grey', neutral: OPEN } as const)[mood];
  return {
    ...wishes.parse({ mood }),
    ground: isBlack ? 'black' : behind !== null ? ofMood : OPEN,
    greyStops: mood === 'dark' ? DARK_GROUND_STOPS : 0,
    edges: isClear ? (isBlack ? 'bright-line' : 'dark-line') : OPEN,
    words: hasWords ? 'readable' : OPEN,
    liquid: hasLiquid && mood !== 'dark' ? 'glows' : OPEN,
    shadow: mood === 'bright' ? 'soft' : OPEN,
    darkestStops: mood === 'dark' ? -7 : -5,
  };
}

type Fields = Readonly<Record<string, unknown>>;

const fieldsOf = (value: unknown): Fields =>
  typeof value === 'object' && value !== null ? (value as Fields) : {};

/** Grey of a reflectance as it is written: a number, or red, green and blue. */
function reflectanceOf(value: unknown): number | null {
  if (typeof value === 'number') return value;
  if (!Array.isArray(value) || value.length !== 3 || value.some((part) => typeof part !== 'number'))
    return null;
  const [r, g, b] = value as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
