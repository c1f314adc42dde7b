import { z } from 'zod';
import { direction, keepsDirection, lengthM, pointM } from './geometry.js';
import { gobo } from './gobo.js';
import { lightColour, lightOutput, positive } from './lightOutput.js';
import { translucent } from './material.js';
import { lightTag, name } from './names.js';

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
  dial: z
    .strictObject({
      leastStops: z.number().min(-20).max(0).describe('Lowest power, stops from full'),
      stepStops: z.number().min(0.01).max(5).default(0.1).describe('From one setting to the next, stops'),
      givesPart: z
        .number()
        .min(0.5)
        .max(1.5)
        .optional()
        .describe('Stops of light that a stop of its dial really gives, as calibrated; 1 if left out'),
    })
    .optional()
    .describe('Range and steps of its power; without one any power can be set'),
  on: z.boolean().default(true),
  drawW: positive(20_000)
    .optional()
    .describe(
      'What it draws from the mains while it works, without its modelling lamp, W; left out on batteries',
    ),
  colour: lightColour.optional(),
  modelling: z
    .strictObject({
      on: z.boolean().default(true),
      lumens: positive(1e6).describe('Flux that leaves the modifier, lm'),
      temperatureK: z.number().min(1000).max(25000).default(3000),
      drawW: positive(20_000).optional().describe('What it draws from the mains, W'),
    })
    .optional()
    .describe('Modelling lamp of a flash: lights the set by the shutter, from the same face'),
  polarised: z
    .strictObject({
      axisDeg: z
        .number()
        .min(-180)
        .max(180)
        .default(0)
        .describe(
          'Direction of its polarisation, degrees from upright, clockwise as seen from behind the light',
        ),
      lossStops: z.number().min(1).max(6).default(1.4).describe('Light the film takes, stops'),
    })
    .optional()
    .describe('Linear polarising film on the front'),
  duration: z
    .strictObject({
      fullS: z
        .number()
        .min(1e-6)
        .max(1)
        .describe('Time in which nine tenths of the light is given at full power (t0.1), s'),
      stopsPerStop: z
        .number()
        .min(-2)
        .max(2)
        .describe(
          'How the time follows the power: above 0 shorter when turned down (switched off early, as small flashes are), below 0 longer (set by its voltage, as many studio heads are)',
        ),
    })
    .optional()
    .describe('Flash duration, from its data sheet'),
  stand: z
    .boolean()
    .default(false)
    .describe('Whether its stand is there to be mirrored: an upright pole behind it, down to the floor'),
};

const aimed = {
  aimM: pointM.describe('Point that it faces, m'),
  keepsDirection,
  rollDeg: z
    .number()
    .min(-180)
    .max(180)
    .default(0)
    .describe('Turn about the aim axis, degrees, clockwise seen from behind the light'),
};

export const grid = z.strictObject({
  cutoffDeg: z
    .number()
    .min(5)
    .max(170)
    .describe(
      'Full angle of the beam between its cut-offs, degrees: black cells of this depth to width, square on cloth fronts, round in dishes',
    ),
  lossStops: z
    .number()
    .min(0)
    .max(5)
    .default(0.5)
    .describe('Loss straight ahead, stops (cell walls), where the output is given before the grid'),
});

const hotCentre = z
  .number()
  .min(1)
  .max(10)
  .default(1)
  .describe('Luminance of the centre over that of the edge; 1 is even, 1.3 to 2.5 usual');
const beamDeg = z
  .number()
  .min(4)
  .max(120)
  .describe('Full angle at which the intensity has fallen to half, degrees; 120 is an even face');

export const softbox = z
  .strictObject({
    kind: z.literal('softbox'),
    ...common,
    positionM: pointM.describe('Middle of the front cloth, m from the centre'),
    ...aimed,
    widthM: lengthM.describe('Front cloth across, m'),
    heightM: lengthM.describe('Front cloth up, m'),
    hotCentre,
    grid: grid.optional().describe('Honeycomb or fabric grid on the front'),
  })
  .describe(
    'Rectangular softbox or strip: a front cloth that emits as Lambert (times the grid), black behind and at the sides',
  );

export const octa = z
  .strictObject({
    kind: z.literal('octa'),
    ...common,
    positionM: pointM.describe('Middle of the front cloth, m from the centre'),
    ...aimed,
    diameterM: lengthM.describe('From side to opposite side, m'),
    hotCentre,
    grid: grid.optional(),
  })
  .describe('Eight-sided softbox');

export const ringLight = z
  .strictObject({
    kind: z.literal('ring'),
    ...common,
    ...aimed,
    outerDiameterM: lengthM,
    innerDiameterM: lengthM.describe('Of the hole the lens looks through, m'),
  })
  .describe('Ring light: a flat luminous ring with a hole');

export const dish = z
  .strictObject({
    kind: z.literal('dish'),
    ...common,
    positionM: pointM.describe('Middle of its mouth, m from the centre'),
    ...aimed,
    diameterM: lengthM.describe('Of the mouth, m'),
    deflectorDiameterM: z
      .number()
      .min(0)
      .max(5)
      .default(0)
      .describe('Dark plate in the middle of a beauty dish, m; 0 for none'),
    beamDeg,
    grid: grid.optional().describe('Honeycomb in the mouth'),
  })
  .describe('Reflector: standard dish, beauty dish. Seen as an even mouth with one beam');

export const tube = z
  .strictObject({
    kind: z.literal('tube'),
    ...common,
    ...aimed,
    lengthM: lengthM.describe('Along its right-hand axis as seen from behind, m'),
    diameterM: lengthM,
  })
  .describe('A luminous tube that shines to all sides');

export const umbrella = z
  .strictObject({
    kind: z.literal('umbrella'),
    ...common,
    positionM: pointM.describe('Middle of its mouth, m from the centre'),
    ...aimed,
    diameterM: lengthM,
    hotCentre,
    backShare: z
      .number()
      .min(0)
      .max(5)
      .default(0)
      .describe(
        'Light sent backwards over that sent forwards: 0 reflecting or covered, about 1 shoot-through without cover',
      ),
  })
  .describe('Umbrella, reflecting or shoot-through, as a luminous disc at its mouth');

export const snoot = z
  .strictObject({
    kind: z.literal('snoot'),
    ...common,
    positionM: pointM.describe('Middle of its mouth, m from the centre'),
    ...aimed,
    diameterM: lengthM.describe('Of the mouth, m'),
    cutoffDeg: z.number().min(5).max(120).describe('Full angle beyond which nothing passes, degrees'),
  })
  .describe('Snoot: a small disc with a beam that ends');

export const projector = z
  .strictObject({
    kind: z.literal('projector'),
    ...common,
    positionM: pointM.describe('Middle of its front lens, m from the centre'),
    ...aimed,
    lensDiameterM: lengthM.max(0.5),
    fieldDeg: z.number().min(3).max(90).describe('Full angle of the round field, degrees'),
    focusM: z
      .number()
      .min(0.05)
      .max(1000)
      .describe('Distance at which the gobo is sharp, m; nearer and further it blurs'),
    gobo,
  })
  .describe('Projecting spot: an image of its gobo, sharp at one distance');

export const ledPanel = z
  .strictObject({
    kind: z.literal('panel'),
    ...common,
    ...aimed,
    widthM: lengthM,
    heightM: lengthM,
    beamDeg: beamDeg.default(120),
  })
  .describe("LED panel or builder's lamp: a rectangular face with one beam");

export const tableLamp = z
  .strictObject({
    kind: z.literal('table-lamp'),
    ...common,
    positionM: pointM.describe('Middle of the bulb, m from the centre'),
    radiusM: lengthM.max(0.2).default(0.03).describe('Radius of the luminous bulb, m'),
    shade: z
      .strictObject({
        bottomDiameterM: lengthM,
        topDiameterM: lengthM,
        heightM: lengthM,
        material: translucent,
      })
      .describe('Open cone round the bulb, its middle at the bulb'),
  })
  .describe('A bulb in a lampshade: light through the shade and out of both ends');

export const window = z
  .strictObject({
    kind: z.literal('window'),
    ...common,
    positionM: pointM.describe('Middle of the glazing, m from the centre'),
    ...aimed,
    aimM: pointM.describe('Point in the room that the glazing faces, m'),
    widthM: lengthM,
    heightM: lengthM,
    sky: z
      .enum(['even', 'overcast'])
      .default('overcast')
      .describe(
        'overcast: three times as bright overhead as at the horizon, ground of reflectance 0.2 below it',
      ),
    sun: z
      .strictObject({
        towards: direction.describe('Way the sunlight goes, [x, y, z]'),
        illuminanceLx: positive(200000).describe('On a surface that faces the sun, behind the glass, lx'),
        temperatureK: z.number().min(1000).max(25000).optional(),
      })
      .optional()
      .describe('Sun through the window: a patch of hard light, on a film of its own'),
    driftStopsPerHour: z.number().min(-10).max(10).default(0).describe('How the daylight is changing'),
  })
  .describe('Daylight through a window. The output is that of the sky');

export const iesLight = z
  .strictObject({
    kind: z.literal('ies'),
    ...common,
    positionM: pointM.describe('Middle of the luminous opening, m from the centre'),
    ...aimed,
    openingWidthM: lengthM.max(5),
    openingLengthM: lengthM.max(5),
    distribution: z
      .strictObject({
        verticalDeg: z.array(z.number().min(0).max(180)).min(2).max(361),
        horizontalDeg: z.array(z.number().min(0).max(360)).min(1).max(361),
        candela: z
          .array(z.array(z.number().min(0).max(1e9)))
          .describe('A row for each horizontal angle, a value for each vertical one, cd'),
      })
      .describe('Luminous intensity of type C: 0 vertical is straight ahead'),
  })
  .describe('A light by its measured intensities (LM-63); the output gives its scale');

export const bareLamp = z
  .strictObject({
    kind: z.literal('bare-lamp'),
    ...common,
    positionM: pointM.describe('Middle of the lamp, m from the centre'),
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
    dial: common.dial,
    on: common.on,
    colour: common.colour,
  })
  .describe(
    'Even light from everywhere beyond the set, as in an ideal tent; only outside of a room. Used for checks',
  );

export const light = z.discriminatedUnion('kind', [
  softbox,
  octa,
  ringLight,
  dish,
  tube,
  umbrella,
  snoot,
  projector,
  ledPanel,
  tableLamp,
  window,
  iesLight,
  bareLamp,
  surround,
]);

export type Light = z.infer<typeof light>;
export type LightOf<K extends Light['kind']> = Extract<Light, { kind: K }>;
export type Softbox = LightOf<'softbox'>;
export type BareLamp = LightOf<'bare-lamp'>;
export type Surround = LightOf<'surround'>;
/** A light that stands somewhere: all but the even surround. */
export type StandingLight = Exclude<Light, Surround>;
/** A light that faces a point. */
export type AimedLight = Extract<Light, { aimM: unknown }>;
