import {
  addTile,
  createFilms,
  developFilms,
  encodePicture,
  type Films,
  luminanceOf,
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
      weights: Float64Array;
      /** Shown as bright as fits instead of as recorded. */
      levelled: boolean;
    }
  | { type: 'tile'; id: number; tile: Tile; sums: Float32Array; samples: number }
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

/** Gathers the tiles of small pictures and develops them; lives in a worker, so that the page touches no pixel. */
export class SmallDeveloper {
  private readonly growing = new Map<number, { films: Films; weights: Float64Array; levelled: boolean }>();

  constructor(private readonly post: (picture: DevelopedSmall) => void) {}

  receive(message: ToSmallDeveloper): void {
    const { id } = message;
    if (message.type === 'begin') {
      const { width, height, channels, weights, levelled } = message;
      this.growing.set(id, { films: createFilms(width, height, channels), weights, levelled });
      return;
    }
    const own = this.growing.get(id);
    if (!own) return;
    if (message.type === 'tile') addTile(own.films, message.tile, message.sums, message.samples);
    else if (message.type === 'drop') this.growing.delete(id);
    else {
      this.post({ id, last: message.last, ...developed(own.films, own.weights, own.levelled) });
      if (message.last) this.growing.delete(id);
    }
  }
}

/** Part of the pixels that may be brighter than white when a picture is shown as bright as fits. */
const BRIGHTEST_PART = 0.02;

function developed(films: Films, weights: Float64Array, levelled: boolean) {
  const { width, height } = films;
  const linear = new Float32Array(width * height * 3);
  developFilms(linear, films, weights);
  takeDownSpecks(linear, width, height);
  if (levelled) level(linear);
  const pixels = new Uint8ClampedArray(width * height * 4);
  encodePicture(pixels, linear);
  return { width, height, pixels, linear };
}

/** A pixel brighter than this many times its brightest neighbour stands alone: a speck of noise. */
const SPECK = 1.3;

/** Takes pixels that stand alone down to their brightest neighbour; for looking only, no number sees it. */
function takeDownSpecks(linear: Float32Array, width: number, height: number): void {
  const tones = new Float32Array(width * height);
  for (let i = 0; i < tones.length; i++) {
    tones[i] = luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number);
  }
  for (let y = 1; y + 1 < height; y++) {
    for (let x = 1; x + 1 < width; x++) {
      const i = y * width + x;
      let most = Math.max(tones[i - 1] as number, tones[i + 1] as number);
      for (let side = -1; side <= 1; side++) {
        most = Math.max(most, tones[i - width + side] as number, tones[i + width + side] as number);
      }
      const own = tones[i] as number;
      if (!(own > SPECK * most && most > 0)) continue;
      for (let c = 0; c < 3; c++) linear[3 * i + c] = ((linear[3 * i + c] as number) * most) / own;
    }
  }
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
