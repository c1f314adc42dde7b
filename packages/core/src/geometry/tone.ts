import type { Reflectance, Tone } from '@fendrix/contract';
import { ACROSS, OUT, RASTER, UP } from '../engine/layouts.js';
import { decodeSrgb } from '../exposure/display.js';
import { bytesOfBase64 } from '../units/base64.js';
import { drawLettering } from './lettering/drawLettering.js';

/** A printed tone made ready for lookup: a gradient, or a picture. */
export interface SurfaceTone {
  /** ACROSS, UP or OUT for a gradient, RASTER for a picture. */
  kind: number;
  /** Gradient: first tone, second tone, red green blue; start, end, gamma. */
  ends: Float64Array;
  /** Picture: linear reflectance, 3 a pixel, row by row from the top left. */
  raster: Float32Array;
  widthPx: number;
  heightPx: number;
}

/**
 * @param paper reflectance where nothing is printed
 * @param finish turns the reflectance of the print into that under a coat
 */
export function makeTone(
  tone: Tone,
  paper: readonly [number, number, number],
  finish: (reflectance: number) => number,
): SurfaceTone {
  const none = { ends: new Float64Array(9), raster: new Float32Array(0), widthPx: 0, heightPx: 0 };
  switch (tone.kind) {
    case 'gradient': {
      const ends = Float64Array.from([
        ...rgbOf(tone.from).map(finish),
        ...rgbOf(tone.to).map(finish),
        tone.start,
        tone.end,
        tone.gamma,
      ]);
      const kind = { across: ACROSS, up: UP, out: OUT }[tone.direction];
      return { ...none, kind, ends };
    }
    case 'picture': {
      const bytes = bytesOfBase64(tone.rgbBase64);
      const size = tone.widthPx * tone.heightPx * 3;
      const raster = new Float32Array(size);
      for (let i = 0; i < size; i++) raster[i] = finish(decodeSrgb((bytes[i] ?? 0) / 255));
      return { ...none, kind: RASTER, raster, widthPx: tone.widthPx, heightPx: tone.heightPx };
    }
    case 'text': {
      const { widthPx, heightPx, ink } = drawLettering(tone);
      const dark = rgbOf(tone.ink);
      // Ink covers by 255 steps: each is mixed with the paper and finished once.
      const mixed = Float32Array.from({ length: 3 * 256 }, (_, i) => {
        const cover = Math.floor(i / 3) / 255;
        return finish((paper[i % 3] as number) * (1 - cover) + (dark[i % 3] as number) * cover);
      });
      const raster = new Float32Array(widthPx * heightPx * 3);
      for (let pixel = 0; pixel < ink.length; pixel++) {
        const from = 3 * (ink[pixel] as number);
        raster[3 * pixel] = mixed[from] as number;
        raster[3 * pixel + 1] = mixed[from + 1] as number;
        raster[3 * pixel + 2] = mixed[from + 2] as number;
      }
      return { ...none, kind: RASTER, raster, widthPx, heightPx };
    }
  }
}

function rgbOf(reflectance: Reflectance): readonly number[] {
  return typeof reflectance === 'number' ? [reflectance, reflectance, reflectance] : reflectance;
}
