import type { SetDocument, Shot } from '@fendrix/contract';
import { type BuildStep, buildList, type JobDay, type PlannedFrame, plannedFrames } from '@fendrix/core';
import { useMemo } from 'react';
import { useDayAtHand } from './dayAtHand';

/** What is built for one picture of the day. */
export interface PictureSteps {
  shot: Shot;
  set: SetDocument;
  /** Name of the set that stands there before; null for an empty table. */
  before: string | null;
  steps: BuildStep[];
  /** Frames that it is put together from; one where its set has no plates. */
  frames: PlannedFrame[];
}

/** The build lists of an order: the first from what stands there now, each next one from the set before it. */
export function useBuildSteps(day: JobDay, order: readonly number[]): PictureSteps[] {
  const { job, sets, kit } = useDayAtHand();
  const { stands, tapesFrom } = job.day;
  const studio = kit?.studio;
  return useMemo(() => {
    let before = stands === undefined ? null : (sets.get(stands) ?? null);
    return order.flatMap((picture): PictureSteps[] => {
      const shot = day.shots[picture];
      const set = shot?.setId === undefined ? undefined : sets.get(shot.setId);
      if (!shot || !set) return [];
      const from = before;
      before = set;
      const steps = buildList(from, set, tapesFrom, studio);
      return [{ shot, set, before: from?.name ?? null, steps, frames: plannedFrames(set) }];
    });
  }, [day, sets, order.join(' '), stands, tapesFrom, studio]);
}
