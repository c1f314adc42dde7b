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
  data: Float32Array;
  /** Samples each pixel has received. */
  samples: Uint32Array;
}

export function createFilms(width: number, height: number, channels: number): Films {
  return {
    width,
    height,
    channels,
    data: new Float32Array(width * height * channels * 3),
    samples: new Uint32Array(width * height),
  };
}

/** Adds a rendered tile (same layout, of the tile's size) to the films. */
export function addTile(films: Films, tile: Tile, sums: Float32Array, samples: number): void {
  const { width, height, data } = films;
  const row = tile.width * 3;
  for (let channel = 0; channel < films.channels; channel++) {
    for (let y = 0; y < tile.height; y++) {
      const from = (channel * tile.height + y) * row;
      const to = ((channel * height + tile.y + y) * width + tile.x) * 3;
      for (let i = 0; i < row; i++) data[to + i] = (data[to + i] as number) + (sums[from + i] as number);
    }
  }
  for (let y = 0; y < tile.height; y++) {
    const start = (tile.y + y) * width + tile.x;
    for (let x = 0; x < tile.width; x++) {
      films.samples[start + x] = (films.samples[start + x] as number) + samples;
    }
  }
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
    }
  }
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
