import { clockOf, type DayTime, type JobDay } from '@fendrix/core';
import { durationWords, stepWords } from '@fendrix/words';
import Papa from 'papaparse';

/** What is done before one picture. */
export type Steps = JobDay['steps'][number][number];
/** Minutes of all steps. */
export const minutes = (steps: Steps): number => steps.reduce((sum, step) => sum + step.minutes, 0);

/** What is done before each picture of an order. */
export const changesOf = ({ steps, shots }: JobDay, order: readonly number[]): Steps[] =>
  order.map((picture, at) => steps[at === 0 ? shots.length : (order[at - 1] as number)]?.[picture] ?? []);

/** The changes of set of an own order that cost most more than in the best one. */
export function becauseOf(day: JobDay, own: readonly number[], best: readonly number[]): string {
  const cost = (order: readonly number[]) =>
    new Map(changesOf(day, order).map((steps, at) => [order[at] as number, minutes(steps)]));
  const [mine, theirs] = [cost(own), cost(best)];
  const dear = [...mine]
    .map(([picture, all]) => ({ picture, more: all - (theirs.get(picture) ?? 0) }))
    .filter(({ more }) => more > 0.5)
    .sort((a, b) => b.more - a.more)
    .slice(0, 2);
  if (dear.length === 0) return ', by waiting';
  const words = dear.map(
    ({ picture, more }) => `${day.shots[picture]?.name} needs ${durationWords(more)} more to set up`,
  );
  return `: ${words.join(', ')}`;
}

/** The day as a table for other programs. */
export function csvOf(day: JobDay, times: readonly DayTime[], start: number): string {
  const order = times.map(({ picture }) => picture);
  const changes = changesOf(day, order);
  return Papa.unparse(
    times.map(({ picture, changeFrom, startsAt, endsAt, waits, late }, at) => ({
      'set up from': clockOf(start + changeFrom),
      from: clockOf(start + startsAt),
      to: clockOf(start + endsAt),
      picture: day.shots[picture]?.name ?? '',
      before: (changes[at] ?? []).map(stepWords).join('; '),
      'change, min': minutes(changes[at] ?? []),
      'waits, min': waits,
      'too late, min': late,
    })),
    { escapeFormulae: true },
  );
}
