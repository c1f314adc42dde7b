import type { LogStatistics, PictureMinutes, SetDocument } from '@fendrix/contract';
import { type BuiltSet, learnPrices, priceOfChange } from '@fendrix/core';
import type { frames, logEntries } from '../db/schema.js';

type Entry = typeof logEntries.$inferSelect;
/** When the first frame of a picture came. */
type Arrival = Pick<typeof frames.$inferSelect, 'job' | 'shot'> & { arrivedAt: string | null };

const MINUTE_MS = 60_000;
/** Pictures further apart than this were not taken on one day: what stood there before is not known. */
const ONE_DAY_MS = 14 * 3600_000;

const keyOf = ({ job, shot }: { job: string | null; shot: string | null }): string => `${job} ${shot}`;

/**
 * Where the minutes went, which verdicts return, what steps of a change take here.
 * @param entries of kept frames, the last first; several may be of one picture
 */
export function statisticsOf(
  entries: readonly Entry[],
  arrivals: readonly Arrival[],
  most: number,
): LogStatistics {
  const firstFrame = new Map(
    arrivals.flatMap((arrival): [string, string][] =>
      arrival.arrivedAt === null ? [] : [[keyOf(arrival), arrival.arrivedAt]],
    ),
  );
  const byPicture = new Map<string, Entry[]>();
  for (const entry of entries) byPicture.set(keyOf(entry), [...(byPicture.get(keyOf(entry)) ?? []), entry]);
  const pictures = [...byPicture.values()].slice(0, most);
  return {
    pictures: pictures.map((own) => minutesOf(own, firstFrame)),
    judged: pictures.filter((own) => own.some(({ verdicts }) => verdicts !== null)).length,
    verdicts: verdictsOf(pictures),
    prices: learnPrices(builtSets(pictures, firstFrame)),
  };
}

function minutesOf(own: readonly Entry[], firstFrame: ReadonlyMap<string, string>): PictureMinutes {
  const [last] = own as [Entry];
  const retouched = own.flatMap(({ retouchMinutes }) => retouchMinutes ?? []);
  const building = buildingMinutes(last, firstFrame);
  return {
    job: last.job,
    shot: last.shot,
    name: last.shotName,
    at: last.at,
    planned: last.plannedMinutes,
    building,
    shooting: last.minutes === null || building === null ? null : Math.max(0, last.minutes - building),
    retouching: retouched.length === 0 ? null : retouched.reduce((sum, minutes) => sum + minutes, 0),
  };
}

/** From the first step of building until the first frame came. */
function buildingMinutes(entry: Entry, firstFrame: ReadonlyMap<string, string>): number | null {
  const first = firstFrame.get(keyOf(entry));
  if (entry.begunAt === null || first === undefined) return null;
  const minutes = (Date.parse(first) - Date.parse(entry.begunAt)) / MINUTE_MS;
  return minutes > 0 ? minutes : null;
}

function verdictsOf(pictures: readonly (readonly Entry[])[]): LogStatistics['verdicts'] {
  const counts = new Map<string, number>();
  for (const own of pictures)
    for (const kind of new Set(own.flatMap(({ verdicts }) => verdicts ?? [])))
      counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts]
    .map(([kind, count]) => ({ kind, pictures: count }))
    .sort((a, b) => b.pictures - a.pictures || a.kind.localeCompare(b.kind));
}

/** Buildings whose minutes are told: from what stood there before, or from an empty table. */
function builtSets(
  pictures: readonly (readonly Entry[])[],
  firstFrame: ReadonlyMap<string, string>,
): BuiltSet[] {
  const told = pictures
    .map(([last]) => last as Entry)
    .filter(({ begunAt }) => begunAt !== null)
    .sort((a, b) => Date.parse(a.begunAt as string) - Date.parse(b.begunAt as string));
  return told.flatMap((entry, i): BuiltSet[] => {
    const minutes = buildingMinutes(entry, firstFrame);
    if (minutes === null) return [];
    const before = told[i - 1];
    const isSameDay =
      before !== undefined &&
      before.job === entry.job &&
      Date.parse(entry.begunAt as string) - Date.parse(before.begunAt as string) < ONE_DAY_MS;
    const [from, to] = [isSameDay ? setOf(before) : null, setOf(entry)];
    return to ? [{ steps: priceOfChange(from, to).map(({ step }) => step), minutes }] : [];
  });
}

/** Long texts are not read: what steps a change takes does not hang on the triangles of a mesh. */
function setOf({ document }: Entry): SetDocument | null {
  try {
    return JSON.parse(document) as SetDocument;
  } catch {
    return null;
  }
}
