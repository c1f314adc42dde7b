import type { i32 } from './portable.js';

/**
 * Mean of four runs of numbers, by shares. Plain; the WebAssembly build puts one with two numbers at a time here.
 * @param places where each run starts in `from`  @param size numbers in a run
 */
export function blendFour(
  out: Float64Array,
  from: Float64Array,
  places: Int32Array,
  shares: Float64Array,
  size: i32,
): void {
  for (let i = 0; i < size; i++) {
    let sum: number = 0;
    for (let k = 0; k < 4; k++) sum += shares[k] * from[places[k] + i];
    out[i] = sum;
  }
}

/** Adds light in red, green and blue to films, each colour times its factor. @param factor 3 */
export function addColoured(
  films: Float64Array,
  light: Float64Array,
  factor: Float64Array,
  channels: i32,
): void {
  for (let channel = 0; channel < channels; channel++) {
    for (let c = 0; c < 3; c++) {
      const i = 3 * channel + c;
      films[i] = films[i] + factor[c] * light[i];
    }
  }
}
