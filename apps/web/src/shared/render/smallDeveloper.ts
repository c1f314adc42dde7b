import {
  addTile,
  createFeatures,
  createFilms,
  type DenoiseFeatures,
  developFilms,
  encodePicture,
  type Films,
  luminanceOf,
  placeFeatures,
  smoothFilms,
  type Tile,
} from '@fendrix/core';

/** From the page to the worker that develops small pictures. */
export type ToSmallDeveloper =
  | {
      type: 'begin';
      id: number;
      width: number;
      height: number;
      channels: number;
      /** See `Films.stokes`. */
      stokes: number;
      weights: Float64Array;
      /** Shown as bright as fits instead of as recorded. */
      levelled: boolean;
    }
  | { type: 'tile'; id: number; tile: Tile; sums: Float32Array; samples: number }
  /** What the filter is to know of a part. */
  | { type: 'features'; id: number; tile: Tile; features: DenoiseFeatures }
  /** Asks for the picture as it is; the last time it is then forgotten. */
  | { type: 'show'; id: number; last: boolean }
  | { type: 'drop'; id: number };

/** A developed picture: 8-bit with alpha, and linear, 3 a pixel. */
export interface DevelopedSmall {
  id: number;
  last: boolean;
  width: number;
  height: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  linear: Float32Array<ArrayBuffer>;
}

/** A small picture that grows. */
interface Growing {
  films: Films;
  features: DenoiseFeatures;
  weights: Float64Array;
  levelled: boolean;
}

/**
 * Gathers the tiles of small pictures, filters them as the bench does and develops them; lives in a worker, so that the page
 * touches no pixel.
 */
export class SmallDeveloper {
  private readonly growing = new Map<number, Growing>();

  constructor(private readonly post: (picture: DevelopedSmall) => void) {}

  receive(message: ToSmallDeveloper): void {
    const { id } = message;
    if (message.type === 'begin') {
      const { width, height, channels, stokes, weights, levelled } = message;
      const films = createFilms(width, height, channels, stokes);
      this.growing.set(id, { films, features: createFeatures(width, height), weights, levelled });
      return;
    }
    const own = this.growing.get(id);
    if (!own) return;
    if (message.type === 'tile') addTile(own.films, message.tile, message.sums, message.samples);
    else if (message.type === 'features') placeFeatures(own.features, message.tile, message.features);
    else if (message.type === 'drop') this.growing.delete(id);
    else {
      this.post({ id, last: message.last, ...developed(own) });
      if (message.last) this.growing.delete(id);
    }
  }
}

/** Part of the pixels that may be brighter than white when a picture is shown as bright as fits. */
const BRIGHTEST_PART = 0.02;

function developed({ films, features, weights, levelled }: Growing) {
  const { width, height, channels, stokes } = films;
  const linear = new Float32Array(width * height * 3);
  const smooth = createFilms(width, height, channels, stokes);
  smoothFilms(smooth, films, features);
  developFilms(linear, smooth, weights);
  if (levelled) level(linear);
  const pixels = new Uint8ClampedArray(width * height * 4);
  encodePicture(pixels, linear);
  return { width, height, pixels, linear };
}

/** Brings all but the brightest part of the pixels under paper white. */
function level(linear: Float32Array): void {
  const tones = new Float32Array(linear.length / 3);
  for (let i = 0; i < tones.length; i++) {
    tones[i] = luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number);
  }
  tones.sort();
  const white = tones[Math.floor((1 - BRIGHTEST_PART) * (tones.length - 1))] as number;
  if (!(white > 0)) return;
  for (let i = 0; i < linear.length; i++) linear[i] = (linear[i] as number) * (0.95 / white);
}
