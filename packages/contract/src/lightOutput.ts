import { z } from 'zod';
import { name } from './names.js';
import { partOfWhole } from './partOfWhole.js';

const efficiency = partOfWhole(0.001);
export const positive = (max: number) => z.number().min(1e-6).max(max);

/** What a light gives at full power. Flash and continuous sources may stand in one set. */
export const lightOutput = z.discriminatedUnion('kind', [
  z
    .strictObject({
      kind: z.literal('flash-energy'),
      energyJ: positive(10000).describe('Energy stored, J (watt-seconds)'),
      efficacyLmSPerJ: positive(683)
        .default(35)
        .describe('Light a stored joule gives, lm s/J; 30 to 40 is usual'),
      modifierEfficiency: efficiency
        .default(1)
        .describe('Part of the light that leaves the modifier; softbox 0.35 to 0.6'),
    })
    .describe('Flash by its stored energy'),
  z
    .strictObject({
      kind: z.literal('guide-number'),
      guideNumberM: positive(1000).describe(
        'Far-field guide number, m at ISO 100, of the light as it stands (modifier and grid on)',
      ),
    })
    .describe('Flash by its guide number: on-axis intensity 2.5 GN^2 cd s'),
  z
    .strictObject({
      kind: z.literal('flash-exposure'),
      luxSecondsAt1M: positive(1e7).describe(
        'What a flat flash meter reads 1 m in front of the face (bare lamp: of the centre), on axis, lx s',
      ),
    })
    .describe('Flash by a meter reading'),
  z
    .strictObject({
      kind: z.literal('lumens'),
      lumens: positive(1e7).describe('Luminous flux of the lamp, lm'),
      modifierEfficiency: efficiency.default(1).describe('Part of the light that leaves the modifier'),
    })
    .describe('Continuous light by its flux'),
  z
    .strictObject({
      kind: z.literal('illuminance'),
      luxAt1M: positive(1e8).describe(
        'What a flat meter reads 1 m in front of the face (bare lamp: of the centre), on axis, lx',
      ),
    })
    .describe('Continuous light by a meter reading'),
  z
    .strictObject({
      kind: z.literal('luminance'),
      luminanceCdM2: positive(1e10).describe(
        'Mean luminance of the luminous face seen straight on, as it stands (grid on), cd/m2',
      ),
    })
    .describe('Continuous light by the luminance of its face'),
]);

export const gel = z
  .strictObject({
    name,
    miredShift: z.number().min(-400).max(400).describe('Above 0 warms: full orange is about +150'),
    lossStops: z.number().min(0).max(8).default(0).describe('Light it takes, stops'),
  })
  .describe('Coloured film before a light, as a shift in mired');

export const lightColour = z
  .strictObject({
    temperatureK: z
      .number()
      .min(1000)
      .max(25000)
      .describe('Colour temperature of the source itself, K: flash 5500, halogen 3000, bulb 2700'),
    gels: z.array(gel).max(6).default([]),
  })
  .describe('Neutral to the camera if left out');

export type LightOutput = z.infer<typeof lightOutput>;
export type LightColour = z.infer<typeof lightColour>;
export type Gel = z.infer<typeof gel>;
