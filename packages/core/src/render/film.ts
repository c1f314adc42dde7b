/** A rectangle of pixels. */
export interface Tile {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * One linear film for each light: sums of luminance samples at unit luminance, red green blue.
 * data[((light * height + y) * width + x) * 3 + channel]; divide by the pixel's samples for the mean.
 */
export interface Films {
  width: number;
  height: number;
  lights: number;
  data: Float32Array;
  /** Samples each pixel has received. */
  samples: Uint32Array;
}

export function createFilms(width: number, height: number, lights: number): Films {
  return {
    width,
    height,
    lights,
    data: new Float32Array(width * height * lights * 3),
    samples: new Uint32Array(width * height),
  };
}

/** Adds a rendered tile (same layout, of the tile's size) to the films. */
export function addTile(films: Films, tile: Tile, sums: Float32Array, samples: number): void {
  const { width, height, data } = films;
  const row = tile.width * 3;
  for (let light = 0; light < films.lights; light++) {
    for (let y = 0; y < tile.height; y++) {
      const from = (light * tile.height + y) * row;
      const to = ((light * height + tile.y + y) * width + tile.x) * 3;
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
 * No ray is traced: power, shutter and on/off are in the weights.
 * @param weights one for each light
 */
export function developFilms(out: Float32Array, films: Films, weights: ArrayLike<number>): void {
  const { data, samples, lights } = films;
  const pixels = films.width * films.height;
  out.fill(0, 0, pixels * 3);
  for (let light = 0; light < lights; light++) {
    const weight = weights[light] as number;
    if (weight === 0) continue;
    const base = light * pixels * 3;
    for (let i = 0; i < pixels * 3; i++) {
      out[i] = (out[i] as number) + weight * (data[base + i] as number);
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
