import { encodeMask16, encodePicture16 } from '@fendrix/core';
import { encode } from 'fast-png';
import { strToU8, type Zippable, zip } from 'fflate';

/** A plate as it goes into its files: linear light with paper white at 1, and what of it is taken, 0 to 1. */
export interface PlateFile {
  name: string;
  linear: Float32Array;
  mask: Float32Array;
}

/**
 * A folder of the frame of the set as it stands, the plates, their masks and all put together, as PNG of 16 bits, with
 * a list to read, packed as ZIP. Masks are straight: half of it is half of the value.
 */
export async function plateFiles(
  size: { width: number; height: number },
  base: Float32Array,
  plates: readonly PlateFile[],
  together: Float32Array,
  list: string,
): Promise<Blob> {
  const colour = (linear: Float32Array) =>
    encode({ ...size, data: encodePicture16(linear), depth: 16, channels: 3 });
  const grey = (mask: Float32Array) => encode({ ...size, data: encodeMask16(mask), depth: 16, channels: 1 });
  // Already packed.
  const stored = { level: 0 } as const;
  const files: Zippable = { 'list.txt': strToU8(list), '0 set as it stands.png': [colour(base), stored] };
  plates.forEach(({ name, linear, mask }, index) => {
    files[`${index + 1} ${name}.png`] = [colour(linear), stored];
    files[`${index + 1} ${name}, mask.png`] = [grey(mask), stored];
  });
  files['put together.png'] = [colour(together), stored];
  const bytes = await new Promise<Uint8Array>((resolve, reject) =>
    zip(files, (error, data) => (error ? reject(error) : resolve(data))),
  );
  return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/zip' });
}
