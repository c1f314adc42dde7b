import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type BackupManifest, backupManifest, checkDocument } from '@fendrix/contract';
import { count, sql } from 'drizzle-orm';
import { ZipFile } from 'yazl';
import type { Database } from '../db/database.js';
import { frames, jobs, pictures, sets } from '../db/schema.js';
import { type ArchiveEntry, type ArchiveFile, openArchive } from '../domain/archiveFile.js';
import { MOST_PICTURE_BYTES } from '../domain/pictures.js';
import { AppError } from '../errors.js';

const MANIFEST = 'backup.json';
const DATABASE = 'studio.sqlite';
const PICTURE = /^pictures\/([0-9a-f]{64})$/;
const KNOWN_FILE = /^(backup\.json|studio\.sqlite|contents\.txt|pictures\/[0-9a-f]{64})$/;

const MOST_MANIFEST_BYTES = 10_000;
const MOST_DATABASE_BYTES = 8_000_000_000;
const LIMITS = {
  bytes: 40_000_000_000,
  unpackedBytes: 60_000_000_000,
  files: 200_000,
  timeMs: 60 * 60_000,
};

const refused = (why: string) =>
  new AppError('bad-input', `This backup was not read: ${why}`, {
    hint: 'Choose another one. Nothing was changed.',
  });

/** How many changes to its tables a database knows. */
export async function tablesOf({ query }: Database): Promise<number> {
  const rows = await query.all<{ n: number }>(sql`SELECT count(*) AS n FROM __drizzle_migrations`);
  return rows[0]?.n ?? 0;
}

/**
 * Writes database and pictures, as they are at one moment, into one ZIP file; it has its name when it is whole.
 * @param work folder for what is under way
 */
export async function writeBackup(
  database: Database,
  pictureFolder: string,
  target: string,
  work: string,
  reason: BackupManifest['reason'],
  now = new Date(),
): Promise<BackupManifest> {
  await mkdir(work, { recursive: true });
  const snapshot = join(work, DATABASE);
  const partial = join(work, 'backup.zip');
  try {
    await rm(snapshot, { force: true });
    const kept = await database.query.select({ sha256: pictures.sha256 }).from(pictures);
    await database.snapshot(snapshot);
    const of = async (table: typeof sets | typeof jobs | typeof frames) =>
      (await database.query.select({ value: count() }).from(table))[0]?.value ?? 0;
    const zip = new ZipFile();
    const written = pipeline(zip.outputStream, createWriteStream(partial));
    // What fails while files are still being added is told below.
    written.catch(() => undefined);
    let pictureCount = 0;
    for (const { sha256 } of kept) {
      const path = join(pictureFolder, sha256.slice(0, 2), sha256);
      // A picture whose file is gone is told in its job; the rest of the studio is still worth keeping.
      if (!(await stat(path).catch(() => null))?.isFile()) continue;
      zip.addFile(path, `pictures/${sha256}`, { compress: false });
      pictureCount++;
    }
    zip.addFile(snapshot, DATABASE);
    const manifest: BackupManifest = {
      format: 'fendrix-backup',
      version: 1,
      madeAt: now.toISOString(),
      reason,
      tables: await tablesOf(database),
      jobs: await of(jobs),
      sets: await of(sets),
      pictures: pictureCount,
      frames: await of(frames),
      database: { bytes: (await stat(snapshot)).size, sha256: await sha256Of(createReadStream(snapshot)) },
    };
    zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 2)}\n`), MANIFEST);
    zip.addBuffer(Buffer.from(CONTENTS), 'contents.txt');
    zip.end();
    await written;
    await mkdir(dirname(target), { recursive: true });
    await rename(partial, target);
    return manifest;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

const CONTENTS = `Backup of a Fendrix studio

backup.json     when and why it was made, and what is in it
studio.sqlite   the database: jobs, sets, kit, frames by name; SQLite
pictures        reference pictures and textures, named by the SHA-256 of their bytes

Not in it: the files of the folder that cameras write to. Copy them as you copy your other pictures.
`;

async function sha256Of(parts: AsyncIterable<unknown>): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of parts) hash.update(part as Buffer);
  return hash.digest('hex');
}

/** A backup that is open. */
export interface OpenBackup {
  manifest: BackupManifest;
  /** Reads all of it against its checksums. @throws {AppError} damaged, cut, foreign */
  verify(): Promise<void>;
  /** Writes its database to a file, checked. */
  database(to: string): Promise<void>;
  /** Writes those of its pictures that a folder has not. */
  pictures(folder: string): Promise<void>;
  close(): Promise<void>;
}

/** Opens a backup. @throws {AppError} none, damaged, or of a newer Fendrix */
export async function openBackup(path: string, signal = new AbortController().signal): Promise<OpenBackup> {
  const archive = await openArchive(path, (name) => KNOWN_FILE.test(name), signal, LIMITS);
  try {
    return opened(archive, await manifestOf(archive));
  } catch (error) {
    await archive.close();
    throw error;
  }
}

async function manifestOf({ entries }: ArchiveFile): Promise<BackupManifest> {
  const own = entries.get(MANIFEST);
  if (!own) throw refused('it is no backup of Fendrix.');
  let data: unknown;
  try {
    data = JSON.parse(Buffer.from(await own.read(MOST_MANIFEST_BYTES)).toString('utf8'));
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw refused('what it says of itself cannot be read.');
  }
  const checked = checkDocument(backupManifest, data);
  if (checked.ok) return checked.value;
  const [problem] = checked.problems;
  throw refused(`${problem?.path} ${problem?.message}`);
}

function opened({ entries, close }: ArchiveFile, manifest: BackupManifest): OpenBackup {
  const pictureEntries = [...entries.values()].flatMap((entry) => {
    const sha256 = PICTURE.exec(entry.name)?.[1];
    return sha256 ? [{ entry, sha256 }] : [];
  });
  const ownDatabase = (): ArchiveEntry => {
    const own = entries.get(DATABASE);
    if (!own) throw refused('its database is missing.');
    return own;
  };
  const checkDatabase = (sha256: string) => {
    if (sha256 !== manifest.database.sha256)
      throw refused('its database is not the one that was put into it.');
  };
  const checkPicture = (sha256: string, found: string) => {
    if (found !== sha256)
      throw refused(`the picture ${sha256.slice(0, 8)} does not hold what its name says.`);
  };
  return {
    manifest,
    close,
    async verify() {
      checkDatabase(await sha256Of(ownDatabase().parts(MOST_DATABASE_BYTES)));
      if (pictureEntries.length !== manifest.pictures)
        throw refused(`it holds ${pictureEntries.length} pictures of ${manifest.pictures}.`);
      for (const { entry, sha256 } of pictureEntries)
        checkPicture(sha256, await sha256Of(entry.parts(MOST_PICTURE_BYTES)));
    },
    async database(to) {
      await pipeline(Readable.from(ownDatabase().parts(MOST_DATABASE_BYTES)), createWriteStream(to));
      checkDatabase(await sha256Of(createReadStream(to)));
    },
    async pictures(folder) {
      for (const { entry, sha256 } of pictureEntries) {
        const target = join(folder, sha256.slice(0, 2), sha256);
        if ((await stat(target).catch(() => null))?.isFile()) continue;
        const data = await entry.read(MOST_PICTURE_BYTES);
        checkPicture(sha256, createHash('sha256').update(data).digest('hex'));
        await mkdir(dirname(target), { recursive: true });
        const partial = `${target}.${process.pid}.${Date.now()}.partial`;
        try {
          await pipeline(Readable.from([data]), createWriteStream(partial));
          await rename(partial, target);
        } catch (error) {
          await rm(partial, { force: true });
          throw error;
        }
      }
    },
  };
}
