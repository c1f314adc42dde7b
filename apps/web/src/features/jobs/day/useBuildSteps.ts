import type { SetDocument, Shot } from '@fendrix/contract';
import { type BuildStep, buildList, type JobDay } from '@fendrix/core';
import { useMemo } from 'react';
import { changeRow } from '../../../shared/rows';
import { kitApi } from '../../kit';
import { useEditJob, useJob } from '../state/openJob';

/** What is built for one picture of the day. */
export interface PictureSteps {
  shot: Shot;
  set: SetDocument;
  /** Name of the set that stands there before; null for an empty table. */
  before: string | null;
  steps: BuildStep[];
}

/** The build lists of an order: the first from what stands there now, each next one from the set before it. */
export function useBuildSteps(
  day: JobDay,
  sets: ReadonlyMap<string, SetDocument>,
  order: readonly number[],
): PictureSteps[] {
  const { stands, tapesFrom } = useJob().day;
  const { data: kit } = kitApi.useReadKitQuery();
  const studio = kit?.document.studio;
  return useMemo(() => {
    let before = stands === undefined ? null : (sets.get(stands) ?? null);
    return order.flatMap((picture): PictureSteps[] => {
      const shot = day.shots[picture];
      const set = shot?.setId === undefined ? undefined : sets.get(shot.setId);
      if (!shot || !set) return [];
      const from = before;
      before = set;
      return [{ shot, set, before: from?.name ?? null, steps: buildList(from, set, tapesFrom, studio) }];
    });
  }, [day, sets, order.join(' '), stands, tapesFrom, studio]);
}

/** Ticks a step of a picture, or takes its tick away. Only the steps that there are now keep theirs. */
export function useTick(): (picture: PictureSteps, step: BuildStep, done: boolean) => void {
  const edit = useEditJob();
  return ({ shot, steps }, { key }, done) =>
    edit((now) => {
      const kept = (now.shots.find(({ id }) => id === shot.id)?.built ?? []).filter(
        (own) => own !== key && steps.some((step) => step.key === own),
      );
      return { ...now, shots: changeRow(now.shots, shot.id, { built: done ? [...kept, key] : kept }) };
    });
}
