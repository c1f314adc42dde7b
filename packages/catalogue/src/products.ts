import type { KitEntryInput } from '@fendrix/contract';

type ProductEntry = Extract<KitEntryInput, { what: 'product' }>;
type ProductInput = ProductEntry['thing'];
type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

const place = { positionM: [0, 0, 0] } satisfies Partial<ProductInput>;
const SHAPE = 'A plain example: measure your own.';
const glass = { kind: 'dielectric' as const, index: 1.52, absorptionPerCm: 0.005 };

function product(
  id: string,
  name: string,
  purposes: string[],
  thing: DistributiveOmit<ProductInput, 'id' | 'name'>,
): ProductEntry {
  return {
    what: 'product',
    id,
    name,
    purposes,
    source: SHAPE,
    thing: { id, name, ...thing } as ProductInput,
  };
}

export const products: ProductEntry[] = [
  product('round-bottle', 'Round bottle with liquid', ['glass', 'drink', 'label'], {
    kind: 'turned',
    ...place,
    material: glass,
    profile: [
      { radiusM: 0.033, heightM: 0 },
      { radiusM: 0.036, heightM: 0.01, smooth: true },
      { radiusM: 0.036, heightM: 0.14, smooth: true },
      { radiusM: 0.014, heightM: 0.2, smooth: true },
      { radiusM: 0.0135, heightM: 0.235 },
    ],
    parts: [
      {
        name: 'cap',
        fromM: 0.21,
        toM: 0.235,
        material: { kind: 'coated', reflectance: 0.03, roughness: 0.15 },
      },
    ],
    labels: [
      {
        name: 'label',
        fromM: 0.03,
        toM: 0.11,
        widthDeg: 150,
        material: {
          kind: 'matte',
          reflectance: 0.78,
          tone: {
            kind: 'text',
            lines: ['ODDVANE', 'LARDER'],
            typeface: 'serif bold',
            ink: 0.05,
            ratio: 1.18,
          },
        },
      },
    ],
    hollow: {
      wallM: 0.003,
      baseM: 0.006,
      liquid: {
        material: { kind: 'dielectric', index: 1.4, absorptionPerCm: [0.1, 1.2, 1.4] },
        fillToM: 0.17,
      },
    },
  }),
  product('stemmed-glass', 'Stemmed glass', ['glass', 'drink', 'wine'], {
    kind: 'turned',
    ...place,
    material: glass,
    profile: [
      { radiusM: 0.035, heightM: 0 },
      { radiusM: 0.006, heightM: 0.008, smooth: true },
      { radiusM: 0.004, heightM: 0.06, smooth: true },
      { radiusM: 0.012, heightM: 0.085, smooth: true },
      { radiusM: 0.038, heightM: 0.12, smooth: true },
      { radiusM: 0.032, heightM: 0.19, smooth: true },
    ],
    hollow: {
      wallM: 0.0018,
      baseM: 0.092,
      liquid: {
        material: { kind: 'dielectric', index: 1.34, absorptionPerCm: [0.02, 0.06, 0.4] },
        fillToM: 0.14,
      },
    },
  }),
  product('jar', 'Jar with lid', ['glass', 'food', 'preserve'], {
    kind: 'turned',
    ...place,
    material: glass,
    profile: [
      { radiusM: 0.036, heightM: 0 },
      { radiusM: 0.04, heightM: 0.008, smooth: true },
      { radiusM: 0.04, heightM: 0.085, smooth: true },
      { radiusM: 0.035, heightM: 0.098 },
      { radiusM: 0.037, heightM: 0.098 },
      { radiusM: 0.037, heightM: 0.115 },
    ],
    parts: [
      { name: 'lid', fromM: 0.098, toM: 0.115, material: { kind: 'metal', metal: 'steel', roughness: 0.08 } },
    ],
    hollow: { wallM: 0.003, baseM: 0.006 },
  }),
  product('cylinder', 'Polished cylinder', ['metal', 'mill', 'can', 'mirror'], {
    kind: 'turned',
    ...place,
    material: { kind: 'metal', metal: 'brass', roughness: 0.02 },
    profile: [
      { radiusM: 0.025, heightM: 0 },
      { radiusM: 0.025, heightM: 0.18 },
    ],
  }),
  product('box', 'Box with label', ['carton', 'pack', 'coated'], {
    kind: 'box',
    ...place,
    turnDeg: 25,
    widthM: 0.1,
    depthM: 0.06,
    heightM: 0.14,
    edgeRadiusM: 0.001,
    material: { kind: 'coated', reflectance: [0.2, 0.28, 0.24], roughness: 0.2 },
    label: {
      name: 'label',
      widthM: 0.07,
      heightM: 0.05,
      centreHeightM: 0.08,
      material: {
        kind: 'coated',
        reflectance: 0.8,
        roughness: 0.05,
        tone: { kind: 'text', lines: ['ODDVANE', 'LARDER'], typeface: 'sans black', ink: 0.05, ratio: 1.4 },
      },
    },
  }),
  product('signet-ring', 'Signet ring', ['jewelry', 'metal', 'mirror', 'small'], {
    kind: 'ring',
    ...place,
    innerDiameterM: 0.018,
    bandWidthM: 0.004,
    bandThicknessM: 0.0018,
    signet: { diameterM: 0.011, heightM: 0.002 },
    material: { kind: 'metal', metal: 'silver', roughness: 0.03 },
  }),
  product('chain', 'Fine chain', ['jewelry', 'metal', 'flat lay'], {
    kind: 'chain',
    ...place,
    pathM: [
      [-0.06, -0.02, 0.002],
      [-0.03, 0.015, 0.002],
      [0.01, -0.01, 0.002],
      [0.06, 0.02, 0.002],
    ],
    linkLengthM: 0.006,
    wireM: 0.001,
    material: { kind: 'metal', metal: 'gold', roughness: 0.04 },
  }),
  product('stone', 'Faceted stone', ['jewelry', 'sparkle', 'glass'], {
    kind: 'stone',
    positionM: [0, 0, 0.002],
    lean: { deg: 0 },
    diameterM: 0.008,
    heightM: 0.0049,
    facets: 8,
    material: {
      kind: 'dielectric',
      index: 1.77,
      dispersion: 'sapphire',
      absorptionPerCm: [0.4, 0.2, 0.05],
    },
  }),
  product('dish-with-heap', 'Dish with heaped food', ['food', 'plate', 'ceramic'], {
    kind: 'dish',
    ...place,
    diameterM: 0.26,
    heightM: 0.035,
    footDiameterM: 0.16,
    material: { kind: 'coated', reflectance: 0.78, roughness: 0.03 },
    food: {
      form: 'heap',
      heightM: 0.04,
      material: {
        kind: 'coated',
        reflectance: [0.45, 0.3, 0.14],
        roughness: 0.4,
        relief: { kind: 'crumb', depthM: 0.001, sizeM: 0.01 },
      },
    },
  }),
  product('berries', 'Scattered berries', ['food', 'prop', 'flat lay'], {
    kind: 'pieces',
    ...place,
    material: { kind: 'coated', reflectance: [0.12, 0.03, 0.08], roughness: 0.15 },
    items: [
      { form: 'ball', centreM: [-0.05, 0, 0.008], sizeM: 0.016 },
      { form: 'ball', centreM: [0.02, 0.03, 0.007], sizeM: 0.014 },
      { form: 'ball', centreM: [0.06, -0.02, 0.008], sizeM: 0.016 },
      {
        form: 'leaf',
        centreM: [0, -0.03, 0.002],
        sizeM: 0.04,
        turnDeg: 40,
        material: { kind: 'matte', reflectance: [0.08, 0.2, 0.05] },
      },
    ],
  }),
  product('folded-cloth', 'Folded linen', ['cloth', 'prop', 'apron'], {
    kind: 'cloth',
    ...place,
    widthM: 0.4,
    depthM: 0.3,
    folds: 5,
    foldHeightM: 0.012,
    seed: 4,
    material: { kind: 'cloth', reflectance: [0.58, 0.53, 0.45], sheen: 0.2 },
  }),
  product('water-tray', 'Tray of water', ['water', 'surface', 'ripples', 'reflection'], {
    kind: 'water',
    ...place,
    widthM: 0.5,
    depthM: 0.4,
    waterDepthM: 0.01,
    material: {
      kind: 'dielectric',
      index: 1.333,
      relief: { kind: 'ripples', depthM: 0.0008, sizeM: 0.03 },
    },
  }),
];
