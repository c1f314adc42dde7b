import type { FilterGuide, Tile } from '@fendrix/core';

/** From the page to the worker that develops films into pictures. */
export type ToDeveloper =
  | {
      type: 'begin';
      picture: number;
      width: number;
      height: number;
      channels: number;
      /** Fewest samples of every pixel from which on the picture is shown. */
      fewest: number;
      /** Widest preview filter, px. */
      widest: number;
      /** Films that are those of the picture before, finished and of the same size. */
      kept: readonly number[];
    }
  | { type: 'guide'; picture: number; tile: Tile; guide: FilterGuide }
  | { type: 'tile'; picture: number; tile: Tile; sums: Float32Array; samples: number }
  | { type: 'weights'; weights: Float64Array<ArrayBuffer> }
  | { type: 'show'; picture: number };

/** A developed picture, 8-bit sRGB with alpha. */
export interface FromDeveloper {
  picture: number;
  width: number;
  height: number;
  /** Fewest samples of any pixel. */
  samples: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
}
