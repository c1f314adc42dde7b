import { type MaterialEntry, material } from './material.js';

type Metal = Extract<MaterialEntry['thing'], { kind: 'metal' }>;

const NOBLE = 'Johnson and Christy 1972';
const TRANSITION = 'Johnson and Christy 1974';

/** Bare metals: whose complex index and where it is from, then how rough, GGX alpha. */
const BARE: readonly [
  id: string,
  name: string,
  purposes: string[],
  of: string,
  metal: Metal['metal'],
  roughness: number,
][] = [
  ['polished-steel', 'Polished steel', ['mirror'], `iron (${TRANSITION})`, 'steel', 0],
  ['chrome', 'Chrome', ['mirror'], `chromium (${TRANSITION})`, 'chrome', 0],
  ['silver', 'Polished silver', ['jewelry', 'mirror'], `silver (${NOBLE})`, 'silver', 0.02],
  ['gold', 'Polished gold', ['jewelry', 'mirror'], `gold (${NOBLE})`, 'gold', 0.02],
  ['copper', 'Polished copper', ['mould', 'mirror'], `copper (${NOBLE})`, 'copper', 0.03],
  ['brass', 'Polished brass', ['mill', 'mirror'], '70/30 brass (Querry 1985)', 'brass', 0.02],
  ['aluminium', 'Satin aluminium', ['can'], 'aluminium (Palik 1985)', 'aluminium', 0.15],
  ['gold-foil', 'Gold foil', ['foil', 'warm'], `gold (${NOBLE})`, 'gold', 0.2],
];

export const metals: MaterialEntry[] = [
  ...BARE.map(([id, name, purposes, of, metal, roughness]) =>
    material(id, name, ['metal', ...purposes], `Complex index of ${of}.`, {
      kind: 'metal',
      metal,
      roughness,
    }),
  ),
  material(
    'brushed-steel',
    'Brushed steel',
    ['metal', 'brushed'],
    `Complex index of iron (${TRANSITION}); brush 0.05 by 0.3.`,
    { kind: 'metal', metal: 'steel', roughness: 0.05, brushed: { along: 'round', acrossRoughness: 0.3 } },
  ),
  material(
    'foil',
    'Crumpled foil',
    ['foil', 'metal', 'sparkle'],
    'Aluminium (Palik 1985), creases of 1 cm.',
    {
      kind: 'metal',
      metal: 'aluminium',
      roughness: 0.12,
      relief: { kind: 'crumple', depthM: 0.0012, sizeM: 0.012 },
    },
  ),
  material(
    'mirror-glass',
    'Mirror',
    ['mirror', 'surface', 'reflection'],
    'Silvered glass sends back about 0.9.',
    {
      kind: 'mirror',
      reflectance: 0.9,
    },
  ),
];
