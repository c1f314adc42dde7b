import { BY_SIGHT, clear, type MaterialEntry, material, TABLES } from './material.js';

export const glass: MaterialEntry[] = [
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
  material(
    'frosted-glass',
    'Frosted glass',
    ['glass', 'bottle', 'jar', 'frosted'],
    `${TABLES}: 1.52; acid-etched, GGX 0.4, outside alone.`,
    { ...clear(1.52, [0.01, 0.004, 0.01]), roughness: 0.4 },
  ),
  material(
    'satin-glass',
    'Satin glass',
    ['glass', 'bottle', 'frosted'],
    `${TABLES}: 1.52; lightly etched, GGX 0.15, outside alone.`,
    { ...clear(1.52, [0.01, 0.004, 0.01]), roughness: 0.15 },
  ),
  material(
    'blue-glass',
    'Blue glass',
    ['glass', 'bottle'],
    `${TABLES}: 1.52; ${BY_SIGHT}.`,
    clear(1.52, [7, 2.4, 0.5]),
  ),
  material(
    'lead-crystal',
    'Lead crystal',
    ['glass', 'drink', 'cut', 'sparkle'],
    `${TABLES}: 1.55; colours split as by flint glass.`,
    { ...clear(1.55), dispersion: 'flint glass' },
  ),
  material(
    'diamond',
    'Diamond',
    ['jewelry', 'stone', 'sparkle'],
    `${TABLES}: 2.42; colours split after Peter 1923.`,
    { ...clear(2.42), dispersion: 'diamond' },
  ),
  material(
    'zirconia',
    'Cubic zirconia',
    ['jewelry', 'stone', 'sparkle'],
    `${TABLES}: 2.16; colours split after Wood and Nassau 1982.`,
    { ...clear(2.16), dispersion: 'zirconia' },
  ),
  material(
    'blue-sapphire',
    'Blue sapphire',
    ['jewelry', 'stone', 'sparkle'],
    `${TABLES}: 1.77; colours split after Malitson 1962; ${BY_SIGHT}.`,
    { ...clear(1.77, [9, 5, 1]), dispersion: 'sapphire' },
  ),
  material('ice', 'Ice', ['glass', 'drink', 'cold'], `${TABLES}: 1.31; its uneven faces as ripples.`, {
    ...clear(1.31),
    relief: { kind: 'crumple', depthM: 0.0006, sizeM: 0.012 },
  }),
];
