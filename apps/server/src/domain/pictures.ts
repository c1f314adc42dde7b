import { createHash } from 'node:crypto';
import { createReadStream, type ReadStream } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { StoredPicture } from '@fendrix/contract';
import { eq } from 'drizzle-orm';
import sharp, { type Metadata } from 'sharp';
import type { Database } from '../db/database.js';
import { pictures } from '../db/schema.js';
import { AppError } from '../errors.js';

/** Largest picture taken, bytes. */
export const MOST_PICTURE_BYTES = 30_000_000;

const MEDIA_TYPES: Record<string, StoredPicture['mediaType']> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};

/** A picture whose bytes were looked at and found to be one. */
export interface CheckedPicture extends StoredPicture {
  data: Uint8Array;
}

/** Pictures kept by their content: the same bytes are kept once. */
export interface PictureStore {
  /** Looks into the bytes, not at what they claim to be. @throws {AppError} no picture, or too large */
  check(data: Uint8Array): Promise<CheckedPicture>;
  keep(picture: CheckedPicture): Promise<StoredPicture>;
  find(sha256: string): Promise<StoredPicture>;
  open(sha256: string): ReadStream;
  bytes(sha256: string): Promise<Uint8Array>;
}

export function createPictureStore(database: Database, folder: string): PictureStore {
  const path = (sha256: string) => join(folder, sha256.slice(0, 2), sha256);
  return {
    async check(data) {
      if (data.length > MOST_PICTURE_BYTES) throw tooLarge();
      const found = await read(data);
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
      await writeFile(partial, data);
      await rename(partial, target);
      await database.write((query) => query.insert(pictures).values(picture).onConflictDoNothing());
      return picture;
    },
    async find(sha256) {
      const [row] = await database.query.select().from(pictures).where(eq(pictures.sha256, sha256)).limit(1);
      if (!row) throw new AppError('not-found', 'There is no picture with this address.');
      return row;
    },
    open: (sha256) => createReadStream(path(sha256)),
    bytes: (sha256) => readFile(path(sha256)),
  };
}

const tooLarge = () =>
  new AppError('too-large', 'The picture is too large.', { hint: 'A picture is at most 30 MB.' });

/** What the bytes are; null where they are no picture. */
async function read(data: Uint8Array): Promise<Metadata | null> {
  try {
    return await sharp(data, { failOn: 'error' }).metadata();
  } catch {
    return null;
  }
}
