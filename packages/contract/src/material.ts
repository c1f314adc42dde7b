import { z } from 'zod';
import { base64 } from './base64.js';
import { COLOURS } from './geometry.js';
import { partOfWhole } from './partOfWhole.js';

/** A GGX alpha. */
const alpha = z.number().min(0).max(1);
const part = partOfWhole();

/** Grey as one number, or linear red, green, blue; each the fraction of light sent back. */
export const reflectance = z
  .union([part, z.tuple([part, part, part]).meta({ axes: COLOURS })])
  .describe('Fraction of light sent back, 0 to 1: one number for grey, or linear [red, green, blue]');

const refractiveIndex = z.number().min(1).max(3);

/** Largest picture on a surface: 512 x 512 in base64. */
const MOST_PICTURE_TEXT = 1_048_576;

export const gradientTone = z
  .strictObject({
    kind: z.literal('gradient'),
    direction: z
      .enum(['across', 'up', 'out'])
      .default('across')
      .describe('across: from the left edge to the right one seen from the front; up; out: from the middle'),
    from: reflectance.describe('Where the gradient starts; solid ink is 0.035, bare paper 0.82'),
    to: reflectance,
    start: part.default(0).describe('Part of the way at which it leaves its first tone'),
    end: part.default(1).describe('Part of the way at which it reaches its second tone'),
    gamma: z.number().min(0.1).max(10).default(1).describe('Above 1 it stays longer near its first tone'),
  })
  .describe('A printed gradient in place of the one reflectance');

export const pictureTone = z
  .strictObject({
    kind: z.literal('picture'),
    widthPx: z.int().min(1).max(1024),
    heightPx: z.int().min(1).max(1024),
    rgbBase64: base64(MOST_PICTURE_TEXT).describe(
      '8-bit sRGB red, green, blue, row by row from the top left, in base64',
    ),
  })
  .describe('A printed picture in place of the one reflectance');

/** Typefaces that words on goods are set in; their outlines are made from fonts by `packages/core/type`. */
export const typeface = z.enum([
  'sans',
  'sans bold',
  'sans black',
  'narrow',
  'narrow bold',
  'serif',
  'serif bold',
  'mono',
]);
export type Typeface = z.infer<typeof typeface>;

const headLines = z
  .strictObject({
    lines: z.int().min(1).max(11).default(1).describe('So many lines from the top'),
    typeface: typeface.default('serif bold').describe('What these lines are set in'),
    size: z.number().min(0.25).max(8).default(1.5).describe('Times the size of the other lines'),
  })
  .describe('The first lines set otherwise than the rest: the name over what it is');

export const textTone = z
  .strictObject({
    kind: z.literal('text'),
    lines: z.array(z.string().max(40)).min(1).max(12).describe('Top to bottom, centred, as large as fits'),
    typeface: typeface.default('sans bold').describe('What the words are set in'),
    head: headLines.optional(),
    ink: reflectance,
    border: part.default(0.06).describe('Empty edge, part of the smaller side'),
    ratio: z.number().min(0.05).max(20).default(1).describe('Width over height of the patch'),
  })
  .describe('Printed words in place of the one reflectance, ink on the paper that the reflectance gives');

export type TextTone = z.infer<typeof textTone>;

export const tone = z.discriminatedUnion('kind', [gradientTone, pictureTone, textTone]);

export const relief = z
  .strictObject({
    kind: z
      .enum(['ripples', 'crumb', 'weave', 'crumple'])
      .describe('ripples: water; crumb: cake, skin; weave: cloth; crumple: foil, creased paper'),
    depthM: z.number().min(1e-6).max(0.05).describe('Height from valley to ridge, m'),
    sizeM: z.number().min(1e-5).max(1).describe('From one ridge to the next, m'),
  })
  .describe('Small relief: turns the surface normal, leaves the outline as it is');

const printed = { tone: tone.optional(), relief: relief.optional() };

export const matte = z
  .strictObject({ kind: z.literal('matte'), reflectance, ...printed })
  .describe('Lambertian: looks equally bright from everywhere. Paper, board, plaster');

export const coated = z
  .strictObject({
    kind: z.literal('coated'),
    reflectance: reflectance.describe('Of the matte base under the coat'),
    coatIndex: refractiveIndex
      .default(1.5)
      .describe('Refractive index of the coat; 1.5 mirrors 4 % straight on'),
    roughness: alpha.default(0).describe('GGX alpha of the coat: 0 is a clear mirror image, 0.3 satin'),
    ...printed,
  })
  .describe('Clear coat over a matte base: gloss label, lacquer, glazed ceramic, acrylic, satin plastic');

export const cloth = z
  .strictObject({
    kind: z.literal('cloth'),
    reflectance,
    sheen: part.default(0.3).describe('Part of grazing light that the standing fibres send back'),
    ...printed,
  })
  .describe('Lambertian with a sheen towards grazing angles: linen, felt, velvet');

export const retroreflective = z
  .strictObject({
    kind: z.literal('retroreflective'),
    reflectance: reflectance.describe('Of what scatters evenly between and under the beads'),
    returned: reflectance.describe('Part of the light that goes back to where it came from'),
    roughness: z
      .number()
      .min(0.01)
      .max(1)
      .default(0.05)
      .describe(
        'GGX alpha of what goes back: how far it spreads round the way it came; 0.05 about 3 degrees',
      ),
    ...printed,
  })
  .describe(
    'Beads or small prisms send light back to the lamp: reflective tape, trim of safety wear and bags',
  );

const freePathM = z.number().min(1e-5).max(0.1);

export const wax = z
  .strictObject({
    kind: z.literal('wax'),
    reflectance: reflectance.describe(
      'Of a thick body, for even light that has entered through its skin; at most 0.98',
    ),
    meanFreePathM: z
      .union([freePathM, z.tuple([freePathM, freePathM, freePathM]).meta({ axes: COLOURS })])
      .describe(
        'Way of light between two scatterings inside, m, one number or [red, green, blue]: 0.5 mm marble, 2 mm cheese, 5 mm jelly. Red light goes furthest in flesh',
      ),
    index: refractiveIndex.default(1.4).describe('Refractive index of the skin; mirrors like a clear coat'),
    roughness: alpha.default(0.2),
    relief: relief.optional(),
  })
  .describe('Light enters, scatters inside and leaves nearby: wax, cheese, fruit, milk, marble');

/** Substances whose index by wavelength is known, see `packages/core/src/optics/dispersion.ts`. */
export const dispersion = z.enum([
  'crown glass',
  'flint glass',
  'quartz glass',
  'acrylic',
  'water',
  'sapphire',
  'zirconia',
  'diamond',
]);
export type Dispersion = z.infer<typeof dispersion>;

export const dielectric = z
  .strictObject({
    kind: z.literal('dielectric'),
    index: refractiveIndex.describe('Refractive index: glass 1.52, water 1.333, syrup 1.45'),
    dispersion: dispersion
      .optional()
      .describe(
        'Splits light into colours as this does: cut stones, prisms. Without it all colours go one way',
      ),
    absorptionPerCm: z
      .union([
        z.number().min(0).max(1000),
        z.array(z.number().min(0).max(1000)).length(3).meta({ axes: COLOURS }),
      ])
      .default(0)
      .describe(
        'Napierian absorption per cm of path, one number or [red, green, blue]: passes exp(-value * cm)',
      ),
    scatteringPerCm: z
      .number()
      .min(0)
      .max(100)
      .default(0)
      .describe(
        'How often light is scattered evenly per cm of path (reduced scattering coefficient): 0 clear, 1 cloudy juice, 20 milk',
      ),
    roughness: alpha
      .default(0)
      .describe('GGX alpha of its surface: 0 clear, 0.15 satin, 0.4 frosted. Of hollow bodies the outside'),
    relief: relief.optional(),
  })
  .describe('Glass, acrylic or liquid, clear or cloudy: mirrors and refracts, tinted by the path inside');

export const mirror = z
  .strictObject({
    kind: z.literal('mirror'),
    reflectance,
    roughness: alpha.default(0).describe('GGX alpha: 0 a clear mirror, 0.25 silver card, 0.5 brushed foil'),
    relief: relief.optional(),
  })
  .describe('Mirror of one reflectance at all angles: mirror glass 0.9, silver card 0.8 of roughness 0.25');

export const metal = z
  .strictObject({
    kind: z.literal('metal'),
    metal: z.enum(['silver', 'aluminium', 'gold', 'copper', 'brass', 'steel', 'chrome']),
    roughness: alpha.default(0).describe('GGX alpha: 0 polished, 0.1 satin, 0.3 blasted'),
    brushed: z
      .strictObject({
        along: z
          .enum(['round', 'up'])
          .describe(
            'The way the brush went: round the body (across), or up it; on a lid round its middle, or from there to the rim; over the top of a box along its width, or from front to back',
          ),
        acrossRoughness: alpha.describe('GGX alpha across the brush marks; roughness counts along them'),
      })
      .optional(),
    relief: relief.optional(),
  })
  .describe('Bare metal by its measured complex index');

export const translucent = z
  .strictObject({
    kind: z.literal('translucent'),
    reflectance: reflectance.describe('Sent back, evenly'),
    transmittance: reflectance.describe(
      'Let through in all, spread and straight; with reflectance at most 1',
    ),
    haze: part
      .default(1)
      .describe('Part of what is let through that is spread evenly; the rest keeps its direction'),
  })
  .describe('Frost, tracing paper, tent cloth, white acrylic: a thin sheet that lets light through');

export const net = z
  .strictObject({
    kind: z.literal('net'),
    openness: part.describe('Part of the light that passes straight through the holes'),
    softEdge: z
      .strictObject({
        side: z.enum(['left', 'right', 'top', 'bottom', 'all']).describe('Seen from the front'),
        widthPart: partOfWhole(0.01).describe('Part of the sheet over which it opens fully'),
      })
      .optional(),
    reflectance: reflectance.default(0.04),
  })
  .describe('Holes too small to see: net, scrim, dotted flag. With a soft edge it opens towards that side');

export const material = z.discriminatedUnion('kind', [
  matte,
  coated,
  cloth,
  wax,
  dielectric,
  mirror,
  metal,
  retroreflective,
  translucent,
]);

const opaque = [matte, coated, cloth, mirror, metal, retroreflective] as const;

/** Materials that stop light: what walls, backgrounds and labels can be made of. */
export const opaqueMaterial = z.discriminatedUnion('kind', opaque);

/** Materials of tabletops: what stops light, and plates of glass or acrylic. */
export const tabletopMaterial = z.discriminatedUnion('kind', [...opaque, dielectric]);

/** Materials of sheets: what stops light, and what lets it through. */
export const sheetMaterial = z.discriminatedUnion('kind', [...opaque, translucent, net]);

const kindsOf = (union: { options: readonly { shape: { kind: { value: AnyMaterial['kind'] } } }[] }) =>
  new Set(union.options.map(({ shape }) => shape.kind.value));

/** Kinds of material by what can be made of them: what is opaque, tabletops, sheets, bodies, what is poured. */
export const materialKinds = {
  opaque: kindsOf(opaqueMaterial),
  tabletop: kindsOf(tabletopMaterial),
  sheet: kindsOf(sheetMaterial),
  body: kindsOf(material),
  liquid: new Set<AnyMaterial['kind']>(['dielectric']),
} as const;

export type Reflectance = z.infer<typeof reflectance>;
export type Tone = z.infer<typeof tone>;
export type Relief = z.infer<typeof relief>;
export type Material = z.infer<typeof material>;
export type OpaqueMaterial = z.infer<typeof opaqueMaterial>;
export type TabletopMaterial = z.infer<typeof tabletopMaterial>;
export type SheetMaterial = z.infer<typeof sheetMaterial>;
export type AnyMaterial = Material | SheetMaterial;
export type Dielectric = z.infer<typeof dielectric>;
export type Metal = z.infer<typeof metal>['metal'];
