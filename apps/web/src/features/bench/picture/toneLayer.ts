import {
  CLIPPED,
  clippingOf,
  encodeSrgb,
  HIGHEST_STEP,
  LOST_BLACK,
  LOWEST_STEP,
  MID_TONE,
  PAPER_WHITE,
  stepLabels,
  type Thing,
  thingOfRegion,
  toneSteps,
} from '@fendrix/core';
import type { ToneLayer } from './developProtocol';

const NONE_LOST = { black: 0, paper: 0, clipped: 0 };

/** Grey that stands for each step: the tone in its middle. */
const stepGrey = (step: number) => Math.round(255 * encodeSrgb(Math.min(1, MID_TONE * 2 ** (step + 0.5))));
const STEP_GREYS = Array.from({ length: HIGHEST_STEP - LOWEST_STEP + 1 }, (_, i) =>
  stepGrey(LOWEST_STEP + i),
);

/** Tones as labelled steps of one stop: flat greys with a line between them. */
export function stopsLayer(linear: Float32Array, width: number, height: number): ToneLayer {
  const steps = new Int8Array(width * height);
  toneSteps(steps, linear);
  const pixels = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const step = steps[i] as number;
      const edge = (x + 1 < width && steps[i + 1] !== step) || (y + 1 < height && steps[i + width] !== step);
      const grey = STEP_GREYS[step - LOWEST_STEP] as number;
      paint(pixels, i, edge ? [255, 190, 60, 255] : [grey, grey, grey, 255]);
    }
  }
  return { overlay: 'stops', pixels, labels: stepLabels(steps, width, height), lost: NONE_LOST, byThing: [] };
}

/**
 * What is lost, hatched: clipped crosswise, paper white in one direction, black the other way.
 * @param regions of the denoise features, for telling the things apart
 */
export function clippingLayer(
  linear: Float32Array,
  width: number,
  height: number,
  regions: Int32Array,
  things: readonly Thing[],
): ToneLayer {
  const lost = new Uint8Array(width * height);
  clippingOf(lost, linear);
  const pixels = new Uint8ClampedArray(width * height * 4);
  const counts = new Float64Array(4);
  const byThing = things.map(() => new Float64Array(5));
  for (let i = 0; i < lost.length; i++) {
    const kind = lost[i] as number;
    counts[kind] = (counts[kind] as number) + 1;
    const own = byThing[thingOfRegion(regions[i] as number)];
    if (own) {
      own[kind] = (own[kind] as number) + 1;
      own[4] = (own[4] as number) + 1;
    }
    const x = i % width;
    const y = (i - x) / width;
    const rising = (x + y) % 8 < 2;
    const falling = (x - y + 8 * height) % 8 < 2;
    if (kind === CLIPPED) paint(pixels, i, rising || falling ? [190, 20, 20, 255] : [255, 236, 120, 150]);
    else if (kind === PAPER_WHITE && rising) paint(pixels, i, [150, 110, 0, 255]);
    else if (kind === LOST_BLACK) paint(pixels, i, falling ? [90, 170, 255, 255] : [0, 0, 60, 110]);
  }
  const parts = (of: Float64Array, whole: number) => ({
    black: (of[LOST_BLACK] as number) / whole,
    paper: (of[PAPER_WHITE] as number) / whole,
    clipped: (of[CLIPPED] as number) / whole,
  });
  return {
    overlay: 'clipping',
    pixels,
    labels: [],
    lost: parts(counts, lost.length),
    byThing: things.flatMap((thing, index) => {
      const own = byThing[index] as Float64Array;
      const whole = own[4] as number;
      return whole > 0 ? [{ thing, ...parts(own, whole) }] : [];
    }),
  };
}

function paint(
  pixels: Uint8ClampedArray,
  pixel: number,
  [r, g, b, a]: readonly [number, number, number, number],
): void {
  pixels[4 * pixel] = r;
  pixels[4 * pixel + 1] = g;
  pixels[4 * pixel + 2] = b;
  pixels[4 * pixel + 3] = a;
}
