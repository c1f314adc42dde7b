import { decodeSrgb, edgeSigma, type MeasuredPatch, type SharpnessPatch } from '@fendrix/core';
import sharp from 'sharp';
import { shownBytes } from './readFrame.js';

/** A picture file as linear light, paper white at 1, of a size. The curve of the camera is taken to be that of sRGB. */
export async function linearOf(path: string, width: number, height: number): Promise<Float32Array> {
  const { shown } = await shownBytes(path);
  const { data } = await sharp(shown)
    .rotate()
    .toColourspace('srgb')
    .removeAlpha()
    .resize(width, height, { fit: 'fill' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return Float32Array.from(data, (value) => TABLE[value] as number);
}

/** Edges of a file in each patch, at its full size. */
export async function measuredPatches(
  path: string,
  patches: readonly SharpnessPatch[],
): Promise<{ width: number; measured: MeasuredPatch[] }> {
  const { shown } = await shownBytes(path);
  const { data, info } = await sharp(shown)
    .rotate()
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const measured = patches.map((patch): MeasuredPatch => {
    const reach = Math.max(8, Math.round(patch.half * width));
    const [x0, y0] = [Math.round(patch.across * width) - reach, Math.round(patch.down * height) - reach];
    const [left, top] = [Math.max(0, x0), Math.max(0, y0)];
    const across = Math.min(width, x0 + 2 * reach) - left;
    const down = Math.min(height, y0 + 2 * reach) - top;
    const light = new Float32Array(across * down);
    for (let y = 0; y < down; y++)
      for (let x = 0; x < across; x++)
        light[y * across + x] = TABLE[data[((top + y) * width + left + x) * channels] as number] as number;
    return { ...patch, sigmaPx: edgeSigma(light, across, down) };
  });
  return { width, measured };
}

const TABLE = Float32Array.from({ length: 256 }, (_, value) => decodeSrgb(value / 255));
