import { formatStops, isSure, parseStopsRange, type SpotReading } from '@fendrix/core';
import type { Parsed } from '../../../shared/useTyped';

/** The tone of a spot in stops from mid-tone, marked while its tenth is not yet known; null where none is recorded. */
export function toneWords(reading: SpotReading): string | null {
  const { stopsFromMidTone } = reading;
  if (stopsFromMidTone === null) return null;
  return `${isSure(reading) ? '' : '≈ '}${formatStops(stopsFromMidTone)}`;
}

/** Where "up to" starts, stops from mid-tone. */
const UP_TO_FROM = -20;

/** A tone, or a range of tones, as typed: "+0.3", "+0.5 to +1.3", "up to -5". */
export function parseTones(text: string): Parsed<{ from: number; to: number }> {
  const tones = parseStopsRange(text, UP_TO_FROM);
  if (tones && tones.from > tones.to) return { refused: 'The lower tone comes first, then the higher one.' };
  return tones;
}

/** Ranges from lower than this are open downwards, stops. */
const OPEN_END = -15;

/** A tone that is wanted, or the range of tones that will do. */
export function rangeWords({ from, to }: { from: number; to: number }): string {
  if (Math.abs(to - from) < 0.05) return formatStops(from);
  return from < OPEN_END ? `up to ${formatStops(to)}` : `${formatStops(from)} to ${formatStops(to)}`;
}
