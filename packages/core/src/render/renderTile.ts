import { SPECULAR_ALONE, SPECULAR_LEFT_OUT } from '../engine/path/traceMode.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { BORDER, borderPixels, GLINT, WITHIN } from './borderPixels.js';
import type { Tile } from './film.js';
import { bakeLightmaps, type Tracing } from './prepareTracing.js';
import { placesOf, renderListed } from './renderListed.js';
import { renderSparsely } from './renderSparsely.js';
import { viewOfShape, writeView } from './view.js';

export interface TileJob {
  /** Of the whole picture, px. */
  width: number;
  height: number;
  tile: Tile;
  firstSample: number;
  samples: number;
  seed: number;
  /** Quick picture: luminance that stands for bounced light, for each film (see `ambientByLight`). */
  ambient?: readonly number[];
  /** Trace the whole path of light instead of ending it on lightmaps: slower, without their bias. */
  wholePaths?: boolean;
  /** Of a quick picture: not every pixel is traced, see `renderSparsely`. */
  sparse?: boolean;
  /** Pixels in which light differs most get more paths for each sample, see `borderPixels`. */
  fineBorders?: boolean;
  /** Only these films, by place; each is the same to the last bit as among all. All if left out. */
  channels?: readonly number[];
  /** In place of its films the tile has a picture in linear light for each of these, films weighed by three numbers each. */
  mixes?: readonly ArrayLike<number>[];
}

/** Paths for each sample of a pixel at a border: with four the picture is no better in the same time (docs/physics/render.md). */
const BORDER_PATHS = 2;
/** Specular paths for each sample of a glint; with another seed, since a sequence is even by itself alone. */
const SPECULAR_PATHS = 8;
const SPECULAR_SEED = 0x2f6b1d;

/**
 * Samples every pixel of a tile (box filter over the pixel; pinhole, or the lens's entrance pupil where depth of
 * field is on) and returns the sums for each film (or mix of them), in the layout of `Films` at the tile's size.
 * The same job gives the same numbers on any worker.
 */
export function renderTile(tracing: Tracing, job: TileJob): Float32Array {
  const { engine, scene } = tracing;
  const { tile, width, height } = job;
  const films = job.mixes?.length ?? scene.channelCount;
  const sums = new Float32Array(tile.width * tile.height * films * 3);
  const lightmaps = !job.ambient && !job.wholePaths;
  if (lightmaps) bakeLightmaps(tracing);
  const borders = job.fineBorders ? borderPixels(tracing, width, height, tile) : null;
  const mode = { quick: job.ambient !== undefined, lightmaps };
  engine.reseed(job.seed);
  engine.setMode(mode);
  if (job.ambient) engine.ambient.set(job.ambient);
  for (let channel = 0; channel < scene.channelCount; channel++)
    engine.wanted[channel] = isWanted(job, channel) ? 1 : 0;
  writeView(engine.view, viewOfShape(tracing.view, width, height));
  if (job.sparse) renderSparsely(sums, tile, (some, seen) => renderPlaces(tracing, job, 1, sums, some, seen));
  else if (!borders) renderPlaces(tracing, job, 1, sums, placesOf(tile), null);
  else {
    const those = (kind: number) => placesOf(tile).filter((place) => borders[place] === kind);
    const glints = those(GLINT);
    renderPlaces(tracing, job, 1, sums, those(WITHIN), null);
    renderPlaces(tracing, job, BORDER_PATHS, sums, those(BORDER), null);
    engine.setMode({ ...mode, specular: SPECULAR_LEFT_OUT });
    renderPlaces(tracing, job, BORDER_PATHS, sums, glints, null);
    engine.setMode({ ...mode, specular: SPECULAR_ALONE });
    engine.reseed(job.seed ^ SPECULAR_SEED);
    renderPlaces(tracing, job, SPECULAR_PATHS, sums, glints, null);
  }
  engine.setMode({});
  engine.wanted.fill(1);
  return sums;
}

function isWanted({ channels, mixes }: TileJob, channel: number): boolean {
  if (channels && !channels.includes(channel)) return false;
  return !mixes || mixes.some((weights) => [0, 1, 2].some((c) => weights[3 * channel + c] !== 0));
}

/**
 * Renders places of a tile (row after row from 0) into `sums`.
 * @param paths for each sample  @param seen what each of them sees sharply, by place; null where nobody asks
 */
function renderPlaces(
  { engine }: Tracing,
  job: TileJob,
  paths: number,
  sums: Float32Array,
  places: Int32Array,
  seen: Float64Array | null,
): void {
  const { list } = engine;
  const run = { firstSample: paths * job.firstSample, samples: paths * job.samples };
  const add = job.mixes
    ? intoMixes(engine, job, job.mixes, paths, sums)
    : intoFilms(engine, job, paths, sums);
  renderListed(engine, job, places, run, (place, index) => {
    if (seen) seen[place] = list[index] as number;
    add(place, index);
  });
}

/** Adds what the engine has rendered at an index to a place of a tile. */
type AddPlace = (place: number, index: number) => void;

function intoFilms(
  { pixels, wanted }: EngineCalls,
  { tile }: TileJob,
  paths: number,
  sums: Float32Array,
): AddPlace {
  const size = tile.width * tile.height;
  const channels = wanted.length;
  return (place, index) => {
    for (let channel = 0; channel < channels; channel++) {
      if (wanted[channel] === 0) continue;
      const to = 3 * (channel * size + place);
      const at = 3 * (index * channels + channel);
      for (let c = 0; c < 3; c++)
        sums[to + c] = (sums[to + c] as number) + (pixels[at + c] as number) / paths;
    }
  };
}

function intoMixes(
  { pixels, wanted }: EngineCalls,
  { tile }: TileJob,
  mixes: readonly ArrayLike<number>[],
  paths: number,
  sums: Float32Array,
): AddPlace {
  const size = tile.width * tile.height;
  const channels = wanted.length;
  return (place, index) => {
    for (let mix = 0; mix < mixes.length; mix++) {
      const weights = mixes[mix] as ArrayLike<number>;
      const to = 3 * (mix * size + place);
      for (let channel = 0; channel < channels; channel++) {
        if (wanted[channel] === 0) continue;
        const at = 3 * (index * channels + channel);
        for (let c = 0; c < 3; c++) {
          const weighed = (weights[3 * channel + c] as number) * (pixels[at + c] as number);
          sums[to + c] = (sums[to + c] as number) + weighed / paths;
        }
      }
    }
  };
}
