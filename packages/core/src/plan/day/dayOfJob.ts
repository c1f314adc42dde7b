import type { Job, SetDocument, Shot } from '@fendrix/contract';
import {
  type ChangePrices,
  changeMinutes,
  type PricedStep,
  priceOfChange,
  USUAL_PRICES,
} from './changePrices.js';
import type { DayPicture, DayPlan } from './runOrder.js';

/** A day worked out of a job: what can be put in order, and what each change of set takes. */
export interface JobDay {
  /** Pictures with a set, in the order of the job: the numbers of the plan are theirs. */
  shots: Shot[];
  /** Pictures without one: what it takes to get there is not known. */
  without: Shot[];
  plan: DayPlan;
  /** What is done from one to another: [from][to], the last row from what stands there now, or the empty table. */
  steps: PricedStep[][][];
}

/** Minutes of a clock, from midnight. */
export const clockMinutes = (clock: string): number => {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number);
  return 60 * hours + minutes;
};

/** A clock of minutes from midnight; over midnight it goes on with the hours. */
export const clockOf = (minutes: number): string => {
  const whole = Math.round(minutes);
  return `${String(Math.floor(whole / 60)).padStart(2, '0')}:${String(whole % 60).padStart(2, '0')}`;
};

/**
 * The day of a job: its pictures that are not taken yet, the price from each set to each other by their differences, and what
 * comes before what. Two pictures on one set cost nothing between them.
 * @param setOf the set of a picture; undefined where there is none, or it is not read yet
 */
export function dayOfJob(
  job: Pick<Job, 'shots' | 'day'>,
  setOf: (setId: string) => SetDocument | undefined,
  prices: ChangePrices = USUAL_PRICES,
): JobDay {
  const open = job.shots.filter(({ done }) => !done);
  const sets = new Map(
    open.flatMap(({ setId }) => {
      const set = setId === undefined ? undefined : setOf(setId);
      return setId !== undefined && set ? [[setId, set] as const] : [];
    }),
  );
  const hasSet = ({ setId }: Shot) => setId !== undefined && sets.has(setId);
  const shots = open.filter(hasSet);
  const known = new Map<string, PricedStep[]>();
  const stepsTo = (from: Shot | null, to: Shot): PricedStep[] => {
    const fromId = from ? from.setId : job.day.stands;
    if (fromId === to.setId) return [];
    const name = `${fromId ?? ''} ${to.setId}`;
    const before = (fromId !== undefined && (sets.get(fromId) ?? setOf(fromId))) || null;
    const found =
      known.get(name) ?? priceOfChange(before, sets.get(to.setId as string) as SetDocument, prices);
    known.set(name, found);
    return found;
  };
  const steps = [...shots, null].map((from) => shots.map((to) => (from === to ? [] : stepsTo(from, to))));
  const start = clockMinutes(job.day.startsAt);
  const pictures = shots.map(
    ({ id, minutes, notBefore, endedBy }): DayPicture => ({
      id,
      minutes,
      ...(notBefore === undefined ? {} : { notBefore: Math.max(0, clockMinutes(notBefore) - start) }),
      ...(endedBy === undefined ? {} : { endedBy: clockMinutes(endedBy) - start }),
    }),
  );
  const place = new Map(shots.map(({ id }, at) => [id, at]));
  const before = shots.flatMap(({ after, last }, at): [number, number][] => [
    ...after.flatMap((id): [number, number][] => {
      const first = place.get(id);
      return first === undefined || first === at ? [] : [[first, at]];
    }),
    ...(last ? shots.flatMap((other, i): [number, number][] => (other.last ? [] : [[i, at]])) : []),
  ]);
  const change = steps.map((row) => row.map(changeMinutes));
  const { pause } = job.day;
  const plan: DayPlan = {
    pictures,
    change,
    before,
    // One that is over before the day begins is none.
    ...(pause && clockMinutes(pause.at) + pause.minutes > start
      ? { pause: { from: clockMinutes(pause.at) - start, minutes: pause.minutes } }
      : {}),
  };
  return { shots, without: open.filter((shot) => !hasSet(shot)), plan, steps };
}

/** An own order as numbers of the plan: what is gone is left out, what is new comes last. */
export function ownOrder({ shots }: JobDay, order: readonly string[]): number[] {
  const place = new Map(shots.map(({ id }, at) => [id, at]));
  const own = [...new Set(order.flatMap((id) => place.get(id) ?? []))];
  return [...own, ...shots.keys()].filter((at, i, all) => all.indexOf(at) === i);
}
