import type { Films } from './film.js';
import type { FilterGuide } from './guide.js';

/** Normals that differ by more than this (1 - cosine) are not mixed. */
const NORMAL_LIMIT = 0.05;

/**
 * Radius of the preview filter for films of so many samples, px: wide while there is little to go by, none
 * from 128 samples on.
 */
export function smoothingRadius(samples: number): number {
  if (samples >= 128) return 0;
  return Math.max(1, Math.round(7 / Math.sqrt(samples)));
}

/**
 * Means over the matte neighbours of each pixel, film by film, for the preview only: numbers never see it.
 * Two passes, along rows and columns, within one region and one facing. The weights depend on the guide alone,
 * so filtered films still add up.
 * @param out films of the same size; its samples are set to 1 where there are any
 */
export function smoothFilms(out: Films, films: Films, guide: FilterGuide, radius: number): void {
  const { width, height, lights } = films;
  const pixels = width * height;
  const rows = new Float32Array(pixels * 3);
  for (let pixel = 0; pixel < pixels; pixel++)
    out.samples[pixel] = (films.samples[pixel] as number) > 0 ? 1 : 0;
  for (let light = 0; light < lights; light++) {
    const base = light * pixels * 3;
    const target = out.data.subarray(base, base + pixels * 3);
    averageSamples(target, films, base);
    if (radius === 0) continue;
    pass(rows, target, guide, films.samples, radius, 1, width);
    pass(target, rows, guide, films.samples, radius, width, height);
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

/** One direction of the filter: `step` from a pixel to its next, `extent` pixels in that direction. */
function pass(
  out: Float32Array,
  from: Float32Array,
  { region, normal, width }: FilterGuide,
  samples: Uint32Array,
  radius: number,
  step: number,
  extent: number,
): void {
  for (let pixel = 0; pixel < region.length; pixel++) {
    const place = step === 1 ? pixel % width : Math.floor(pixel / width);
    const here = region[pixel] as number;
    let red = from[3 * pixel] as number;
    let green = from[3 * pixel + 1] as number;
    let blue = from[3 * pixel + 2] as number;
    if (here !== 0) {
      const nx = normal[3 * pixel] as number;
      const ny = normal[3 * pixel + 1] as number;
      const nz = normal[3 * pixel + 2] as number;
      let count = 1;
      for (let k = -Math.min(radius, place); k <= radius && place + k < extent; k++) {
        const other = pixel + k * step;
        if (k === 0 || region[other] !== here || samples[other] === 0) continue;
        const cosine =
          nx * (normal[3 * other] as number) +
          ny * (normal[3 * other + 1] as number) +
          nz * (normal[3 * other + 2] as number);
        if (cosine < 1 - NORMAL_LIMIT) continue;
        red += from[3 * other] as number;
        green += from[3 * other + 1] as number;
        blue += from[3 * other + 2] as number;
        count++;
      }
      red /= count;
      green /= count;
      blue /= count;
    }
    out[3 * pixel] = red;
    out[3 * pixel + 1] = green;
    out[3 * pixel + 2] = blue;
  }
}
