import type { ApiError, StoredSet } from '@fendrix/contract';
import type { Rebuilt } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import type { SetSheetWords } from '@fendrix/words';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startTestServer } from './testServer.js';

/** A light over a sweep, and a spot on it: nothing clear, so that its sheet is quickly worked out. */
const small = () => {
  const set = demoSet('cordial');
  return {
    ...set,
    name: 'Cordial / sheet?',
    products: [],
    highlights: [],
    sheets: [],
    spots: set.spots.filter(({ name }) => name === 'table'),
    takes: [],
  };
};

describe('set sheets on the server', () => {
  let server: Awaited<ReturnType<typeof startTestServer>>;
  let stored: StoredSet;
  const address = (rest = '') => `/api/sets/${stored.id}/sheet${rest}`;

  beforeAll(async () => {
    server = await startTestServer();
    stored = (await server.call<StoredSet>('POST', '/api/sets', { document: small() })).body;
  });
  afterAll(() => server.stop());

  test('words, drawings and PDF are of the set as it is saved; a newer version has a sheet of its own', async () => {
    const first = await server.call<SetSheetWords>('GET', address());
    expect(first.status).toBe(200);
    expect(first.body.title).toBe('Cordial / sheet?');
    expect(first.body.tones[0]?.tone).toMatch(/\d/);
    expect(first.body.things.find(({ name }) => name.startsWith('A:'))?.mayBeOff).toMatch(
      /distance [\d.]+ cm/,
    );

    const drawn = await server.call<Buffer>('GET', address('/above'));
    expect(String(drawn.headers['content-type'])).toContain('image/svg+xml');
    expect(drawn.body.toString()).toMatch(/^<svg .*mm"/);

    const pdf = await server.call<Buffer>('GET', address('/pdf?paper=Letter'));
    expect(pdf.status).toBe(200);
    expect(pdf.body.subarray(0, 5).toString()).toBe('%PDF-');
    expect(String(pdf.headers['content-disposition'])).toContain('Cordial  sheet, set sheet.pdf');
    expect(pdf.body.toString('latin1')).toContain('612');

    const picture = await server.call<Buffer>('GET', address('/picture'));
    expect([...picture.body.subarray(0, 2)]).toEqual([0xff, 0xd8]);

    const renamed = { ...stored.document, name: 'Another name', spots: [] };
    const saved = await server.call('PUT', `/api/sets/${stored.id}`, {
      revision: stored.revision,
      document: renamed,
    });
    expect(saved.status).toBe(200);
    const second = await server.call<SetSheetWords>('GET', address());
    expect(second.body.title).toBe('Another name');
    expect(second.body.tones).toEqual([]);
  }, 150_000);

  test('a set changed while its sheet is worked out: the older one is given up, never given out as the newer', async () => {
    const before = (await server.call<StoredSet>('GET', `/api/sets/${stored.id}`)).body;
    const named = (name: string) => ({
      ...before.document,
      name,
      camera: { ...before.document.camera, iso: 200 },
    });
    await server.call('PUT', `/api/sets/${stored.id}`, {
      revision: before.revision,
      document: named('Older'),
    });
    const older = server.call<SetSheetWords | ApiError>('GET', address());
    await new Promise((resolve) => setTimeout(resolve, 50));
    await server.call('PUT', `/api/sets/${stored.id}`, {
      revision: before.revision + 1,
      document: named('Newer'),
    });
    const newer = await server.call<SetSheetWords>('GET', address());
    expect(newer.body.title).toBe('Newer');
    const { status, body } = await older;
    if (status === 200) expect((body as SetSheetWords).title).toBe('Older');
    else expect((body as ApiError).error.message).toMatch(/changed/);
  });

  test('a set goes out in space as it was saved', async () => {
    const { status, headers, body } = await server.call<Buffer>('GET', `/api/sets/${stored.id}/glb`);
    expect(status).toBe(200);
    expect(String(headers['content-disposition'])).toMatch(/\.glb"/);
    expect(body.subarray(0, 4).toString()).toBe('glTF');
    expect(body.readUInt32LE(8)).toBe(body.length);
    expect((await server.call('GET', '/api/sets/00000000-0000-4000-8000-000000000000/glb')).status).toBe(404);
  });

  test('what is asked wrongly is told by its field, and a set that is not there', async () => {
    const wrong = await server.call<ApiError>('GET', address('/pdf?paper=A3'));
    expect(wrong.status).toBe(400);
    expect(wrong.body.error.problems?.[0]?.path).toBe('paper');
    const lost = '/api/sets/00000000-0000-4000-8000-000000000000/sheet';
    for (const rest of ['', '/pdf', '/above', '/picture'])
      expect((await server.call('GET', `${lost}${rest}`)).status).toBe(404);
  });

  test('a set is rebuilt with another product, and nothing is stored by that', async () => {
    const mill = demoSet('mill');
    const own = (await server.call<StoredSet>('POST', '/api/sets', { document: mill })).body;
    const [old] = mill.products;
    const ask = (body: object) =>
      server.call<Rebuilt & ApiError>('POST', `/api/sets/${own.id}/rebuild`, body);
    const taller = { ...demoSet('pepper').products[0], id: 'pepper' };
    const { status, body } = await ask({ product: old?.id, with: taller, align: 'base' });
    expect(status).toBe(200);
    expect(body.set.products[0]?.id).toBe(old?.id);
    expect(body.images.length).toBeGreaterThan(0);
    expect((await server.call<StoredSet>('GET', `/api/sets/${own.id}`)).body.revision).toBe(own.revision);
    expect((await ask({ product: 'none', with: taller })).body.error.message).toContain('“none”');
    const bad = await ask({ product: old?.id, with: { ...taller, material: { kind: 'ether' } } });
    expect(bad.body.error.problems?.[0]?.path).toMatch(/^with\.material/);
  });
});
