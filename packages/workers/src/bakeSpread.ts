import type { Gathered } from '@fendrix/core';
import type { KeyedSet, RunOptions, WorkerPool } from './pool.js';

/**
 * Bakes the light of a set with all workers that are free, each a part, and hands it to every one of them: what each would bake
 * for itself to the last bit. Does nothing where it is known already, as after a move of the camera alone, nor where one worker is
 * all there is: it bakes when asked for a picture.
 */
export async function bakeSpread(pool: WorkerPool, keyed: KeyedSet, run: RunOptions = {}): Promise<void> {
  const of = pool.helpers(run.atRest ?? false);
  if (of === 1 || pool.isLit(keyed)) return;
  const inParts = <T>(ask: (part: number) => Promise<T>) =>
    Promise.all(Array.from({ length: of }, (_, part) => ask(part)));
  const found = await inParts((part) => pool.run(keyed, { kind: 'gather', part, of }, run));
  const parts: Gathered[] = [];
  for (const one of found) {
    if ('known' in one) return pool.giveLight(keyed, one.known);
    parts.push(one.gathered);
  }
  const solved = await pool.run(keyed, { kind: 'solve', parts }, run);
  const photons = await inParts((part) => pool.run(keyed, { kind: 'send', solved, part, of }, run));
  pool.giveLight(keyed, await pool.run(keyed, { kind: 'keep', solved, photons }, run));
}
