import type { ApiError, Job, JobList, Saved, StoredJob, StoredPicture, StoredSet } from '@fendrix/contract';
import { demoJob, demoSet } from '@fendrix/demo';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startTestServer } from './testServer.js';

let { call, database, stop } = {} as Awaited<ReturnType<typeof startTestServer>>;

beforeAll(async () => {
  ({ call, database, stop } = await startTestServer());
});

afterAll(() => stop());

const ZIP = { 'content-type': 'application/zip' };
const GONE = '00000000-0000-4000-8000-000000000000';
const job = (changes: object = {}) => ({ format: 'fendrix-job', version: 1, name: 'Autumn', ...changes });
const create = async (document: object) => (await call<StoredJob>('POST', '/api/jobs', { document })).body;
const picture = (red: number) =>
  sharp({ create: { width: 12, height: 8, channels: 3, background: { r: red, g: 60, b: 40 } } })
    .png()
    .toBuffer();
const keep = async (data: Buffer) =>
  (await call<StoredPicture>('POST', '/api/pictures', data, { 'content-type': 'image/png' })).body;

describe('jobs', () => {
  test('are created, read, saved by revision, refused when older, deleted', async () => {
    const made = await create(job());
    expect(made.revision).toBe(1);
    const next = { ...made.document, client: 'Oddvane Larder' };
    const saved = await call<Saved>('PUT', `/api/jobs/${made.id}`, { revision: 1, document: next });
    expect(saved.body).toMatchObject({ id: made.id, name: made.name, revision: 2 });
    const late = await call<ApiError>('PUT', `/api/jobs/${made.id}`, {
      revision: 1,
      document: made.document,
    });
    expect(late.status).toBe(409);
    expect(late.body.error.newer).toMatchObject({ revision: 2, document: { client: 'Oddvane Larder' } });
    expect((await call('DELETE', `/api/jobs/${made.id}`)).status).toBe(204);
    expect((await call('GET', `/api/jobs/${made.id}`)).status).toBe(404);
  });

  test('a broken one is told by field, and nothing is stored', async () => {
    const before = (await call<JobList>('GET', '/api/jobs')).body.total;
    const shots = [{ id: 'a', name: 'A', products: ['nothing'] }];
    const { body } = await call<ApiError>('POST', '/api/jobs', { document: job({ shots }) });
    expect(body.error.problems?.[0]?.path).toBe('shots[0].products[0]');
    expect((await call<JobList>('GET', '/api/jobs')).body.total).toBe(before);
  });

  test('lists show what is due first, find by name and client, page, and keep the archived apart', async () => {
    await create(job({ name: 'Zinnia late', dueOn: '2027-03-01' }));
    await create(job({ name: 'Zinnia soon', dueOn: '2027-01-01', client: 'Quill & Co' }));
    await create(job({ name: 'Zinnia open' }));
    await create(job({ name: 'Zinnia old', archived: true }));
    const names = async (query: string) =>
      (await call<JobList>('GET', `/api/jobs?${query}`)).body.jobs.map(({ name }) => name);
    expect(await names('search=Zinnia')).toEqual(['Zinnia soon', 'Zinnia late', 'Zinnia open']);
    expect(await names('search=Quill')).toEqual(['Zinnia soon']);
    expect(await names('search=Zinnia&limit=1&offset=1')).toEqual(['Zinnia late']);
    expect(await names('search=Zinnia&archived=yes')).toEqual(['Zinnia old']);
    const [first] = (await call<JobList>('GET', '/api/jobs?search=Zinnia')).body.jobs;
    expect(first).toMatchObject({ state: 'brief', picture: null, waiting: 0, shots: 0 });
  });
});

describe('pictures', () => {
  test('are kept once by their bytes and come back as they were', async () => {
    const data = await picture(200);
    const kept = await keep(data);
    expect(kept).toMatchObject({ mediaType: 'image/png', widthPx: 12, heightPx: 8, bytes: data.length });
    expect((await keep(data)).sha256).toBe(kept.sha256);
    const read = await call<Buffer>('GET', `/api/pictures/${kept.sha256}`);
    expect(read.headers['content-type']).toBe('image/png');
    expect(read.headers['x-content-type-options']).toBe('nosniff');
    expect(Buffer.compare(read.body, data)).toBe(0);
  });

  test.each<[string, Buffer, string]>([
    ['text that claims to be a picture', Buffer.from('hello'), 'image/png'],
    ['a drawing with script', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), 'image/svg+xml'],
    ['nothing', Buffer.alloc(0), 'image/png'],
  ])('%s is refused', async (_name, data, type) => {
    const { status, body } = await call<ApiError>('POST', '/api/pictures', data, { 'content-type': type });
    expect(status).toBe(400);
    expect(body.error.hint).toMatch(/JPEG/);
  });

  test('only what is asked for is taken, and addresses are hashes', async () => {
    expect((await call('POST', '/api/pictures', '{}')).status).toBe(400);
    expect((await call('GET', '/api/pictures/..%2f..%2fetc')).status).toBe(400);
    expect((await call('GET', `/api/pictures/${'0'.repeat(64)}`)).status).toBe(404);
  });
});

describe('a job as one file', () => {
  let stored: StoredJob;
  let archive: Buffer;

  beforeAll(async () => {
    const setIds: Record<string, string> = {};
    for (const name of ['cordial-frost', 'mill', 'tart', 'tent'] as const) {
      setIds[name] = (await call<StoredSet>('POST', '/api/sets', { document: demoSet(name) })).body.id;
    }
    const { sha256 } = await keep(await picture(90));
    const document = demoJob((name) => setIds[name] ?? GONE);
    document.brief.references = [{ sha256, name: 'Look', note: 'light' }];
    stored = await create(document);
    archive = (await call<Buffer>('GET', `/api/jobs/${stored.id}/export`)).body;
  });

  const repack = (change: (files: Record<string, Uint8Array>) => void) => {
    const files = unzipSync(archive);
    change(files);
    return Buffer.from(zipSync(files));
  };
  const read = (bytes: Buffer) => call<StoredJob & ApiError>('POST', '/api/jobs/import', bytes, ZIP);

  test('is read back on an empty machine with nothing lost', async () => {
    const other = await startTestServer();
    try {
      const back = await other.call<StoredJob>('POST', '/api/jobs/import', archive, ZIP);
      expect(back.status).toBe(201);
      const withoutSets = ({ shots, ...rest }: Job) => ({
        ...rest,
        shots: shots.map(({ setId: _setId, ...shot }) => shot),
      });
      expect(withoutSets(back.body.document)).toEqual(withoutSets(stored.document));
      for (const [index, shot] of stored.document.shots.entries()) {
        const before = await call<StoredSet>('GET', `/api/sets/${shot.setId}`);
        const setId = back.body.document.shots[index]?.setId;
        const after = await other.call<StoredSet>('GET', `/api/sets/${setId}`);
        expect(after.body.document).toEqual(before.body.document);
      }
      const sha256 = stored.document.brief.references[0]?.sha256;
      expect((await other.call('GET', `/api/pictures/${sha256}`)).status).toBe(200);
    } finally {
      await other.stop();
    }
  });

  test('holds tables that a spreadsheet reads, with formulas made harmless', async () => {
    const evil = await create({
      ...stored.document,
      brief: { deliverables: [] },
      shots: [],
      products: stored.document.products.map((product, i) => ({
        ...product,
        name: i === 0 ? '=1+1' : product.name,
      })),
    });
    const files = unzipSync((await call<Buffer>('GET', `/api/jobs/${evil.id}/export`)).body);
    const table = strFromU8(files['tables/products.csv'] as Uint8Array);
    expect(table.split('\r\n')[0]).toBe('name,goods,detail,shine,clear,fragile,minutesOnSet,spares');
    expect(table).toContain("'=1+1");
  });

  test.each<[string, () => Buffer, RegExp]>([
    ['no ZIP', () => Buffer.from('not a zip'), /damaged/],
    ['a cut one', () => archive.subarray(0, archive.length >> 1), /damaged/],
    [
      'a path that climbs',
      () =>
        repack((files) => {
          files['../../evil.json'] = strToU8('{}');
        }),
      /does not belong/,
    ],
    [
      'a foreign file',
      () =>
        repack((files) => {
          files['run.sh'] = strToU8('echo');
        }),
      /does not belong/,
    ],
    [
      'no job',
      () =>
        repack((files) => {
          delete files['job.json'];
        }),
      /holds no job/,
    ],
    [
      'damaged JSON',
      () =>
        repack((files) => {
          files['job.json'] = strToU8('{');
        }),
      /not readable JSON/,
    ],
    [
      'a picture that is another',
      () =>
        repack((files) => {
          files[`pictures/${'a'.repeat(64)}.png`] = Object.values(unzipSync(archive)).at(-1) as Uint8Array;
        }),
      /not a picture|does not hold|cut off/,
    ],
  ])('%s is refused and leaves nothing behind', async (_name, make, message) => {
    const count = async () => [
      (await call<JobList>('GET', '/api/jobs')).body.total,
      (await call<{ total: number }>('GET', '/api/sets')).body.total,
    ];
    const before = await count();
    const { status, body } = await read(make());
    expect(status).toBe(400);
    expect(body.error.message).toMatch(message);
    expect(await count()).toEqual(before);
  });

  test('a job whose document breaks a rule is told by field', async () => {
    const { status, body } = await read(
      repack((files) => {
        files['job.json'] = strToU8(JSON.stringify({ ...stored.document, name: '' }));
      }),
    );
    expect(status).toBe(400);
    expect(body.error.problems?.[0]?.path).toBe('name');
  });
});

test('500 jobs of 50 pictures: the list reads no document', async () => {
  const shots = Array.from({ length: 50 }, (_, i) => ({
    id: `shot-${i}`,
    name: `Shot ${i}`,
    products: ['bottle'],
  }));
  const big = { ...demoJob(() => GONE), shots };
  const { jobs } = await import('../src/db/schema.js');
  const { jobColumns } = await import('../src/domain/jobs.js');
  const document = JSON.stringify(big);
  const rows = Array.from({ length: 500 }, (_, i) => ({
    id: `10000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
    name: `Large ${i}`,
    revision: 1,
    document,
    updatedAt: new Date(i).toISOString(),
    ...jobColumns(big as Job),
  }));
  for (let i = 0; i < rows.length; i += 50) {
    await database.write((query) => query.insert(jobs).values(rows.slice(i, i + 50)));
  }
  const list = await call<JobList>('GET', '/api/jobs?search=Large&limit=100');
  expect(list.body.total).toBe(500);
  expect(list.body.jobs).toHaveLength(100);
  expect(JSON.stringify(list.body).length).toBeLessThan(40_000);
});
