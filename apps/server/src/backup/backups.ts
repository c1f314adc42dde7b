import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, type ReadStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Backup, BackupList, BackupLook, BackupManifest } from '@fendrix/contract';
import { DamagedDatabase, type Database, openDatabase } from '../db/database.js';
import { frames, jobs, pictures, sets } from '../db/schema.js';
import { AppError } from '../errors.js';
import { openBackup, tablesOf, writeBackup } from './backupFile.js';

const DAY_MS = 24 * 3600_000;
/** How often it is asked whether a day has gone by. */
const ASK_MS = 10 * 60_000;
/** Names that are told of what a restore changes. */
const MOST_NAMES = 40;
/** Of a backup that is sent, bytes. */
const MOST_SENT_BYTES = 40_000_000_000;

const FILE_WORDS: Readonly<Record<BackupManifest['reason'], string>> = {
  daily: 'daily',
  'by hand': 'by-hand',
  'before a restore': 'before-restore',
  'brought in': 'brought-in',
};

export interface BackupOptions {
  database: Database;
  pictureFolder: string;
  /** Where backups lie. */
  folder: string;
  /** Daily ones that are kept; none are made where it is 0. */
  keep: number;
  /** Where a database that was found damaged lies now. */
  setAside?: string | null;
}

/** The whole studio as files: made, looked into, checked, put back. */
export interface Backups {
  list(): Promise<BackupList>;
  make(reason: BackupManifest['reason'], now?: Date): Promise<Backup>;
  /** Takes one in that is sent, after reading all of it. */
  bring(sent: Readable, signal: AbortSignal): Promise<Backup>;
  /** @throws {AppError} damaged, with what is wrong */
  verify(name: string): Promise<Backup>;
  look(name: string): Promise<BackupLook>;
  /** Puts one in the place of the studio, which is backed up before. What fails leaves all as it was. */
  restore(name: string): Promise<Backup>;
  open(name: string): Promise<{ bytes: number; stream: ReadStream }>;
  remove(name: string): Promise<void>;
  /** Makes the daily one if a day has gone by, and lets those beyond the number kept go. */
  daily(now?: Date): Promise<Backup | null>;
  /** Asks for the daily one from now on. @returns ends that */
  startDaily(onFailure: (error: unknown) => void): () => void;
}

export function createBackups({
  database,
  pictureFolder,
  folder,
  keep,
  setAside = null,
}: BackupOptions): Backups {
  let last: Promise<unknown> = Promise.resolve();
  /** One at a time: a restore may not run into a backup. */
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = last.then(work);
    last = next.catch(() => undefined);
    return next;
  };
  const workFolder = () => join(folder, `.work-${process.pid}-${randomUUID()}`);
  const pathOf = async (name: string): Promise<string> => {
    const path = join(folder, name);
    if (!(await stat(path).catch(() => null))?.isFile())
      throw new AppError('not-found', 'There is no backup with this name.', {
        hint: 'It may have been removed.',
      });
    return path;
  };

  /** What a file of the folder is, by what it says of itself. */
  async function read(name: string): Promise<Backup> {
    const path = await pathOf(name);
    const backup = await openBackup(path);
    await backup.close();
    const { madeAt, reason, jobs: jobCount, sets: setCount, pictures } = backup.manifest;
    return { name, bytes: (await stat(path)).size, madeAt, reason, jobs: jobCount, sets: setCount, pictures };
  }

  async function make(reason: BackupManifest['reason'], now = new Date()): Promise<Backup> {
    const stamp = now.toISOString().slice(0, 19).replace('T', ' ').replaceAll(':', '');
    const name = await freeName(`fendrix ${stamp} ${FILE_WORDS[reason]}`);
    await writeBackup(database, pictureFolder, join(folder, name), workFolder(), reason, now);
    return read(name);
  }

  async function freeName(stem: string): Promise<string> {
    for (let i = 1; ; i++) {
      const name = i === 1 ? `${stem}.zip` : `${stem} ${i}.zip`;
      if (!(await stat(join(folder, name)).catch(() => null))) return name;
    }
  }

  /** Opens the database of a backup beside the studio's, brought up to the tables of today. */
  async function withDatabase<T>(
    name: string,
    work: (other: Database, file: string) => Promise<T>,
  ): Promise<T> {
    const backup = await openBackup(await pathOf(name));
    const own = workFolder();
    try {
      if (backup.manifest.tables > (await tablesOf(database)))
        throw new AppError('bad-input', 'A newer Fendrix made this backup.', {
          hint: 'Update this one to read it. Nothing was changed.',
        });
      await mkdir(own, { recursive: true });
      const file = join(own, 'studio.sqlite');
      await backup.database(file);
      const other = await openDatabase(`file:${file}`).catch((error: unknown) => {
        if (!(error instanceof DamagedDatabase)) throw error;
        throw new AppError('bad-input', 'The database in this backup is damaged.', {
          hint: 'Choose another one. Nothing was changed.',
        });
      });
      try {
        await requireOwnNames(other);
        return await work(other, file);
      } finally {
        await other.close();
      }
    } finally {
      await backup.close();
      await rm(own, { recursive: true, force: true });
    }
  }

  async function verify(name: string): Promise<Backup> {
    const backup = await openBackup(await pathOf(name));
    try {
      await backup.verify();
    } finally {
      await backup.close();
    }
    await withDatabase(name, async () => undefined);
    return read(name);
  }

  async function names(): Promise<string[]> {
    const all = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return [] as string[];
      throw error;
    });
    return all.filter((name) => name.endsWith('.zip'));
  }

  async function list(): Promise<BackupList> {
    const backups: Backup[] = [];
    const unreadable: BackupList['unreadable'] = [];
    for (const name of await names()) {
      try {
        backups.push(await read(name));
      } catch (error) {
        unreadable.push({ name, why: error instanceof Error ? error.message : 'It cannot be read.' });
      }
    }
    backups.sort((a, b) => b.madeAt.localeCompare(a.madeAt));
    return { folder, keep, backups, unreadable, damaged: setAside === null ? null : { setAside } };
  }

  async function daily(now = new Date()): Promise<Backup | null> {
    if (keep === 0) return null;
    const { backups } = await list();
    const own = backups.filter(({ reason }) => reason === 'daily');
    const [newest] = own;
    if (newest && now.getTime() - Date.parse(newest.madeAt) < DAY_MS) return null;
    const [job, set] = await Promise.all([
      database.query.select({ id: jobs.id }).from(jobs).limit(1),
      database.query.select({ id: sets.id }).from(sets).limit(1),
    ]);
    if (job.length + set.length === 0) return null;
    const made = await make('daily', now);
    for (const { name } of own.slice(keep - 1)) await rm(join(folder, name), { force: true });
    return made;
  }

  return {
    list,
    verify,
    make: (reason, now) => inTurn(() => make(reason, now)),
    daily: (now) => inTurn(() => daily(now)),
    async bring(sent, signal) {
      const own = workFolder();
      await mkdir(own, { recursive: true });
      try {
        const path = join(own, 'sent.zip');
        let bytes = 0;
        await pipeline(
          sent,
          async function* (source: AsyncIterable<Buffer>) {
            for await (const part of source) {
              bytes += part.length;
              if (bytes > MOST_SENT_BYTES) throw new AppError('too-large', 'What was sent is too large.');
              yield part;
            }
          },
          createWriteStream(path),
          { signal },
        );
        const backup = await openBackup(path, signal);
        try {
          await backup.verify();
        } finally {
          await backup.close();
        }
        const stamp = backup.manifest.madeAt.slice(0, 19).replace('T', ' ').replaceAll(':', '');
        const name = await freeName(`fendrix ${stamp} ${FILE_WORDS['brought in']}`);
        await rename(path, join(folder, name));
        return read(name);
      } finally {
        await rm(own, { recursive: true, force: true });
      }
    },
    async look(name) {
      const backup = await read(name);
      return withDatabase(name, async (other) => {
        const [now, then] = await Promise.all([documentsOf(database), documentsOf(other)]);
        const told = (all: Iterable<{ name: string }>) =>
          [...all].slice(0, MOST_NAMES).map((one) => one.name);
        const both = [...now].filter(([key]) => then.has(key));
        return {
          backup,
          lost: told([...now].filter(([key]) => !then.has(key)).map(([, one]) => one)),
          back: told([...then].filter(([key]) => !now.has(key)).map(([, one]) => one)),
          changed: told(
            both.filter(([key, one]) => then.get(key)?.document !== one.document).map(([, one]) => one),
          ),
        };
      });
    },
    restore: (name) =>
      inTurn(async () => {
        await verify(name);
        await make('before a restore');
        await withDatabase(name, async (_, file) => {
          const backup = await openBackup(await pathOf(name));
          try {
            await backup.pictures(pictureFolder);
          } finally {
            await backup.close();
          }
          await database.replaceWith(file);
        });
        return read(name);
      }),
    async open(name) {
      const path = await pathOf(name);
      return { bytes: (await stat(path)).size, stream: createReadStream(path) };
    },
    async remove(name) {
      await rm(await pathOf(name));
    },
    startDaily(onFailure) {
      const ask = () => void inTurn(() => daily()).catch(onFailure);
      const first = setTimeout(ask, 60_000);
      const timer = setInterval(ask, ASK_MS);
      first.unref();
      timer.unref();
      return () => {
        clearTimeout(first);
        clearInterval(timer);
      };
    },
  };
}

/** Files are found by names that a database holds: one from elsewhere must not lead out of their folders. */
async function requireOwnNames({ query }: Database): Promise<void> {
  const [framed, pictured] = await Promise.all([
    query.select({ name: frames.name, sha256: frames.sha256 }).from(frames),
    query.select({ sha256: pictures.sha256 }).from(pictures),
  ]);
  const isForeign = (name: string) => /^([/\\]|[A-Za-z]:)|(^|[/\\])\.\.([/\\]|$)|\0/.test(name);
  const isNoHash = ({ sha256 }: { sha256: string }) => !/^[0-9a-f]{64}$/.test(sha256);
  if (framed.some(({ name }) => isForeign(name)) || [...framed, ...pictured].some(isNoHash))
    throw new AppError('bad-input', 'This backup names files that are none of a studio.', {
      hint: 'It was not written by Fendrix as it is. Nothing was changed.',
    });
}

/** Jobs and sets of a database: name and text. */
async function documentsOf({ query }: Database): Promise<Map<string, { name: string; document: string }>> {
  const columns = (table: typeof sets | typeof jobs) =>
    query.select({ id: table.id, name: table.name, document: table.document }).from(table as typeof sets);
  const [allJobs, allSets] = await Promise.all([columns(jobs), columns(sets)]);
  return new Map([
    ...allJobs.map(({ id, ...one }): [string, typeof one] => [`job ${id}`, one]),
    ...allSets.map(({ id, ...one }): [string, typeof one] => [`set ${id}`, one]),
  ]);
}

/** Clears what backups that were cut off have left in a folder. */
export async function clearCutOff(folder: string): Promise<void> {
  for (const name of await readdir(folder).catch(() => [] as string[]))
    if (name.startsWith('.work-')) await rm(join(folder, name), { recursive: true, force: true });
}
