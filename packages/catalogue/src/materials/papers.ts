import { BY_SIGHT, type MaterialEntry, material, SHEETS } from './material.js';

export const papers: MaterialEntry[] = [
  material('white-paper', 'White paper', ['paper', 'matte', 'background'], `${SHEETS}: 0.80 to 0.86.`, {
    kind: 'matte',
    reflectance: 0.82,
  }),
  material('grey-card', 'Grey card', ['paper', 'matte', 'meter'], `${SHEETS}: 0.18.`, {
    kind: 'matte',
    reflectance: 0.18,
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
  ...(
    [
      ['ivory-paper', 'Ivory paper', [0.8, 0.75, 0.62]],
      ['kraft-paper', 'Kraft paper', [0.42, 0.29, 0.17]],
      ['red-paper', 'Red paper', [0.55, 0.06, 0.05]],
      ['ochre-paper', 'Ochre paper', [0.6, 0.38, 0.1]],
      ['green-paper', 'Green paper', [0.16, 0.34, 0.16]],
      ['blue-paper', 'Blue paper', [0.1, 0.22, 0.45]],
      ['rose-paper', 'Rose paper', [0.72, 0.42, 0.42]],
      ['grey-paper', 'Light grey paper', [0.5, 0.5, 0.5]],
      ['dark-grey-paper', 'Dark grey paper', [0.09, 0.09, 0.09]],
    ] as const
  ).map(([id, name, reflectance]) =>
    material(id, name, ['paper', 'matte', 'background'], `${SHEETS}; ${BY_SIGHT}.`, {
      kind: 'matte',
      reflectance: [...reflectance],
    }),
  ),
  material('silvered-card', 'Silver card', ['foil', 'bounce', 'mirror'], 'Silvered card: 0.8, GGX 0.25.', {
    kind: 'mirror',
    reflectance: 0.8,
    roughness: 0.25,
  }),
  material('black-card', 'Black card', ['paper', 'matte', 'black', 'cut'], `${SHEETS}: 0.04.`, {
    kind: 'matte',
    reflectance: 0.04,
  }),
];
