import type { SetDocument } from '@fendrix/contract';
import { setOfPlate } from '@fendrix/core';
import type { JobStore } from '../domain/jobs.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';

/** A frame of a picture: of its set as it stands, or of one of its plates. */
export interface WhichFrame {
  job?: string | undefined;
  shot?: string | undefined;
  /** A set by itself, in place of both. */
  set?: string | undefined;
  plate?: string | undefined;
}

/**
 * The set of a frame as it is planned.
 * @throws {AppError} `bad-input` where the picture has no set, or the set no such plate
 */
export async function plannedSet(
  { jobs, sets }: { jobs: JobStore; sets: SetStore },
  { job, shot, set: alone, plate }: WhichFrame,
): Promise<SetDocument> {
  const shots = job === undefined ? [] : (await jobs.read(job)).document.shots;
  const setId = alone ?? shots.find(({ id }) => id === shot)?.setId;
  if (setId === undefined)
    throw new AppError('bad-input', 'This picture has no set yet.', { hint: 'Make its set first.' });
  const set = (await sets.read(setId)).document;
  if (plate === undefined) return set;
  const own = set.plates.find(({ id }) => id === plate);
  if (!own) throw new AppError('bad-input', 'The set of this picture has no such plate.');
  return setOfPlate(set, own);
}
