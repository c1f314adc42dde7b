import type {
  FrameAgainstPlan,
  LogChange,
  LogEntry,
  LogList,
  LogQuery,
  LogStatistics,
  SetDocument,
} from '@fendrix/contract';
import { isOpen, judgedBy } from '@fendrix/core';
import {
  and,
  asc,
  count,
  desc,
  eq,
  getTableColumns,
  gte,
  inArray,
  like,
  lt,
  lte,
  min,
  or,
  type SQL,
} from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Database } from '../db/database.js';
import { frames, logEntries } from '../db/schema.js';
import type { SetLight } from '../devices/setLight.js';
import { anywhere } from '../domain/documents.js';
import type { JobStore } from '../domain/jobs.js';
import type { KitStore } from '../domain/kit.js';
import { fillLongTexts, keepLongTexts } from '../domain/longTexts.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import { ofPicture, ofSet, searchedWords } from './describeKept.js';
import { logTable } from './logTable.js';
import { statisticsOf } from './statistics.js';

type FrameRow = typeof frames.$inferSelect;
type Row = typeof logEntries.$inferSelect;

/** Rows of a table that is given out. */
const MOST_ROWS = 100_000;
/** Pictures that statistics are made of, the last ones. */
const MOST_PICTURES = 200;

/** The record of frames that were kept. */
export interface LogBook {
  /** Notes a frame that was kept, or moved to another picture since. One that is of no picture with a set is not noted. */
  kept(frame: FrameRow): Promise<void>;
  /** A frame is not kept any more. */
  putAside(frame: string): Promise<void>;
  /** Notes what a frame shows against its plan, whether it is kept already or will be. */
  compared(frame: FrameRow, found: FrameAgainstPlan): Promise<void>;
  /** Follows a job: names, plan and minutes of its pictures. */
  jobSaved(id: string): Promise<void>;
  list(query: LogQuery): Promise<LogList>;
  /** All that a search finds, as CSV. */
  table(query: Pick<LogQuery, 'search' | 'job' | 'from' | 'to'>): Promise<string>;
  change(id: string, change: LogChange): Promise<LogEntry>;
  /** The set of an entry as it was: itself while it is unchanged, otherwise a copy of what it was. @returns its id */
  openSet(id: string): Promise<string>;
  /** The set of a kept frame as it was; null for a frame that is not in the log. */
  setOf(id: string): Promise<SetDocument | null>;
  statistics(job: string | undefined): Promise<LogStatistics>;
  /** Settles what is being noted. */
  settled(): Promise<void>;
}

interface LogBookOptions {
  database: Database;
  jobs: JobStore;
  sets: SetStore;
  kit: KitStore;
  light: SetLight;
  log: Logger;
}

export function createLogBook({ database, jobs, sets, kit, light, log }: LogBookOptions): LogBook {
  let judged: Promise<unknown> = Promise.resolve();
  /** Entries whose sets are being judged, or could not be. */
  const asked = new Set<string>();

  /** The picture of a frame and the set it is taken on; null where there is none. */
  async function pictureOf({ job, shot }: FrameRow) {
    if (job === null || shot === null) return null;
    const stored = await jobs.read(job).catch(() => null);
    const own = stored?.document.shots.find(({ id }) => id === shot);
    const set = own?.setId === undefined ? null : await sets.read(own.setId).catch(() => null);
    return stored && own && set ? { job: stored, shot: own, set } : null;
  }

  async function find(id: string): Promise<{ entry: Row; frame: FrameRow }> {
    const [row] = await database.query
      .select({ entry: logEntries, frame: frames })
      .from(logEntries)
      .innerJoin(frames, eq(frames.id, logEntries.id))
      .where(eq(logEntries.id, id))
      .limit(1);
    if (!row) throw new AppError('not-found', 'There is no entry with this address in the log.');
    return row;
  }

  /** The set of an entry as it was. */
  async function setOf(id: string): Promise<SetDocument | null> {
    const [row] = await database.query
      .select({ document: logEntries.document })
      .from(logEntries)
      .where(eq(logEntries.id, id));
    return row ? ((await fillLongTexts(database, JSON.parse(row.document))) as SetDocument) : null;
  }
  async function requireSetOf(id: string): Promise<SetDocument> {
    const set = await setOf(id);
    if (!set) throw new AppError('not-found', 'There is no entry with this address in the log.');
    return set;
  }

  /** Verdicts on the set of an entry, one set after the other; also of those that a server left undone. */
  function judge(id: string): void {
    if (asked.has(id)) return;
    asked.add(id);
    judged = judged
      .then(async () => {
        const set = await requireSetOf(id);
        const { document } = await kit.read();
        const open = (await light.verdicts(set, judgedBy(document))).filter(isOpen);
        const verdicts = [...new Set(open.map(({ code }) => code as string))];
        await database.write((query) =>
          query.update(logEntries).set({ verdicts }).where(eq(logEntries.id, id)),
        );
        asked.delete(id);
      })
      .catch((error: unknown) => log.warn({ err: error }, 'a set of the log was not judged'));
  }

  /**
   * Writes down how a frame came about. What was measured and judged stays while picture and set are the same.
   * @returns whether it is of a picture with a set
   */
  async function note(frame: FrameRow, kept: boolean): Promise<boolean> {
    const of = await pictureOf(frame);
    if (!of) return false;
    const { job, shot, set } = of;
    const [before] = await database.query
      .select({ count: count() })
      .from(frames)
      .where(and(eq(frames.job, job.id), eq(frames.shot, shot.id), lte(frames.arrivedAt, frame.arrivedAt)));
    const told = { ...ofPicture(job.document, shot), ...ofSet(set.document) };
    const row = {
      ...told,
      words: searchedWords(told),
      kept,
      at: frame.takenAt ?? frame.arrivedAt,
      job: job.id,
      shot: shot.id,
      tries: before?.count ?? 1,
      setId: set.id,
      setRevision: set.revision,
      document: await keepLongTexts(database, { ...set.document, takes: [] }),
    };
    const [was] = await database.query
      .select({ shot: logEntries.shot, setId: logEntries.setId, setRevision: logEntries.setRevision })
      .from(logEntries)
      .where(eq(logEntries.id, frame.id));
    const isSame = was?.shot === row.shot && was.setId === row.setId && was.setRevision === row.setRevision;
    await database.write((query) =>
      query
        .insert(logEntries)
        .values({ id: frame.id, ...row })
        .onConflictDoUpdate({
          target: logEntries.id,
          set: isSame ? row : { ...row, verdicts: null, measured: null },
        }),
    );
    return true;
  }

  async function list({ search, job, from, to, limit, offset }: LogQuery): Promise<LogList> {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const matches = and(
      eq(logEntries.kept, true),
      job === undefined ? undefined : eq(logEntries.job, job),
      from === undefined ? undefined : gte(logEntries.at, from),
      // The whole of the last day.
      to === undefined ? undefined : lt(logEntries.at, `${to}T99`),
      ...words.map((word): SQL | undefined =>
        or(like(logEntries.words, anywhere(word)), like(logEntries.note, anywhere(word))),
      ),
    );
    const { document: _document, words: _words, ...shown } = getTableColumns(logEntries);
    const rows = await database.query
      .select({ entry: shown, frame: frames })
      .from(logEntries)
      .innerJoin(frames, eq(frames.id, logEntries.id))
      .where(matches)
      .orderBy(desc(logEntries.at), asc(logEntries.id))
      .limit(limit)
      .offset(offset);
    const [total] = await database.query.select({ value: count() }).from(logEntries).where(matches);
    for (const { entry } of rows) if (entry.verdicts === null) judge(entry.id);
    return { total: total?.value ?? 0, entries: rows.map(({ entry, frame }) => told(entry, frame)) };
  }

  return {
    list,
    async table(query) {
      const { entries } = await list({ ...query, limit: MOST_ROWS, offset: 0 });
      return logTable(entries);
    },
    async kept(frame) {
      if (await note(frame, true)) judge(frame.id);
    },
    async putAside(frame) {
      await database.write((query) =>
        query.update(logEntries).set({ kept: false }).where(eq(logEntries.id, frame)),
      );
    },
    async compared(frame, { exposedAsFrame, lights, spots }) {
      await note(frame, frame.state === 'kept');
      await database.write((query) =>
        query
          .update(logEntries)
          .set({ measured: { exposedAsFrame, lights, spots } })
          .where(eq(logEntries.id, frame.id)),
      );
    },
    async jobSaved(id) {
      // Without the sets: a job is saved while one types.
      const { document: _document, ...columns } = getTableColumns(logEntries);
      const own = await database.query.select(columns).from(logEntries).where(eq(logEntries.job, id));
      if (own.length === 0) return;
      const { document: job } = await jobs.read(id);
      for (const entry of own) {
        const shot = job.shots.find((one) => one.id === entry.shot);
        // A picture that is gone from its job stays in the log as it was.
        if (!shot) continue;
        const told = ofPicture(job, shot);
        const set = { ...told, words: searchedWords({ ...entry, ...told }) };
        const isSame = (Object.keys(set) as (keyof typeof set)[]).every((key) => entry[key] === set[key]);
        if (!isSame)
          await database.write((query) =>
            query.update(logEntries).set(set).where(eq(logEntries.id, entry.id)),
          );
      }
    },
    async change(id, change) {
      await find(id);
      if (Object.keys(change).length > 0)
        await database.write((query) => query.update(logEntries).set(change).where(eq(logEntries.id, id)));
      const { entry, frame } = await find(id);
      return told(entry, frame);
    },
    async openSet(id) {
      const { entry } = await find(id);
      const now = await sets.read(entry.setId).catch(() => null);
      if (now?.revision === entry.setRevision) return now.id;
      const document = await requireSetOf(id);
      const name = `${document.name}, ${entry.at.slice(0, 10)}`.slice(0, 80);
      return (await sets.create({ ...document, name })).id;
    },
    setOf,
    async statistics(job) {
      const rows = await database.query
        .select()
        .from(logEntries)
        .where(and(eq(logEntries.kept, true), job === undefined ? undefined : eq(logEntries.job, job)))
        .orderBy(desc(logEntries.at))
        .limit(2 * MOST_PICTURES);
      const first = await database.query
        .select({ job: frames.job, shot: frames.shot, arrivedAt: min(frames.arrivedAt) })
        .from(frames)
        .where(inArray(frames.job, [...new Set(rows.map((entry) => entry.job))]))
        .groupBy(frames.job, frames.shot);
      return statisticsOf(rows, first, MOST_PICTURES);
    },
    async settled() {
      await judged;
    },
  };
}

function told(
  {
    setId,
    setRevision: _revision,
    begunAt: _begun,
    ...entry
  }: Omit<Row, 'document' | 'words'> & Partial<Row>,
  { name, gone, plate, take, exposureS, fNumber, iso, focalMm, body }: FrameRow,
): LogEntry {
  const { document: _document, words: _words, ...shown } = entry;
  return { ...shown, set: setId, name, gone, plate, take, exposureS, fNumber, iso, focalMm, body };
}
