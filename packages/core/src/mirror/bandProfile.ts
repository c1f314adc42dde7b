import type { Product, SetDocument } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../exposure/recording.js';
import { bakeLightmaps, type Tracing } from '../render/prepareTracing.js';
import { projectPoint, writeView } from '../render/view.js';
import { normalise, subtract } from '../units/vector.js';
import { bandHeightM, contourAt, endsInPicture } from './contour.js';

/** Luminance across a product at one height, for each film at unit luminance. */
export interface BandProfile {
  product: string;
  heightM: number;
  /** Place of each column in the visible width, 0 camera left to 1. */
  part: Float64Array;
  /** [(column * films + film) * 3 + colour]; multiply by the film's weights. */
  unit: Float32Array;
}

export interface BandProfileOptions {
  columns: number;
  samples: number;
  ambient?: readonly number[];
  heightM?: number;
}

/**
 * Path-traced luminance at the columns of a product's band, lightmaps included.
 * @param samples paths a column
 * @param ambient makes it a quick profile, bounced light estimated, see `TileJob.ambient`
 * @returns null where the product has no upright side at this height
 */
export function bandProfile(
  tracing: Tracing,
  product: Product,
  { columns, samples, ambient, heightM = bandHeightM(product) }: BandProfileOptions,
): BandProfile | null {
  const { view, engine, scene } = tracing;
  const contour = contourAt(product, heightM, view.origin);
  const ends = contour && endsInPicture(view, contour);
  if (!contour || !ends) return null;
  if (!ambient) bakeLightmaps(tracing);
  writeView(engine.view, view);
  engine.reseed(1);
  engine.setMode(ambient ? { quick: true } : { lightmaps: true });
  if (ambient) engine.ambient.set(ambient);
  const part = new Float64Array(columns);
  const width = scene.channelCount * 3;
  const unit = new Float32Array(columns * width);
  for (let i = 0; i < columns; i++) {
    const target = contour.at((i + 0.5) / columns);
    const at = projectPoint(view, target);
    part[i] = at ? (at[0] - ends.left) / (ends.right - ends.left) : (i + 0.5) / columns;
    const direction = normalise(subtract(target, view.origin));
    engine.films.fill(0);
    for (let sample = 0; sample < samples; sample++) {
      engine.startSample(i, sample);
      engine.point.set(view.origin);
      engine.direction.set(direction);
      engine.trace(false);
    }
    for (let k = 0; k < width; k++) unit[i * width + k] = (engine.films[k] as number) / samples;
  }
  engine.setMode({});
  return { product: product.id, heightM, part, unit };
}

export interface ProfileFigures {
  /** 1 where left and right mirror each other in luminance, 0 where one side has all of it. */
  symmetry: number;
  /** Steepest change, stops in a hundredth of the width: below 1 is a soft edge. */
  steepest: number;
  /** Part of the width within one stop of the brightest column. */
  brightPart: number;
  /** Brightest and darkest column, stops from mid-tone. */
  mostStops: number;
  leastStops: number;
}

/** A column without any light, stops from mid-tone. */
const NO_LIGHT_STOPS = -20;

/** Tones of the columns with the powers and settings of a set, stops from mid-tone. No rays. */
export function profileStops(set: SetDocument, { part, unit }: BandProfile): number[] {
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  return Array.from(part, (_, column) => {
    const rgb: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < weights.length; k++) {
      rgb[k % 3] = (rgb[k % 3] as number) + (weights[k] as number) * (unit[column * weights.length + k] ?? 0);
    }
    const value = luminanceOf(...rgb);
    return value > 0 ? Math.log2(value / midTone) : NO_LIGHT_STOPS;
  });
}

/** Below this a column counts as black, stops from mid-tone: its steps are not seen. */
export const BLACK_STOPS = -8;

/**
 * Figures of a profile of columns in stops from mid-tone, left to right and evenly apart enough to pair up.
 * @param stops at least two columns
 */
export function profileFigures(part: ArrayLike<number>, stops: readonly number[]): ProfileFigures {
  const n = stops.length;
  const shown = stops.map((value) => Math.max(BLACK_STOPS, value));
  const linear = stops.map((value) => 2 ** value);
  let apart = 0;
  let whole = 0;
  for (let i = 0; i < n >> 1; i++) {
    const [a, b] = [linear[i] as number, linear[n - 1 - i] as number];
    apart += Math.abs(a - b);
    whole += a + b;
  }
  let steepest = 0;
  for (let i = 1; i < n; i++) {
    const width = 100 * ((part[i] as number) - (part[i - 1] as number));
    const change = Math.abs((shown[i] as number) - (shown[i - 1] as number));
    if (width > 0) steepest = Math.max(steepest, change / width);
  }
  const most = Math.max(...stops);
  let bright = 0;
  for (let i = 0; i < n; i++) {
    const from = i === 0 ? 0 : ((part[i - 1] as number) + (part[i] as number)) / 2;
    const to = i === n - 1 ? 1 : ((part[i] as number) + (part[i + 1] as number)) / 2;
    if ((stops[i] as number) > most - 1) bright += to - from;
  }
  return {
    symmetry: whole > 0 ? 1 - apart / whole : 1,
    steepest,
    brightPart: bright,
    mostStops: most,
    leastStops: Math.min(...stops),
  };
}
