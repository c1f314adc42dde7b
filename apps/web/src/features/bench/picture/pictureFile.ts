import { encodePicture, encodePicture16 } from '@fendrix/core';

/** Open formats that a picture is saved in. */
export type PictureFormat = 'png' | 'jpeg' | 'png16' | 'exr';

/** A picture in linear light, red, green, blue of each pixel, paper white at 1. */
export interface LinearPicture {
  width: number;
  height: number;
  linear: Float32Array;
}

const JPEG_QUALITY = 0.92;

/** The picture of one light alone, linear. */
export interface PictureLayer {
  name: string;
  linear: Float32Array;
}

/**
 * A developed picture as a file: in sRGB, 8 bits a channel as PNG or JPEG, or 16 as PNG; linear with its layers as OpenEXR.
 * @param layers for OpenEXR
 */
export async function encodePictureFile(
  { width, height, linear }: LinearPicture,
  format: PictureFormat,
  layers: readonly PictureLayer[],
): Promise<Blob> {
  if (format === 'exr') {
    const { encodeOpenExr } = await import('@fendrix/files');
    const all = [{ name: '', linear }, ...layers].map(({ name, linear: rgb }) => ({ name, rgb }));
    return new Blob([encodeOpenExr(width, height, all) as Uint8Array<ArrayBuffer>], { type: 'image/x-exr' });
  }
  if (format === 'png16') {
    const { encode } = await import('fast-png');
    const data = encodePicture16(linear);
    const bytes = encode({ width, height, data, depth: 16, channels: 3 });
    return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'image/png' });
  }
  const pixels = new Uint8ClampedArray(width * height * 4);
  encodePicture(pixels, linear);
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.convertToBlob({ type: `image/${format}`, quality: JPEG_QUALITY });
}
