import { dayOfJob, type JobDay, ownOrder, pricesWith } from '@fendrix/core';
import { useMemo } from 'react';
import { useDayAtHand } from './dayAtHand';
import { useBestOrder } from './useBestOrder';

/** The day at hand with the prices of its changes; what is taken already is left out. */
export function useDay(): JobDay {
  const { job, sets, kit } = useDayAtHand();
  const own = kit?.changeMinutes;
  return useMemo(() => dayOfJob(job, (id) => sets.get(id), pricesWith(own ?? {})), [job, sets, own]);
}

/** The order that counts: the own one, or the best as soon as it is found. */
export function useOrder(day: JobDay): { order: number[]; best: ReturnType<typeof useBestOrder> } {
  const kept = useDayAtHand().job.day.order;
  const best = useBestOrder(day.plan);
  const found = best === null || best === 'none' ? null : best;
  return { order: kept.length > 0 || !found ? ownOrder(day, kept) : found.order, best };
}
