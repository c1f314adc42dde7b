import { z } from 'zod';
import { camera } from './camera.js';
import { AXES, coordinateM, direction, lengthM, pointM } from './geometry.js';
import { light } from './light.js';
import { opaqueMaterial, tabletopMaterial } from './material.js';
import { name, productId } from './names.js';
import { product } from './product.js';
import { sheet } from './sheet.js';
import { settledVerdict, wishes } from './wishes.js';

export const room = z
  .strictObject({
    widthM: lengthM.describe('Left wall to right wall, m'),
    depthM: lengthM.describe('Wall behind the camera to wall behind the set, m'),
    heightM: lengthM.describe('Floor to ceiling, m'),
    markFromLeftM: lengthM.describe('Centre to the left wall, as the camera sees it, m'),
    markFromFrontM: lengthM.describe('Centre to the wall behind the camera, m'),
    walls: opaqueMaterial,
    ceiling: opaqueMaterial,
    floor: opaqueMaterial,
  })
  .describe('A plain room, walls square to the camera axis. Without one the set stands in the dark');

export const bench = z
  .strictObject({
    widthM: lengthM.describe('Across, m'),
    depthM: lengthM.describe('Front to back, m'),
    thicknessM: lengthM.default(0.03),
    centreM: z
      .tuple([coordinateM, coordinateM])
      .meta({ axes: AXES })
      .default([0, 0])
      .describe('Middle of the top [x, y], m from the centre'),
    material: tabletopMaterial,
  })
  .describe('The table. Its top is z = 0; under a sweep or a lying board it is lowered by 0.5 mm');

export const sweep = z
  .strictObject({
    kind: z.literal('sweep'),
    widthM: lengthM.describe('Across, m'),
    frontM: coordinateM.describe('y of the front edge on the table, m'),
    backM: coordinateM.describe('y of the upright part, m'),
    radiusM: lengthM.describe('Radius of the bend, m'),
    heightM: lengthM.describe('Height of the top edge, m'),
    material: opaqueMaterial,
  })
  .describe('Paper lying on the table at z = 0, bent up behind in one quarter round');

export const panel = z
  .strictObject({
    kind: z.literal('panel'),
    widthM: lengthM,
    heightM: lengthM,
    centreM: pointM,
    turnDeg: z
      .number()
      .min(-180)
      .max(180)
      .default(0)
      .describe('Turn about the upright, degrees; 0 faces the camera'),
    material: opaqueMaterial,
  })
  .describe('A flat upright background');

export const boards = z
  .strictObject({
    kind: z.literal('boards'),
    widthM: lengthM.describe('Both boards across, m'),
    frontM: coordinateM.describe('y of the front edge of the lying board, m'),
    backM: coordinateM.describe('y of the upright board, m'),
    heightM: lengthM.describe('Height of the top edge, m'),
    material: opaqueMaterial.describe('Of the upright board'),
    lyingMaterial: opaqueMaterial.describe('Of the lying board'),
  })
  .describe('Two boards in an L, each of its own: one lies on the table at z = 0, one stands behind it');

export const backdrop = z.discriminatedUnion('kind', [sweep, panel, boards]);

export const person = z
  .strictObject({
    name,
    positionM: z
      .tuple([coordinateM, coordinateM])
      .meta({ axes: AXES })
      .describe('Between the feet [x, y], m from the centre'),
    heightM: lengthM.max(2.5).default(1.75),
    clothes: opaqueMaterial
      .default({ kind: 'matte', reflectance: 0.05 })
      .describe('Dark clothes mirror least'),
  })
  .describe('Someone who stands on the floor of the set, for what is mirrored of them and what they shade');

export const spot = z
  .strictObject({
    name,
    pointM,
    normal: direction.describe('Outward normal of the surface there'),
    target: z
      .strictObject({
        from: z.number().min(-20).max(20).describe('Lowest tone wanted, stops'),
        to: z.number().min(-20).max(20).describe('Highest tone wanted, stops'),
        against: name.optional().describe('Spot that the stops are counted from; from mid-tone if left out'),
      })
      .optional()
      .describe('The tone that is wanted there'),
  })
  .describe('A pinned spot: where a meter would be held, and whose tone is watched');

export const highlight = z
  .strictObject({
    product: productId,
    heightM: z.number().min(0).max(100).describe('Above the foot of the product, m'),
    kind: z.enum(['light', 'sheet']),
    key: z.string().min(1).max(2).describe('Tag of the light or sheet that makes it'),
    from: z.number().min(0).max(1).describe('Part of the visible width, 0 camera left'),
    to: z.number().min(0).max(1),
  })
  .describe(
    'A highlight that is to stay where it is: the image of a light or sheet at one height of a product',
  );

/** What stands on the set, and how the camera is set: all that a take keeps. */
export const standing = z.strictObject({
  mark: z
    .strictObject({ heightAboveFloorM: lengthM.max(5).default(0.75) })
    .default({ heightAboveFloorM: 0.75 })
    .describe('The centre: the origin, on the tabletop under the product'),
  room: room.optional(),
  bench: bench.optional(),
  backdrop: backdrop.optional(),
  products: z.array(product).max(50).default([]),
  lights: z.array(light).max(26).default([]),
  sheets: z.array(sheet).max(99).default([]),
  people: z.array(person).max(6).default([]),
  camera,
  hazards: z
    .array(z.enum(['flame', 'dry-ice', 'spray', 'photosensitive']))
    .max(4)
    .default([])
    .describe(
      'What else is on the set that calls for care: open flame, dry ice, sprays, people whom flashes harm',
    ),
  spots: z.array(spot).max(50).default([]),
  highlights: z.array(highlight).max(20).default([]),
  allowedOverlaps: z
    .array(z.string().min(1).max(200))
    .max(300)
    .default([])
    .describe('Things that may stand in or through each other here, such as "bench | sheet 1"'),
  wishes: wishes.prefault({}),
  settled: z.array(settledVerdict).max(200).default([]),
});

export type Room = z.infer<typeof room>;
export type Bench = z.infer<typeof bench>;
export type Backdrop = z.infer<typeof backdrop>;
export type Sweep = z.infer<typeof sweep>;
export type Panel = z.infer<typeof panel>;
export type Boards = z.infer<typeof boards>;
export type Spot = z.infer<typeof spot>;
export type Person = z.infer<typeof person>;
export type Highlight = z.infer<typeof highlight>;
/** What stands on a set, without its name and takes. */
export type Standing = z.infer<typeof standing>;
