import type { Shot } from '@fendrix/contract';
import { clockMinutes, type DayTime } from '@fendrix/core';

/** Clocks of a band are apart by one of these, minutes; no more than so many stand on it. */
const STEPS = [15, 30, 60, 120, 240] as const;
const MOST_TICKS = 12;

/** Clocks that stand on a band, minutes from midnight. @param lasts minutes of the whole band */
export function ticksOf(start: number, lasts: number): number[] {
  const step = STEPS.find((own) => lasts / own <= MOST_TICKS) ?? 480;
  const first = Math.ceil(start / step) * step;
  const count = Math.max(0, Math.floor((start + lasts - first) / step) + 1);
  return Array.from({ length: count }, (_, i) => first + i * step);
}

/** The order when a picture is pushed along the band: it comes before all whose middle is later than its own. */
export function movedAlong(times: readonly DayTime[], picture: number, byMin: number): number[] {
  const middle = ({ startsAt, endsAt }: DayTime) => (startsAt + endsAt) / 2;
  const own = times.find((time) => time.picture === picture);
  const others = times.filter((time) => time !== own);
  if (!own) return others.map((time) => time.picture);
  const at = middle(own) + byMin;
  const earlier = others.filter((time) => middle(time) < at).map((time) => time.picture);
  const later = others.filter((time) => middle(time) >= at).map((time) => time.picture);
  return [...earlier, picture, ...later];
}

/** Whether a picture is to begin and to end when it does. */
export const isLocked = (
  { notBefore, endedBy }: Pick<Shot, 'notBefore' | 'endedBy'>,
  { startsAt, endsAt }: Pick<DayTime, 'startsAt' | 'endsAt'>,
  start: number,
): boolean =>
  notBefore !== undefined &&
  endedBy !== undefined &&
  Math.abs(clockMinutes(notBefore) - start - startsAt) < 1 &&
  Math.abs(clockMinutes(endedBy) - start - endsAt) < 1;
