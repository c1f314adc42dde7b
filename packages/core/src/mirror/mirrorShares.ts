import type { Thing } from '../geometry/scene.js';
import { NO_PART } from '../render/look.js';
import type { MirrorMap } from './mirrorMap.js';

/** How much of a product's visible surface mirrors one thing. */
export interface MirrorShare {
  /** null for the dark beyond the set. */
  thing: Thing | null;
  /** Of the visible surface that mirrors at all, 0 to 1. */
  share: number;
}

/** What the whole visible surface of a product mirrors, largest part first; for domes and all that has no band. */
export function mirrorShares(map: MirrorMap, things: readonly Thing[], product: string): MirrorShare[] {
  const index = things.findIndex(({ kind, key }) => kind === 'product' && key === product);
  const counts = new Map<number, number>();
  let whole = 0;
  for (let pixel = 0; pixel < map.thing.length; pixel++) {
    const mirrored = map.mirrored[pixel] as number;
    if (map.thing[pixel] !== index || mirrored === NO_PART) continue;
    counts.set(mirrored, (counts.get(mirrored) ?? 0) + 1);
    whole++;
  }
  return [...counts]
    .map(([thing, count]) => ({ thing: things[thing] ?? null, share: count / whole }))
    .sort((a, b) => b.share - a.share);
}
