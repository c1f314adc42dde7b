import { createFeatures, type DenoiseFeatures, placeFeatures, type Tile, tilesOf } from '@fendrix/core';
import type { KeyedSet, RunOptions, WorkerPool } from './pool.js';

/** Side of the pieces in which what is seen is looked up, px: short enough to be cut off by a move. */
export const FEATURE_TILE = 128;

export interface FeaturePart {
  /** Within the part of the picture that was asked for. */
  tile: Tile;
  features: DenoiseFeatures;
}

/**
 * What the filter of the picture shown needs to know, in pieces.
 * @param size of the whole picture, px  @param part of it that is wanted
 */
export function featureParts(
  pool: WorkerPool,
  keyed: KeyedSet,
  { width, height }: { width: number; height: number },
  part: Tile,
  run: RunOptions = {},
): Promise<FeaturePart[]> {
  return Promise.all(
    tilesOf(part.width, part.height, FEATURE_TILE).map(async (tile) => {
      const inPicture = { ...tile, x: tile.x + part.x, y: tile.y + part.y };
      return {
        tile,
        features: await pool.run(keyed, { kind: 'features', width, height, tile: inPicture }, run),
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
  const parts = await featureParts(pool, keyed, { width, height }, { x: 0, y: 0, width, height });
  for (const { tile, features } of parts) placeFeatures(whole, tile, features);
  return whole;
}
