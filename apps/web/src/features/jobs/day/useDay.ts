import type { SetDocument } from '@fendrix/contract';
import { dayOfJob, type JobDay, ownOrder, pricesWith } from '@fendrix/core';
import { useMemo } from 'react';
import { kitApi } from '../../kit';
import { useJob } from '../state/openJob';
import { useBestOrder } from './useBestOrder';
import { useSetsOf } from './useSetsOf';

/** The day of the open job with its sets; what is taken already is left out. */
export function useDay(): { day: JobDay; sets: ReadonlyMap<string, SetDocument>; reading: boolean } {
  const job = useJob();
  const { stands } = job.day;
  const { sets, reading } = useSetsOf([
    ...job.shots.flatMap(({ setId, done }) => (setId && !done ? [setId] : [])),
    ...(stands === undefined ? [] : [stands]),
  ]);
  const { data: kit } = kitApi.useReadKitQuery();
  const own = kit?.document.changeMinutes;
  const day = useMemo(() => dayOfJob(job, (id) => sets.get(id), pricesWith(own ?? {})), [job, sets, own]);
  return { day, sets, reading };
}

/** The order that counts: the own one, or the best as soon as it is found. */
export function useOrder(day: JobDay): { order: number[]; best: ReturnType<typeof useBestOrder> } {
  const kept = useJob().day.order;
  const best = useBestOrder(day.plan);
  const found = best === null || best === 'none' ? null : best;
  return { order: kept.length > 0 || !found ? ownOrder(day, kept) : found.order, best };
}
