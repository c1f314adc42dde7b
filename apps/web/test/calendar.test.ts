import type { Shot } from '@fendrix/contract';
import type { DayTime, JobDay } from '@fendrix/core';
import ICAL from 'ical.js';
import { describe, expect, test } from 'vitest';
import { calendarOf } from '../src/features/jobs/day/calendarOf';

const shots = [
  { id: 'one', name: 'Jar; with comma, and “quotes”', purpose: 'Shop\npage' },
  { id: 'two', name: 'Ring', purpose: '' },
] as Shot[];
const day = { shots } as JobDay;
const time = (picture: number, changeFrom: number, startsAt: number, endsAt: number, waits = 0): DayTime => ({
  picture,
  changeFrom,
  startsAt,
  endsAt,
  waits,
  late: 0,
});
const steps: JobDay['steps'][number][number] = [
  { step: 'light-added', thing: { kind: 'light', tag: 'A' }, minutes: 5 },
];

/** As another program reads it. */
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((component) => {
    const { summary, startDate, endDate, description } = new ICAL.Event(component);
    return {
      summary,
      from: startDate.toString(),
      to: endDate.toString(),
      zone: startDate.zone.tzid,
      description,
    };
  });

describe('a day in a calendar', () => {
  test('each picture with its clock, setting up before it, in local time', () => {
    const times = [time(0, 0, 20, 50), time(1, 50, 60, 90, 10)];
    const events = read(calendarOf(day, times, [steps, []], '2026-12-01', 9 * 60));
    expect(events).toEqual([
      expect.objectContaining({
        summary: 'Set up: Jar; with comma, and “quotes”',
        from: '2026-12-01T09:00:00',
        to: '2026-12-01T09:20:00',
        description: 'light A set up 5',
        zone: 'floating',
      }),
      expect.objectContaining({
        summary: 'Jar; with comma, and “quotes”',
        from: '2026-12-01T09:20:00',
        to: '2026-12-01T09:50:00',
        description: 'Shop\npage',
      }),
      // Waited for, nothing to set up.
      expect.objectContaining({ summary: 'Ring', from: '2026-12-01T10:00:00', to: '2026-12-01T10:30:00' }),
    ]);
  });

  test('what goes on past midnight is on the next day', () => {
    const [event] = read(calendarOf(day, [time(1, 0, 125, 150)], [[]], '2026-12-31', 23 * 60));
    expect(event).toMatchObject({ summary: 'Set up: Ring' });
    const events = read(calendarOf(day, [time(1, 125, 125, 150)], [[]], '2026-12-31', 23 * 60));
    expect(events).toEqual([
      expect.objectContaining({ from: '2027-01-01T01:05:00', to: '2027-01-01T01:30:00' }),
    ]);
  });
});
