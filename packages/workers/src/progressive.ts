import { addTile, channelsOf, createFilms, type Films, stokesOf, type Tile, tilesOf } from '@fendrix/core';
import { bakeSpread } from './bakeSpread.js';
import type { KeyedSet, WorkerPool } from './pool.js';

export interface Progress {
  films: Films;
  /** Samples that every pixel has. */
  samples: number;
  /** Tiles done of all tiles of all passes. */
  done: number;
  total: number;
}

export interface ProgressiveOptions {
  width: number;
  height: number;
  samples: number;
  seed: number;
  tileSize?: number;
  /** Samples of the first pass; each later pass takes as many as all before it, up to 4. */
  firstPass?: number;
  /** A tile gets so many samples before those further from the middle of the picture are begun, but for one that is: it can be shown tile by tile. */
  together?: number;
  /** Makes it a quick picture, see `TileJob.ambient` and `TileJob.sparse`. */
  ambient?: readonly number[];
  /** See `TileJob.wholePaths`. */
  wholePaths?: boolean;
  /** See `TileJob.fineBorders`; true if left out, but never of a quick picture. */
  fineBorders?: boolean;
  /** See `TileJob.channels`. */
  channels?: readonly number[];
  /** Only this part of a picture of `width` x `height`: films and tiles given out are those of the part. */
  window?: Tile;
  signal?: AbortSignal;
  priority?: number;
  /** See `RunOptions.atRest`. */
  atRest?: boolean;
  /** Takes each tile's sums instead of the films given back, which then stay empty. */
  onTile?(tile: Tile, sums: Float32Array, samples: number): void;
  /** Called after each tile. */
  onProgress?(progress: Progress): void;
}

/** Keeps a tile short, so that a worker is soon free for a set that has moved. */
const MOST_IN_PASS = 4;

/**
 * Renders the films of a set pass by pass. Each tile's passes are added in order, so the films are the same
 * to the last bit with one worker or many. Rejects at once when aborted.
 */
export async function renderProgressively(
  pool: WorkerPool,
  keyed: KeyedSet,
  options: ProgressiveOptions,
): Promise<Films> {
  const { width, height, samples, seed, signal, priority = 0, atRest = false } = options;
  if (!options.ambient && !options.wholePaths)
    await bakeSpread(pool, keyed, { priority, atRest, ...(signal ? { signal } : {}) });
  const part = options.window ?? { x: 0, y: 0, width, height };
  const stokes = stokesOf(keyed.set.camera).length;
  const films = createFilms(part.width, part.height, channelsOf(keyed.set).length, stokes);
  const how = {
    ...(options.ambient
      ? { ambient: options.ambient, sparse: true }
      : { fineBorders: options.fineBorders ?? true }),
    ...(options.wholePaths ? { wholePaths: true } : {}),
    ...(options.channels ? { channels: options.channels } : {}),
  };
  const tiles = fromTheMiddle(tilesOf(part.width, part.height, options.tileSize ?? 32), part);
  const together = options.together ?? 0;
  const passes = passesOf(samples, options.firstPass ?? 1);
  const total = tiles.length * passes.length;
  const sampled = new Int32Array(tiles.length);
  let done = 0;

  async function renderTilePass(index: number, pass: { first: number; count: number }): Promise<void> {
    const tile = tiles[index];
    if (!tile) return;
    const inPicture = { ...tile, x: tile.x + part.x, y: tile.y + part.y };
    const job = {
      width,
      height,
      tile: inPicture,
      firstSample: pass.first,
      samples: pass.count,
      seed,
      ...how,
    };
    // One that is to follow at once goes before the first of the next tile.
    const follows = pass.first > 0 && pass.first < together;
    const run = { priority: priority + (follows ? 1 : -pass.first), atRest, ...(signal ? { signal } : {}) };
    const sums = await pool.run(keyed, { kind: 'tile', job }, run);
    if (options.onTile) options.onTile(tile, sums, pass.count);
    else addTile(films, tile, sums, pass.count);
    done++;
    sampled[index] = pass.first + pass.count;
    options.onProgress?.({ films, samples: Math.min(...sampled), done, total });
  }

  await Promise.all(
    tiles.map(async (_, index) => {
      for (const pass of passes) await renderTilePass(index, pass);
    }),
  );
  return films;
}

/** Tiles by how far they are from the middle of a picture. */
function fromTheMiddle(tiles: Tile[], { width, height }: Pick<Tile, 'width' | 'height'>): Tile[] {
  const away = (tile: Tile) =>
    Math.hypot(tile.x + tile.width / 2 - width / 2, tile.y + tile.height / 2 - height / 2);
  return tiles.toSorted((a, b) => away(a) - away(b));
}

/** Passes of growing size that make up a number of samples. */
export function passesOf(samples: number, firstPass: number): { first: number; count: number }[] {
  const passes: { first: number; count: number }[] = [];
  let first = 0;
  while (first < samples) {
    const wanted = first === 0 ? firstPass : Math.min(first, MOST_IN_PASS);
    const count = Math.min(wanted, samples - first);
    passes.push({ first, count });
    first += count;
  }
  return passes;
}
