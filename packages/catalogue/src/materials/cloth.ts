import { BY_SIGHT, type MaterialEntry, material, SHEETS } from './material.js';

export const cloth: MaterialEntry[] = [
  material('black-velvet', 'Black velvet', ['cloth', 'black', 'cut'], `${SHEETS}: 0.004.`, {
    kind: 'matte',
    reflectance: 0.004,
  }),
  material(
    'linen',
    'Linen',
    ['cloth', 'food', 'background'],
    `${SHEETS}: 0.45 to 0.6, with the sheen of fibres.`,
    {
      kind: 'cloth',
      reflectance: [0.58, 0.53, 0.45],
      sheen: 0.2,
      relief: { kind: 'weave', depthM: 0.0002, sizeM: 0.0012 },
    },
  ),
  material('denim', 'Denim', ['cloth', 'blue', 'texture'], `${SHEETS}: indigo twill; ${BY_SIGHT}.`, {
    kind: 'cloth',
    reflectance: [0.07, 0.11, 0.2],
    sheen: 0.15,
    relief: { kind: 'weave', depthM: 0.0003, sizeM: 0.0015 },
  }),
  material(
    'red-velvet',
    'Red velvet',
    ['cloth', 'red', 'rich'],
    `Pile with sheen towards grazing; ${BY_SIGHT}.`,
    {
      kind: 'cloth',
      reflectance: [0.16, 0.01, 0.015],
      sheen: 0.6,
    },
  ),
  material(
    'reflective-tape',
    'Reflective tape',
    ['cloth', 'sport', 'sparkle'],
    `Beads on grey cloth: returns a third of the light within a few degrees; ${BY_SIGHT}.`,
    { kind: 'retroreflective', reflectance: 0.3, returned: 0.35, roughness: 0.05 },
  ),
  material('white-cotton', 'White cotton', ['cloth', 'white'], `${SHEETS}: 0.7 to 0.8.`, {
    kind: 'cloth',
    reflectance: [0.76, 0.75, 0.72],
    sheen: 0.15,
    relief: { kind: 'weave', depthM: 0.0001, sizeM: 0.0008 },
  }),
];
