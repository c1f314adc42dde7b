import { createHash } from 'node:crypto';
import type { ApiError, Saved, SetDocument, StoredSet } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { longTexts, sets } from '../src/db/schema.js';
import { collectLongTexts } from '../src/domain/longTexts.js';
import { startTestServer } from './testServer.js';

let server: Awaited<ReturnType<typeof startTestServer>>;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

/** A dome of some 9 000 triangles: its points and its triangles are both long texts. */
function mesh(lift = 0) {
  const n = 68;
  const points: number[] = [];
  const corners: number[] = [];
  for (let row = 0; row <= n; row++) {
    for (let column = 0; column <= n; column++) {
      points.push(column / 1000, row / 1000, lift + 0.02 * Math.sin(row / 20));
      if (row === n || column === n) continue;
      const p = row * (n + 1) + column;
      corners.push(p, p + 1, p + n + 1, p + 1, p + n + 2, p + n + 1);
    }
  }
  const text = (data: Float32Array | Uint32Array) => Buffer.from(data.buffer).toString('base64');
  return {
    positionsBase64: text(Float32Array.from(points)),
    trianglesBase64: text(Uint32Array.from(corners)),
  };
}

function withMesh(name: string, lift = 0): SetDocument {
  const set = demoSet('cordial');
  const [first] = set.products;
  if (!first) throw new Error('the demo has no product');
  const { id, positionM, turnDeg, material } = first;
  const product = {
    kind: 'mesh',
    parts: [],
    id,
    name: 'Dome',
    positionM,
    turnDeg,
    material,
    smoothDeg: 40,
    ...mesh(lift),
  };
  return { ...set, name, products: [product as SetDocument['products'][number]], takes: [], spots: [] };
}

const create = async (document: unknown) =>
  (await server.call<StoredSet>('POST', '/api/sets', { document })).body;
const row = async (id: string) =>
  (await server.database.query.select().from(sets).where(eq(sets.id, id)))[0]?.document ?? '';
const texts = () => server.database.query.select().from(longTexts);
const named = (text: string) => ({ longText: createHash('sha256').update(text).digest('hex') });

describe('long texts', () => {
  test('are kept once by content, whatever holds them, and read back whole', async () => {
    const document = withMesh('One dome');
    const one = await create(document);
    const two = await create({ ...document, name: 'Another of it' });
    expect((await row(one.id)).length).toBeLessThan(30_000);
    expect(await texts()).toHaveLength(2);
    expect((await server.call<StoredSet>('GET', `/api/sets/${two.id}`)).body.document).toEqual(two.document);
    expect(two.document.products).toEqual(document.products);
    const raw = await server.call('GET', `/api/sets/${one.id}/raw`);
    expect(raw.body).toEqual(one.document);
  });

  test('may be named in a save once they are kept', async () => {
    const document = withMesh('Saved by name', 0.001);
    const { id } = await create(document);
    const { positionsBase64, trianglesBase64 } = mesh(0.001);
    const [product] = document.products;
    const short = {
      ...document,
      name: 'Saved by name again',
      products: [
        {
          ...product,
          positionsBase64: named(positionsBase64),
          trianglesBase64: named(trianglesBase64),
        },
      ],
    };
    const saved = await server.call<Saved>('PUT', `/api/sets/${id}`, { revision: 1, document: short });
    expect(saved.status).toBe(200);
    expect(saved.body).toMatchObject({ id, revision: 2, name: 'Saved by name again' });
    const { document: kept } = (await server.call<StoredSet>('GET', `/api/sets/${id}`)).body;
    expect(kept.products).toEqual(document.products);
  });

  test('that are not kept are refused at their field, and nothing is saved', async () => {
    const document = withMesh('Never sent', 0.002);
    const [product] = document.products;
    const short = { ...document, products: [{ ...product, positionsBase64: { longText: 'ab'.repeat(32) } }] };
    const answer = await server.call<ApiError>('POST', '/api/sets', { document: short });
    expect(answer.status).toBe(400);
    expect(answer.body.error.problems?.[0]?.path).toBe('products[0].positionsBase64');
  });

  test('a document nested without end is refused as bad input', async () => {
    const deep = `{"document":${'['.repeat(20_000)}${']'.repeat(20_000)}}`;
    expect((await server.call('POST', '/api/sets', deep)).status).toBe(400);
  });

  test('that nothing names any more go at the next start; those in use stay', async () => {
    const { id } = await create(withMesh('Soon gone', 0.003));
    const before = (await texts()).length;
    expect(await collectLongTexts(server.database)).toBe(0);
    await server.call('DELETE', `/api/sets/${id}`);
    expect(await collectLongTexts(server.database)).toBe(1);
    expect(await texts()).toHaveLength(before - 1);
  });
});
