import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { crc32 } from 'node:zlib';
import { type Entry, open, type ZipFile } from 'yauzl';
import { AppError } from '../errors.js';

/** Limits of an archive, all of them by real bytes, not by what its entries claim. */
export interface ArchiveLimits {
  /** Of the archive as sent, bytes. */
  bytes: number;
  /** Of all that is in it, unpacked, bytes. */
  unpackedBytes: number;
  files: number;
  /** From the first entry to the last, ms. */
  timeMs: number;
}

export const ARCHIVE_LIMITS: ArchiveLimits = {
  bytes: 4_000_000_000,
  unpackedBytes: 12_000_000_000,
  files: 2000,
  timeMs: 10 * 60_000,
};

/** One file of an archive. */
export interface ArchiveEntry {
  name: string;
  /** Its bytes, unpacked, part by part; refused beyond `most`, with a wrong checksum, or when asked no longer. */
  parts(most: number): AsyncIterable<Buffer>;
  /** The same in one. */
  read(most: number): Promise<Uint8Array>;
}

/** An archive that lies in a temporary file: its entries by name, read as often as wanted. */
export interface ArchiveFile {
  entries: ReadonlyMap<string, ArchiveEntry>;
  close(): Promise<void>;
}

const ENCRYPTED = 1;
const openZip = promisify<string, object, ZipFile>(open as never);

/** Why an archive is not read. */
export const refusedArchive = (why: string) =>
  new AppError('bad-input', `This archive was not read: ${why}`, {
    hint: 'Choose a file that Fendrix has written, whole. Nothing was changed.',
  });

/**
 * Takes an archive into a temporary file and reads its list of entries. Bytes are unpacked one entry at a time when asked
 * for, off the thread that answers requests, each counted as it comes.
 * @param accepts whether an entry of this name belongs in it
 * @param signal ends all of it, as when who sent it is gone
 * @throws {AppError} too large, no ZIP, foreign, doubled or encrypted entries
 */
export async function receiveArchive(
  sent: Readable,
  accepts: (name: string) => boolean,
  signal: AbortSignal,
  limits: ArchiveLimits = ARCHIVE_LIMITS,
): Promise<ArchiveFile> {
  const folder = await mkdtemp(join(tmpdir(), 'fendrix-archive-'));
  const path = join(folder, 'sent.zip');
  const remove = () => rm(folder, { recursive: true, force: true });
  try {
    await pipeline(sent, counted(limits.bytes), createWriteStream(path), { signal });
    const { entries, close } = await openArchive(path, accepts, signal, limits);
    return {
      entries,
      async close() {
        await close();
        await remove();
      },
    };
  } catch (error) {
    await remove();
    throw error;
  }
}

/** An archive that lies somewhere, see `receiveArchive`; it is only read. */
export async function openArchive(
  path: string,
  accepts: (name: string) => boolean,
  signal: AbortSignal,
  limits: ArchiveLimits = ARCHIVE_LIMITS,
): Promise<ArchiveFile> {
  const until = Date.now() + limits.timeMs;
  const zip = await openZip(path, { lazyEntries: true, autoClose: false, validateEntrySize: true }).catch(
    () => {
      throw refusedArchive('it is damaged, or no ZIP file.');
    },
  );
  const budget = { left: limits.unpackedBytes, until, signal };
  try {
    return { entries: await listed(zip, accepts, limits.files, budget), close: async () => zip.close() };
  } catch (error) {
    zip.close();
    throw error;
  }
}

/** Passes bytes on up to a limit. */
function counted(most: number) {
  return async function* (source: AsyncIterable<Buffer>) {
    let bytes = 0;
    for await (const part of source) {
      bytes += part.length;
      if (bytes > most) throw new AppError('too-large', 'What was sent is too large.', { hint: LARGEST });
      yield part;
    }
  };
}

const LARGEST = 'An archive is at most 4 GB. Take large pictures out of the job before it is exported.';

interface Budget {
  left: number;
  until: number;
  signal: AbortSignal;
}

function listed(
  zip: ZipFile,
  accepts: (name: string) => boolean,
  most: number,
  budget: Budget,
): Promise<Map<string, ArchiveEntry>> {
  const entries = new Map<string, ArchiveEntry>();
  return new Promise((resolve, reject) => {
    zip.on('error', ({ message }: Error) => {
      const foreign = /relative path|absolute path|invalid characters/.test(message);
      reject(refusedArchive(foreign ? 'a path in it does not belong there.' : 'it is damaged.'));
    });
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      const why = whyNot(entry, entries, accepts, most);
      if (why) return reject(refusedArchive(why));
      const parts = (limit: number) => partsOf(zip, entry, limit, budget);
      entries.set(entry.fileName, { name: entry.fileName, parts, read: (limit) => inOne(parts(limit)) });
      zip.readEntry();
    });
    zip.readEntry();
  });
}

function whyNot(
  { fileName, generalPurposeBitFlag }: Entry,
  entries: ReadonlyMap<string, ArchiveEntry>,
  accepts: (name: string) => boolean,
  most: number,
): string | null {
  if (!accepts(fileName)) return `“${fileName.slice(0, 80)}” does not belong in it.`;
  if (entries.has(fileName)) return `it holds ${fileName} twice.`;
  if ((generalPurposeBitFlag & ENCRYPTED) !== 0) return `${fileName} is encrypted.`;
  return entries.size >= most ? `it holds more than ${most} files.` : null;
}

async function* partsOf(zip: ZipFile, entry: Entry, most: number, budget: Budget): AsyncGenerator<Buffer> {
  const name = entry.fileName;
  if (entry.uncompressedSize > most) throw refusedArchive(`${name} is too large unpacked.`);
  const stream = await promisify<Entry, Readable>(zip.openReadStream.bind(zip) as never)(entry);
  const onAbort = () => stream.destroy(budget.signal.reason);
  budget.signal.addEventListener('abort', onAbort, { once: true });
  let size = 0;
  let sum = 0;
  try {
    for await (const part of stream as AsyncIterable<Buffer>) {
      size += part.length;
      budget.left -= part.length;
      if (size > most || budget.left < 0) throw refusedArchive(`${name} is too large unpacked.`);
      if (Date.now() > budget.until) throw refusedArchive('it takes too long to unpack.');
      sum = crc32(part, sum);
      yield part;
    }
  } catch (error) {
    if (error instanceof AppError || budget.signal.aborted) throw error;
    throw refusedArchive(`${name} is damaged.`);
  } finally {
    stream.destroy();
    budget.signal.removeEventListener('abort', onAbort);
  }
  if (sum !== entry.crc32) throw refusedArchive(`${name} is damaged: its checksum is wrong.`);
}

async function inOne(parts: AsyncIterable<Buffer>): Promise<Uint8Array> {
  const all: Buffer[] = [];
  for await (const part of parts) all.push(part);
  return new Uint8Array(Buffer.concat(all));
}
