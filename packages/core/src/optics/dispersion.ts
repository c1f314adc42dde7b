import type { Dielectric, Dispersion } from '@fendrix/contract';

/** Strength and squared resonance, um2, of each term of n2 - 1 = sum of B L2 / (L2 - C), L the wavelength in um. */
type Sellmeier = readonly (readonly [b: number, c: number])[];

/**
 * Sources: crown (N-BK7) and flint (F2): data sheets of Schott; quartz glass: Malitson 1965; acrylic: Sultanova, Kasarova,
 * Nikolov 2009; water at 20 degrees: Daimon and Masumura 2007; sapphire, ordinary ray: Malitson 1962; cubic zirconia with
 * yttria: Wood and Nassau 1982; diamond: Peter 1923.
 */
const SELLMEIER: Readonly<Record<Dispersion, Sellmeier>> = {
  'crown glass': [
    [1.03961212, 0.00600069867],
    [0.231792344, 0.0200179144],
    [1.01046945, 103.560653],
  ],
  'flint glass': [
    [1.34533359, 0.00997743871],
    [0.209073176, 0.0470450767],
    [0.937357162, 111.886764],
  ],
  'quartz glass': [
    [0.6961663, 0.0684043 ** 2],
    [0.4079426, 0.1162414 ** 2],
    [0.8974794, 9.896161 ** 2],
  ],
  acrylic: [[1.1819, 0.011313]],
  water: [
    [0.5684027565, 0.005101829712],
    [0.1726177391, 0.01821153936],
    [0.02086189578, 0.02620722293],
    [0.1130748688, 10.69792721],
  ],
  sapphire: [
    [1.4313493, 0.0726631 ** 2],
    [0.65054713, 0.1193242 ** 2],
    [5.3414021, 18.028251 ** 2],
  ],
  zirconia: [
    [1.347091, 0.062543 ** 2],
    [2.117788, 0.166739 ** 2],
    [9.452943, 24.32057 ** 2],
  ],
  diamond: [
    [0.3306, 0.175 ** 2],
    [4.3356, 0.106 ** 2],
  ],
};

/** Wavelengths that stand for linear red, green and blue, as for metals, nm. */
export const COLOUR_NM = [650, 550, 450] as const;

/** Refractive index of a substance in air, from 400 to 700 nm. */
export function indexAt(substance: Dispersion, wavelengthNm: number): number {
  const squared = (wavelengthNm / 1000) ** 2;
  return Math.sqrt(1 + SELLMEIER[substance].reduce((sum, [b, c]) => sum + (b * squared) / (squared - c), 0));
}

/**
 * Index of a material for red, green and blue; null where it splits nothing. Its own index is that for green; the two others are
 * off as the substance's are, in proportion to what each bends.
 */
export function indexByColour({
  index,
  dispersion,
}: Pick<Dielectric, 'index' | 'dispersion'>): [number, number, number] | null {
  if (!dispersion || !(index > 1)) return null;
  const own = COLOUR_NM.map((nm) => indexAt(dispersion, nm));
  const scale = (index - 1) / ((own[1] as number) - 1);
  return own.map((n) => index + scale * (n - (own[1] as number))) as [number, number, number];
}
