import { z } from 'zod';
import { lengthM, pointM } from './geometry.js';
import { lightTag, name } from './names.js';

const efficiency = z.number().min(0.001).max(1);
const positive = (max: number) => z.number().min(1e-6).max(max);

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

const common = {
  tag: lightTag,
  name: name.describe('What it is called on set'),
  positionM: pointM,
  output: lightOutput,
  powerStops: z
    .number()
    .min(-20)
    .max(0)
    .default(0)
    .describe('Power set on the head, stops from full: 0 is 1/1, -2 is 1/4'),
  on: z.boolean().default(true),
};

export const grid = z.strictObject({
  cutoffDeg: z
    .number()
    .min(5)
    .max(170)
    .describe(
      'Full angle of the beam between its cut-offs, degrees: square black cells of this depth to width',
    ),
  lossStops: z
    .number()
    .min(0)
    .max(5)
    .default(0.5)
    .describe('Loss straight ahead, stops (cell walls), where the output is given before the grid'),
});

export const softbox = z
  .strictObject({
    kind: z.literal('softbox'),
    ...common,
    positionM: pointM.describe('Centre of the front cloth, m from the mark'),
    aimM: pointM.describe('Point that the front cloth faces, m'),
    rollDeg: z
      .number()
      .min(-180)
      .max(180)
      .default(0)
      .describe('Turn about the aim axis, degrees, clockwise seen from behind the light'),
    widthM: lengthM.describe('Front cloth across, m'),
    heightM: lengthM.describe('Front cloth up, m'),
    hotCentre: z
      .number()
      .min(1)
      .max(10)
      .default(1)
      .describe('Luminance of the centre over that of the edge; 1 is even, 1.3 to 2.5 usual'),
    grid: grid.optional().describe('Honeycomb or fabric grid on the front'),
  })
  .describe(
    'Rectangular softbox: a front cloth that emits as Lambert (times the grid), black behind and at the sides',
  );

export const bareLamp = z
  .strictObject({
    kind: z.literal('bare-lamp'),
    ...common,
    positionM: pointM.describe('Centre of the lamp, m from the mark'),
    radiusM: lengthM.max(1).default(0.02).describe('Radius of the luminous ball, m'),
  })
  .describe('Bare tube or bulb: an evenly luminous ball that shines to all sides');

export const surround = z
  .strictObject({
    kind: z.literal('surround'),
    tag: lightTag,
    name,
    output: lightOutput.options[5],
    powerStops: common.powerStops,
    on: common.on,
  })
  .describe(
    'Even light from everywhere beyond the set, as in an ideal tent; only outside of a room. Used for checks',
  );

export const light = z.discriminatedUnion('kind', [softbox, bareLamp, surround]);

export type LightOutput = z.infer<typeof lightOutput>;
export type Softbox = z.infer<typeof softbox>;
export type BareLamp = z.infer<typeof bareLamp>;
export type Surround = z.infer<typeof surround>;
export type Light = z.infer<typeof light>;
