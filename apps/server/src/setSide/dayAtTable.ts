import type { DayAction, DayAtTable, SetDocument } from '@fendrix/contract';
import { afterDayAction } from '@fendrix/core';
import type { JobStore } from '../domain/jobs.js';
import type { KitStore } from '../domain/kit.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';

export interface DayStores {
  jobs: JobStore;
  sets: SetStore;
  kit: KitStore;
}

/** A save that meets another is made again over the newer one, so often. */
const TRIES = 5;

/** Takes are not needed at the table, but for those that plates are made on. */
const withTakesOfPlates = (set: SetDocument): SetDocument => ({
  ...set,
  takes: set.takes.filter(({ id }) => set.plates.some(({ takeId }) => takeId === id)),
});

/** What a device at the table may see of a job: its pictures, their sets without takes, and what the studio has. */
export async function readDayAtTable({ jobs, sets, kit }: DayStores, id: string): Promise<DayAtTable> {
  const { revision, document } = await jobs.read(id);
  const { name, products, shots, day } = document;
  const wanted = new Set([
    ...shots.flatMap(({ setId }) => setId ?? []),
    ...(day.stands === undefined ? [] : [day.stands]),
  ]);
  const read = await Promise.all([...wanted].map((setId) => sets.read(setId).catch(() => null)));
  const { studio, changeMinutes } = (await kit.read()).document;
  return {
    revision,
    job: { name, products, shots, day },
    sets: Object.fromEntries(
      read.flatMap((stored) => (stored ? [[stored.id, withTakesOfPlates(stored.document)]] : [])),
    ),
    kit: { studio, changeMinutes },
  };
}

/**
 * Writes down what was done at the table. It says how things are afterwards, so it goes over whatever was saved in between.
 * @throws {AppError} `bad-input` for a set that is none of the job's
 */
export async function writeDayActions(
  { jobs }: DayStores,
  id: string,
  actions: readonly DayAction[],
): Promise<{ revision: number }> {
  for (let tries = 1; ; tries++) {
    const { revision, document } = await jobs.read(id);
    // An empty table is one of them.
    const own = new Set([...document.shots.map(({ setId }) => setId), document.day.stands, undefined]);
    if (actions.some((action) => action.kind === 'taken' && !own.has(action.stands))) {
      throw new AppError('bad-input', 'The set that is said to stand there is none of this job.');
    }
    try {
      const saved = await jobs.save(id, revision, actions.reduce(afterDayAction, document));
      return { revision: saved.revision };
    } catch (error) {
      if (!(error instanceof AppError && error.code === 'conflict') || tries === TRIES) throw error;
    }
  }
}

/** Revision of a job as it is stored. */
export const readRevision = async ({ jobs }: DayStores, id: string): Promise<number> =>
  (await jobs.read(id)).revision;
