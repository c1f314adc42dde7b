import type { DenoiseFeatures, StepLabel, Thing, Tile } from '@fendrix/core';
import type { FrameWindow } from './frameWindow';
import type { PictureFormat } from './pictureFile';

/** What the developer draws over the picture. */
export type ToneOverlay = 'none' | 'stops' | 'clipping';

/** From the page to the worker that develops films into pictures. */
export type ToDeveloper =
  | {
      type: 'begin';
      picture: number;
      width: number;
      height: number;
      channels: number;
      /** See `Films.stokes`. */
      stokes: number;
      /** Fewest samples of every pixel from which on the picture is shown. */
      fewest: number;
      /** Films that are those of the picture before, finished and of the same size. */
      kept: readonly number[];
      /** Part of the frame it shows. */
      window: FrameWindow;
    }
  | { type: 'things'; picture: number; things: readonly Thing[] }
  | { type: 'overlay'; overlay: ToneOverlay }
  | { type: 'features'; picture: number; tile: Tile; features: DenoiseFeatures }
  | { type: 'tile'; picture: number; tile: Tile; sums: Float32Array; samples: number }
  | { type: 'weights'; weights: Float64Array<ArrayBuffer> }
  /** Asks for the picture as it is; the last time at once, before when there is time. */
  | { type: 'show'; picture: number; last: boolean }
  /** Asks for the picture on show as a file; it goes to whom the port belongs, or null while there is none. */
  | { type: 'file'; format: PictureFormat; port: MessagePort };

/** A developed picture, 8-bit sRGB with alpha. */
export interface FromDeveloper {
  picture: number;
  width: number;
  height: number;
  /** Fewest samples of any pixel. */
  samples: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  window: FrameWindow;
  /** Pixels to lay over it, and what they mean. */
  tones: ToneLayer | null;
}

export interface ToneLayer {
  overlay: ToneOverlay;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  /** Labels of the steps. */
  labels: StepLabel[];
  /** Parts of the shown picture that are lost, by what they are lost to. */
  lost: { black: number; paper: number; clipped: number };
  /** The same of each thing seen, parts of its visible surface; empty before the picture is refined. */
  byThing: { thing: Thing; black: number; paper: number; clipped: number }[];
}
