import type { LogEntry } from '@fendrix/contract';
import papaparse from 'papaparse';

/** Entries as CSV, a row each; what was not told is empty, tones are stops from mid-tone. */
export const logTable = (entries: readonly LogEntry[]): string =>
  papaparse.unparse(
    {
      fields: Object.keys(COLUMNS),
      data: entries.map((entry) => Object.values(COLUMNS).map((of) => of(entry) ?? '')),
    },
    { escapeFormulae: true },
  );

const COLUMNS: Readonly<Record<string, (entry: LogEntry) => string | number | null>> = {
  taken: ({ at }) => at,
  job: ({ jobName }) => jobName,
  client: ({ client }) => client,
  picture: ({ shotName }) => shotName,
  products: ({ products }) => products.join('; '),
  lights: ({ lights }) => lights.join('; '),
  look: ({ look }) => look,
  tone: ({ tone }) => tone,
  minutes: ({ minutes }) => minutes,
  'minutes planned': ({ plannedMinutes }) => plannedMinutes,
  'minutes of retouching': ({ retouchMinutes }) => retouchMinutes,
  frames: ({ tries }) => tries,
  'f-number': ({ fNumber }) => fNumber,
  'exposure, s': ({ exposureS }) => exposureS,
  ISO: ({ iso }) => iso,
  'focal length, mm': ({ focalMm }) => focalMm,
  verdicts: ({ verdicts }) => verdicts?.join('; ') ?? null,
  'spots, plan and frame': ({ measured }) =>
    measured?.spots
      .map(({ name, plan, frame }) => `${name} ${plan.toFixed(2)} ${frame?.toFixed(2) ?? ''}`)
      .join('; ') ?? null,
  set: ({ setName }) => setName,
  note: ({ note }) => note,
  file: ({ name }) => name,
};
