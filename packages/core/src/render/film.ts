/** A rectangle of pixels. */
export interface Tile {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * One linear film for each channel (a light, or a part of its light): sums of luminance samples at unit luminance.
 * data[((channel * height + y) * width + x) * 3 + colour], colours red green blue; divide by the pixel's samples for the mean.
 */
export interface Films {
  width: number;
  height: number;
  channels: number;
  /** Films in a row that belong together: 3 where ways of polarisation are told apart, see `Channel.stokes`, else 1. */
  stokes: number;
  data: Float32Array;
  /** Samples each pixel has received. */
  samples: Uint32Array;
  /**
   * What about half of the samples have brought, all colours together, so that the noise is known: [channel * height *
   * width + pixel].
   */
  half: Float32Array;
  /** Samples of each pixel that are in `half`. */
  halfSamples: Uint32Array;
}

export function createFilms(width: number, height: number, channels: number, stokes = 1): Films {
  return {
    width,
    height,
    channels,
    stokes,
    data: new Float32Array(width * height * channels * 3),
    samples: new Uint32Array(width * height),
    half: new Float32Array(width * height * channels),
    halfSamples: new Uint32Array(width * height),
  };
}

/** Adds a rendered tile (same layout, of the tile's size) to the films. */
export function addTile(films: Films, tile: Tile, sums: Float32Array, samples: number): void {
  const { width, height, data, half } = films;
  const row = tile.width * 3;
  const first = tile.y * width + tile.x;
  const toHalf = 2 * (films.halfSamples[first] as number) < (films.samples[first] as number);
  for (let channel = 0; channel < films.channels; channel++) {
    for (let y = 0; y < tile.height; y++) {
      const from = (channel * tile.height + y) * row;
      const pixel = (channel * height + tile.y + y) * width + tile.x;
      for (let i = 0; i < row; i++) {
        const value = sums[from + i] as number;
        data[3 * pixel + i] = (data[3 * pixel + i] as number) + value;
        if (!toHalf) continue;
        const at = pixel + ((i / 3) | 0);
        half[at] = (half[at] as number) + value;
      }
    }
  }
  for (let y = 0; y < tile.height; y++) {
    const start = first + y * width;
    addTo(films.samples, start, tile.width, samples);
    if (toHalf) addTo(films.halfSamples, start, tile.width, samples);
  }
}

function addTo(counts: Uint32Array, first: number, count: number, samples: number): void {
  for (let i = first; i < first + count; i++) counts[i] = (counts[i] as number) + samples;
}

/**
 * Puts films of an earlier picture of the same size among those of one that is growing, at the samples it has so far.
 * @param channels places of the films to keep
 */
export function keepFilms(films: Films, earlier: Films, channels: readonly number[]): void {
  const pixels = films.width * films.height;
  for (const channel of channels) {
    const base = channel * pixels * 3;
    for (let pixel = 0; pixel < pixels; pixel++) {
      const scale = (films.samples[pixel] as number) / Math.max(1, earlier.samples[pixel] as number);
      const at = base + 3 * pixel;
      for (let c = 0; c < 3; c++) films.data[at + c] = scale * (earlier.data[at + c] as number);
      keepNoise(films, earlier, channel * pixels + pixel, pixel);
    }
  }
}

/** Makes the two parts of the samples differ by as much as says that the mean is as noisy as it was. */
function keepNoise(films: Films, earlier: Films, at: number, pixel: number): void {
  const part = films.halfSamples[pixel] as number;
  if (part === 0) return;
  const rest = (films.samples[pixel] as number) - part;
  const all = part + rest;
  const noise = Math.sqrt(noiseOfMean(earlier, at, pixel));
  films.half[at] = part * (sumOfColours(films, at) / all + noise * Math.sqrt(rest / part));
}

const sumOfColours = ({ data }: Films, at: number): number =>
  (data[3 * at] as number) + (data[3 * at + 1] as number) + (data[3 * at + 2] as number);

/**
 * Variance of a pixel's mean, all colours together, by how far its two parts lie apart; 0 where there is one part only.
 * Samples lie evenly over both parts, so that it is rather too much.
 * @param at channel * pixels + pixel
 */
export function noiseOfMean(films: Films, at: number, pixel: number): number {
  const part = films.halfSamples[pixel] as number;
  const all = films.samples[pixel] as number;
  if (part === 0) return 0;
  const half = films.half[at] as number;
  const apart = half / part - (sumOfColours(films, at) - half) / (all - part);
  return (apart * apart * part * (all - part)) / (all * all);
}

/** Cuts a picture into tiles, row by row; the last ones may be smaller. */
export function tilesOf(width: number, height: number, size: number): Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0; y < height; y += size) {
    for (let x = 0; x < width; x += size) {
      tiles.push({ x, y, width: Math.min(size, width - x), height: Math.min(size, height - y) });
    }
  }
  return tiles;
}

/**
 * Weighted sum of the films: linear red, green, blue, 3 a pixel.
 * No ray is traced: power, colour, shutter and on/off are in the weights.
 * @param weights three for each film: red, green, blue
 */
export function developFilms(out: Float32Array, films: Films, weights: ArrayLike<number>): void {
  const { data, samples, channels } = films;
  const pixels = films.width * films.height;
  out.fill(0, 0, pixels * 3);
  for (let channel = 0; channel < channels; channel++) {
    const red = weights[3 * channel] as number;
    const green = weights[3 * channel + 1] as number;
    const blue = weights[3 * channel + 2] as number;
    if (red === 0 && green === 0 && blue === 0) continue;
    const base = channel * pixels * 3;
    for (let i = 0; i < pixels * 3; i += 3) {
      out[i] = (out[i] as number) + red * (data[base + i] as number);
      out[i + 1] = (out[i + 1] as number) + green * (data[base + i + 1] as number);
      out[i + 2] = (out[i + 2] as number) + blue * (data[base + i + 2] as number);
    }
  }
  for (let pixel = 0; pixel < pixels; pixel++) {
    const count = samples[pixel] as number;
    if (count <= 1) continue;
    const inverse = 1 / count;
    const at = pixel * 3;
    out[at] = (out[at] as number) * inverse;
    out[at + 1] = (out[at + 1] as number) * inverse;
    out[at + 2] = (out[at + 2] as number) * inverse;
  }
}
