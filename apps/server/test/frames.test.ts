import {
  appendFileSync,
  copyFileSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Frame, FrameList, StoredJob, StoredSet } from '@fendrix/contract';
import { plannedFrames } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { embeddedJpeg } from '../src/frames/embeddedJpeg.js';
import { startTestServer } from './testServer.js';

/** A JPEG as a camera writes it. */
function jpeg(
  grey: number,
  { side = 64, fNumber = '8/1', exposure = '1/125', iso = '100', taken = '' } = {},
) {
  const picture = sharp({
    create: {
      width: side,
      height: Math.round((side * 2) / 3),
      channels: 3,
      background: { r: grey, g: 90, b: 40 },
    },
  }).jpeg();
  const when = taken === '' ? {} : { DateTimeOriginal: taken };
  const exif = {
    IFD0: { Make: 'Quellwerk', Model: 'Stand-in 24' },
    IFD2: { FNumber: fNumber, ExposureTime: exposure, ISOSpeedRatings: iso, FocalLength: '85/1', ...when },
  };
  return picture.withExif(exif).toBuffer();
}

describe('the watched folder', () => {
  let server: Awaited<ReturnType<typeof startTestServer>>;
  let job: StoredJob;
  let folder: string;
  const at = (name: string) => join(folder, name);
  const list = async (of = job.id) => (await server.call<FrameList>('GET', `/api/frames?job=${of}`)).body;
  /** Waits until so many frames of the job are there, and nothing is being read. */
  const until = (count: number) =>
    vi.waitFor(
      async () => {
        const found = await list();
        expect(found.total).toBe(count);
        expect(found.reading).toBe(0);
        return found;
      },
      { timeout: 20_000, interval: 100 },
    );

  beforeEach(async () => {
    server = await startTestServer();
    folder = join(server.folder, 'frames');
    const set = await server.call<StoredSet>('POST', '/api/sets', { document: demoSet('pepper') });
    const [body] = demoSet('pepper').products;
    const begun = new Date(Date.now() - 60_000).toISOString();
    const made = await server.call<StoredJob>('POST', '/api/jobs', {
      document: {
        format: 'fendrix-job',
        version: 1,
        name: 'Mills',
        products: [{ id: 'mill', name: 'Mill', body }],
        shots: [
          { id: 'one', name: 'One', products: ['mill'], setId: set.body.id, begunAt: begun },
          { id: 'two', name: 'Two', products: ['mill'] },
        ],
      },
    });
    job = made.body;
    expect((await server.call('PUT', '/api/frames/to', { job: job.id })).status).toBe(204);
  });
  afterEach(() => server.stop());

  test('reads what a camera writes, places it with the picture being taken, and leaves the file alone', async () => {
    const data = await jpeg(10, { taken: '2026:11:30 09:00:00' });
    writeFileSync(at('A001.JPG'), data);
    const before = statSync(at('A001.JPG'));
    const { frames } = await until(1);
    expect(frames[0]).toMatchObject({
      name: 'A001.JPG',
      widthPx: 64,
      heightPx: 43,
      fNumber: 8,
      exposureS: 1 / 125,
      iso: 100,
      focalMm: 85,
      body: 'Stand-in 24',
      shot: 'one',
      placedBy: 'time',
      state: 'new',
    });
    expect(frames[0]?.takenAt).toMatch(/^2026-11-(29|30)T/);
    for (const size of ['small', 'large']) {
      const shown = await server.call<Buffer>('GET', `/api/frames/${frames[0]?.id}/${size}`);
      expect(shown.headers['content-type']).toBe('image/webp');
      expect((await sharp(shown.body).metadata()).width).toBe(64);
    }
    expect(statSync(at('A001.JPG')).mtimeMs).toBe(before.mtimeMs);
    expect(readFileSync(at('A001.JPG')).equals(data)).toBe(true);
  });

  test('waits for a file that is half written, and tells of one that stays so', async () => {
    const data = await jpeg(20, { side: 900 });
    const half = Math.floor(data.length / 2);
    writeFileSync(at('B001.JPG'), data.subarray(0, half));
    writeFileSync(at('B002.JPG'), data.subarray(0, half));
    setTimeout(() => appendFileSync(at('B001.JPG'), data.subarray(half)), 1200);
    const { frames } = await until(1);
    expect(frames[0]?.name).toBe('B001.JPG');
    const told = await vi.waitFor(async () => {
      const { unreadable } = await list();
      expect(unreadable).toHaveLength(1);
      return unreadable[0];
    }, 20_000);
    expect(told?.name).toBe('B002.JPG');
    expect(told?.why).toMatch(/cut off/);
  });

  test('knows a frame by its bytes: renamed, or there twice, it is one', async () => {
    writeFileSync(at('C001.JPG'), await jpeg(30));
    const [first] = (await until(1)).frames;
    copyFileSync(at('C001.JPG'), at('copy.jpg'));
    renameSync(at('C001.JPG'), at('hero.jpg'));
    await new Promise((rested) => setTimeout(rested, 2500));
    const [after] = (await until(1)).frames;
    expect(after?.id).toBe(first?.id);
    expect(after?.gone).toBe(false);
  });

  test('shows the preview that a raw file carries, the largest that can be decoded', async () => {
    const [small, large] = await Promise.all([jpeg(40, { side: 30 }), jpeg(41, { side: 120 })]);
    // A lossless JPEG as raw data are kept: its frame header is another.
    const raw = Buffer.from(await jpeg(42, { side: 300 }));
    raw[raw.indexOf(Buffer.from([0xff, 0xc0])) + 1] = 0xc3;
    const noise = Buffer.alloc(500, 7);
    writeFileSync(at('D001.NEF'), Buffer.concat([noise, small, noise, raw, noise, large, noise]));
    writeFileSync(at('D002.CR2'), Buffer.concat([noise, noise]));
    const { frames } = await until(1);
    expect(frames[0]).toMatchObject({ name: 'D001.NEF', widthPx: 120, fNumber: 8 });
    expect(embeddedJpeg(noise)).toBeNull();
    await vi.waitFor(async () => expect((await list()).unreadable[0]?.name).toBe('D002.CR2'), 20_000);
  });

  test('takes up a folder that was gone and is back', async () => {
    writeFileSync(at('E001.JPG'), await jpeg(50));
    await until(1);
    rmSync(folder, { recursive: true });
    await vi.waitFor(async () => expect((await list()).folder.there).toBe(false));
    await new Promise((rested) => setTimeout(rested, 2500));
    mkdirSync(folder);
    writeFileSync(at('E002.JPG'), await jpeg(51));
    await until(2);
    // What has come and what is gone are told of by the folder one after the other.
    await vi.waitFor(
      async () => expect((await list()).frames.find(({ name }) => name === 'E001.JPG')?.gone).toBe(true),
      20_000,
    );
  });

  test('reads many at once, goes on where it was after a restart, and counts each once', async () => {
    const many = await Promise.all(Array.from({ length: 60 }, (_, i) => jpeg(60, { side: 64 + i })));
    for (const [i, data] of many.entries()) writeFileSync(at(`F${i}.JPG`), data);
    await vi.waitFor(async () => expect((await list()).total).toBeGreaterThan(3), 20_000);
    await server.leave();
    server = await startTestServer({ folder: server.folder });
    const { frames } = await until(60);
    expect(new Set(frames.map(({ name }) => name)).size).toBe(60);
    expect(frames.every(({ shot }) => shot === 'one' || shot === null)).toBe(true);
  });

  test('keeps what is thought of a frame, and moves it by hand to a picture that there is', async () => {
    writeFileSync(at('G001.JPG'), await jpeg(70));
    const [frame] = (await until(1)).frames as [Frame];
    const change = (body: object) => server.call<Frame>('PATCH', `/api/frames/${frame.id}`, body);
    expect((await change({ state: 'kept', starred: true })).body).toMatchObject({
      state: 'kept',
      starred: true,
    });
    expect((await change({ shot: 'two' })).body).toMatchObject({ shot: 'two', placedBy: 'hand' });
    expect((await change({ shot: 'three' })).status).toBe(400);
    const other = await server.call<StoredJob>('POST', '/api/jobs', {
      document: { format: 'fendrix-job', version: 1, name: 'Other' },
    });
    expect((await change({ job: '00000000-0000-4000-8000-000000000000' })).status).toBe(404);
    expect((await change({ job: other.body.id })).body).toMatchObject({ job: other.body.id, shot: null });
    expect((await list()).total).toBe(0);
    expect((await change({ job: job.id, shot: 'two' })).body).toMatchObject({ shot: 'two' });
    expect((await change({ name: '../../etc/passwd' })).status).toBe(400);
    expect((await list()).frames[0]).toMatchObject({ shot: 'two', state: 'kept', starred: true });
  });

  test('tells the plates of a picture apart by settings and by what was ticked; moved by hand to one that there is', async () => {
    const pepper = demoSet('pepper');
    const usual = { name: 'Label', gives: 'label', lights: [{ tag: 'A', on: true, powerStops: -4 }] };
    const document = {
      ...pepper,
      camera: { ...pepper.camera, fNumber: 8, shutterS: 1 / 125, iso: 100 },
      plates: [
        { id: 'label', ...usual },
        { id: 'slow', ...usual, shutterS: 0.25 },
      ],
    };
    const set = await server.call<StoredSet>('POST', '/api/sets', { document });
    const begun = new Date(Date.now() - 60_000).toISOString();
    const shot = { id: 'one', name: 'One', products: ['mill'], setId: set.body.id, begunAt: begun };
    const [first] = plannedFrames(set.body.document);
    const [body] = pepper.products;
    const made = await server.call<StoredJob>('POST', '/api/jobs', {
      document: {
        format: 'fendrix-job',
        version: 1,
        name: 'Plates',
        products: [{ id: 'mill', name: 'Mill', body }],
        shots: [{ ...shot, built: [first?.key] }],
      },
    });
    await server.call('PUT', '/api/frames/to', { job: made.body.id });
    writeFileSync(at('A.JPG'), await jpeg(10, { exposure: '1/4' }));
    writeFileSync(at('B.JPG'), await jpeg(20));
    const frames = await vi.waitFor(
      async () => {
        const found = await list(made.body.id);
        expect(found.total).toBe(2);
        return found.frames;
      },
      { timeout: 20_000, interval: 100 },
    );
    const own = (name: string) => frames.find((frame) => frame.name === name) as Frame;
    expect(own('A.JPG')).toMatchObject({ shot: 'one', plate: 'slow', placedBy: 'time' });
    // The frame of the set is ticked: this is the next that is exposed so.
    expect(own('B.JPG')).toMatchObject({ shot: 'one', plate: 'label', take: pepper.takeId });
    const change = (plate: string | null) =>
      server.call<Frame>('PATCH', `/api/frames/${own('B.JPG').id}`, { plate });
    expect((await change('slow')).body).toMatchObject({ plate: 'slow', placedBy: 'hand' });
    expect((await change('gone')).status).toBe(400);
    expect((await change(null)).body).toMatchObject({ plate: null, shot: 'one', take: pepper.takeId });
  });

  test('gives a job what came before it was said which; other files are passed over', async () => {
    await server.call('PUT', '/api/frames/to', { job: null });
    writeFileSync(at('H001.JPG'), await jpeg(80));
    writeFileSync(at('.hidden.jpg'), await jpeg(81));
    writeFileSync(at('notes.txt'), 'not a picture');
    await new Promise((rested) => setTimeout(rested, 2000));
    expect((await list()).total).toBe(0);
    await server.call('PUT', '/api/frames/to', { job: job.id });
    const { frames, unreadable } = await until(1);
    expect(frames[0]?.name).toBe('H001.JPG');
    expect(unreadable).toEqual([]);
  });
});
