import type { Camera, Plate } from '@fendrix/contract';
import type { DenoiseFeatures, LightLayer, PartMap, StepLabel, Thing, Tile } from '@fendrix/core';
import type { FrameWindow } from './frameWindow';
import type { PictureFormat } from './pictureFile';

/** What the developer draws over the picture. */
export type ToneOverlay = 'none' | 'stops' | 'clipping';

/** A plate as it is laid: how its films are weighed, and where it goes. */
export interface LaidPlate {
  id: string;
  /** Name of its file, without its ending. */
  fileName: string;
  /** Films of its own, by what they are traced from; null for those of the set as it stands. */
  films: string | null;
  weights: Float64Array<ArrayBuffer>;
  mask: Pick<Plate, 'mask' | 'featherPart'>;
  /** With which it is taken. */
  camera: Camera;
  laid: boolean;
}

export interface LaidPlates {
  plates: LaidPlate[];
  /** Of the set as it stands. */
  camera: Camera;
  /** Plate whose mask is shown over the picture. */
  maskOf: string | null;
}

/** A picture that follows what moves: it comes whole, and in linear light. */
export interface QuickPicture {
  picture: number;
  width: number;
  height: number;
  /** Part of the frame it shows. */
  window: FrameWindow;
  /** What films were weighed by in each of its pictures. */
  mixes: readonly Float64Array[];
  /** One picture after the other, 3 a pixel. */
  linear: Float32Array;
  /** Of other powers only, beside the picture at rest: it does not come after that. */
  beside: boolean;
}

/** From the page to the worker that develops films into pictures. */
export type ToDeveloper =
  | ({ type: 'quick' } & QuickPicture)
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
      /** It comes and goes: the whole one before it is remembered. */
      passing: boolean;
      /** Films that are those of the whole picture before, finished and of the same size. */
      kept: readonly number[];
      /** Part of the frame it shows. */
      window: FrameWindow;
      /** Films of plates, see `LaidPlate.films`; null for the picture itself. */
      ofPlates: string | null;
    }
  /** Plates to lay over the picture; null for none. */
  | { type: 'plates'; laid: LaidPlates | null }
  /** What is seen where in a part of the frame, at a size of its own. */
  | { type: 'parts'; map: PartMap; things: readonly Thing[]; window: FrameWindow }
  | { type: 'things'; picture: number; things: readonly Thing[] }
  | { type: 'overlay'; overlay: ToneOverlay }
  | { type: 'features'; picture: number; tile: Tile; features: DenoiseFeatures }
  | { type: 'tile'; picture: number; tile: Tile; sums: Float32Array; samples: number }
  | { type: 'weights'; weights: Float64Array<ArrayBuffer> }
  /** Asks for the picture as it is; the last time at once, before when there is time. */
  | { type: 'show'; picture: number; last: boolean }
  /** Asks for the picture on show as a file; it goes to whom the port belongs, or null while there is none. */
  | { type: 'file'; format: PictureFormat; layers: LightLayer[]; port: MessagePort }
  /** Asks for the frame of the set, its plates and their masks as files of 16 bits, with a list to go with them. */
  | { type: 'plateFiles'; list: string; port: MessagePort };

/** A developed picture, 8-bit sRGB with alpha. */
export interface FromDeveloper {
  picture: number;
  width: number;
  height: number;
  /** Fewest samples of any pixel. */
  samples: number;
  /** Whether it is a `QuickPicture`: other powers need another one. */
  quick: boolean;
  /** Whether all of it is of its own size: until then what is not traced yet is that of the picture before, enlarged. */
  whole: boolean;
  pixels: Uint8ClampedArray<ArrayBuffer>;
  window: FrameWindow;
  /** Pixels to lay over it, and what they mean. */
  tones: ToneLayer | null;
  /** How many plates are in it, and how many are still on their way; null where none are to be laid. */
  plates: { laid: number; onTheirWay: number } | null;
  /** Pixels that show the mask that is looked at, to lay over it. */
  mask: Uint8ClampedArray<ArrayBuffer> | null;
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
