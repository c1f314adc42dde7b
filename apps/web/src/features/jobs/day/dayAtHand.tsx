import type { DayAction, DayAtTable, SetDocument } from '@fendrix/contract';
import { afterDayAction } from '@fendrix/core';
import { createContext, type ReactNode, useContext, useMemo } from 'react';
import { kitApi } from '../../kit';
import { useEditJob, useJob } from '../state/openJob';
import { useSetsOf } from './useSetsOf';

/** A day as whoever works at it has it: the desk by the open job, a paired phone by what the server told it. */
export interface DayAtHand {
  job: DayAtTable['job'];
  sets: ReadonlyMap<string, SetDocument>;
  /** Whether sets are still being read. */
  reading: boolean;
  /** Undefined until it is read. */
  kit: DayAtTable['kit'] | undefined;
  /** Does something at the table. */
  act(action: Done): void;
}

/** What is done, without when: that is now. */
export type Done = DayAction extends infer Own ? (Own extends DayAction ? Omit<Own, 'at'> : never) : never;

/** Something done now. */
export const doneNow = (done: Done): DayAction => ({ ...done, at: new Date().toISOString() }) as DayAction;

const context = createContext<DayAtHand | null>(null);
export const DayProvider = context.Provider;

/** The day at hand. Only used within one. */
export function useDayAtHand(): DayAtHand {
  const day = useContext(context);
  if (!day) throw new Error('no day is at hand');
  return day;
}

/** The day of the job that is open at the desk. */
export function DeskDay({ children }: { children: ReactNode }) {
  const job = useJob();
  const edit = useEditJob();
  const { stands } = job.day;
  const { sets, reading } = useSetsOf([
    ...job.shots.flatMap(({ setId, done }) => (setId && !done ? [setId] : [])),
    ...(stands === undefined ? [] : [stands]),
  ]);
  const kit = kitApi.useReadKitQuery().data?.document;
  const day = useMemo(
    (): DayAtHand => ({
      job,
      sets,
      reading,
      kit,
      act: (done) => void edit((now) => afterDayAction(now, doneNow(done))),
    }),
    [job, sets, reading, kit, edit],
  );
  return <DayProvider value={day}>{children}</DayProvider>;
}
