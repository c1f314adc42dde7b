import { requireDomain } from '../errors.js';

type Triple = readonly [number, number, number];

/** Below this the white of a temperature is that of a hot body, above the next that of daylight, mixed between. */
const HOT_BODY_UP_TO_K = 4000;
const DAYLIGHT_FROM_K = 5000;

/**
 * Chromaticity x, y of a light of a correlated colour temperature.
 * Up to 4000 K on the Planckian locus (Kim et al. 2002), from 5000 K on the daylight locus (CIE 15), mixed between.
 * Below 1667 K and above 25 000 K it stays where it is there.
 * @throws {DomainError} a temperature not above 0
 */
export function chromaticity(temperatureK: number): [number, number] {
  requireDomain(temperatureK > 0, 'a colour temperature is above 0 K');
  const t = Math.min(25000, Math.max(1667, temperatureK));
  if (t <= HOT_BODY_UP_TO_K) return planckian(t);
  if (t >= DAYLIGHT_FROM_K) return daylight(t);
  const share = (t - HOT_BODY_UP_TO_K) / (DAYLIGHT_FROM_K - HOT_BODY_UP_TO_K);
  const [px, py] = planckian(t);
  const [dx, dy] = daylight(t);
  return [px + share * (dx - px), py + share * (dy - py)];
}

function planckian(t: number): [number, number] {
  const x =
    t <= 4000
      ? -0.2661239e9 / t ** 3 - 0.2343589e6 / t ** 2 + 0.8776956e3 / t + 0.17991
      : -3.0258469e9 / t ** 3 + 2.1070379e6 / t ** 2 + 0.2226347e3 / t + 0.24039;
  const y =
    t <= 2222
      ? -1.1063814 * x ** 3 - 1.3481102 * x ** 2 + 2.18555832 * x - 0.20219683
      : t <= 4000
        ? -0.9549476 * x ** 3 - 1.37418593 * x ** 2 + 2.09137015 * x - 0.16748867
        : 3.081758 * x ** 3 - 5.8733867 * x ** 2 + 3.75112997 * x - 0.37001483;
  return [x, y];
}

function daylight(t: number): [number, number] {
  const x =
    t <= 7000
      ? -4.607e9 / t ** 3 + 2.9678e6 / t ** 2 + 0.09911e3 / t + 0.244063
      : -2.0064e9 / t ** 3 + 1.9018e6 / t ** 2 + 0.24748e3 / t + 0.23704;
  return [x, -3 * x * x + 2.87 * x - 0.275];
}

const D65: Triple = [0.95047, 1, 1.08883];

/** XYZ to the sharpened cone responses of CAT16. Source: Li et al. 2017. */
const CAT16: readonly Triple[] = [
  [0.401288, 0.650173, -0.051461],
  [-0.250268, 1.204414, 0.045854],
  [-0.002079, 0.048952, 0.953127],
];
const CAT16_BACK: readonly Triple[] = [
  [1.86206786, -1.01125463, 0.14918677],
  [0.38752654, 0.62144744, -0.00897398],
  [-0.0158415, -0.03412294, 1.04996444],
];
/** XYZ (D65) to linear sRGB. Source: IEC 61966-2-1. */
const TO_SRGB: readonly Triple[] = [
  [3.2404542, -1.5371385, -0.4985314],
  [-0.969266, 1.8760108, 0.041556],
  [0.0556434, -0.2040259, 1.0572252],
];

/**
 * Linear red, green, blue of a light as a camera balanced for another temperature records it, luminance 1.
 * Von Kries gains in the CAT16 space. A light of the balanced temperature gives 1, 1, 1.
 * Limits: full adaptation; parts outside of sRGB are cut to 0.
 */
export function lightColourRgb(temperatureK: number, balanceK: number): [number, number, number] {
  const light = times(CAT16, xyzOf(chromaticity(temperatureK)));
  const balance = times(CAT16, xyzOf(chromaticity(balanceK)));
  const white = times(CAT16, D65);
  const adapted = light.map((value, i) => (value * (white[i] as number)) / (balance[i] as number));
  const linear = times(TO_SRGB, times(CAT16_BACK, adapted as unknown as Triple)).map((value) =>
    Math.max(0, value),
  );
  const [r = 0, g = 0, b = 0] = linear;
  const luminance = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [r / luminance, g / luminance, b / luminance];
}

/** Colour temperature behind a gel, K: mired add up. 5500 K and +151.5 give 3000 K. */
export function shiftedTemperatureK(temperatureK: number, miredShift: number): number {
  const mired = 1e6 / temperatureK + miredShift;
  return 1e6 / Math.max(40, mired);
}

/** Mired shift that takes one temperature to another; 5500 to 3000 K: +151.5. */
export function miredShift(fromK: number, toK: number): number {
  return 1e6 / toK - 1e6 / fromK;
}

/**
 * Mired of the light under which a camera balanced for another records a neutral thing with so much red over blue, stops.
 * By halving between 40 and 600 mired.
 */
export function miredOf(redOverBlue: number, balanceK: number): number {
  const of = (mired: number) => {
    const [red, , blue] = lightColourRgb(1e6 / mired, balanceK);
    return blue > 0 ? Math.log2(red / blue) : Number.POSITIVE_INFINITY;
  };
  let [low, high] = [40, 600];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (of(middle) < redOverBlue) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function xyzOf([x, y]: readonly [number, number]): Triple {
  return [x / y, 1, (1 - x - y) / y];
}

function times(matrix: readonly Triple[], v: Triple): [number, number, number] {
  return matrix.map((row) => row[0] * v[0] + row[1] * v[1] + row[2] * v[2]) as [number, number, number];
}
