import type { DenoiseFeatures } from './denoiseFeatures.js';
import { type Films, noiseOfMean } from './film.js';

/** Normals that differ by more than this (1 - cosine) are not mixed. */
const NORMAL_LIMIT = 0.05;
/** How far the mean of the neighbours reaches along rows and columns, px; it is taken twice. */
const RADIUS = 3;
/** The same on what mirrors or is clear, and while there is one sample only. */
const SHINY_RADIUS = 1;
const FIRST_RADIUS = 1;
/** Noise and what the filter changes are known from so many pixels each way; a change of few pixels, an edge of shade, from the nearest. */
const NOISE_RADIUS = 2;
const EDGE_RADIUS = 1;
/**
 * Samples lie evenly over both parts, so that the parts differ more than the mean is off: of the noise they tell this part is real
 * at so many samples and fewer, in proportion at more, never less than the least.
 */
const TOLD_WHOLE = 2;
const LEAST_REAL = 0.3;
/** Of one sample nothing is known of its noise: it keeps so much of itself. */
const FIRST_PART = 0.7;
/** Added to a luminance that noise is held against, so that black is not divided by. */
const BLACK = 1e-9;
/** Of a pixel's own noise at least this part counts, so that a single bright sample is known as noise. */
const OWN_NOISE = 0.25;
/** What differs by more than the root of so many times the noise is no noise. */
const SURE = 9;
/** What is brighter than its neighbours by the root of no more than so many times its own noise is so by a single sample. */
const BY_ONE = 2;
/**
 * A pixel brighter than this many times its neighbourhood is taken down to it, unless it is no noise: one of a single sample, of few,
 * and of many by its samples, as what is still bright then is mostly light.
 */
const FIRST_OUTLIER = 2;
const OUTLIER = 4;
const OUTLIER_BY_SAMPLES = 0.5;

/** Columns taken at once, so that memory is read along rows. */
const STRIP = 16;

/** How many neighbours of a pixel are of its kind, without a gap, to each side. */
interface Reach {
  left: Uint8Array;
  right: Uint8Array;
  up: Uint8Array;
  down: Uint8Array;
}

/**
 * The films as shown: where like neighbours differ from a pixel by no more than its noise they are mixed into it.
 * The mean of the neighbours within one region and one facing is taken as far as it is better than the pixel alone: in
 * the proportion of the noise to noise and error of that mean, both known from how far the two parts of the samples
 * lie apart, over the pixels round about. The more samples, the less is changed. A pixel of one sample goes most of the way to the mean.
 * Numbers never see it. Errors measured: docs/physics/render.md
 * @param out films of the same size; its samples are set to 1 where there are any
 * Source: after Rousselle, Knaus and Zwicker 2012 (two halves of the samples for the error of a filter)
 */
export function smoothFilms(out: Films, films: Films, features: DenoiseFeatures): void {
  const { width, height, channels, stokes, samples } = films;
  const pixels = width * height;
  const filmOf = (channel: number) => out.data.subarray(channel * 3 * pixels, (channel + 1) * 3 * pixels);
  for (let pixel = 0; pixel < pixels; pixel++) out.samples[pixel] = (samples[pixel] as number) > 0 ? 1 : 0;
  for (let channel = 0; channel < channels; channel++) averageSamples(filmOf(channel), films, channel);
  if (!features.region.some((region) => region !== 0)) return;

  const radius = samples.includes(1) ? FIRST_RADIUS : RADIUS;
  const wide = reachOf(features, films);
  const reach = narrowed(wide, (pixel) => (features.shiny[pixel] === 1 ? SHINY_RADIUS : radius));
  const near = narrowed(reach, () => NOISE_RADIUS);
  const nearest = narrowed(reach, () => EDGE_RADIUS);
  const changedNearest = new Float32Array(pixels);
  const smooth = new Float32Array(3 * pixels);
  const along = new Float32Array(3 * pixels);
  const noise = new Float32Array(pixels);
  const changed = new Float32Array(pixels);
  const part = new Float32Array(pixels);
  const kept = new Float32Array(pixels);
  const single = new Uint8Array(pixels);
  const beside = new Float32Array(pixels);
  for (let channel = 0; channel < channels; channel += stokes) {
    const own = filmOf(channel);
    // Where nothing is known, all that differs may be noise.
    const noiseAt = (pixel: number, change: number) =>
      (films.halfSamples[pixel] as number) > 0 ? noiseOfMean(films, channel * pixels + pixel, pixel) : change;
    for (let pixel = 0; pixel < pixels; pixel++) noise[pixel] = sumAt(own, pixel);
    meanOfNeighbours(changed, along, noise, 1, width, wide);
    brightestBeside(beside, own, features);
    takeDown(kept, own, changed, beside, samples, noiseAt);
    meanOfNeighbours(smooth, along, own, 3, width, reach);
    meanOfNeighbours(smooth, along, smooth, 3, width, reach);
    for (let pixel = 0; pixel < pixels; pixel++) {
      const change = sumAt(smooth, pixel) - sumAt(own, pixel);
      // Over the luminance there: the eye sees parts, and dark beside bright is not to pay for the bright one's noise.
      const light = (sumAt(smooth, pixel) + sumAt(own, pixel)) / 2 + BLACK;
      changed[pixel] = (change / light) ** 2;
      noise[pixel] = noiseAt(pixel, change * change) / light ** 2;
      const brighter = sumAt(own, pixel) > Math.max(sumAt(smooth, pixel), beside[pixel] as number);
      single[pixel] = brighter && (changed[pixel] as number) <= BY_ONE * (noise[pixel] as number) ? 1 : 0;
    }
    meanOfNeighbours(changedNearest, along, changed, 1, width, nearest);
    partsToMix(part, samples, single, noise, changed, changedNearest, along, width, near);
    mix(own, smooth, part);
    // How the light is polarised is changed as the light itself, so that no filter makes a pixel darker than black.
    for (let other = channel + 1; other < channel + stokes; other++) {
      const film = filmOf(other);
      for (let i = 0; i < 3 * pixels; i++) film[i] = (film[i] as number) * (kept[(i / 3) | 0] as number);
      meanOfNeighbours(smooth, along, film, 3, width, reach);
      meanOfNeighbours(smooth, along, smooth, 3, width, reach);
      mix(film, smooth, part);
    }
  }
}

const sumAt = (film: Float32Array, pixel: number): number =>
  (film[3 * pixel] as number) + (film[3 * pixel + 1] as number) + (film[3 * pixel + 2] as number);

function averageSamples(target: Float32Array, { data, samples }: Films, channel: number): void {
  const base = channel * 3 * samples.length;
  for (let pixel = 0; pixel < samples.length; pixel++) {
    const count = samples[pixel] as number;
    const inverse = count > 0 ? 1 / count : 0;
    for (let c = 0; c < 3; c++) target[3 * pixel + c] = (data[base + 3 * pixel + c] as number) * inverse;
  }
}

/** Of the four pixels beside each the brightest that is of another kind, all colours together; a pixel at an edge may be as bright. */
function brightestBeside(out: Float32Array, own: Float32Array, { region, width }: DenoiseFeatures): void {
  out.fill(0);
  const other = (pixel: number, next: number) => {
    if (region[pixel] === region[next]) return;
    out[pixel] = Math.max(out[pixel] as number, sumAt(own, next));
    out[next] = Math.max(out[next] as number, sumAt(own, pixel));
  };
  for (let pixel = 0; pixel < region.length; pixel++) {
    if ((pixel + 1) % width > 0) other(pixel, pixel + 1);
    if (pixel + width < region.length) other(pixel, pixel + width);
  }
}

/**
 * Takes single bright pixels down to their neighbourhood, or to what is beside them of another kind.
 * @param kept part of each that stays  @param round mean round each, all colours together
 */
function takeDown(
  kept: Float32Array,
  own: Float32Array,
  round: Float32Array,
  beside: Float32Array,
  samples: Uint32Array,
  noiseAt: (pixel: number, change: number) => number,
): void {
  for (let pixel = 0; pixel < round.length; pixel++) {
    kept[pixel] = 1;
    const here = sumAt(own, pixel);
    const count = samples[pixel] as number;
    const times = count > 1 ? Math.max(OUTLIER, OUTLIER_BY_SAMPLES * count) : FIRST_OUTLIER;
    const most = Math.max(times * (round[pixel] as number), beside[pixel] as number);
    if (!(here > most)) continue;
    const over = (here - most) ** 2;
    if (over > SURE * noiseAt(pixel, over)) continue;
    kept[pixel] = most / here;
    for (let i = 3 * pixel; i < 3 * pixel + 3; i++) own[i] = ((own[i] as number) * most) / here;
  }
}

/** By how much each pixel is moved towards the mean of its neighbours. @param single 1 for each that is bright by a single sample */
function partsToMix(
  part: Float32Array,
  samples: Uint32Array,
  single: Uint8Array,
  noise: Float32Array,
  changed: Float32Array,
  changedNearest: Float32Array,
  along: Float32Array,
  width: number,
  reach: Reach,
): void {
  const meanNoise = new Float32Array(noise.length);
  const meanChange = new Float32Array(noise.length);
  meanOfNeighbours(meanNoise, along, noise, 1, width, reach);
  meanOfNeighbours(meanChange, along, changed, 1, width, reach);
  for (let pixel = 0; pixel < noise.length; pixel++) {
    const real = Math.max(LEAST_REAL, Math.min(1, TOLD_WHOLE / (samples[pixel] as number)));
    const own = (single[pixel] === 1 ? 1 : real) * OWN_NOISE * (noise[pixel] as number);
    const variance = Math.max(real * (meanNoise[pixel] as number), own);
    part[pixel] = 0;
    if (!(variance > 0)) continue;
    const error = Math.max(
      0,
      (meanChange[pixel] as number) - variance,
      (changedNearest[pixel] as number) - variance,
      (changed[pixel] as number) - SURE * variance,
    );
    part[pixel] = ((samples[pixel] as number) > 1 ? 1 : FIRST_PART) * (variance / (variance + error));
  }
}

/** Moves each pixel by its part towards the mean of its neighbours. */
function mix(own: Float32Array, smooth: Float32Array, part: Float32Array): void {
  for (let i = 0; i < own.length; i++) {
    own[i] =
      (own[i] as number) + (part[(i / 3) | 0] as number) * ((smooth[i] as number) - (own[i] as number));
  }
}

/** Even mean over the neighbours within reach along rows, then along columns. `out` may be `from`. */
function meanOfNeighbours(
  out: Float32Array,
  along: Float32Array,
  from: Float32Array,
  size: 1 | 3,
  width: number,
  reach: Reach,
): void {
  meanAlongRows(along, from, size, width, reach);
  meanAlongColumns(out, along, size, width, reach);
}

function meanAlongRows(
  out: Float32Array,
  from: Float32Array,
  size: 1 | 3,
  width: number,
  { left, right }: Reach,
): void {
  const running = new Float64Array(size * (width + 1));
  for (let row = 0; row < left.length; row += width) {
    for (let i = 0; i < size * width; i++) {
      running[i + size] = (running[i] as number) + (from[size * row + i] as number);
    }
    for (let x = 0; x < width; x++) {
      const begin = x - (left[row + x] as number);
      const end = x + 1 + (right[row + x] as number);
      const share = 1 / (end - begin);
      for (let c = 0; c < size; c++) {
        const whole = (running[size * end + c] as number) - (running[size * begin + c] as number);
        out[size * (row + x) + c] = whole * share;
      }
    }
  }
}

function meanAlongColumns(
  out: Float32Array,
  from: Float32Array,
  size: 1 | 3,
  width: number,
  { up, down }: Reach,
): void {
  const height = up.length / width;
  const running = new Float64Array(size * STRIP * (height + 1));
  for (let first = 0; first < width; first += STRIP) {
    const values = size * Math.min(STRIP, width - first);
    for (let y = 0; y < height; y++) {
      const start = size * (y * width + first);
      for (let i = 0; i < values; i++) {
        running[(y + 1) * values + i] = (running[y * values + i] as number) + (from[start + i] as number);
      }
    }
    for (let y = 0; y < height; y++) {
      for (let i = 0; i < values; i += size) {
        const pixel = y * width + first + i / size;
        const begin = y - (up[pixel] as number);
        const end = y + 1 + (down[pixel] as number);
        const share = 1 / (end - begin);
        for (let c = 0; c < size; c++) {
          const whole =
            (running[end * values + i + c] as number) - (running[begin * values + i + c] as number);
          out[size * pixel + c] = whole * share;
        }
      }
    }
  }
}

function reachOf(features: DenoiseFeatures, { samples }: Films): Reach {
  const { width, region } = features;
  const pixels = region.length;
  const height = pixels / width;
  const reach: Reach = {
    left: new Uint8Array(pixels),
    right: new Uint8Array(pixels),
    up: new Uint8Array(pixels),
    down: new Uint8Array(pixels),
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const pixel = y * width + x;
      if (region[pixel] === 0) continue;
      // As far to both sides at the border of the picture: light that falls off there is not bent.
      const across = Math.min(RADIUS, x, width - 1 - x);
      const along = Math.min(RADIUS, y, height - 1 - y);
      reach.left[pixel] = alike(features, samples, pixel, -1, across);
      reach.right[pixel] = alike(features, samples, pixel, 1, across);
      reach.up[pixel] = alike(features, samples, pixel, -width, along);
      reach.down[pixel] = alike(features, samples, pixel, width, along);
    }
  }
  return reach;
}

/** The same with at most so many pixels for each. */
function narrowed(reach: Reach, most: (pixel: number) => number): Reach {
  const held = (side: Uint8Array) => side.map((count, pixel) => Math.min(count, most(pixel)));
  return { left: held(reach.left), right: held(reach.right), up: held(reach.up), down: held(reach.down) };
}

/** How many pixels in a row from one on are of its kind and have samples, at most `most`. */
function alike(
  { region, normal }: DenoiseFeatures,
  samples: Uint32Array,
  pixel: number,
  step: number,
  most: number,
): number {
  for (let k = 1; k <= most; k++) {
    const other = pixel + k * step;
    if (region[other] !== region[pixel] || samples[other] === 0) return k - 1;
    let cosine = 0;
    for (let a = 0; a < 3; a++) {
      cosine += (normal[3 * pixel + a] as number) * (normal[3 * other + a] as number);
    }
    if (cosine < 1 - NORMAL_LIMIT) return k - 1;
  }
  return most;
}
