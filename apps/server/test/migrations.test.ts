import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoJob, demoSet } from '@fendrix/demo';
import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { expect, test } from 'vitest';
import { openDatabase } from '../src/db/database.js';
import { createJobStore } from '../src/domain/jobs.js';
import { createSetStore } from '../src/domain/sets.js';

const migrations = new URL('../src/db/migrations', import.meta.url).pathname;

/** A database as it was after its first `count` migrations. */
async function databaseOf(count: number, folder: string) {
  const old = join(folder, 'migrations');
  cpSync(migrations, old, { recursive: true });
  const journalPath = join(old, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(journalPath, 'utf8')) as { entries: unknown[] };
  writeFileSync(journalPath, JSON.stringify({ ...journal, entries: journal.entries.slice(0, count) }));
  const client = createClient({ url: `file:${join(folder, 'fendrix.db')}` });
  await migrate(drizzle(client), { migrationsFolder: old });
  return client;
}

test('where jobs are in the order of work is kept as data, also of jobs that were stored as words', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'fendrix-'));
  try {
    const client = await databaseOf(4, folder);
    const job = demoJob(() => randomUUID());
    const [first, ...others] = job.shots;
    if (!first) throw new Error('the demo job lists pictures');
    const { setId: _unplaced, ...waiting } = first;
    const placed = [first, ...others].map((shot, i) => ({ ...shot, setId: randomUUID(), done: i === 0 }));
    const jobs: [id: string, state: string, document: object][] = [
      ['camera', 'camera', { ...job, shots: [{ ...waiting, name: 'Next to place' }, ...others] }],
      ['shooting', 'shooting', { ...job, shots: placed }],
      ['brief', 'brief', { ...job, shots: [] }],
    ];
    for (const [id, state, document] of jobs) {
      await client.execute({
        sql: `INSERT INTO jobs (id, name, revision, document, updated_at, client, state, next, archived, shots)
              VALUES (?, ?, 1, ?, '2026-01-01T00:00:00Z', '', ?, 'words of before', 0, 1)`,
        args: [id, id, JSON.stringify(document), state],
      });
    }
    client.close();
    const database = await openDatabase(`file:${join(folder, 'fendrix.db')}`);
    const { jobs: found } = await createJobStore(database).list({
      search: '',
      limit: 10,
      offset: 0,
      archived: 'no',
    });
    await database.close();
    const told = Object.fromEntries(found.map(({ id, picture, waiting: left }) => [id, [picture, left]]));
    expect(told).toEqual({
      camera: ['Next to place', 0],
      shooting: [placed[1]?.name, placed.length - 1],
      brief: [null, 0],
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

const { entries } = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
  entries: unknown[];
};

test.each(entries.map((_, i) => i + 1))(
  'a database as it was after %s changes to its tables opens today, with what is in it',
  async (count) => {
    const folder = mkdtempSync(join(tmpdir(), 'fendrix-'));
    try {
      const client = await databaseOf(count, folder);
      const document = JSON.stringify({ ...demoSet('cordial'), name: 'Of before' });
      await client.execute({
        sql: `INSERT INTO sets (id, name, revision, document, updated_at) VALUES (?, 'Of before', 3, ?, '2026-01-01T00:00:00Z')`,
        args: [randomUUID(), document],
      });
      client.close();
      const database = await openDatabase(`file:${join(folder, 'fendrix.db')}`);
      const store = createSetStore(database);
      const { sets } = await store.list({ search: '', limit: 10, offset: 0 });
      const [found] = await Promise.all(sets.map(({ id }) => store.read(id)));
      await database.close();
      expect(found).toMatchObject({ name: 'Of before', revision: 3 });
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  },
);
