import { z } from 'zod';
import { lengthM, pointM } from './geometry.js';
import { dielectric, material, opaqueMaterial } from './material.js';
import { name, productId } from './names.js';

const radiusM = z.number().min(0).max(10);
const heightM = z.number().min(0).max(10);

export const profilePoint = z.strictObject({
  radiusM: radiusM.describe('Distance from the axis, m'),
  heightM: heightM.describe('Height above the foot, m'),
  smooth: z
    .boolean()
    .default(false)
    .describe('true: the outline curves through this point; false: it has a corner here'),
});

export const part = z
  .strictObject({
    name,
    fromM: heightM.describe('Lower end, m above the foot'),
    toM: heightM.describe('Upper end, m above the foot'),
    material: opaqueMaterial,
  })
  .describe('A height range of the outside made of something else: a cap, a lid, a painted band');

export const label = z
  .strictObject({
    name,
    fromM: heightM.describe('Lower edge, m above the foot'),
    toM: heightM.describe('Upper edge, m above the foot'),
    centreBearingDeg: z
      .number()
      .min(-360)
      .max(360)
      .default(0)
      .describe('Bearing of its middle before the product is turned, degrees: 0 faces the camera side'),
    widthDeg: z.number().min(1).max(360).describe('How far it reaches round, degrees; 360 wraps'),
    material: opaqueMaterial,
  })
  .describe('A patch stuck on the outside, 0.1 mm thick. Later labels lie over earlier ones');

const common = {
  id: productId,
  name: name.describe('What the product is'),
  positionM: pointM.describe('Centre of the foot, m from the mark; z is the lift above the bench top'),
  turnDeg: z
    .number()
    .min(-360)
    .max(360)
    .default(0)
    .describe('Turn about the upright axis, degrees, towards camera right as seen from the front'),
  material: material.describe('What the body is made of'),
  bandHeightM: heightM
    .optional()
    .describe('Height above the foot at which the mirror band is read, m; half the height if left out'),
};

export const turned = z
  .strictObject({
    kind: z.literal('turned'),
    ...common,
    profile: z
      .array(profilePoint)
      .min(2)
      .max(200)
      .describe(
        'Outside from foot to top. Ends that are not on the axis are closed with a flat disc. Heights never fall',
      ),
    parts: z.array(part).max(20).default([]),
    labels: z.array(label).max(20).default([]),
    hollow: z
      .strictObject({
        wallM: lengthM.max(0.1).describe('Thickness of the wall, m'),
        baseM: lengthM.max(0.2).describe('Thickness of the base, m'),
        liquid: z
          .strictObject({
            material: dielectric,
            fillToM: heightM.describe('Liquid level above the foot, m'),
          })
          .optional(),
      })
      .optional()
      .describe('Makes a dielectric body hollow; the liquid touches the wall without air between'),
  })
  .describe('Anything turned on a lathe or blown round: bottle, jar, can, glass, mill');

export const box = z
  .strictObject({
    kind: z.literal('box'),
    ...common,
    widthM: lengthM.describe('Across (x before turning), m'),
    depthM: lengthM.describe('Front to back (y before turning), m'),
    heightM: lengthM.describe('Up, m'),
  })
  .describe('A box with sharp edges');

export const product = z.discriminatedUnion('kind', [turned, box]);

export type ProfilePoint = z.infer<typeof profilePoint>;
export type Turned = z.infer<typeof turned>;
export type BoxProduct = z.infer<typeof box>;
export type Product = z.infer<typeof product>;
