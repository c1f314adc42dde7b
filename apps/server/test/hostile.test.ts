import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { crc32, deflateSync, gzipSync } from 'node:zlib';
import type { ApiError, Job, Stored, StoredPicture } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { eq } from 'drizzle-orm';
import { strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DamagedDatabase, openDatabase, openOrSetAside } from '../src/db/database.js';
import { sets } from '../src/db/schema.js';
import { receiveArchive } from '../src/domain/archiveFile.js';
import { collectPictures } from '../src/domain/pictures.js';
import { briefly } from '../src/errors.js';
import { startTestServer } from './testServer.js';

let server: Awaited<ReturnType<typeof startTestServer>>;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const zipped = { 'content-type': 'application/zip' };
const importing = (archive: Uint8Array) => server.call<ApiError>('POST', '/api/jobs/import', archive, zipped);

/** The central directory entry of a file: its bytes can be made to lie. */
function directoryEntry(archive: Buffer, name: string): number {
  for (let at = 0; at < archive.length - 46; at++) {
    if (archive.readUInt32LE(at) !== 0x02014b50) continue;
    const length = archive.readUInt16LE(at + 28);
    if (archive.toString('latin1', at + 46, at + 46 + length) === name) return at;
  }
  throw new Error(`there is no ${name}`);
}

const job = (more: object = {}) =>
  strToU8(JSON.stringify({ format: 'fendrix-job', version: 1, name: 'A job', ...more }));

describe('archives', () => {
  const megabytes = (count: number) => new Uint8Array(count << 20);

  test.each<[string, () => Buffer, RegExp]>([
    [
      'an entry that claims 1 000 bytes and unpacks to 64 MB',
      () => {
        const archive = Buffer.from(zipSync({ 'job.json': [megabytes(64), { level: 1 }] }));
        archive.writeUInt32LE(1000, directoryEntry(archive, 'job.json') + 24);
        return archive;
      },
      /damaged/,
    ],
    [
      'an entry that says how large it is',
      () => Buffer.from(zipSync({ 'job.json': [megabytes(80), { level: 1 }] })),
      /too large unpacked/,
    ],
    [
      'a wrong checksum',
      () => {
        const archive = Buffer.from(zipSync({ 'job.json': job() }));
        archive.writeUInt32LE(7, directoryEntry(archive, 'job.json') + 16);
        return archive;
      },
      /checksum is wrong/,
    ],
    [
      'an encrypted flag',
      () => {
        const archive = Buffer.from(zipSync({ 'job.json': job() }));
        archive.writeUInt16LE(1, directoryEntry(archive, 'job.json') + 8);
        return archive;
      },
      /encrypted/,
    ],
    [
      'a doubled name',
      () => {
        const archive = Buffer.from(zipSync({ 'job.json': job(), 'jab.json': job() }).map((byte) => byte));
        return Buffer.from(archive.toString('latin1').replaceAll('jab.json', 'job.json'), 'latin1');
      },
      /twice/,
    ],
  ])('%s is refused; the server answers meanwhile', async (_name, make, why) => {
    const archive = make();
    const asked = importing(archive);
    const health = await server.call('GET', '/api/health');
    expect(health.status).toBe(200);
    const { status, body } = await asked;
    expect(status).toBe(400);
    expect(body.error.message).toMatch(why);
  });

  test('limits count real bytes, files and time; who has gone is not read for; nothing stays behind', async () => {
    const archive = zipSync({ 'job.json': [megabytes(8), { level: 1 }], 'contents.txt': strToU8('x') });
    const usual = { bytes: 1e9, unpackedBytes: 1e9, files: 10, timeMs: 1e6 };
    const read = async (limits: Partial<typeof usual>, signal = new AbortController().signal) => {
      const file = await receiveArchive(Readable.from([archive]), () => true, signal, {
        ...usual,
        ...limits,
      });
      try {
        return (await file.entries.get('job.json')?.read(1e9))?.length;
      } finally {
        await file.close();
      }
    };
    const left = () => readdirSync(tmpdir()).filter((name) => name.startsWith('fendrix-archive-')).length;
    const before = left();
    expect(await read({})).toBe(8 << 20);
    await expect(read({ bytes: 100 })).rejects.toThrow(/too large/);
    await expect(read({ unpackedBytes: 1 << 20 })).rejects.toThrow(/too large unpacked/);
    await expect(read({ files: 1 })).rejects.toThrow(/more than 1 files/);
    await expect(read({ timeMs: -1 })).rejects.toThrow(/too long/);
    const gone = new AbortController();
    gone.abort(new Error('gone'));
    await expect(read({}, gone.signal)).rejects.toThrow();
    expect(left()).toBe(before);
  });

  test('a job whose picture file is lost is exported with a word, and read in again', async () => {
    const data = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#801020' } })
      .png()
      .toBuffer();
    const kept = await server.call<StoredPicture>('POST', '/api/pictures', data, {
      'content-type': 'image/png',
    });
    const { sha256 } = kept.body;
    const references = [{ sha256, name: 'Autumn light', note: '' }];
    const document = JSON.parse(
      Buffer.from(job({ brief: { need: '', mood: '', references, notes: '' } })).toString(),
    );
    const made = await server.call<Stored<Job>>('POST', '/api/jobs', { document });
    expect(made.status).toBe(201);
    const path = `/api/jobs/${made.body.id}/export`;
    const whole = unzipSync((await server.call<Buffer>('GET', path)).body);
    expect(whole[`pictures/${sha256}.png`]).toHaveLength(data.length);
    rmSync(join(server.folder, 'pictures', sha256.slice(0, 2), sha256));
    expect((await server.call<ApiError>('GET', `/api/pictures/${sha256}`)).status).toBe(404);
    const archive = await server.call<Buffer>('GET', path);
    expect(archive.status).toBe(200);
    expect(Buffer.from(unzipSync(archive.body)['contents.txt'] ?? []).toString()).toContain('“Autumn light”');
    expect((await server.call('POST', '/api/jobs/import', archive.body, zipped)).status).toBe(201);
  });
});

describe('requests that are not what they should be', () => {
  const set = () => JSON.stringify({ document: demoSet('mill') });

  test.each<[string, string, string, () => unknown, Record<string, string>]>([
    ['a path that climbs', 'GET', '/api/../../etc/passwd', () => undefined, {}],
    ['bad gzip', 'POST', '/api/sets', () => Buffer.from('no gzip'), { 'content-encoding': 'gzip' }],
    ['cut gzip', 'POST', '/api/sets', () => gzipSync(set()).subarray(0, 60), { 'content-encoding': 'gzip' }],
    ['an unknown encoding', 'POST', '/api/sets', () => '{}', { 'content-encoding': 'rot13' }],
    [
      'an unknown charset',
      'POST',
      '/api/sets',
      () => '{}',
      { 'content-type': 'application/json; charset=klingon' },
    ],
    ['JSON to pictures', 'POST', '/api/pictures', () => '{}', {}],
    ['JSON to pictures, with a slash more', 'POST', '/api/pictures/', () => '{}', {}],
    ['JSON to pictures, in other letters', 'POST', '/API/Pictures', () => '{}', {}],
  ])('%s answers 4xx in words', async (_name, method, path, body, headers) => {
    const { status, body: told } = await server.call<ApiError>(method, path, body(), {
      'content-type': 'application/json',
      ...headers,
    });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect(told.error.message.length).toBeGreaterThan(10);
  });

  test('what changes something is refused from another site, even without an origin', async () => {
    const headers = { 'sec-fetch-site': 'cross-site' };
    expect((await server.call('POST', '/api/sets', set(), headers)).status).toBe(403);
    expect((await server.call('GET', '/api/sets', undefined, headers)).status).toBe(200);
    expect((await server.call('POST', '/api/sets', set(), { 'sec-fetch-site': 'same-origin' })).status).toBe(
      201,
    );
  });

  test('answers are not kept, refusals neither', async () => {
    for (const path of ['/api/sets', '/api/nothing', '/API/sets'])
      expect((await server.call('GET', path)).headers['cache-control']).toBe('no-store');
  });

  test('a client that goes in the middle of an archive leaves the server as it was', async () => {
    const socket = connect(server.port, '127.0.0.1');
    await new Promise((resolve) => socket.once('connect', resolve));
    const head = `POST /api/jobs/import HTTP/1.1\r\nHost: 127.0.0.1:${server.port}\r\nContent-Type: application/zip\r\n`;
    socket.write(`${head}Content-Length: 1000000\r\n\r\n${'x'.repeat(1000)}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
    socket.destroy();
    expect((await server.call('GET', '/api/health')).status).toBe(200);
  });
});

describe('pictures', () => {
  const keep = (data: Uint8Array) =>
    server.call<ApiError>('POST', '/api/pictures', data, { 'content-type': 'image/png' });

  /** A PNG that says how large it is and holds little. */
  function png(width: number, height: number): Buffer {
    const chunk = (type: string, data: Buffer) => {
      const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
      const ends = [Buffer.alloc(4), Buffer.alloc(4)] as const;
      ends[0].writeUInt32BE(data.length);
      ends[1].writeUInt32BE(crc32(body));
      return Buffer.concat([ends[0], body, ends[1]]);
    };
    const header = Buffer.alloc(13);
    header.writeUInt32BE(width, 0);
    header.writeUInt32BE(height, 4);
    header.set([8, 0], 8);
    const rows = deflateSync(Buffer.alloc(30_000));
    const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
    return Buffer.concat([
      signature,
      chunk('IHDR', header),
      chunk('IDAT', rows),
      chunk('IEND', Buffer.alloc(0)),
    ]);
  }

  test('one of 16 000 x 16 000 pixels is refused by what its header says', async () => {
    const { status, body } = await keep(png(16_000, 16_000));
    expect(status).toBe(413);
    expect(body.error.hint).toContain('16000 x 16000');
  });

  test('half a picture is refused, the whole is kept', async () => {
    const whole = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#444' } })
      .jpeg()
      .toBuffer();
    expect((await keep(whole)).status).toBe(201);
    expect((await keep(whole.subarray(0, whole.length >> 1))).body.error.message).toMatch(/cut off/);
    const noisy = await sharp(Buffer.from(Array.from({ length: 30_000 }, (_, i) => (i * 7919) % 251)), {
      raw: { width: 100, height: 100, channels: 3 },
    })
      .png()
      .toBuffer();
    expect((await keep(noisy.subarray(0, noisy.length >> 1))).body.error.message).toMatch(/cut off/);
  });

  test('leftovers of writes and pictures that nobody uses are cleared, those in use and new ones stay', async () => {
    const folder = join(server.folder, 'pictures');
    const file = (name: string, daysOld: number) => {
      const path = join(folder, name.slice(0, 2), name);
      mkdirSync(join(folder, name.slice(0, 2)), { recursive: true });
      writeFileSync(path, 'x');
      const at = Date.now() / 1000 - daysOld * 86_400;
      utimesSync(path, at, at);
      return path;
    };
    const used = 'a'.repeat(64);
    const brief = { need: '', mood: '', references: [{ sha256: used, name: 'x', note: '' }], notes: '' };
    const document = JSON.parse(Buffer.from(job({ brief })).toString());
    await server.call('POST', '/api/jobs', { document });
    const kept = [file(used, 90), file('b'.repeat(64), 3), file('notes.txt', 90)];
    const gone = [file('c'.repeat(64), 40), file(`${'d'.repeat(64)}.1.2.partial`, 1)];
    const cleared = await collectPictures(server.database, folder);
    expect(cleared).toEqual({ unfinished: 1, unused: 1 });
    expect(kept.map((path) => existsSync(path))).toEqual([true, true, true]);
    expect(gone.map((path) => existsSync(path))).toEqual([false, false]);
  });
});

describe('what is stored', () => {
  const folder = () => mkdtempSync(join(tmpdir(), 'fendrix-db-'));

  test('after a clean stop all of it lies in the one file', async () => {
    const file = join(folder(), 'one.sqlite');
    const database = await openDatabase(`file:${file}`);
    const row = { id: 'x', name: 'x', revision: 1, document: 'y'.repeat(50_000), updatedAt: '' };
    await database.write((query) => query.insert(sets).values(row));
    await database.close();
    expect(statSync(file).size).toBeGreaterThan(50_000);
    expect(existsSync(`${file}-wal`) ? statSync(`${file}-wal`).size : 0).toBe(0);
  });

  test('a damaged database is set aside, never deleted, and an empty one begun', async () => {
    const file = join(folder(), 'two.sqlite');
    writeFileSync(file, 'this is no database, but somebody may still want it'.repeat(100));
    await expect(openDatabase(`file:${file}`)).rejects.toThrow(DamagedDatabase);
    const { database, setAside } = await openOrSetAside(file, new Date(0));
    expect(setAside).toBe(`${file}.damaged-1970-01-01T00-00-00-000Z`);
    expect(statSync(setAside as string).size).toBe(5100);
    expect(await database.query.select().from(sets)).toEqual([]);
    await database.close();
    expect((await openOrSetAside(file)).setAside).toBeNull();
  });

  test('a document outside the schema is named, given out raw, and can be removed or saved over', async () => {
    const made = await server.call<Stored<unknown>>('POST', '/api/sets', { document: demoSet('tart') });
    const { id } = made.body;
    const text = '{"format":"fendrix-set","version":1,"name":"Old tart","camera":{}}';
    await server.database.write((query) =>
      query.update(sets).set({ document: text, name: 'Old tart' }).where(eq(sets.id, id)),
    );
    const read = await server.call<ApiError>('GET', `/api/sets/${id}`);
    expect(read.status).toBe(500);
    expect(read.body.error.message).toContain('“Old tart”');
    expect(read.body.error.problems?.map(({ path, message }) => `${path} ${message}`).join('\n')).toMatch(
      new RegExp(`${id}[\\s\\S]*camera\\.`),
    );
    const raw = await server.call<unknown>('GET', `/api/sets/${id}/raw`);
    expect(JSON.stringify(raw.body)).toBe(text);
    const over = await server.call('PUT', `/api/sets/${id}`, { revision: 1, document: demoSet('tart') });
    expect(over.status).toBe(200);
    expect((await server.call('DELETE', `/api/sets/${id}`)).status).toBe(204);
  });

  test.each<[string, Error, RegExp]>([
    ['a full disk', Object.assign(new Error('x'), { code: 'ENOSPC' }), /disk of the server is full/],
    [
      'a full database',
      new Error('q', {
        cause: Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' }),
      }),
      /full/,
    ],
    [
      'a read-only folder',
      new Error('q', {
        cause: Object.assign(new Error('attempt to write a readonly database'), { code: 'SQLITE_READONLY' }),
      }),
      /cannot be written/,
    ],
  ])('%s is named', async (_name, error, words) => {
    const { errorExit } = await import('../src/errors.js');
    const ctx = { status: 0, body: undefined as unknown };
    await errorExit({ error: () => undefined } as never)(ctx as never, () => Promise.reject(error));
    expect(ctx.status).toBe(507);
    expect((ctx.body as ApiError).error.message).toMatch(words);
  });

  test('the log never holds what was being stored', () => {
    const secret = 'the whole document'.repeat(1000);
    const failed = Object.assign(new Error(`Failed query: insert into sets\nparams: ${secret}`), {
      params: [secret],
    });
    const told = JSON.stringify(briefly(new Error('save failed', { cause: failed })));
    expect(told).toContain('Failed query');
    expect(told).not.toContain('whole document');
    expect(told.length).toBeLessThan(4000);
  });
});
