import { createHash } from 'node:crypto';
import { createReadStream, existsSync, type ReadStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { StoredPicture } from '@fendrix/contract';
import { eq } from 'drizzle-orm';
import sharp, { type Metadata } from 'sharp';
import type { Database } from '../db/database.js';
import { jobs, pictures } from '../db/schema.js';
import { AppError } from '../errors.js';

/** Largest picture taken, bytes. */
export const MOST_PICTURE_BYTES = 30_000_000;

const MEDIA_TYPES: Record<string, StoredPicture['mediaType']> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};

/** Largest picture decoded, pixels: about what large bodies give. */
const MOST_PIXELS = 150_000_000;

/** Side of the picture that is made to know that all of a larger one is there, px. */
const CHECK_PX = 16;

/** A picture whose bytes were looked at and found to be one. */
export interface CheckedPicture extends StoredPicture {
  data: Uint8Array;
}

/** Pictures kept by their content: the same bytes are kept once. */
export interface PictureStore {
  /** Looks into the bytes, not at what they claim to be. @throws {AppError} no picture, or too large */
  check(data: Uint8Array): Promise<CheckedPicture>;
  keep(picture: CheckedPicture): Promise<StoredPicture>;
  /** @throws {AppError} not kept, or its file is gone */
  find(sha256: string): Promise<StoredPicture>;
  open(sha256: string): ReadStream;
  path(sha256: string): string;
}

export function createPictureStore(database: Database, folder: string): PictureStore {
  const path = (sha256: string) => join(folder, sha256.slice(0, 2), sha256);
  return {
    async check(data) {
      if (data.length > MOST_PICTURE_BYTES) throw tooLarge();
      const found = await read(data);
      if (found && found.width * found.height > MOST_PIXELS) {
        throw new AppError('too-large', 'The picture has too many pixels.', {
          hint: `It is ${found.width} x ${found.height}; at most 150 million are taken. Make it smaller first.`,
        });
      }
      if (found) await requireWhole(data);
      const mediaType = found?.format ? MEDIA_TYPES[found.format] : undefined;
      if (!found || !mediaType) {
        throw new AppError('bad-input', 'This file is not a picture that can be kept.', {
          hint: 'Give a JPEG, PNG or WebP file.',
        });
      }
      return {
        sha256: createHash('sha256').update(data).digest('hex'),
        mediaType,
        widthPx: found.width,
        heightPx: found.height,
        bytes: data.length,
        data,
      };
    },
    async keep({ data, ...picture }) {
      const target = path(picture.sha256);
      await mkdir(join(folder, picture.sha256.slice(0, 2)), { recursive: true });
      const partial = `${target}.${process.pid}.${Date.now()}.partial`;
      try {
        await writeFile(partial, data);
        await rename(partial, target);
      } catch (error) {
        await rm(partial, { force: true });
        throw error;
      }
      await database.write((query) => query.insert(pictures).values(picture).onConflictDoNothing());
      return picture;
    },
    async find(sha256) {
      const [row] = await database.query.select().from(pictures).where(eq(pictures.sha256, sha256)).limit(1);
      if (!row) throw new AppError('not-found', 'There is no picture with this address.');
      if (!existsSync(path(sha256))) {
        throw new AppError('not-found', 'The file of this picture is not there any more.', {
          hint: 'Choose the picture again; the rest of the job is as it was.',
        });
      }
      return row;
    },
    open: (sha256) => createReadStream(path(sha256)),
    path,
  };
}

const tooLarge = () =>
  new AppError('too-large', 'The picture is too large.', { hint: 'A picture is at most 30 MB.' });

/**
 * Decodes the picture once, at a small size and with few bytes at a time, to know that all of it is there.
 * @throws {AppError} cut off or damaged
 */
async function requireWhole(data: Uint8Array): Promise<void> {
  try {
    const whole = { failOn: 'truncated' as const, limitInputPixels: MOST_PIXELS, sequentialRead: true };
    await sharp(data, whole).resize(CHECK_PX, CHECK_PX).raw().toBuffer();
  } catch {
    throw new AppError('bad-input', 'This picture is cut off or damaged.', {
      hint: 'Export it again where it comes from, and give that file.',
    });
  }
}

/** What the bytes are, by their header alone; null where they are no picture. */
async function read(data: Uint8Array): Promise<Metadata | null> {
  try {
    return await sharp(data, { failOn: 'error', limitInputPixels: false }).metadata();
  } catch {
    return null;
  }
}

/** Pictures that no job names are kept this long: an undo in an open page may still want them. */
const UNUSED_MS = 30 * 24 * 3600_000;
/** Files of an unfinished write, and files without a row, are left alone for so long: they may be under way. */
const UNFINISHED_MS = 10 * 60_000;

/**
 * Clears what unfinished writes have left, and pictures that no job has named for a month, with their rows.
 * @returns how many files went
 */
export async function collectPictures(
  database: Database,
  folder: string,
  now = Date.now(),
): Promise<{ unfinished: number; unused: number }> {
  const rows = await database.query.select({ document: jobs.document }).from(jobs);
  const used = new Set(rows.flatMap(({ document }) => document.match(/[0-9a-f]{64}/g) ?? []));
  const gone = { unfinished: 0, unused: 0 };
  const names = await readdir(folder, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [] as string[];
    throw error;
  });
  for (const name of names) {
    const file = join(folder, name);
    const found = await stat(file).catch(() => null);
    if (!found?.isFile()) continue;
    const age = now - found.mtimeMs;
    const sha256 = basename(name);
    if (sha256.endsWith('.partial')) {
      if (age < UNFINISHED_MS) continue;
      gone.unfinished++;
    } else {
      if (!/^[0-9a-f]{64}$/.test(sha256) || used.has(sha256) || age < UNUSED_MS) continue;
      await database.write((query) => query.delete(pictures).where(eq(pictures.sha256, sha256)));
      gone.unused++;
    }
    await rm(file, { force: true });
  }
  return gone;
}
