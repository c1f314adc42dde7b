import { createFeatures, type DenoiseFeatures } from './denoiseFeatures.js';
import { createFilms, type Films, type Tile } from './film.js';
import { smoothFilms } from './smoothFilms.js';

/** As far round a pixel as the filter looks: a mean taken twice, and the noise beside what that reaches, px. */
const ROUND = 8;

/**
 * Films of a tile as shown, of a picture that is not whole yet: as `smoothFilms`, but from the pixels in and round the tile that have
 * enough samples. Along tiles that are missing it mixes over fewer pixels than it will when they are there.
 * @param out films of the whole picture: those of the tile are written, its samples become 1
 * @param fewest samples of a pixel that is used
 */
export function smoothTile(
  out: Films,
  films: Films,
  features: DenoiseFeatures,
  tile: Tile,
  fewest: number,
): void {
  const { width, height, channels, stokes } = films;
  const left = Math.max(0, tile.x - ROUND);
  const top = Math.max(0, tile.y - ROUND);
  const part = {
    x: left,
    y: top,
    width: Math.min(width, tile.x + tile.width + ROUND) - left,
    height: Math.min(height, tile.y + tile.height + ROUND) - top,
  };
  const near = createFilms(part.width, part.height, channels, stokes);
  const smooth = createFilms(part.width, part.height, channels, stokes);
  const seen = createFeatures(part.width, part.height);
  const size = part.width * part.height;
  /** Takes the part out of planes of so many numbers a pixel. */
  const take = (to: Plane, from: Plane, numbers: number, planes = 1) => {
    for (let plane = 0; plane < planes; plane++)
      for (let y = 0; y < part.height; y++) {
        const at = numbers * (plane * width * height + (top + y) * width + left);
        to.set(from.subarray(at, at + numbers * part.width), numbers * (plane * size + y * part.width));
      }
  };
  take(near.data, films.data, 3, channels);
  take(near.half, films.half, 1, channels);
  take(near.samples, films.samples, 1);
  take(near.halfSamples, films.halfSamples, 1);
  take(seen.region, features.region, 1);
  take(seen.shiny, features.shiny, 1);
  take(seen.normal, features.normal, 3);
  near.samples.forEach((count, pixel) => {
    if (count >= fewest) return;
    near.samples[pixel] = 0;
    near.halfSamples[pixel] = 0;
  });
  smoothFilms(smooth, near, seen);
  for (let y = 0; y < tile.height; y++) {
    const to = (tile.y + y) * width + tile.x;
    const from = (tile.y - top + y) * part.width + tile.x - left;
    out.samples.fill(1, to, to + tile.width);
    for (let channel = 0; channel < channels; channel++) {
      const at = 3 * (channel * size + from);
      out.data.set(smooth.data.subarray(at, at + 3 * tile.width), 3 * (channel * width * height + to));
    }
  }
}

type Plane = Float32Array | Uint32Array | Int32Array | Uint8Array;
