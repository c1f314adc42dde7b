import type { SetDocument } from '@fendrix/contract';
import {
  heldTo,
  mostChanged,
  nudged,
  nudgeStep,
  nudgesOf,
  type SheetFigures,
  type Tolerance,
  toleranceOf,
  traceKey,
  worstFirst,
} from '@fendrix/core';
import type { RunOptions, WorkerPool } from './pool.js';

/** Times that a tolerance is narrowed, by half at most. */
const MOST_ROUNDS = 4;

export interface ToleranceOptions extends RunOptions {
  /** Paths at each spot. */
  samples: number;
  seed: number;
  /** How much of it is done, 0 to 1. */
  onProgress?(part: number): void;
}

/** How far each figure of a set may be off, what has to be held closest first: four sets for most figures. */
export async function setTolerances(
  pool: WorkerPool,
  set: SetDocument,
  { samples, seed, onProgress, ...run }: ToleranceOptions,
): Promise<Tolerance[]> {
  const figuresOf = async (own: SetDocument): Promise<SheetFigures> => {
    const keyed = { key: traceKey(own), set: own };
    const [spots, bands] = await Promise.all([
      pool.run(keyed, { kind: 'spots', spots: own.spots, samples, seed }, run),
      pool.run(keyed, { kind: 'bands' }, run),
    ]);
    return { spots, bands };
  };
  const planned = await figuresOf(set);
  const nudges = nudgesOf(set);
  let done = 0;
  const tolerances = await Promise.all(
    nudges.map(async (nudge) => {
      const step = nudgeStep(nudge.way);
      const [less, more] = await Promise.all([
        figuresOf(nudged(set, nudge, -step)),
        figuresOf(nudged(set, nudge, step)),
      ]);
      let tolerance = toleranceOf(set, nudge, less, more);
      for (let round = 0; round < MOST_ROUNDS && tolerance.most !== null; round++) {
        const { most } = tolerance;
        const ends = await Promise.all([-most, most].map((by) => figuresOf(nudged(set, nudge, by))));
        const held = heldTo(
          tolerance,
          ends.map((end) => mostChanged(set, planned, end)),
        );
        if (held === tolerance) break;
        tolerance = held;
      }
      onProgress?.(++done / nudges.length);
      return tolerance;
    }),
  );
  return worstFirst(tolerances);
}
