import { BY_SIGHT, clear, type MaterialEntry, material, TABLES } from './material.js';

type PerCm = 0 | [red: number, green: number, blue: number];

/** Clear liquids: refractive index, natural absorption of red, green and blue per cm, and what is to be known of the figures. */
const CLEAR: readonly [
  id: string,
  name: string,
  purposes: string[],
  index: number,
  perCm: PerCm,
  of: string,
][] = [
  ['water', 'Water', ['clear'], 1.333, 0, ''],
  ['oil', 'Oil', ['gold', 'food'], 1.47, [0.02, 0.09, 0.8], 'golden by the path'],
  ['spirit', 'Clear spirit', ['clear'], 1.36, 0, 'at 40 %'],
  ['syrup', 'Sugar syrup', ['sweet'], 1.45, [0.01, 0.02, 0.06], 'at 65 %'],
  ['dark-cordial', 'Dark red cordial', ['red', 'fruit'], 1.4, [0.1, 1.5, 1.05], BY_SIGHT],
  ['white-wine', 'White wine', ['drink', 'pale'], 1.343, [0.01, 0.03, 0.16], BY_SIGHT],
  ['red-wine', 'Red wine', ['drink', 'red'], 1.345, [0.35, 3.2, 3.4], BY_SIGHT],
  ['lager', 'Lager', ['drink', 'gold'], 1.338, [0.03, 0.12, 0.75], BY_SIGHT],
  ['whisky', 'Aged spirit', ['drink', 'amber'], 1.36, [0.05, 0.3, 1.6], BY_SIGHT],
  ['tea', 'Tea', ['drink', 'brown'], 1.334, [0.12, 0.7, 2.4], BY_SIGHT],
  ['apple-juice', 'Clear apple juice', ['drink', 'juice'], 1.35, [0.03, 0.14, 0.9], BY_SIGHT],
  ['coffee', 'Black coffee', ['drink', 'dark'], 1.335, [4, 9, 16], BY_SIGHT],
  ['honey', 'Honey', ['sweet', 'gold'], 1.49, [0.08, 0.4, 2.2], BY_SIGHT],
];

/** Cloudy liquids: the same, and how often they scatter light per cm. */
const CLOUDY: readonly [
  id: string,
  name: string,
  purposes: string[],
  index: number,
  perCm: PerCm,
  scatteringPerCm: number,
][] = [
  ['milk', 'Milk', ['food', 'white', 'pour'], 1.345, [0.005, 0.012, 0.043], 20],
  ['white-coffee', 'Coffee with milk', ['drink', 'brown'], 1.34, [0.57, 1.9, 5.7], 12],
  ['orange-juice', 'Orange juice', ['drink', 'juice'], 1.35, [0.014, 0.33, 9.9], 10],
  ['tomato-juice', 'Tomato juice', ['drink', 'juice', 'red'], 1.35, [0.26, 7.9, 14], 8],
  ['cloudy-apple-juice', 'Cloudy apple juice', ['drink', 'juice'], 1.35, [0.04, 0.16, 0.9], 1.2],
];

export const liquids: MaterialEntry[] = [
  ...CLEAR.map(([id, name, purposes, index, perCm, of]) =>
    material(
      id,
      name,
      ['liquid', ...purposes],
      `${TABLES}: ${[index, of].filter(Boolean).join('; ')}.`,
      clear(index, perCm),
    ),
  ),
  ...CLOUDY.map(([id, name, purposes, index, perCm, scatteringPerCm]) =>
    material(
      id,
      name,
      ['liquid', 'cloudy', ...purposes],
      `${TABLES}: ${index}; scatters ${scatteringPerCm} times per cm, as is usual; ${BY_SIGHT}.`,
      { ...clear(index, perCm), scatteringPerCm },
    ),
  ),
  material('cream', 'Cream', ['food', 'white', 'pour'], 'Cream scatters within about half a millimetre.', {
    kind: 'wax',
    reflectance: [0.95, 0.92, 0.84],
    meanFreePathM: 0.0005,
    index: 1.36,
    roughness: 0,
  }),
];
