import { createPartMap, type PartMap, placeParts, type Tile, tilesOf } from '@fendrix/core';
import type { KeyedSet, RunOptions, WorkerPool } from './pool.js';
import { FEATURE_TILE } from './wholeFeatures.js';

/**
 * What is seen in a part of a picture, down to labels and liquids.
 * @param size of the whole picture, px  @param part of it that is wanted
 */
export async function partMapOf(
  pool: WorkerPool,
  keyed: KeyedSet,
  { width, height }: { width: number; height: number },
  part: Tile,
  run: RunOptions = {},
): Promise<PartMap> {
  const whole = createPartMap(part.width, part.height);
  await Promise.all(
    tilesOf(part.width, part.height, FEATURE_TILE).map(async (tile) => {
      const inPicture = { ...tile, x: tile.x + part.x, y: tile.y + part.y };
      placeParts(whole, tile, await pool.run(keyed, { kind: 'parts', width, height, tile: inPicture }, run));
    }),
  );
  return whole;
}
