import type { Light, SetDocument } from '@fendrix/contract';
import { deltaE2000, labOf } from './deltaE.js';
import { lightColourRgb, miredShift, shiftedTemperatureK } from './whitePoint.js';

/** The cast of one light against the white balance, where it shines alone. */
export interface LightCast {
  tag: string;
  /** Behind its gels, K. */
  temperatureK: number;
  /** CIEDE2000 of a mid grey under it against the balanced grey. */
  deltaE: number;
  /** Shift of a gel that would bring it to the balance, mired; above 0 warms. */
  gelMired: number;
}

/** Linear grey that casts are judged at: lightness 50. */
const GREY = 0.184;

/** Difference of a mid grey that is recorded with these parts of red, green and blue from a neutral one. */
export function castDeltaE(rgb: readonly [number, number, number]): number {
  const luminance = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  if (!(luminance > 0)) return 0;
  const scaled = rgb.map((value) => (GREY * value) / luminance) as [number, number, number];
  return deltaE2000(labOf(scaled), labOf([GREY, GREY, GREY]));
}

/** Casts of the lights that have a colour temperature; those without are neutral to the camera. */
export function lightCasts({ lights, camera }: SetDocument): LightCast[] {
  return lights.flatMap((light) => {
    const temperatureK = temperatureOf(light);
    if (temperatureK === null) return [];
    const rgb = lightColourRgb(temperatureK, camera.whiteBalanceK);
    return [
      {
        tag: light.tag,
        temperatureK,
        deltaE: castDeltaE(rgb),
        gelMired: miredShift(temperatureK, camera.whiteBalanceK),
      },
    ];
  });
}

/** Colour temperature of a light behind its gels, K; null for one that is neutral to the camera. */
export function temperatureOf({ colour }: Light): number | null {
  if (!colour) return null;
  const shift = colour.gels.reduce((sum, gel) => sum + gel.miredShift, 0);
  return shiftedTemperatureK(colour.temperatureK, shift);
}

/** Usual colour correction films by their shift, mired, and loss, stops. Source: usual catalogue figures. */
export const CORRECTION_GELS = [
  { name: 'Full orange', miredShift: 159, lossStops: 0.65 },
  { name: 'Half orange', miredShift: 81, lossStops: 0.45 },
  { name: 'Quarter orange', miredShift: 42, lossStops: 0.3 },
  { name: 'Eighth orange', miredShift: 20, lossStops: 0.2 },
  { name: 'Eighth blue', miredShift: -18, lossStops: 0.3 },
  { name: 'Quarter blue', miredShift: -35, lossStops: 0.5 },
  { name: 'Half blue', miredShift: -78, lossStops: 0.95 },
  { name: 'Full blue', miredShift: -137, lossStops: 1.5 },
] as const;

/** A second gel must come nearer by about an eighth: less is not seen, and each takes light. */
const WORTH_A_SECOND_MIRED = 15;

/** The gel that comes nearest to a wanted shift, or two of the same colour where a second one is worth it; none where it is nearer without. */
export function nearestGels(mired: number): (typeof CORRECTION_GELS)[number][] {
  const miss = (gels: readonly (typeof CORRECTION_GELS)[number][]) =>
    Math.abs(mired - gels.reduce((sum, gel) => sum + gel.miredShift, 0));
  const nearest = (choices: (typeof CORRECTION_GELS)[number][][]) =>
    choices.reduce((best, gels) => (miss(gels) < miss(best) ? gels : best), []);
  const one = nearest(CORRECTION_GELS.map((gel) => [gel]));
  // An orange and a blue one would take light for what neither of them does.
  const alike = CORRECTION_GELS.filter(({ miredShift }) => miredShift * mired > 0);
  const two = nearest(alike.flatMap((first) => alike.map((second) => [first, second])));
  const best = miss(two) < miss(one) - WORTH_A_SECOND_MIRED ? two : one;
  return [...best].sort((a, b) => Math.abs(b.miredShift) - Math.abs(a.miredShift));
}
