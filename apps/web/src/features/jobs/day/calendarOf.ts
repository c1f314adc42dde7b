import { clockOf, type DayTime, type JobDay } from '@fendrix/core';
import { stepWords } from '@fendrix/words';
import { createEvents, type EventAttributes } from 'ics';

/**
 * The day for a calendar (iCalendar, RFC 5545), in the time of wherever it is opened: for each picture setting up, where there
 * is any, and taking it.
 * @param on day, YYYY-MM-DD  @param start when it begins, minutes from midnight  @param changes what is done before each
 * @throws an event that the calendar does not take
 */
export function calendarOf(
  { shots }: JobDay,
  times: readonly DayTime[],
  changes: readonly JobDay['steps'][number][number][],
  on: string,
  start: number,
): string {
  const [year = 0, month = 0, day = 0] = on.split('-').map(Number);
  const event = (
    uid: string,
    title: string,
    from: number,
    to: number,
    description: string,
  ): EventAttributes => {
    const [hours = 0, minutes = 0] = clockOf(start + from)
      .split(':')
      .map(Number);
    // Over midnight the clock goes on with its hours; a calendar begins another day.
    const date = new Date(Date.UTC(year, month - 1, day + Math.floor(hours / 24)));
    return {
      uid: `${uid}-${on}@fendrix`,
      title,
      start: [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate(), hours % 24, minutes],
      startInputType: 'local',
      startOutputType: 'local',
      duration: { minutes: Math.max(1, Math.round(start + to) - Math.round(start + from)) },
      ...(description ? { description } : {}),
    };
  };
  const events = times.flatMap(({ picture, changeFrom, startsAt, endsAt, waits }, at) => {
    const shot = shots[picture];
    if (!shot) return [];
    const steps = changes[at] ?? [];
    const ready = startsAt - waits;
    return [
      ...(ready - changeFrom >= 1
        ? [
            event(
              `${shot.id}-set`,
              `Set up: ${shot.name}`,
              changeFrom,
              ready,
              steps.map(stepWords).join(', '),
            ),
          ]
        : []),
      event(shot.id, shot.name, startsAt, endsAt, shot.purpose),
    ];
  });
  const { value, error } = createEvents(events, { productId: 'fendrix' });
  if (error || !value) throw error ?? new Error('the day has no events');
  return value;
}
