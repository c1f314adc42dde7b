import { BY_SIGHT, type MaterialEntry, material, SHEETS } from './material.js';

type Colours = [number, number, number];

/** Cut flesh under a wet skin of index 1.3: what a thick body sends back, and the way between two scatterings, m. */
const flesh = (
  id: string,
  name: string,
  purposes: string[],
  [of, roughness]: [string, number],
  reflectance: Colours,
  meanFreePathM: Colours,
) =>
  material(
    id,
    name,
    purposes,
    `After Jensen, Marschner, Levoy, Hanrahan 2001, table 1, ${of}; to be matched to a test sample.`,
    { kind: 'wax', reflectance, meanFreePathM, index: 1.3, roughness },
  );

export const food: MaterialEntry[] = [
  flesh(
    'poultry',
    'Poultry, raw',
    ['food', 'meat', 'wet'],
    ['chicken', 0.2],
    [0.352, 0.177, 0.144],
    [0.00606, 0.00348, 0.00175],
  ),
  flesh(
    'light-skin',
    'Light skin',
    ['hand', 'skin', 'soft'],
    ['skin', 0.35],
    [0.481, 0.257, 0.149],
    [0.0013, 0.00095, 0.00067],
  ),
  flesh(
    'apple-flesh',
    'Apple, cut',
    ['food', 'fruit', 'wet'],
    ['apple', 0.3],
    [0.865, 0.86, 0.572],
    [0.000436, 0.000418, 0.000496],
  ),
  flesh(
    'potato-flesh',
    'Potato, cut',
    ['food', 'vegetable', 'wet'],
    ['potato', 0.3],
    [0.792, 0.653, 0.241],
    [0.00147, 0.00141, 0.00149],
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
  material('crust', 'Baked crust', ['food', 'dry', 'texture'], `${SHEETS}: crust 0.2 to 0.4, crumb relief.`, {
    kind: 'coated',
    reflectance: [0.42, 0.26, 0.12],
    roughness: 0.5,
    relief: { kind: 'crumb', depthM: 0.0006, sizeM: 0.006 },
  }),
  material(
    'chocolate',
    'Dark chocolate',
    ['food', 'brown', 'gloss'],
    'Cocoa butter of index 1.46 over brown.',
    {
      kind: 'coated',
      reflectance: [0.075, 0.035, 0.02],
      coatIndex: 1.46,
      roughness: 0.18,
    },
  ),
  material(
    'whipped-cream',
    'Whipped cream',
    ['food', 'white', 'soft'],
    'Fat and air scatter within about 0.5 mm.',
    {
      kind: 'wax',
      reflectance: [0.95, 0.92, 0.83],
      meanFreePathM: 0.0005,
      roughness: 0.5,
      relief: { kind: 'crumb', depthM: 0.0012, sizeM: 0.02 },
    },
  ),
  material('foam', 'Foam of a drink', ['food', 'white', 'bubbles'], 'Bubbles scatter within about 0.3 mm.', {
    kind: 'wax',
    reflectance: [0.9, 0.86, 0.76],
    meanFreePathM: 0.0003,
    roughness: 0.6,
    relief: { kind: 'crumb', depthM: 0.0003, sizeM: 0.0015 },
  }),
  material('sponge', 'Sponge cake', ['food', 'crumb', 'dry'], `${SHEETS}: 0.4 to 0.55, open crumb.`, {
    kind: 'matte',
    reflectance: [0.62, 0.44, 0.2],
    relief: { kind: 'crumb', depthM: 0.0014, sizeM: 0.004 },
  }),
  material(
    'leaf',
    'Green leaf',
    ['food', 'green', 'fresh'],
    `Waxy skin of index 1.45 over green; ${BY_SIGHT}.`,
    {
      kind: 'coated',
      reflectance: [0.07, 0.17, 0.035],
      coatIndex: 1.45,
      roughness: 0.3,
      relief: { kind: 'crumple', depthM: 0.0003, sizeM: 0.008 },
    },
  ),
  material(
    'red-berry',
    'Red berry',
    ['food', 'red', 'wet'],
    'Flesh scatters within about 2 mm under a smooth skin.',
    {
      kind: 'wax',
      reflectance: [0.5, 0.03, 0.04],
      meanFreePathM: 0.002,
      roughness: 0.12,
    },
  ),
];
