import type { Calibration, CalibrationHour } from '@fendrix/contract';
import Papa from 'papaparse';

/** The readings of an hour as CSV, one row each, with what they are off by before and after the fit. */
export function readingsCsv(
  { readings }: Pick<CalibrationHour, 'readings'>,
  found: Calibration | undefined,
  nameOf: (entry: string) => string,
): string {
  const rows = readings.map((reading) => {
    const { beforeStops, afterStops } = found?.readings.find((one) => one.reading === reading.id) ?? {};
    const [red, green, blue] = reading.rgb ?? [];
    return {
      light: nameOf(reading.light),
      distanceM: reading.distanceM,
      powerStops: reading.powerStops,
      fNumber: reading.fNumber,
      shutterS: reading.shutterS,
      iso: reading.iso,
      place: reading.place,
      red,
      green,
      blue,
      luxSeconds: reading.luxSeconds,
      frame: reading.frame,
      beforeStops,
      afterStops,
    };
  });
  return Papa.unparse(rows, { escapeFormulae: true });
}
