import { luminanceOf } from './display.js';
import { CLIP_STOPS, MID_TONE } from './exposure.js';

/** Lowest and highest whole step that tones are told apart in, stops from mid-tone. */
export const LOWEST_STEP = -8;
export const HIGHEST_STEP = 4;

/** Whole stops below each pixel's tone: 0 holds tones from mid-tone to one stop over it. @param linear 3 a pixel */
export function toneSteps(out: Int8Array, linear: ArrayLike<number>): void {
  for (let i = 0; i < out.length; i++) {
    const tone = luminanceOf(
      linear[3 * i] as number,
      linear[3 * i + 1] as number,
      linear[3 * i + 2] as number,
    );
    const step = tone > 0 ? Math.floor(Math.log2(tone / MID_TONE)) : LOWEST_STEP;
    out[i] = Math.max(LOWEST_STEP, Math.min(HIGHEST_STEP, step));
  }
}

export interface StepLabel {
  step: number;
  /** Pixel well within the largest area of the step. */
  x: number;
  y: number;
  /** How far it is from the edge of its area, px. */
  room: number;
}

/** One place for the label of each step: the pixel farthest from the edge of its area. */
export function stepLabels(steps: Int8Array, width: number, height: number): StepLabel[] {
  const room = new Uint16Array(width * height);
  const same = (i: number, j: number) => steps[i] === steps[j];
  const grow = (i: number, j: number, inside: boolean) =>
    inside && same(i, j)
      ? Math.min(room[i] as number, (room[j] as number) + 1)
      : inside
        ? 1
        : (room[i] as number);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      room[i] = 60000;
      room[i] = grow(i, i - 1, x > 0);
      room[i] = grow(i, i - width, y > 0);
    }
  }
  const best = new Map<number, StepLabel>();
  for (let y = height - 1; y >= 0; y--) {
    for (let x = width - 1; x >= 0; x--) {
      const i = y * width + x;
      room[i] = grow(i, i + 1, x + 1 < width);
      room[i] = grow(i, i + width, y + 1 < height);
      const step = steps[i] as number;
      // The edge of the frame leaves a label no more room than the edge of an area.
      const free = Math.min(room[i] as number, x + 1, y + 1, width - x, height - y);
      const label = best.get(step);
      if (!label || free > label.room) best.set(step, { step, x, y, room: free });
    }
  }
  return [...best.values()].sort((a, b) => a.step - b.step);
}

/** Tones below this are taken to be it when pictures are compared: what differs in the black is not seen. */
const DARKEST_LINEAR = MID_TONE * 2 ** -7;

/** Stops from one picture to another of the same size, pixel by pixel. @param before, after linear, 3 a pixel */
export function differenceStops(
  out: Float32Array,
  before: ArrayLike<number>,
  after: ArrayLike<number>,
): void {
  const tone = (linear: ArrayLike<number>, i: number) =>
    Math.max(
      DARKEST_LINEAR,
      luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
    );
  for (let i = 0; i < out.length; i++) out[i] = Math.log2(tone(after, i) / tone(before, i));
}

/** What is lost at a pixel: nothing; detail in black; paper white is reached; the sensor clips. */
export const HELD = 0;
export const LOST_BLACK = 1;
export const PAPER_WHITE = 2;
export const CLIPPED = 3;

/** Tones darker than this show no detail, stops from mid-tone: about the fourth of 256 steps of a picture. */
export const BLACK_FROM_STOPS = -7;

const CLIP_LINEAR = MID_TONE * 2 ** CLIP_STOPS;
const BLACK_LINEAR = MID_TONE * 2 ** BLACK_FROM_STOPS;

/** Finds lost tones; the sensor clips where any colour does. @param linear 3 a pixel, paper white at 1 */
export function clippingOf(out: Uint8Array, linear: ArrayLike<number>): void {
  for (let i = 0; i < out.length; i++) {
    const [r, g, b] = [linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number];
    const most = Math.max(r, g, b);
    out[i] =
      most >= CLIP_LINEAR
        ? CLIPPED
        : most >= 1
          ? PAPER_WHITE
          : luminanceOf(r, g, b) < BLACK_LINEAR
            ? LOST_BLACK
            : HELD;
  }
}
