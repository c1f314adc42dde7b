import type { Reflectance } from '@fendrix/contract';
/** sRGB encoding of a linear value from 0 to 1. Source: IEC 61966-2-1. */
export function encodeSrgb(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
}

/** Linear value of an sRGB value from 0 to 1. Source: IEC 61966-2-1. */
export function decodeSrgb(value: number): number {
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
}

/** Steps of the encoding table: fine enough that no 8-bit value is off by more than one. */
const STEPS = 4096;
const table = Uint8ClampedArray.from({ length: STEPS + 1 }, (_, i) =>
  Math.round(255 * encodeSrgb((i / STEPS) ** 2)),
);

/**
 * Linear red, green, blue (3 a pixel, paper white at 1) as 8-bit sRGB with alpha (4 a pixel).
 * Above paper white it clips; that is the display, not the sensor.
 */
export function encodePicture(out: Uint8ClampedArray, linear: Float32Array): void {
  const pixels = out.length >> 2;
  for (let i = 0; i < pixels; i++) {
    out[4 * i] = encodeByte(linear[3 * i] as number);
    out[4 * i + 1] = encodeByte(linear[3 * i + 1] as number);
    out[4 * i + 2] = encodeByte(linear[3 * i + 2] as number);
    out[4 * i + 3] = 255;
  }
}

/** Linear red, green, blue, paper white at 1, as 16-bit sRGB. Above paper white it clips. */
export const encodePicture16 = (linear: Float32Array): Uint16Array =>
  Uint16Array.from(linear, (value) => (value > 0 ? Math.round(65535 * encodeSrgb(Math.min(1, value))) : 0));

function encodeByte(linear: number): number {
  if (!(linear > 0)) return 0;
  return linear >= 1 ? 255 : (table[(Math.sqrt(linear) * STEPS + 0.5) | 0] as number);
}

/** Luminance of a linear sRGB colour. Source: IEC 61966-2-1. */
export function luminanceOf(red: number, green: number, blue: number): number {
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** How light a surface is as one number: its reflectance, 0 to 1, weighed as the eye weighs colours. */
export const greyOf = (reflectance: Reflectance): number =>
  typeof reflectance === 'number' ? reflectance : luminanceOf(...reflectance);
