import { formatStops, isSure, type SpotReading } from '@fendrix/core';

/** The tone of a spot in stops from mid-tone, marked while its tenth is not yet known; null where none is recorded. */
export function toneWords(reading: SpotReading): string | null {
  const { stopsFromMidTone } = reading;
  if (stopsFromMidTone === null) return null;
  return `${isSure(reading) ? '' : '≈ '}${formatStops(stopsFromMidTone)}`;
}

/** Ranges from lower than this are open downwards, stops. */
const OPEN_END = -15;

/** A tone that is wanted, or the range of tones that will do. */
export function rangeWords({ from, to }: { from: number; to: number }): string {
  if (Math.abs(to - from) < 0.05) return formatStops(from);
  return from < OPEN_END ? `up to ${formatStops(to)}` : `${formatStops(from)} to ${formatStops(to)}`;
}
