import { z } from 'zod';
import { base64 } from './base64.js';
import { AXES, coordinateM, lengthM, pointM } from './geometry.js';
import { dielectric, material, opaqueMaterial } from './material.js';
import { name, productId } from './names.js';
import { partOfWhole } from './partOfWhole.js';

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

export const attached = z
  .strictObject({
    name,
    pathM: z
      .array(pointM)
      .min(2)
      .max(30)
      .describe('Points that its middle runs through, m from the foot; the line through them is smooth'),
    fromDiameterM: lengthM.max(1).describe('Thickness at its first point, m'),
    toDiameterM: lengthM.max(1).describe('Thickness at its last point, m'),
    material: opaqueMaterial.optional().describe('As the body if left out, where that is opaque'),
  })
  .describe('A round bar that is set on the body: a handle, a spout, a nozzle');

const common = {
  id: productId,
  name: name.describe('What the product is'),
  positionM: pointM.describe('Middle of the foot, m from the centre; z is the lift above the tabletop'),
  turnDeg: z
    .number()
    .min(-360)
    .max(360)
    .default(0)
    .describe('Turn about the upright axis, degrees, towards camera right as seen from the front'),
  lean: z
    .strictObject({
      deg: z.number().min(0).max(180).describe('Away from upright, degrees'),
      bearingDeg: z.number().min(-360).max(360).default(0).describe('Bearing it leans towards, degrees'),
    })
    .optional()
    .describe('Leans about the centre of its foot; positionM.z lifts it so that it clears the table'),
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
    attached: z.array(attached).max(6).default([]),
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
      .describe('Makes a clear or opaque body hollow; the liquid touches the wall without air between'),
  })
  .describe('Anything turned on a lathe or blown round: bottle, jar, can, glass, mill');

export const box = z
  .strictObject({
    kind: z.literal('box'),
    ...common,
    widthM: lengthM.describe('Across (x before turning), m'),
    depthM: lengthM.describe('Front to back (y before turning), m'),
    heightM: lengthM.describe('Up, m'),
    edgeRadiusM: z.number().min(0).max(10).default(0).describe('Radius of its rounded edges, m; 0 is sharp'),
    label: z
      .strictObject({
        name,
        widthM: lengthM,
        heightM: lengthM,
        centreHeightM: heightM.describe('Of its middle above the foot, m'),
        material: opaqueMaterial,
      })
      .optional()
      .describe('A patch on the front face'),
  })
  .describe('A box with sharp or rounded edges');

export const ring = z
  .strictObject({
    kind: z.literal('ring'),
    ...common,
    innerDiameterM: lengthM.describe('The finger, m'),
    bandWidthM: lengthM.describe('Along the finger, m'),
    bandThicknessM: lengthM.describe('m'),
    pose: z
      .enum(['lying', 'standing'])
      .default('standing')
      .describe('standing: its hole faces the camera side'),
    signet: z
      .strictObject({ diameterM: lengthM, heightM: lengthM })
      .optional()
      .describe('Round plate on top of a standing ring'),
  })
  .describe('A finger ring with a rounded band');

export const chain = z
  .strictObject({
    kind: z.literal('chain'),
    ...common,
    pathM: z
      .array(pointM)
      .min(2)
      .max(60)
      .describe('Points it runs through, m from the foot; links follow the line'),
    linkLengthM: lengthM,
    wireM: lengthM.describe('Thickness of the wire, m'),
  })
  .describe('A chain of round links, each turned a quarter to the next');

export const stone = z
  .strictObject({
    kind: z.literal('stone'),
    ...common,
    diameterM: lengthM,
    heightM: lengthM,
    tablePart: partOfWhole(0.1, 0.95).default(0.57).describe('Flat top over the whole width'),
    crownPart: partOfWhole(0.02, 0.6).default(0.25).describe('Height over the girdle over the whole height'),
    facets: z.int().min(4).max(64).default(8).describe('Main facets round it'),
  })
  .describe('A faceted stone: table, crown, girdle and pavilion, point down');

export const dish = z
  .strictObject({
    kind: z.literal('dish'),
    ...common,
    diameterM: lengthM,
    heightM: lengthM,
    footDiameterM: lengthM,
    thicknessM: lengthM.max(0.05).default(0.004),
    food: z
      .strictObject({
        material,
        form: z
          .enum(['flat', 'heap', 'pieces'])
          .describe('flat: tart, soup; heap: mound; pieces: loose lumps'),
        heightM: heightM.describe('Above the inside of the dish, m'),
        pieceM: lengthM.default(0.02).describe('Size of a piece, m'),
        count: z.int().min(1).max(300).default(40),
        seed: z.int().min(0).max(1e6).default(1),
      })
      .optional(),
  })
  .describe('A plate or bowl, with food');

export const pieces = z
  .strictObject({
    kind: z.literal('pieces'),
    ...common,
    items: z
      .array(
        z.strictObject({
          form: z.enum(['ball', 'slab', 'leaf']),
          centreM: z
            .tuple([coordinateM, coordinateM, coordinateM])
            .meta({ axes: AXES })
            .describe('From the foot, m'),
          sizeM: lengthM,
          turnDeg: z.number().min(-360).max(360).default(0),
          material: material.optional().describe('As the whole if left out'),
        }),
      )
      .min(1)
      .max(300),
  })
  .describe('Several small things as one: a flat lay, berries, crumbs');

export const clothProduct = z
  .strictObject({
    kind: z.literal('cloth'),
    ...common,
    widthM: lengthM,
    depthM: lengthM,
    folds: z.int().min(0).max(40).default(6),
    foldHeightM: z.number().min(0).max(0.5).default(0.01),
    seed: z.int().min(0).max(1e6).default(1),
  })
  .describe('A piece of cloth laid flat, with folds');

export const water = z
  .strictObject({
    kind: z.literal('water'),
    ...common,
    widthM: lengthM,
    depthM: lengthM,
    waterDepthM: lengthM.describe('m'),
  })
  .describe('A sheet of water; ripples are a relief of its material');

export const mesh = z
  .strictObject({
    kind: z.literal('mesh'),
    ...common,
    positionsBase64: base64(16_000_000).describe(
      '32-bit little-endian floats x y z, m from the foot, in base64',
    ),
    trianglesBase64: base64(16_000_000).describe('32-bit little-endian indices, three a triangle, in base64'),
    smoothDeg: z
      .number()
      .min(0)
      .max(180)
      .default(40)
      .describe('Edges flatter than this are shaded as one curved surface, degrees'),
    parts: z
      .array(
        z.strictObject({
          name,
          triangles: z.int().min(0).max(10_000_000).describe('How many, after those of the parts before it'),
          material: material.optional().describe('As the body if left out'),
        }),
      )
      .max(20)
      .default([])
      .describe('Named parts, in the order of the triangles from the first; what is left over is the body'),
  })
  .describe('An imported body as triangles');

export const product = z.discriminatedUnion('kind', [
  turned,
  box,
  ring,
  chain,
  stone,
  dish,
  pieces,
  clothProduct,
  water,
  mesh,
]);

export type ProfilePoint = z.infer<typeof profilePoint>;
export type Attached = z.infer<typeof attached>;
export type Product = z.infer<typeof product>;
export type ProductOf<K extends Product['kind']> = Extract<Product, { kind: K }>;
export type Turned = ProductOf<'turned'>;
export type BoxProduct = ProductOf<'box'>;
