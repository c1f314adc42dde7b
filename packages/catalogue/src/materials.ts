import type { KitEntryInput } from '@fendrix/contract';

type MaterialEntry = Extract<KitEntryInput, { what: 'material' }>;

const TABLES = 'Refractive index tables';
const SHEETS = 'Usual reflectances of boards and papers, measured straight on';

function material(
  id: string,
  name: string,
  purposes: string[],
  source: string,
  thing: MaterialEntry['thing'],
): MaterialEntry {
  return { what: 'material', id, name, purposes, source, thing };
}

const clear = (index: number, absorptionPerCm: number | [number, number, number] = 0) => ({
  kind: 'dielectric' as const,
  index,
  absorptionPerCm,
});

export const materials: MaterialEntry[] = [
  material(
    'clear-glass',
    'Clear glass',
    ['glass', 'bottle', 'jar'],
    `${TABLES}: soda-lime 1.52; faint green.`,
    clear(1.52, [0.01, 0.004, 0.01]),
  ),
  material(
    'amber-glass',
    'Amber glass',
    ['glass', 'bottle'],
    `${TABLES}: 1.52; absorption of a 3 mm amber wall.`,
    clear(1.52, [0.6, 2.2, 9]),
  ),
  material(
    'green-glass',
    'Green glass',
    ['glass', 'bottle', 'wine'],
    `${TABLES}: 1.52; absorption of a 3 mm green wall.`,
    clear(1.52, [2.6, 0.7, 3]),
  ),
  material('water', 'Water', ['liquid', 'clear'], `${TABLES}: 1.333.`, clear(1.333)),
  material(
    'oil',
    'Oil',
    ['liquid', 'gold', 'food'],
    `${TABLES}: 1.47; golden by the path.`,
    clear(1.47, [0.02, 0.09, 0.8]),
  ),
  material('spirit', 'Clear spirit', ['liquid', 'clear'], `${TABLES}: 1.36 at 40 %.`, clear(1.36)),
  material(
    'syrup',
    'Sugar syrup',
    ['liquid', 'sweet'],
    `${TABLES}: 1.45 at 65 %.`,
    clear(1.45, [0.01, 0.02, 0.06]),
  ),
  material(
    'dark-cordial',
    'Dark red cordial',
    ['liquid', 'red', 'fruit'],
    `${TABLES}: 1.40; colour by sight, to be matched to a test glass.`,
    clear(1.4, [0.1, 1.5, 1.05]),
  ),
  material('clear-acrylic', 'Clear acrylic', ['prop', 'ice', 'clear'], `${TABLES}: 1.49.`, clear(1.49)),
  material(
    'black-acrylic',
    'Black acrylic',
    ['mirror', 'surface', 'reflection'],
    `${TABLES}: 1.49 over black.`,
    {
      kind: 'coated',
      reflectance: 0.005,
      coatIndex: 1.49,
    },
  ),
  material(
    'white-acrylic',
    'White acrylic, lit from the front',
    ['surface', 'reflection', 'white'],
    `${TABLES}: 1.49 over white.`,
    {
      kind: 'coated',
      reflectance: 0.82,
      coatIndex: 1.49,
    },
  ),
  material('white-paper', 'White paper', ['paper', 'matte', 'backdrop'], `${SHEETS}: 0.80 to 0.86.`, {
    kind: 'matte',
    reflectance: 0.82,
  }),
  material('grey-card', 'Grey card', ['paper', 'matte', 'meter'], `${SHEETS}: 0.18.`, {
    kind: 'matte',
    reflectance: 0.18,
  }),
  material('black-velvet', 'Black velvet', ['cloth', 'black', 'cut'], `${SHEETS}: 0.004.`, {
    kind: 'matte',
    reflectance: 0.004,
  }),
  material('uncoated-label', 'Uncoated paper label', ['label', 'paper'], `${SHEETS}: 0.75 to 0.80.`, {
    kind: 'matte',
    reflectance: [0.8, 0.77, 0.7],
  }),
  material(
    'gloss-label',
    'Gloss label',
    ['label', 'coated', 'glare'],
    'Lacquer of index 1.5 over white; roughness of a machine-coated label.',
    {
      kind: 'coated',
      reflectance: 0.78,
      roughness: 0.06,
    },
  ),
  material('satin-label', 'Satin label', ['label', 'coated'], 'Lacquer of index 1.5 over white, satin.', {
    kind: 'coated',
    reflectance: 0.78,
    roughness: 0.25,
  }),
  material('black-lacquer', 'Black lacquer', ['coated', 'glare', 'box'], 'Lacquer of index 1.5 over black.', {
    kind: 'coated',
    reflectance: 0.02,
    roughness: 0,
  }),
  material(
    'matte-black-paint',
    'Matte black paint',
    ['matte', 'black'],
    'Rough lacquer over 3 to 5 % black.',
    {
      kind: 'coated',
      reflectance: 0.035,
      roughness: 0.45,
    },
  ),
  material(
    'glazed-white',
    'Glazed white ceramic',
    ['dish', 'ceramic', 'plate'],
    'Glaze of index 1.5 over 0.8 white.',
    {
      kind: 'coated',
      reflectance: 0.8,
      roughness: 0.02,
    },
  ),
  material(
    'oiled-wood',
    'Oiled wood',
    ['wood', 'board', 'surface'],
    `${SHEETS}: wood 0.2 to 0.3; oil as a rough coat.`,
    {
      kind: 'coated',
      reflectance: [0.36, 0.23, 0.13],
      coatIndex: 1.45,
      roughness: 0.4,
    },
  ),
  material(
    'polished-steel',
    'Polished steel',
    ['metal', 'mirror'],
    'Complex index of iron (Johnson and Christy 1974).',
    { kind: 'metal', metal: 'steel' },
  ),
  material(
    'brushed-steel',
    'Brushed steel',
    ['metal', 'brushed'],
    'Complex index of iron (Johnson and Christy 1974); brush 0.05 by 0.3.',
    {
      kind: 'metal',
      metal: 'steel',
      roughness: 0.05,
      brushed: { along: 'round', acrossRoughness: 0.3 },
    },
  ),
  material('chrome', 'Chrome', ['metal', 'mirror'], 'Complex index of chromium (Johnson and Christy 1974).', {
    kind: 'metal',
    metal: 'chrome',
  }),
  material(
    'silver',
    'Polished silver',
    ['metal', 'jewelry', 'mirror'],
    'Complex index of silver (Johnson and Christy 1972).',
    { kind: 'metal', metal: 'silver', roughness: 0.02 },
  ),
  material(
    'gold',
    'Polished gold',
    ['metal', 'jewelry', 'mirror'],
    'Complex index of gold (Johnson and Christy 1972).',
    { kind: 'metal', metal: 'gold', roughness: 0.02 },
  ),
  material(
    'copper',
    'Polished copper',
    ['metal', 'mould', 'mirror'],
    'Complex index of copper (Johnson and Christy 1972).',
    { kind: 'metal', metal: 'copper', roughness: 0.03 },
  ),
  material(
    'brass',
    'Polished brass',
    ['metal', 'mill', 'mirror'],
    'Complex index of 70/30 brass (Querry 1985).',
    { kind: 'metal', metal: 'brass', roughness: 0.02 },
  ),
  material('aluminium', 'Satin aluminium', ['metal', 'can'], 'Complex index of aluminium (Palik 1985).', {
    kind: 'metal',
    metal: 'aluminium',
    roughness: 0.15,
  }),
  material(
    'linen',
    'Linen',
    ['cloth', 'food', 'backdrop'],
    `${SHEETS}: 0.45 to 0.6, with the sheen of fibres.`,
    {
      kind: 'cloth',
      reflectance: [0.58, 0.53, 0.45],
      sheen: 0.2,
      relief: { kind: 'weave', depthM: 0.0002, sizeM: 0.0012 },
    },
  ),
  material(
    'beet-filling',
    'Beet filling',
    ['food', 'wet', 'red'],
    'Fruit scatters within about 1 mm; wet skin of index 1.4.',
    {
      kind: 'wax',
      reflectance: [0.34, 0.04, 0.09],
      meanFreePathM: 0.001,
      roughness: 0.22,
      relief: { kind: 'crumb', depthM: 0.0008, sizeM: 0.02 },
    },
  ),
  material('butter', 'Butter or cheese', ['food', 'yellow', 'soft'], 'Fat scatters within about 2 mm.', {
    kind: 'wax',
    reflectance: [0.86, 0.74, 0.38],
    meanFreePathM: 0.002,
    roughness: 0.3,
  }),
  material('milk', 'Milk or cream', ['food', 'liquid', 'white', 'pour'], 'Milk scatters within about 1 mm.', {
    kind: 'wax',
    reflectance: [0.93, 0.9, 0.82],
    meanFreePathM: 0.001,
    index: 1.345,
    roughness: 0,
  }),
  material('crust', 'Baked crust', ['food', 'dry', 'texture'], `${SHEETS}: crust 0.2 to 0.4, crumb relief.`, {
    kind: 'coated',
    reflectance: [0.42, 0.26, 0.12],
    roughness: 0.5,
    relief: { kind: 'crumb', depthM: 0.0006, sizeM: 0.006 },
  }),
];
