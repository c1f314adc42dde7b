import { createFeatures, type DenoiseFeatures, placeFeatures, type Tile, tilesOf } from '@fendrix/core';
import type { KeyedSet, RunOptions, WorkerPool } from './pool.js';

/** Side of the pieces in which a guide is made, px: short enough to be cut off by a move. */
const GUIDE_TILE = 128;

export interface GuidePart {
  /** Within the part of the picture that was asked for. */
  tile: Tile;
  guide: DenoiseFeatures;
}

/**
 * What the filter of the picture shown needs to know, in pieces.
 * @param size of the whole picture, px  @param part of it that is wanted
 */
export function guideParts(
  pool: WorkerPool,
  keyed: KeyedSet,
  { width, height }: { width: number; height: number },
  part: Tile,
  run: RunOptions = {},
): Promise<GuidePart[]> {
  return Promise.all(
    tilesOf(part.width, part.height, GUIDE_TILE).map(async (tile) => {
      const inPicture = { ...tile, x: tile.x + part.x, y: tile.y + part.y };
      return {
        tile,
        guide: await pool.run(keyed, { kind: 'guide', width, height, tile: inPicture }, run),
      };
    }),
  );
}

/** The same for the whole picture, in one. */
export async function wholeFeatures(
  pool: WorkerPool,
  keyed: KeyedSet,
  width: number,
  height: number,
): Promise<DenoiseFeatures> {
  const whole = createFeatures(width, height);
  const parts = await guideParts(pool, keyed, { width, height }, { x: 0, y: 0, width, height });
  for (const { tile, guide } of parts) placeFeatures(whole, tile, guide);
  return whole;
}
