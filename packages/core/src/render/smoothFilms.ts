import type { Films } from './film.js';
import type { FilterGuide } from './guide.js';

/** Normals that differ by more than this (1 - cosine) are not mixed. */
const NORMAL_LIMIT = 0.05;
/** A pixel brighter than this many times its neighbourhood is taken down to it while there are few samples. */
const OUTLIER = 4;

/**
 * Radius of the preview filter for films of so many samples, px: wide while there is little to go by, none
 * from 128 samples on.
 */
export function smoothingRadius(samples: number): number {
  if (samples >= 128) return 0;
  return Math.max(1, Math.round(8 / Math.sqrt(samples)));
}

/**
 * Weighted means over the like neighbours of each pixel, film by film, for the preview only: numbers never see
 * it. Along rows, then columns, with weights that fall to the radius, within one region and one facing; single
 * bright pixels are first taken down to their neighbourhood.
 * @param out films of the same size; its samples are set to 1 where there are any
 */
export function smoothFilms(out: Films, films: Films, guide: FilterGuide, radius: number): void {
  const { width, height, channels, samples } = films;
  const pixels = width * height;
  const rows = new Float32Array(pixels * 3);
  const blurred = new Float32Array(pixels * 3);
  for (let pixel = 0; pixel < pixels; pixel++) out.samples[pixel] = (samples[pixel] as number) > 0 ? 1 : 0;
  for (let channel = 0; channel < channels; channel++) {
    const base = channel * pixels * 3;
    const target = out.data.subarray(base, base + pixels * 3);
    averageSamples(target, films, base);
    if (radius === 0) continue;
    if (radius > 1) {
      pass(rows, target, guide, samples, radius, 1, width);
      pass(blurred, rows, guide, samples, radius, width, height);
      takeDown(target, blurred, guide);
    }
    pass(rows, target, guide, samples, radius, 1, width);
    pass(target, rows, guide, samples, radius, width, height);
  }
}

function averageSamples(target: Float32Array, films: Films, base: number): void {
  for (let pixel = 0; pixel < films.samples.length; pixel++) {
    const count = films.samples[pixel] as number;
    const inverse = count > 0 ? 1 / count : 0;
    for (let c = 0; c < 3; c++) {
      target[3 * pixel + c] = (films.data[base + 3 * pixel + c] as number) * inverse;
    }
  }
}

function takeDown(target: Float32Array, blurred: Float32Array, { region }: FilterGuide): void {
  for (let i = 0; i < target.length; i++) {
    if (region[(i / 3) | 0] === 0) continue;
    const most = OUTLIER * (blurred[i] as number);
    if ((target[i] as number) > most) target[i] = most;
  }
}

/** One direction of the filter: `step` from a pixel to its next, `extent` pixels in that direction. */
function pass(
  out: Float32Array,
  from: Float32Array,
  { region, shiny, normal, width }: FilterGuide,
  samples: Uint32Array,
  radius: number,
  step: number,
  extent: number,
): void {
  const half = radius >> 1;
  for (let pixel = 0; pixel < region.length; pixel++) {
    const place = step === 1 ? pixel % width : Math.floor(pixel / width);
    const here = region[pixel] as number;
    const reach = shiny[pixel] === 1 ? half : radius;
    let red = from[3 * pixel] as number;
    let green = from[3 * pixel + 1] as number;
    let blue = from[3 * pixel + 2] as number;
    if (here !== 0 && reach > 0) {
      const nx = normal[3 * pixel] as number;
      const ny = normal[3 * pixel + 1] as number;
      const nz = normal[3 * pixel + 2] as number;
      let sum = 1;
      for (let k = -Math.min(reach, place); k <= reach && place + k < extent; k++) {
        const other = pixel + k * step;
        if (k === 0 || region[other] !== here || samples[other] === 0) continue;
        const cosine =
          nx * (normal[3 * other] as number) +
          ny * (normal[3 * other + 1] as number) +
          nz * (normal[3 * other + 2] as number);
        if (cosine < 1 - NORMAL_LIMIT) continue;
        const weight = 1 - Math.abs(k) / (reach + 1);
        red += weight * (from[3 * other] as number);
        green += weight * (from[3 * other + 1] as number);
        blue += weight * (from[3 * other + 2] as number);
        sum += weight;
      }
      red /= sum;
      green /= sum;
      blue /= sum;
    }
    out[3 * pixel] = red;
    out[3 * pixel + 1] = green;
    out[3 * pixel + 2] = blue;
  }
}
