import { join } from 'node:path';
import type { ApiError, SetList, StoredKit, StoredSet } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ConfigError, readConfig } from '../src/config.js';
import { openDatabase } from '../src/db/database.js';
import { facts } from '../src/db/schema.js';
import { loadDemoOnce } from '../src/demoData.js';
import { startTestServer } from './testServer.js';

let { folder, database, call, stop } = {} as Awaited<ReturnType<typeof startTestServer>>;

beforeAll(async () => {
  ({ folder, database, call, stop } = await startTestServer());
});

afterAll(() => stop());

const create = async () =>
  (await call<StoredSet>('POST', '/api/sets', { document: demoSet('cordial') })).body;

describe('sets', () => {
  test('create, read, save, list, delete', async () => {
    const made = await create();
    expect(made.revision).toBe(1);
    expect((await call<StoredSet>('GET', `/api/sets/${made.id}`)).body.document).toEqual(demoSet('cordial'));
    const document = { ...made.document, name: 'Renamed cordial' };
    const saved = await call<StoredSet>('PUT', `/api/sets/${made.id}`, { revision: 1, document });
    expect(saved.body).toMatchObject({ revision: 2, name: 'Renamed cordial' });
    const found = await call<SetList>('GET', '/api/sets?search=renamed&limit=5');
    expect(found.body.sets.map(({ id }) => id)).toEqual([made.id]);
    expect((await call('DELETE', `/api/sets/${made.id}`)).status).toBe(204);
    expect((await call<ApiError>('GET', `/api/sets/${made.id}`)).body.error.code).toBe('not-found');
  });

  test('a stale revision is refused with the newer set; nothing is overwritten', async () => {
    const made = await create();
    const save = (name: string) =>
      call<ApiError & StoredSet>('PUT', `/api/sets/${made.id}`, {
        revision: 1,
        document: { ...made.document, name },
      });
    expect((await save('first')).status).toBe(200);
    const late = await save('second');
    expect(late.status).toBe(409);
    expect(late.body.error.newer).toMatchObject({ revision: 2, name: 'first' });
    expect((await call<StoredSet>('GET', `/api/sets/${made.id}`)).body.name).toBe('first');
  });

  test('of many saves of one revision at once, one wins', async () => {
    const made = await create();
    const answers = await Promise.all(
      Array.from({ length: 12 }, () =>
        call('PUT', `/api/sets/${made.id}`, { revision: 1, document: made.document }),
      ),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 409)).toHaveLength(11);
  });

  test('lists are paged and the search takes no wildcards', async () => {
    await Promise.all([create(), create(), create()]);
    const page = await call<SetList>('GET', '/api/sets?limit=2&offset=1');
    expect(page.body.sets).toHaveLength(2);
    expect(page.body.total).toBeGreaterThanOrEqual(3);
    expect((await call<SetList>('GET', '/api/sets?search=%25zzz')).body.total).toBe(0);
  });
});

describe('bad input', () => {
  test.each([
    ['not JSON', 'POST', '/api/sets', '{"document":', 'bad-input'],
    ['no document', 'POST', '/api/sets', {}, 'bad-input'],
    ['an unknown field', 'POST', '/api/sets', { document: {}, more: 1 }, 'bad-input'],
    ['an id that is none', 'GET', '/api/sets/1;drop', undefined, 'not-found'],
    ['a limit of 0', 'GET', '/api/sets?limit=0', undefined, 'bad-input'],
    ['an unknown query', 'GET', '/api/sets?colour=red', undefined, 'bad-input'],
    ['an unknown address', 'GET', '/api/elsewhere', undefined, 'not-found'],
    ['another method', 'PATCH', '/api/sets', {}, 'not-allowed'],
    [
      'a set that is gone',
      'PUT',
      '/api/sets/00000000-0000-4000-8000-000000000000',
      { revision: 1, document: demoSet('cordial') },
      'not-found',
    ],
    ['a body over the limit', 'POST', '/api/sets', Buffer.alloc(25_200_000, '['), 'too-large'],
  ])('%s', async (_name, method, path, body, code) => {
    const answer = await call<ApiError>(method, path, body);
    expect(answer.body.error.code).toBe(code);
    expect(answer.body.error.message.length).toBeGreaterThan(10);
    expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at \w+ \(/);
  });

  test('an id that is none is told of in words', async () => {
    const { status, body } = await call<ApiError>('GET', '/api/jobs/nothing');
    expect(status).toBe(404);
    expect(body.error.message).toBe('There is nothing at this address.');
  });

  test('a bad document names the field', async () => {
    const document = { ...demoSet('cordial'), lights: [{ kind: 'softbox' }] };
    const { status, body } = await call<ApiError>('POST', '/api/sets', { document });
    expect(status).toBe(400);
    expect(body.error.problems?.map(({ path }) => path)).toContain('lights[0].tag');
  });

  test('a form post is refused', async () => {
    const answer = await call<ApiError>('POST', '/api/sets', 'document=1', {
      'content-type': 'application/x-www-form-urlencoded',
    });
    expect(answer.body.error.code).toBe('bad-input');
  });
});

describe('the door', () => {
  test('health, with security headers', async () => {
    const { status, headers } = await call('GET', '/api/health');
    expect(status).toBe(200);
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['cross-origin-opener-policy']).toBe('same-origin');
    expect(headers['cross-origin-embedder-policy']).toBe('require-corp');
  });

  test('another host name or origin is turned away', async () => {
    expect((await call('GET', '/api/health', undefined, { host: 'evil.example' })).status).toBe(403);
    const forged = await call('DELETE', '/api/sets/x', undefined, { origin: 'http://evil.example' });
    expect(forged.status).toBe(403);
  });
});

describe('database', () => {
  test('migrates an empty file, again without harm, and works in write-ahead mode', async () => {
    const url = `file:${join(folder, 'other.sqlite')}`;
    const first = await openDatabase(url);
    await loadDemoOnce(first);
    const mode = await first.query.all<{ journal_mode: string }>('pragma journal_mode');
    expect(mode[0]?.journal_mode).toBe('wal');
    await first.close();
    const second = await openDatabase(url);
    await loadDemoOnce(second);
    const rows = await second.query.all<{ n: number }>('select count(*) as n from sets');
    expect(rows[0]?.n).toBe(demoNames.length);
    expect(await second.query.select().from(facts)).toHaveLength(1);
    await second.close();
  });

  test('a write that fails does not stop the ones behind it', async () => {
    const failing = database.write(() => Promise.reject(new Error('full')));
    const next = database.write(() => Promise.resolve('done'));
    await expect(failing).rejects.toThrow('full');
    await expect(next).resolves.toBe('done');
  });
});

describe('settings', () => {
  test('a wrong port or a folder that cannot be made is one clear line', () => {
    expect(() => readConfig({ FENDRIX_PORT: '99999', FENDRIX_DATA: folder })).toThrow(ConfigError);
    expect(() => readConfig({ FENDRIX_DATA: join(folder, 'test.sqlite', 'here') })).toThrow(
      'cannot be written',
    );
  });

  test('the database is a file, or at an address; what is neither is told', () => {
    const database = (address: string) =>
      readConfig({ FENDRIX_DATA: folder, FENDRIX_DATABASE: address, FENDRIX_DATABASE_TOKEN: 'secret' })
        .database;
    expect(readConfig({ FENDRIX_DATA: folder }).database).toEqual({ file: join(folder, 'fendrix.sqlite') });
    expect(database('file:/studio/own.sqlite')).toEqual({ file: '/studio/own.sqlite' });
    expect(database('libsql://studio.local:8080')).toEqual({
      url: 'libsql://studio.local:8080',
      token: 'secret',
    });
    for (const wrong of ['studio.local', 'ftp://studio', 'libsql://', 'http://a b'])
      expect(() => database(wrong)).toThrow(/FENDRIX_DATABASE is/);
    expect(() => readConfig({ FENDRIX_DATA: folder, FENDRIX_KEEP_BACKUPS: 'many' })).toThrow(
      /from 0 to 1000/,
    );
  });

  test('loopback is the default', () => {
    const config = readConfig({ FENDRIX_DATA: folder });
    expect(config.host).toBe('127.0.0.1');
    expect(config.hosts).toContain('localhost:4280');
  });
});

describe('the kit', () => {
  const read = async () => (await call<StoredKit>('GET', '/api/kit')).body;

  test('starts with the catalogue, is saved whole, and an older revision is refused', async () => {
    const first = await read();
    expect(first.revision).toBe(0);
    expect(first.document.entries.length).toBeGreaterThan(50);
    const fewer = { ...first.document, entries: first.document.entries.slice(0, 3) };
    const saved = await call<StoredKit>('PUT', '/api/kit', { revision: 0, document: fewer });
    expect([saved.status, saved.body.revision]).toEqual([200, 1]);
    expect((await read()).document.entries).toHaveLength(3);
    const late = await call<ApiError>('PUT', '/api/kit', { revision: 0, document: first.document });
    expect([late.status, late.body.error.code]).toEqual([409, 'conflict']);
    const next = await call<StoredKit>('PUT', '/api/kit', { revision: 1, document: first.document });
    expect(next.body.revision).toBe(2);
  });

  test('a bad entry names its field and nothing is saved', async () => {
    const { revision, document } = await read();
    const entries = document.entries.map((entry) => ({ ...entry }));
    Object.assign(entries[0] as object, { source: 7 });
    const answer = await call<ApiError>('PUT', '/api/kit', { revision, document: { ...document, entries } });
    expect(answer.status).toBe(400);
    expect(answer.body.error.problems?.[0]?.path).toBe('entries[0].source');
    expect((await read()).revision).toBe(revision);
  });
});
