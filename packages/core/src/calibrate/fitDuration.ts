import type { CardReading, Fitted, Light } from '@fendrix/contract';
import { mean } from '../units/middle.js';

/** A meter tells a duration to this, stops. */
const TOLD_TO_STOPS = 0.1;
/** Powers at least so far apart tell how the duration follows them, stops. */
const LEAST_APART_STOPS = 1;

/**
 * Flash duration at full power and its stops for a stop of power, by a line through the durations that were measured, in stops.
 * At one power alone it follows the power as the light's figures say.
 */
export function fitDuration(
  light: Light,
  readings: readonly Pick<CardReading, 'powerStops' | 'durationS'>[],
): { durationFullS: Fitted | null; durationStopsPerStop: Fitted | null } {
  const told = readings.flatMap(({ powerStops, durationS }) =>
    durationS === undefined ? [] : [{ power: powerStops, stops: Math.log2(durationS) }],
  );
  if (told.length === 0) return { durationFullS: null, durationStopsPerStop: null };
  const power = mean(told.map((one) => one.power));
  const stops = mean(told.map((one) => one.stops));
  const squares = told.reduce((sum, one) => sum + (one.power - power) ** 2, 0);
  const powers = told.map((one) => one.power);
  const isLine = Math.max(...powers) - Math.min(...powers) >= LEAST_APART_STOPS;
  const known = 'duration' in light ? (light.duration?.stopsPerStop ?? 0) : 0;
  const slope = isLine
    ? told.reduce((sum, one) => sum + (one.power - power) * (one.stops - stops), 0) / squares
    : known;
  const left = told.reduce((sum, one) => sum + (one.stops - stops - slope * (one.power - power)) ** 2, 0);
  const each = Math.hypot(TOLD_TO_STOPS, Math.sqrt(left / Math.max(1, told.length - 2)));
  const slopeError = isLine ? each / Math.sqrt(squares) : 0;
  const value = 2 ** (stops - slope * power);
  const error = value * Math.LN2 * Math.hypot(each / Math.sqrt(told.length), slopeError * power);
  return {
    durationFullS: { value, error },
    durationStopsPerStop: isLine ? { value: slope, error: slopeError } : null,
  };
}
