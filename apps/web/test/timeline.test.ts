import type { DayTime } from '@fendrix/core';
import { describe, expect, test } from 'vitest';
import { isLocked, movedAlong, ticksOf } from '../src/features/jobs/day/timeline';

const time = (picture: number, startsAt: number, endsAt: number): DayTime => ({
  picture,
  changeFrom: startsAt,
  startsAt,
  endsAt,
  waits: 0,
  late: 0,
});
const TIMES = [time(2, 10, 40), time(0, 50, 80), time(1, 100, 160)];

describe('the band of a day', () => {
  test('a picture comes where its middle is dropped, and stays where it is let go at once', () => {
    expect(movedAlong(TIMES, 2, 0)).toEqual([2, 0, 1]);
    expect(movedAlong(TIMES, 2, 39)).toEqual([2, 0, 1]);
    expect(movedAlong(TIMES, 2, 41)).toEqual([0, 2, 1]);
    expect(movedAlong(TIMES, 2, 400)).toEqual([0, 1, 2]);
    expect(movedAlong(TIMES, 1, -400)).toEqual([1, 2, 0]);
    expect(movedAlong(TIMES, 7, 20)).toEqual([2, 0, 1]);
  });

  test('clocks stand at whole steps within the day, never too many', () => {
    expect(ticksOf(9 * 60, 120)).toEqual([540, 555, 570, 585, 600, 615, 630, 645, 660]);
    expect(ticksOf(9 * 60 + 10, 100)[0]).toBe(555);
    for (const lasts of [1, 90, 500, 1400, 4000]) expect(ticksOf(533, lasts).length).toBeLessThanOrEqual(13);
  });

  test('is locked only when it is to begin and to end when it does', () => {
    const at = { startsAt: 10, endsAt: 40 };
    expect(isLocked({ notBefore: '09:10', endedBy: '09:40' }, at, 540)).toBe(true);
    expect(isLocked({ notBefore: '09:10', endedBy: '10:40' }, at, 540)).toBe(false);
    expect(isLocked({ notBefore: '09:10' }, at, 540)).toBe(false);
  });
});
