import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Frame, FrameChange } from '@fendrix/contract';
import { and, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { facts, frames } from '../db/schema.js';
import { AppError } from '../errors.js';
import { largeOf, type ReadFrame } from './readFrame.js';

type Row = typeof frames.$inferSelect;

/** Where the job that frames come to is kept. */
const FRAMES_TO = 'frames-to';
/** Longer side of a frame that is looked at alone, px. */
const LARGE_PX = 1800;

/** A file of the folder: name, size and when it was written. */
export type FrameFile = Pick<Row, 'name' | 'bytes' | 'writtenMs'>;

/** When a file was met, and whether it came while the folder was watched. */
export interface Arrival {
  live: boolean;
  atMs: number;
}

/** What is known of the frames of the watched folder. */
export interface FrameStore {
  /** @param job all frames where there is none */
  list(
    job: string | undefined,
    page: { limit: number; offset: number },
  ): Promise<{ frames: Frame[]; total: number }>;
  /** The job that frames come to. */
  framesTo(): Promise<string | null>;
  setFramesTo(job: string | null): Promise<void>;
  /** Whether a file is known as it stands; then it is there again. */
  known(file: FrameFile): Promise<boolean>;
  /**
   * Keeps what was read of a file. The same bytes under another name are the same frame.
   * @returns the frame if it is new
   */
  keep(file: FrameFile, read: ReadFrame, arrived: Arrival): Promise<Row | null>;
  place(id: string, placed: Pick<Row, 'job' | 'shot' | 'plate' | 'take' | 'placedBy'>): Promise<void>;
  /** Frames that came while there was no job for them. */
  withoutJob(): Promise<Row[]>;
  find(id: string): Promise<Row>;
  /** How far the clock of a body is behind, by the last frame that came while the folder was watched, ms. */
  clockOff(body: string | null): Promise<number | null>;
  gone(name: string): Promise<void>;
  change(id: string, change: FrameChange): Promise<Frame>;
  picture(id: string, size: 'small' | 'large'): Promise<Buffer>;
}

const told = ({ sha256: _sha, writtenMs: _written, live: _live, ...frame }: Row): Frame => frame;

/** @param watched the folder that cameras write to  @param kept where small pictures are kept, made anew if they go */
export function createFrameStore(database: Database, watched: string, kept: string): FrameStore {
  const pictureOf = (sha256: string, size: 'small' | 'large') =>
    join(kept, sha256.slice(0, 2), `${sha256}-${size}.webp`);

  async function write(path: string, bytes: Buffer): Promise<void> {
    await mkdir(join(path, '..'), { recursive: true });
    const partial = `${path}.${process.pid}.partial`;
    await writeFile(partial, bytes);
    await rename(partial, path);
  }
  async function find(id: string): Promise<Row> {
    const [row] = await database.query.select().from(frames).where(eq(frames.id, id)).limit(1);
    if (!row) throw new AppError('not-found', 'There is no frame with this address.');
    return row;
  }

  return {
    async list(job, { limit, offset }) {
      const own = job === undefined ? undefined : eq(frames.job, job);
      const rows = await database.query
        .select()
        .from(frames)
        .where(own)
        .orderBy(desc(frames.arrivedAt), desc(frames.name))
        .limit(limit)
        .offset(offset);
      const [all] = await database.query.select({ value: count() }).from(frames).where(own);
      return { frames: rows.map(told), total: all?.value ?? 0 };
    },
    async framesTo() {
      const [row] = await database.query.select().from(facts).where(eq(facts.name, FRAMES_TO)).limit(1);
      return row?.value || null;
    },
    async setFramesTo(job) {
      const row = { name: FRAMES_TO, value: job ?? '' };
      await database.write((query) =>
        query.insert(facts).values(row).onConflictDoUpdate({ target: facts.name, set: row }),
      );
    },
    async known({ name, bytes, writtenMs }) {
      const same = and(eq(frames.name, name), eq(frames.bytes, bytes), eq(frames.writtenMs, writtenMs));
      const [found] = await database.query.select().from(frames).where(same).limit(1);
      if (found?.gone)
        await database.write((query) =>
          query.update(frames).set({ gone: false }).where(eq(frames.id, found.id)),
        );
      return found !== undefined;
    },
    async keep(file, { small, ...read }, { live, atMs }) {
      await write(pictureOf(read.sha256, 'small'), small);
      const row: Row = {
        id: randomUUID(),
        ...file,
        ...read,
        arrivedAt: new Date(atMs).toISOString(),
        live,
        job: null,
        shot: null,
        plate: null,
        take: null,
        placedBy: null,
        state: 'new',
        starred: false,
        gone: false,
      };
      return database.write(async (query) => {
        const made = await query
          .insert(frames)
          .values(row)
          .onConflictDoNothing()
          .returning({ id: frames.id });
        if (made.length > 0) return row;
        // It was renamed, or is there twice.
        await query
          .update(frames)
          .set({ ...file, gone: false })
          .where(eq(frames.sha256, read.sha256));
        return null;
      });
    },
    async place(id, placed) {
      await database.write((query) => query.update(frames).set(placed).where(eq(frames.id, id)));
    },
    withoutJob: () =>
      database.query
        .select()
        .from(frames)
        .where(and(isNull(frames.job), eq(frames.gone, false))),
    find,
    async clockOff(body) {
      if (body === null) return null;
      const [row] = await database.query
        .select()
        .from(frames)
        .where(and(eq(frames.body, body), eq(frames.live, true), isNotNull(frames.takenAt)))
        .orderBy(desc(frames.arrivedAt))
        .limit(1);
      return row?.takenAt ? Date.parse(row.arrivedAt) - Date.parse(row.takenAt) : null;
    },
    async gone(name) {
      await database.write((query) => query.update(frames).set({ gone: true }).where(eq(frames.name, name)));
    },
    async change(id, change) {
      const { shot, plate, ...rest } = change;
      // In another job it is of no picture until it is said which, and in another picture of no plate.
      const moved = shot === undefined && rest.job !== undefined ? null : shot;
      const of = moved !== undefined && plate === undefined ? null : plate;
      const set = {
        ...rest,
        ...(moved === undefined ? {} : { shot: moved, take: null }),
        ...(of === undefined ? {} : { plate: of, placedBy: 'hand' as const }),
      };
      if (Object.keys(set).length > 0)
        await database.write((query) => query.update(frames).set(set).where(eq(frames.id, id)));
      return told(await find(id));
    },
    async picture(id, size) {
      const { sha256, name, gone } = await find(id);
      const path = pictureOf(sha256, size);
      const there = await readFile(path).catch(() => null);
      if (there) return there;
      if (gone) throw new AppError('not-found', 'The file of this frame is not in the folder any more.');
      const made = await largeOf(join(watched, name), size === 'large' ? LARGE_PX : 360).catch(() => {
        throw new AppError('not-found', 'The file of this frame cannot be read.');
      });
      await write(path, made);
      return made;
    },
  };
}
