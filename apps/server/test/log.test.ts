import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type {
  ApiError,
  Frame,
  FrameList,
  LogEntry,
  LogList,
  LogStatistics,
  StoredJob,
  StoredSet,
} from '@fendrix/contract';
import { eq } from 'drizzle-orm';
import papaparse from 'papaparse';
import { pino } from 'pino';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { frames, logEntries } from '../src/db/schema.js';
import type { SetLight } from '../src/devices/setLight.js';
import { createJobStore } from '../src/domain/jobs.js';
import { createKitStore } from '../src/domain/kit.js';
import { createSetStore } from '../src/domain/sets.js';
import { createLogBook } from '../src/log/logBook.js';
import { startTestServer } from './testServer.js';

type Server = Awaited<ReturnType<typeof startTestServer>>;
const log = async (server: Server, query = '') =>
  (await server.call<LogList>('GET', `/api/log${query}`)).body;

describe('the log of kept frames', () => {
  let server: Server;
  let job: StoredJob;
  let made = 0;

  beforeEach(async () => {
    server = await startTestServer();
    job = (await server.call<StoredJob>('POST', '/api/jobs/demo', {})).body;
    await server.call('PUT', '/api/frames/to', { job: job.id });
  });
  afterEach(() => server.stop());

  const read = async () => (await server.call<StoredJob>('GET', `/api/jobs/${job.id}`)).body;
  const save = async (change: (document: StoredJob['document']) => StoredJob['document']) => {
    const { revision, document } = await read();
    const { status } = await server.call('PUT', `/api/jobs/${job.id}`, {
      revision,
      document: change(document),
    });
    expect(status).toBe(200);
  };
  const shotAt = (index: number) => {
    const shot = job.document.shots[index];
    if (!shot) throw new Error('the demo job has more pictures');
    return shot;
  };
  /** A frame of a picture that came into the folder. */
  async function frameOf(shot: string): Promise<Frame> {
    const name = `F${++made}.jpg`;
    const data = await sharp({
      create: { width: 48, height: 32, channels: 3, background: { r: (made * 23) % 256, g: 90, b: 40 } },
    })
      .jpeg()
      .toBuffer();
    writeFileSync(join(server.folder, 'frames', name), data);
    const frame = await vi.waitFor(
      async () => {
        const { frames: found } = (await server.call<FrameList>('GET', `/api/frames?job=${job.id}`)).body;
        const own = found.find((one) => one.name === name);
        expect(own).toBeDefined();
        return own as Frame;
      },
      { timeout: 20_000, interval: 100 },
    );
    return (await change(frame.id, { shot })).body;
  }
  const change = (id: string, what: object) => server.call<Frame>('PATCH', `/api/frames/${id}`, what);
  const keep = async (shot: string) => {
    const frame = await frameOf(shot);
    await change(frame.id, { state: 'kept' });
    return frame;
  };

  test('a frame that is kept is in it with its picture, set, tries and plan; put aside it is not', async () => {
    const shot = shotAt(0);
    const rejected = await frameOf(shot.id);
    await change(rejected.id, { state: 'rejected' });
    expect((await log(server)).total).toBe(0);
    const kept = await keep(shot.id);
    const { entries } = await log(server);
    expect(entries).toHaveLength(1);
    expect(entries[0]).toMatchObject({
      id: kept.id,
      shotName: shot.name,
      jobName: job.document.name,
      client: job.document.client,
      tries: 2,
      plannedMinutes: shot.minutes,
      minutes: null,
      measured: null,
      note: '',
    });
    expect(entries[0]?.products.length).toBeGreaterThan(0);
    expect(entries[0]?.lights.length).toBeGreaterThan(0);
    await change(kept.id, { state: 'new' });
    expect((await log(server)).total).toBe(0);
    await change(kept.id, { state: 'kept' });
    expect((await log(server)).total).toBe(1);
  });

  test('what it showed against the plan is noted, also before it is kept, and stays while its set does', async () => {
    const shot = shotAt(0);
    const frame = await frameOf(shot.id);
    const found = {
      exposedAsFrame: true,
      lights: [],
      spots: [{ name: 'label', plan: 1, frame: 0.5 }],
      shift: null,
      images: [],
      verdicts: [],
      sharpness: { products: [], resolvedPx: 25, isTooSmall: true, limitPx: 5 },
      products: [],
    };
    const row = async () => {
      const [one] = await server.database.query.select().from(frames).where(eq(frames.id, frame.id));
      if (!one) throw new Error('the frame is there');
      return one;
    };
    const book = createLogBook({
      database: server.database,
      jobs: createJobStore(server.database),
      sets: createSetStore(server.database),
      kit: createKitStore(server.database),
      light: { verdicts: async () => [] } as unknown as SetLight,
      log: pino({ level: 'silent' }),
    });
    await book.compared(await row(), found);
    expect((await log(server)).total).toBe(0);
    await change(frame.id, { state: 'kept' });
    expect((await log(server)).entries[0]?.measured?.spots).toEqual(found.spots);
    // Put aside and kept again it is the same frame of the same set.
    await change(frame.id, { state: 'new' });
    await change(frame.id, { state: 'kept' });
    expect((await log(server)).entries[0]?.measured?.spots).toEqual(found.spots);
    // Moved to another picture that figure is none of it.
    await change(frame.id, { shot: shotAt(1).id });
    expect((await log(server)).entries[0]).toMatchObject({ measured: null, shotName: shotAt(1).name });
  });

  test('verdicts that a server left undone are worked out when they are looked at', async () => {
    const { id } = await keep(shotAt(1).id);
    const verdicts = async () => (await log(server)).entries[0]?.verdicts ?? null;
    await vi.waitFor(async () => expect(await verdicts()).not.toBeNull(), { timeout: 40_000, interval: 300 });
    const told = await verdicts();
    await server.database.write((query) =>
      query.update(logEntries).set({ verdicts: null }).where(eq(logEntries.id, id)),
    );
    expect(await verdicts()).toBeNull();
    await vi.waitFor(async () => expect(await verdicts()).toEqual(told), { timeout: 40_000, interval: 300 });
  }, 90_000);

  test('the minutes of its picture, and another name for it, come from the job when they are there', async () => {
    const shot = shotAt(0);
    await keep(shot.id);
    await save((document) => ({
      ...document,
      client: 'Another client',
      shots: document.shots.map((own) =>
        own.id === shot.id
          ? {
              ...own,
              name: 'Renamed',
              done: true,
              begunAt: '2026-05-01T08:00:00Z',
              takenAt: '2026-05-01T08:42:00Z',
            }
          : own,
      ),
    }));
    const [entry] = (await log(server)).entries;
    expect(entry).toMatchObject({ shotName: 'Renamed', client: 'Another client', minutes: 42 });
    expect((await log(server, '?search=renamed')).total).toBe(1);
    // A picture that is taken out of its job stays in the log.
    await save((document) => ({ ...document, shots: document.shots.filter(({ id }) => id !== shot.id) }));
    expect((await log(server)).entries[0]?.shotName).toBe('Renamed');
  });

  test('it is found by product, light, client, look, tone, note and day; all words must be there', async () => {
    const shot = shotAt(0);
    const { id } = await keep(shot.id);
    const [entry] = (await log(server)).entries as [LogEntry];
    await server.call('PATCH', `/api/log/${id}`, { note: 'Client liked the rim', retouchMinutes: 12.5 });
    const found = async (search: string) =>
      (await log(server, `?search=${encodeURIComponent(search)}`)).total;
    const [product] = entry.products;
    const [light] = entry.lights;
    for (const words of [
      product,
      light,
      entry.client,
      entry.look,
      entry.tone,
      'LIKED the rim',
      `${product} rim`,
    ])
      expect(await found(words ?? '')).toBe(1);
    expect(await found('submarine')).toBe(0);
    expect(await found(`${product} submarine`)).toBe(0);
    // What means something to a database is nothing here.
    for (const words of ['%', '_', "'; DROP TABLE log_entries; --"])
      expect(await found(words)).toBeLessThanOrEqual(1);
    const day = entry.at.slice(0, 10);
    expect((await log(server, `?from=${day}&to=${day}`)).total).toBe(1);
    expect((await log(server, '?to=2001-01-01')).total).toBe(0);
    expect((await log(server, `?job=${job.id}`)).total).toBe(1);
    expect((await log(server, `?job=${randomUUID()}`)).total).toBe(0);
    expect((await log(server)).entries[0]).toMatchObject({
      note: 'Client liked the rim',
      retouchMinutes: 12.5,
    });
  });

  test('its set opens as it was: itself while unchanged, a copy of what it was afterwards, also when it is gone', async () => {
    const shot = shotAt(0);
    const { id } = await keep(shot.id);
    const open = async () => (await server.call<{ id: string }>('POST', `/api/log/${id}/set`, {})).body.id;
    expect(await open()).toBe(shot.setId);
    const before = (await server.call<StoredSet>('GET', `/api/sets/${shot.setId}`)).body;
    const [light] = before.document.lights;
    const dimmed = before.document.lights.map((own, i) => (i === 0 ? { ...own, powerStops: -7 } : own));
    await server.call('PUT', `/api/sets/${shot.setId}`, {
      revision: before.revision,
      document: { ...before.document, lights: dimmed },
    });
    const copy = (await server.call<StoredSet>('GET', `/api/sets/${await open()}`)).body;
    expect(copy.id).not.toBe(shot.setId);
    expect(copy.document.lights[0]?.powerStops).toBe(light?.powerStops);
    await server.call('DELETE', `/api/sets/${shot.setId}`);
    const again = (await server.call<StoredSet>('GET', `/api/sets/${await open()}`)).body;
    expect(again.document.products).toEqual(before.document.products);
  });

  test('statistics: minutes of building and shooting, verdicts, prices of steps', async () => {
    const shot = shotAt(1);
    const frame = await keep(shot.id);
    const first = Date.parse(frame.arrivedAt);
    const instant = (minutes: number) => new Date(first + minutes * 60_000).toISOString();
    await save((document) => ({
      ...document,
      shots: document.shots.map((own) =>
        own.id === shot.id ? { ...own, done: true, begunAt: instant(-25), takenAt: instant(10) } : own,
      ),
    }));
    await server.call('PATCH', `/api/log/${frame.id}`, { retouchMinutes: 8 });
    const told = async () => (await server.call<LogStatistics>('GET', '/api/log/statistics')).body;
    const { pictures, prices } = await told();
    expect(pictures).toHaveLength(1);
    expect(pictures[0]?.building).toBeCloseTo(25, 1);
    expect(pictures[0]?.shooting).toBeCloseTo(10, 1);
    expect(pictures[0]).toMatchObject({ name: shot.name, planned: shot.minutes, retouching: 8 });
    expect(prices.map(({ step }) => step)).toContain('light-added');
    for (const { learned, error, usual } of prices) {
      expect(learned).toBeGreaterThan(0);
      expect(error).toBeGreaterThan(0);
      expect(error).toBeLessThanOrEqual(Math.max(0.5, usual));
    }
    await vi.waitFor(async () => expect((await log(server)).entries[0]?.verdicts).not.toBeNull(), {
      timeout: 40_000,
      interval: 300,
    });
    const [entry] = (await log(server)).entries;
    expect((await told()).judged).toBe(1);
    expect((await told()).verdicts.map(({ kind }) => kind).sort()).toEqual(
      [...(entry?.verdicts ?? [])].sort(),
    );
  }, 60_000);

  test('what is asked or written wrongly is told by its field', async () => {
    const { id } = await keep(shotAt(0).id);
    const wrong = async (method: string, path: string, body?: unknown) =>
      (await server.call<ApiError>(method, path, body)).body.error;
    expect((await wrong('GET', '/api/log?from=yesterday')).problems?.[0]?.path).toBe('from');
    expect((await wrong('PATCH', `/api/log/${id}`, { retouchMinutes: -1 })).problems?.[0]?.path).toBe(
      'retouchMinutes',
    );
    expect((await wrong('PATCH', `/api/log/${id}`, { minutes: 3 })).code).toBe('bad-input');
    expect((await wrong('PATCH', `/api/log/${randomUUID()}`, { note: 'x' })).code).toBe('not-found');
    expect((await wrong('POST', `/api/log/${randomUUID()}/set`, {})).code).toBe('not-found');
  });

  test('it goes out as CSV, as it was searched, with no formula in it', async () => {
    const { id } = await keep(shotAt(0).id);
    await keep(shotAt(1).id);
    await server.call('PATCH', `/api/log/${id}`, { note: '=1+1, "quoted"' });
    const table = async (query: string) => {
      const { body, headers } = await server.call<Buffer>('GET', `/api/log/table${query}`);
      expect(String(headers['content-disposition'])).toContain('log.csv');
      return papaparse.parse<Record<string, string>>(body.toString(), { header: true, skipEmptyLines: true })
        .data;
    };
    expect(await table('')).toHaveLength(2);
    const [row, ...others] = await table('?search=quoted');
    expect(others).toEqual([]);
    expect(row).toMatchObject({ picture: shotAt(0).name, minutes: '', note: `'=1+1, "quoted"` });
  });

  test('a backup takes the log with it', async () => {
    await keep(shotAt(0).id);
    const { name } = await server.backups.make('by hand');
    await server.database.write((query) => query.delete(logEntries));
    expect((await log(server)).total).toBe(0);
    await server.backups.restore(name);
    expect((await log(server)).total).toBe(1);
  });
});

describe('ten thousand frames', () => {
  let server: Server;
  beforeAll(async () => {
    server = await startTestServer();
    for (let part = 0; part < 20; part++) {
      const rows = Array.from({ length: 500 }, (_, i) => 500 * part + i);
      await server.database.write((query) =>
        query.insert(frames).values(
          rows.map((n) => ({
            id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
            sha256: String(n).padStart(64, '0'),
            name: `F${n}.jpg`,
            bytes: 1,
            writtenMs: n,
            widthPx: 3,
            heightPx: 2,
            arrivedAt: new Date(n * 60_000).toISOString(),
            live: true,
            state: n % 10 === 0 ? ('rejected' as const) : ('kept' as const),
            starred: false,
            gone: false,
          })),
        ),
      );
      await server.database.write((query) =>
        query.insert(logEntries).values(
          rows.map((n) => ({
            id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
            kept: n % 10 !== 0,
            at: new Date(n * 60_000).toISOString(),
            job: 'job',
            jobName: 'Job',
            client: 'Client',
            shot: `shot${n}`,
            shotName: `Picture ${n}`,
            products: ['Bottle'],
            lights: ['Softbox'],
            look: 'soft',
            tone: 'neutral',
            words: `job · client · picture ${n} · bottle · softbox · soft · neutral`,
            plannedMinutes: 30,
            tries: 1,
            setId: 'set',
            setName: 'Set',
            setRevision: 1,
            document: '{"lights":[],"sheets":[],"products":[]}',
          })),
        ),
      );
    }
  }, 60_000);
  afterAll(() => server.stop());

  test('pages and searches do as much work as a page: the first and the last, and what is found once', async () => {
    const all = await log(server);
    expect(all.total).toBe(9000);
    expect(all.entries).toHaveLength(30);
    expect(all.entries[0]?.shotName).toBe('Picture 9999');
    const last = await log(server, '?limit=30&offset=8990');
    expect(last.entries).toHaveLength(10);
    expect(last.entries.at(-1)?.shotName).toBe('Picture 1');
    expect((await log(server, '?search=picture%204567')).entries.map(({ shotName }) => shotName)).toEqual([
      'Picture 4567',
    ]);
    const statistics = (await server.call<LogStatistics>('GET', '/api/log/statistics')).body;
    expect(statistics.pictures.length).toBeLessThanOrEqual(200);
  });
});
