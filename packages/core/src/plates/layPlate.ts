import { decodeSrgb, encodeSrgb } from '../exposure/display.js';

/**
 * Lays a plate over a picture by its mask, both linear with paper white at 1, 3 a pixel. What fades is mixed by
 * encoded sRGB values, as programs do that put 16-bit files together: the picture shown is the one the files give.
 * Where the mask is whole the plate stays as it is, above paper white too.
 * @param mask 0 to 1 a pixel
 */
export function layPlate(picture: Float32Array, plate: Float32Array, mask: Float32Array): void {
  for (let pixel = 0; pixel < mask.length; pixel++) {
    const part = mask[pixel] as number;
    if (part <= 0) continue;
    for (let i = 3 * pixel; i < 3 * pixel + 3; i++) {
      const over = plate[i] as number;
      picture[i] = part >= 1 ? over : mixed(picture[i] as number, over, part);
    }
  }
}

function mixed(under: number, over: number, part: number): number {
  const encoded = (linear: number) => encodeSrgb(Math.max(0, Math.min(1, linear)));
  return decodeSrgb((1 - part) * encoded(under) + part * encoded(over));
}

/**
 * A mask of another size by the means of the pixels that fall together, or by the nearest pixel where there are fewer.
 */
export function resizeMask(
  mask: Float32Array,
  from: { width: number; height: number },
  to: { width: number; height: number },
): Float32Array {
  if (from.width === to.width && from.height === to.height) return mask;
  const out = new Float32Array(to.width * to.height);
  for (let y = 0; y < to.height; y++) {
    const [top, bottom] = span(y, from.height / to.height);
    for (let x = 0; x < to.width; x++) {
      const [left, right] = span(x, from.width / to.width);
      let sum = 0;
      for (let j = top; j < bottom; j++) {
        for (let i = left; i < right; i++) sum += mask[j * from.width + i] as number;
      }
      out[y * to.width + x] = sum / ((bottom - top) * (right - left));
    }
  }
  return out;
}

/** Pixels of the larger picture that one of the smaller one takes; at least one. */
function span(place: number, scale: number): [number, number] {
  const first = Math.floor(place * scale);
  return [first, Math.max(first + 1, Math.floor((place + 1) * scale))];
}
