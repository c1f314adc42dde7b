import type { DayAtTable, Pairing, StoredJob, StoredSet } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { CODE_WORDS } from '../src/setSide/codeWords.js';
import { createPairedDevices } from '../src/setSide/pairing.js';
import { startTestServer } from './testServer.js';

const AT = '2026-11-30T09:00:00.000Z';

describe('codes and devices', () => {
  test('a code is made of 128 words that are told apart, works once, and for ten minutes', () => {
    expect(new Set(CODE_WORDS).size).toBe(128);
    let now = 0;
    const devices = createPairedDevices(() => now);
    const codeNow = () => devices.codeOf('job')?.words ?? '';
    devices.newCode('job');
    const words = codeNow();
    expect(words).toMatch(/^[a-z]+-[a-z]+-[a-z]+$/);
    const token = devices.pair(words, 'Phone');
    expect(devices.deviceOf(token)).toMatchObject({ job: 'job' });
    expect(() => devices.pair(words, 'Phone')).toThrow(/not valid/);
    devices.newCode('job');
    const late = codeNow();
    now += 10 * 60_000;
    expect(devices.codeOf('job')).toBeNull();
    expect(() => devices.pair(late, 'Phone')).toThrow(/not valid/);
    expect(devices.deviceOf(token)).not.toBeNull();
  });

  test('whoever guesses makes the code void; a day unseen, thrown out or switched off a device is a stranger', () => {
    let now = 0;
    const devices = createPairedDevices(() => now);
    devices.newCode('job');
    const words = devices.codeOf('job')?.words ?? '';
    for (let i = 0; i < 8; i++) expect(() => devices.pair('one-two-three', '')).toThrow();
    expect(() => devices.pair(words, '')).toThrow();
    const paired = () => {
      devices.newCode('job');
      return devices.pair(devices.codeOf('job')?.words ?? '', '');
    };
    const [first, second] = [paired(), paired()];
    devices.throwOut(devices.deviceOf(first)?.id ?? '');
    expect(devices.deviceOf(first)).toBeNull();
    expect(devices.devicesOf('job').map(({ name }) => name)).toEqual(['Device 2']);
    expect(devices.devicesOf('another')).toEqual([]);
    now += 24 * 3600_000;
    expect(devices.deviceOf(second)).toBeNull();
    const third = paired();
    devices.clear();
    expect(devices.deviceOf(third)).toBeNull();
  });
});

describe('the address for phones', () => {
  let server: Awaited<ReturnType<typeof startTestServer>>;
  let job: StoredJob;
  let setId: string;
  let port: number;
  let cookie: string;

  const pairing = () => server.call<Pairing>('GET', `/api/pairing?job=${job.id}`);
  const phone = <T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) =>
    server.call<T>(method, path, body, { ...(cookie ? { cookie } : {}), ...headers }, port);
  const open = async () => {
    const { body } = await server.call<Pairing>('POST', '/api/pairing', { job: job.id });
    port = Number(new URL(body.addresses[0] ?? '').port);
    return body.code?.words ?? '';
  };
  const pair = async () => {
    const code = await open();
    const { status, headers } = await phone('POST', '/api/set-side/pair', { code, name: 'Phone' });
    expect(status).toBe(204);
    const [set] = headers['set-cookie'] as string[];
    cookie = set?.split(';')[0] ?? '';
    return set ?? '';
  };

  beforeEach(async () => {
    server = await startTestServer();
    cookie = '';
    const set = await server.call<StoredSet>('POST', '/api/sets', { document: demoSet('pepper') });
    setId = set.body.id;
    const made = await server.call<StoredJob>('POST', '/api/jobs', {
      document: {
        format: 'fendrix-job',
        version: 1,
        name: 'Mills',
        client: 'Somebody',
        brief: { need: 'secret' },
        products: [{ id: 'mill', name: 'Mill', body: demoSet('pepper').products[0] }],
        shots: [{ id: 'front', name: 'Front', products: ['mill'], setId }],
      },
    });
    expect(made.status).toBe(201);
    job = made.body;
  });
  afterEach(() => server.stop());

  test('is closed until it is switched on, and closed again after', async () => {
    expect((await pairing()).body).toMatchObject({ on: false, addresses: [], code: null, devices: [] });
    await pair();
    expect((await pairing()).body).toMatchObject({ on: true, code: null, devices: [{ name: 'Phone' }] });
    expect((await server.call('DELETE', '/api/pairing')).status).toBe(204);
    await expect(phone('GET', '/api/set-side/day')).rejects.toThrow();
    await open();
    expect((await phone('GET', '/api/set-side/day')).status).toBe(401);
  });

  test('tells nothing without a code, and a code works once', async () => {
    const code = await open();
    expect((await phone('GET', '/api/set-side/day')).status).toBe(401);
    const tick = { kind: 'taken', shot: 'front', done: true, stands: setId, at: AT };
    expect((await phone('POST', '/api/set-side/actions', { actions: [tick] })).status).toBe(401);
    expect((await phone('POST', '/api/set-side/pair', { code: 'apple-apple-apple' })).status).toBe(401);
    expect((await phone('POST', '/api/set-side/pair', { code: code.replaceAll('-', ' ') })).status).toBe(204);
    expect((await phone('POST', '/api/set-side/pair', { code })).status).toBe(401);
  });

  test('lets a paired device read the day, and nothing else of the application', async () => {
    const set = await pair();
    expect(set).toMatch(/httponly/i);
    expect(set).toMatch(/samesite=strict/i);
    const { body } = await phone<DayAtTable>('GET', '/api/set-side/day');
    expect(Object.keys(body).sort()).toEqual(['job', 'kit', 'revision', 'sets']);
    expect(Object.keys(body.job).sort()).toEqual(['day', 'name', 'products', 'shots']);
    expect(JSON.stringify(body)).not.toContain('secret');
    expect(body.sets[setId]?.takes).toEqual([]);
    for (const path of ['/api/jobs', `/api/jobs/${job.id}`, `/api/sets/${setId}`, '/api/kit', '/api/pairing'])
      expect((await phone('GET', path)).status, path).toBe(404);
    expect((await phone('PUT', `/api/jobs/${job.id}`, { revision: 1, document: {} })).status).toBe(404);
    expect((await phone('DELETE', '/api/pairing')).status).toBe(404);
  });

  test('answers 304 while nothing has changed', async () => {
    await pair();
    const { headers } = await phone('GET', '/api/set-side/day');
    const same = await phone('GET', '/api/set-side/day', undefined, {
      'if-none-match': String(headers.etag),
    });
    expect(same.status).toBe(304);
  });

  test('writes ticks over what the desk saved in between; told twice they count once', async () => {
    await pair();
    const desk = await server.call('PUT', `/api/jobs/${job.id}`, {
      revision: 1,
      document: { ...job.document, name: 'Mills, spring' },
    });
    expect(desk.status).toBe(200);
    const actions = [
      { kind: 'step', shot: 'front', step: 'light A', done: true, at: AT },
      { kind: 'tries', shot: 'front', tries: 3, at: AT },
      { kind: 'taken', shot: 'front', done: true, stands: setId, at: AT },
      { kind: 'step', shot: 'gone', step: 'light A', done: true, at: AT },
    ];
    for (let i = 0; i < 2; i++)
      expect((await phone('POST', '/api/set-side/actions', { actions })).status).toBe(200);
    const { document } = (await server.call<StoredJob>('GET', `/api/jobs/${job.id}`)).body;
    expect(document.name).toBe('Mills, spring');
    expect(document.shots[0]).toMatchObject({
      built: ['light A'],
      tries: 3,
      done: true,
      begunAt: AT,
      takenAt: AT,
    });
    expect(document.day.stands).toBe(setId);
    expect((await pairing()).body.revision).toBe(4);
  });

  test('refuses what a device may not say, by name', async () => {
    await pair();
    const bad = async (action: object) => phone('POST', '/api/set-side/actions', { actions: [action] });
    const foreign = { kind: 'taken', shot: 'front', done: true, stands: job.id, at: AT };
    expect((await bad(foreign)).status).toBe(400);
    expect((await bad({ kind: 'rename', name: 'Mine' })).status).toBe(400);
    expect((await phone('POST', '/api/set-side/actions', { actions: [] })).status).toBe(400);
    expect((await pairing()).body.revision).toBe(1);
  });

  test('refuses foreign origins and names', async () => {
    const code = await open();
    const from = (headers: Record<string, string>) =>
      phone('POST', '/api/set-side/pair', { code }, headers).then(({ status }) => status);
    expect(await from({ origin: 'http://elsewhere.example' })).toBe(403);
    expect(await from({ 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(await from({ host: 'elsewhere.example' })).toBe(403);
    expect(await from({ origin: `http://127.0.0.1:${port}` })).toBe(204);
  });

  test('lets nobody try codes, or anything, without end', async () => {
    await open();
    const tries: number[] = [];
    for (let i = 0; i < 7; i++)
      tries.push((await phone('POST', '/api/set-side/pair', { code: `wrong ${i}` })).status);
    expect(tries).toEqual([401, 401, 401, 401, 401, 429, 429]);
    const asked = await Promise.all(
      Array.from({ length: 130 }, () => phone('GET', '/api/set-side/day').then(({ status }) => status)),
    );
    expect(asked).toContain(401);
    expect(asked).toContain(429);
  });

  test('throws a device out', async () => {
    await pair();
    const [device] = (await pairing()).body.devices;
    expect((await server.call('DELETE', `/api/pairing/devices/${device?.id}`)).status).toBe(204);
    expect((await phone('GET', '/api/set-side/day')).status).toBe(401);
  });
});
