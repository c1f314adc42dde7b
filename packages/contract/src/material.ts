import { z } from 'zod';

const fraction = z.number().min(0).max(1);

/** Grey as one number, or linear red, green, blue; each the fraction of light sent back. */
export const reflectance = z
  .union([fraction, z.tuple([fraction, fraction, fraction])])
  .describe('Fraction of light sent back, 0 to 1: one number for grey, or linear [red, green, blue]');

const refractiveIndex = z.number().min(1).max(3);

export const matte = z
  .strictObject({ kind: z.literal('matte'), reflectance })
  .describe('Lambertian: looks equally bright from everywhere. Paper, board, cloth, plaster');

export const coated = z
  .strictObject({
    kind: z.literal('coated'),
    reflectance: reflectance.describe('Of the matte base under the coat'),
    coatIndex: refractiveIndex
      .default(1.5)
      .describe('Refractive index of the coat; 1.5 mirrors 4 % straight on'),
    roughness: fraction.default(0).describe('GGX alpha of the coat: 0 is a clear mirror image, 0.3 satin'),
  })
  .describe('Clear coat over a matte base: gloss label, lacquer, glazed ceramic, satin plastic');

export const dielectric = z
  .strictObject({
    kind: z.literal('dielectric'),
    index: refractiveIndex.describe('Refractive index: glass 1.52, water 1.333, syrup 1.45'),
    absorptionPerCm: z
      .union([z.number().min(0).max(1000), z.array(z.number().min(0).max(1000)).length(3)])
      .default(0)
      .describe(
        'Napierian absorption per cm of path, one number or [red, green, blue]: passes exp(-value * cm)',
      ),
  })
  .describe('Clear glass, acrylic or liquid: mirrors and refracts, tinted by the path inside');

export const mirror = z
  .strictObject({ kind: z.literal('mirror'), reflectance })
  .describe('Perfect mirror of one reflectance at all angles: mirror glass 0.9, polished chrome 0.6');

export const material = z.discriminatedUnion('kind', [matte, coated, dielectric, mirror]);

/** Materials that stop light: what sheets, benches, walls and labels can be made of. */
export const opaqueMaterial = z.discriminatedUnion('kind', [matte, coated, mirror]);

export type Reflectance = z.infer<typeof reflectance>;
export type Material = z.infer<typeof material>;
export type OpaqueMaterial = z.infer<typeof opaqueMaterial>;
export type Dielectric = z.infer<typeof dielectric>;
