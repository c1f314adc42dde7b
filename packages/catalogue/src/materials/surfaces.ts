import { BY_SIGHT, clear, type MaterialEntry, material, SHEETS, TABLES } from './material.js';

export const surfaces: MaterialEntry[] = [
  material(
    'clear-acrylic',
    'Clear acrylic',
    ['acrylic', 'prop', 'ice', 'clear'],
    `${TABLES}: 1.49.`,
    clear(1.49),
  ),
  material(
    'black-acrylic',
    'Black acrylic',
    ['acrylic', 'mirror', 'surface', 'reflection'],
    `${TABLES}: 1.49 over black.`,
    {
      kind: 'coated',
      reflectance: 0.005,
      coatIndex: 1.49,
    },
  ),
  material(
    'see-through-black-acrylic',
    'Black acrylic, see-through',
    ['acrylic', 'mirror', 'surface', 'reflection', 'clear'],
    `${TABLES}: 1.49; ${BY_SIGHT}, here a fifth through 5 mm.`,
    clear(1.49, 3.2),
  ),
  material(
    'white-acrylic',
    'White acrylic, lit from the front',
    ['acrylic', 'surface', 'reflection', 'white'],
    `${TABLES}: 1.49 over white.`,
    {
      kind: 'coated',
      reflectance: 0.82,
      coatIndex: 1.49,
    },
  ),
  material('grey-laminate', 'Grey laminate', ['surface', 'table'], `${SHEETS}: 0.3.`, {
    kind: 'matte',
    reflectance: 0.3,
  }),
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
    'red-acrylic',
    'Red acrylic',
    ['acrylic', 'surface', 'reflection'],
    `${TABLES}: 1.49 over red; ${BY_SIGHT}.`,
    {
      kind: 'coated',
      reflectance: [0.5, 0.03, 0.03],
      coatIndex: 1.49,
    },
  ),
  material('light-oak', 'Light oak', ['wood', 'board', 'surface'], `${SHEETS}: 0.35 to 0.45.`, {
    kind: 'coated',
    reflectance: [0.5, 0.37, 0.23],
    coatIndex: 1.45,
    roughness: 0.5,
  }),
  material('dark-walnut', 'Dark walnut', ['wood', 'board', 'surface'], `${SHEETS}: 0.08 to 0.12.`, {
    kind: 'coated',
    reflectance: [0.15, 0.085, 0.05],
    coatIndex: 1.45,
    roughness: 0.35,
  }),
  material('slate', 'Slate', ['stone', 'surface', 'dark'], `${SHEETS}: 0.06 to 0.1.`, {
    kind: 'coated',
    reflectance: [0.075, 0.08, 0.085],
    roughness: 0.5,
    relief: { kind: 'crumb', depthM: 0.0006, sizeM: 0.02 },
  }),
  material(
    'marble',
    'White marble',
    ['stone', 'surface', 'plate'],
    `Polish of index 1.5; ${SHEETS}: 0.6 to 0.7.`,
    {
      kind: 'coated',
      reflectance: [0.68, 0.67, 0.64],
      roughness: 0.04,
    },
  ),
  material('concrete', 'Concrete', ['stone', 'surface', 'rough'], `${SHEETS}: 0.25 to 0.35.`, {
    kind: 'matte',
    reflectance: [0.31, 0.3, 0.28],
    relief: { kind: 'crumb', depthM: 0.0004, sizeM: 0.005 },
  }),
];
