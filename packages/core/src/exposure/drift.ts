/** A change of light that is seen between two pictures of a series, stops. */
export const METER_AGAIN_STOPS = 1 / 3;

/** After how many minutes daylight has changed by so many stops; null where it does not change. */
export function minutesOfDrift(stopsPerHour: number, byStops: number): number | null {
  return stopsPerHour === 0 ? null : (60 * byStops) / Math.abs(stopsPerHour);
}
