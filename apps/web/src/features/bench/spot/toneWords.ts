import { formatStops, isSure, type SpotReading } from '@fendrix/core';

/** The tone of a spot in stops from mid-tone, marked while its tenth is not yet known; null where none is recorded. */
export function toneWords(reading: SpotReading): string | null {
  const { stopsFromMidTone } = reading;
  if (stopsFromMidTone === null) return null;
  return `${isSure(reading) ? '' : '≈ '}${formatStops(stopsFromMidTone)}`;
}
