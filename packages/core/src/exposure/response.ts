import type { CameraBody, CameraLens } from '@fendrix/contract';
import { MID_TONE } from './exposure.js';

/** How a camera records light beyond its ISO: the tone curve of its files against that of sRGB. */
export type Response = NonNullable<CameraBody['response']>;
/** What a lens takes in the corners, and spreads over all of the frame. */
export type LensLosses = NonNullable<CameraLens['losses']>;

export const PLAIN_RESPONSE: Response = { isoStops: 0, slope: 1, bend: 0 };
export const NO_LOSSES: LensLosses = { cornerStops: 0, veilPart: 0 };

/** Stops from mid-tone that a file holds of light so many stops from mid-tone. */
export const recordedStops = (
  lightStops: number,
  { slope, bend }: Pick<Response, 'slope' | 'bend'>,
): number => lightStops * (slope + bend * lightStops);

/** The light that is recorded so; beyond where the curve turns it stays there. Stops from mid-tone. */
export function lightOfRecorded(recorded: number, { slope, bend }: Pick<Response, 'slope' | 'bend'>): number {
  return (2 * recorded) / (slope + Math.sqrt(Math.max(0, slope * slope + 4 * bend * recorded)));
}

/** A linear value of a file as the light that made it, paper white at 1. */
export function linearOfRecorded(value: number, response: Pick<Response, 'slope' | 'bend'>): number {
  if (!(value > 0)) return 0;
  return MID_TONE * 2 ** lightOfRecorded(Math.log2(value / MID_TONE), response);
}

/** Light that is left at a place of the frame, by the square of its distance from the middle. @param r2 1 in the corners */
export const vignetting = (cornerStops: number, r2: number): number => 2 ** (-cornerStops * r2);

/** Square of the distance from the middle of a frame, 1 in its corners. */
export function cornerDistance2(x: number, y: number, width: number, height: number): number {
  const [u, v] = [(2 * (x + 0.5)) / width - 1, (2 * (y + 0.5)) / height - 1];
  const aspect = width / height;
  return (u * u * aspect * aspect + v * v) / (aspect * aspect + 1);
}

/**
 * A file as light again: its curve, its dark corners and its veil taken out; in place. Red, green, blue, 3 a pixel, paper white at 1.
 * The veil is that of the mean of what is in the frame: what shines in from outside of it is not known.
 */
export function withoutLosses(
  linear: Float32Array,
  width: number,
  height: number,
  response: Response = PLAIN_RESPONSE,
  { cornerStops, veilPart }: LensLosses = NO_LOSSES,
): void {
  let sum = 0;
  for (let i = 0; i < linear.length; i++) {
    linear[i] = linearOfRecorded(linear[i] as number, response);
    sum += linear[i] as number;
  }
  // The mean that is seen has the veil in it already.
  const veil = (veilPart / (1 + veilPart)) * (sum / linear.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const passes = vignetting(cornerStops, cornerDistance2(x, y, width, height));
      for (let c = 0; c < 3; c++) {
        const at = 3 * (y * width + x) + c;
        linear[at] = Math.max(0, (linear[at] as number) - veil) / passes;
      }
    }
  }
}
