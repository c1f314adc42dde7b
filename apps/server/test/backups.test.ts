import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type {
  ApiError,
  Backup,
  BackupList,
  BackupLook,
  SetList,
  StoredJob,
  StoredSet,
} from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { clearCutOff, createBackups } from '../src/backup/backups.js';
import { openDatabase, openOrSetAside } from '../src/db/database.js';
import { frames } from '../src/db/schema.js';
import { startTestServer } from './testServer.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));

describe('backups of a studio', () => {
  let server: Awaited<ReturnType<typeof startTestServer>>;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  const folder = () => join(server.folder, 'backups');
  const make = async () => (await server.call<Backup>('POST', '/api/backups', {})).body;
  const list = async () => (await server.call<BackupList>('GET', '/api/backups')).body;
  const addSet = async (name: string) =>
    (await server.call<StoredSet>('POST', '/api/sets', { document: { ...demoSet('cordial'), name } })).body;
  const setNames = async () =>
    (await server.call<SetList>('GET', '/api/sets')).body.sets.map(({ name }) => name).sort();
  const restore = (name: string) =>
    server.call<Backup | ApiError>('POST', `/api/backups/${encodeURIComponent(name)}/restore`, {});
  /** A picture that a job refers to, kept. */
  async function addPicture(): Promise<string> {
    const data = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#405060' } })
      .png()
      .toBuffer();
    const { body } = await server.call<{ sha256: string }>('POST', '/api/pictures', data, {
      'content-type': 'image/png',
    });
    const job = (await server.call<StoredJob>('POST', '/api/jobs/demo', {})).body;
    const references = [{ name: 'Sketch', sha256: body.sha256, note: '' }];
    const document = { ...job.document, brief: { ...job.document.brief, references } };
    const saved = await server.call('PUT', `/api/jobs/${job.id}`, { revision: job.revision, document });
    expect(saved.status).toBe(200);
    return body.sha256;
  }

  test('what is deleted or changed afterwards comes back as it was, and what stood there before is kept too', async () => {
    const first = await addSet('First');
    const second = await addSet('Second');
    const made = await make();
    expect(made).toMatchObject({ reason: 'by hand', sets: 2, jobs: 0, pictures: 0 });

    await server.call('DELETE', `/api/sets/${first.id}`);
    await server.call('PUT', `/api/sets/${second.id}`, {
      revision: 1,
      document: { ...second.document, name: 'Second, changed' },
    });
    await addSet('Third');
    const look = (await server.call<BackupLook>('GET', `/api/backups/${encodeURIComponent(made.name)}/look`))
      .body;
    expect(look).toMatchObject({ lost: ['Third'], back: ['First'], changed: ['Second, changed'] });
    expect(await setNames()).toEqual(['Second, changed', 'Third']);

    expect((await restore(made.name)).status).toBe(200);
    expect(await setNames()).toEqual(['First', 'Second']);

    const before = (await list()).backups.find(({ reason }) => reason === 'before a restore');
    expect((await restore(before?.name ?? '')).status).toBe(200);
    expect(await setNames()).toEqual(['Second, changed', 'Third']);
  });

  test('a page that still shows what stood there before cannot save over what was put back', async () => {
    const set = await addSet('First');
    const { name } = await make();
    const save = (revision: number, to: string) =>
      server.call<ApiError | StoredSet>('PUT', `/api/sets/${set.id}`, {
        revision,
        document: { ...set.document, name: to },
      });
    await save(1, 'Later');
    await restore(name);
    for (const revision of [1, 2]) expect((await save(revision, 'Stale')).status).toBe(409);
    const stored = (await server.call<StoredSet>('GET', `/api/sets/${set.id}`)).body;
    expect(stored.name).toBe('First');
    expect((await save(stored.revision, 'Fresh')).status).toBe(200);
  });

  test('pictures go with it, into an empty studio too, by way of a file', async () => {
    const sha256 = await addPicture();
    const { name, pictures } = await make();
    expect(pictures).toBe(1);
    const file = (await server.call<Buffer>('GET', `/api/backups/${encodeURIComponent(name)}`)).body;

    const other = await startTestServer();
    try {
      const brought = await other.call<Backup>('POST', '/api/backups/bring', file, {
        'content-type': 'application/zip',
      });
      expect(brought.status).toBe(201);
      expect(brought.body.name).toContain('brought-in');
      const put = await other.call(
        'POST',
        `/api/backups/${encodeURIComponent(brought.body.name)}/restore`,
        {},
      );
      expect(put.status).toBe(200);
      expect((await other.call('GET', `/api/pictures/${sha256}`)).status).toBe(200);
      const there = (await other.call<SetList>('GET', '/api/sets')).body;
      expect(there.total).toBe((await server.call<SetList>('GET', '/api/sets')).body.total);
      expect(there.total).toBeGreaterThan(5);
    } finally {
      await other.stop();
    }
  });

  /** What a wrong file is refused with, and that it changes nothing. */
  async function refusal(spoil: (file: Uint8Array, name: string) => Uint8Array): Promise<string> {
    await addSet('Kept');
    const { name } = await make();
    const path = join(folder(), name);
    writeFileSync(path, spoil(readFileSync(path), name));
    await addSet('Since');
    const answer = await restore(name);
    expect(answer.status).toBe(400);
    expect(await setNames()).toEqual(['Kept', 'Since']);
    const verified = await server.call<ApiError>(
      'POST',
      `/api/backups/${encodeURIComponent(name)}/verify`,
      {},
    );
    expect(verified.status).toBe(400);
    expect(readdirSync(folder()).filter((own) => own.startsWith('.work'))).toEqual([]);
    return (answer.body as ApiError).error.message;
  }
  const repacked = (file: Uint8Array, change: (files: Record<string, Uint8Array>) => void) => {
    const files = unzipSync(file);
    change(files);
    return zipSync(files);
  };

  test.each<[string, (file: Uint8Array) => Uint8Array, RegExp]>([
    ['cut off', (file) => file.slice(0, file.length / 2), /damaged|no ZIP/],
    [
      'one byte of the database wrong',
      (file) =>
        repacked(file, (files) => {
          const own = files['studio.sqlite'] as Uint8Array;
          own[own.length - 100] = (own[own.length - 100] as number) ^ 1;
        }),
      /not the one that was put into it/,
    ],
    [
      'a foreign file in it',
      (file) => repacked(file, (files) => Object.assign(files, { '../evil.txt': strToU8('x') })),
      /does not belong|path/,
    ],
    ['without its database', (file) => repacked(file, (files) => delete files['studio.sqlite']), /missing/],
    ['not a backup', () => zipSync({ 'contents.txt': strToU8('x') }), /no backup/],
    [
      'of a newer Fendrix',
      (file) =>
        repacked(file, (files) => {
          const manifest = JSON.parse(Buffer.from(files['backup.json'] as Uint8Array).toString());
          files['backup.json'] = strToU8(JSON.stringify({ ...manifest, tables: 1000 }));
        }),
      /newer Fendrix/,
    ],
    [
      'of a later format',
      (file) =>
        repacked(file, (files) => {
          const manifest = JSON.parse(Buffer.from(files['backup.json'] as Uint8Array).toString());
          files['backup.json'] = strToU8(JSON.stringify({ ...manifest, version: 2 }));
        }),
      /version/,
    ],
  ])('%s: it is refused in words, and all stays as it was', async (_, spoil, words) => {
    expect(await refusal(spoil)).toMatch(words);
  });

  test.each([
    ['a frame that lies elsewhere', `UPDATE frames SET name = '../../etc/passwd.jpg'`],
    ['a frame by a whole path', `UPDATE frames SET name = '/etc/passwd.jpg'`],
    ['a picture by no hash', `UPDATE pictures SET sha256 = '../../../studio.sqlite'`],
  ])('a database that names %s is refused, though all its checksums are right', async (_, change) => {
    await addPicture();
    const row = {
      bytes: 1,
      writtenMs: 1,
      widthPx: 3,
      heightPx: 2,
      arrivedAt: '2026-05-01T00:00:00Z',
      live: true,
    };
    await server.database.write((query) =>
      query.insert(frames).values({
        ...row,
        id: 'f',
        sha256: 'ab'.repeat(32),
        name: 'F.jpg',
        state: 'kept',
        starred: false,
        gone: true,
      }),
    );
    const { name } = await make();
    const path = join(folder(), name);
    const files = unzipSync(readFileSync(path));
    const file = join(server.folder, 'evil.sqlite');
    writeFileSync(file, files['studio.sqlite'] as Uint8Array);
    const evil = await openDatabase(`file:${file}`);
    await evil.query.run(change);
    await evil.close();
    const data = readFileSync(file);
    const manifest = JSON.parse(Buffer.from(files['backup.json'] as Uint8Array).toString());
    const database = { bytes: data.length, sha256: createHash('sha256').update(data).digest('hex') };
    files['studio.sqlite'] = new Uint8Array(data);
    files['backup.json'] = strToU8(JSON.stringify({ ...manifest, database }));
    writeFileSync(path, zipSync(files));
    const answer = await restore(name);
    expect([answer.status, (answer.body as ApiError).error.message]).toEqual([
      400,
      'This backup names files that are none of a studio.',
    ]);
  });

  test('a restore that fails in the middle of the database leaves all as it was', async () => {
    await addSet('Kept');
    const other = join(server.folder, 'other.sqlite');
    const broken = await openDatabase(`file:${other}`);
    await broken.query.run('DROP TABLE long_texts');
    await broken.close();
    await expect(server.database.replaceWith(other)).rejects.toThrow(/long_texts/);
    expect(await setNames()).toEqual(['Kept']);
    // And it still takes what comes next.
    await addSet('Next');
    const { name } = await make();
    expect((await restore(name)).status).toBe(200);
    expect(await setNames()).toEqual(['Kept', 'Next']);
  });

  test('a backup of the first version, kept here for ever, is read and put back', async () => {
    mkdirSync(folder(), { recursive: true });
    copyFileSync(
      fileURLToPath(new URL('documents/backup-1.zip', import.meta.url)),
      join(folder(), 'of before.zip'),
    );
    expect((await restore('of before.zip')).status).toBe(200);
    expect(await setNames()).toEqual(['Kept of before']);
  });

  test('what is being written meanwhile is in it whole or not at all', async () => {
    const writes = Array.from({ length: 12 }, (_, i) => addSet(`Set ${i}`));
    const backups = await Promise.all([make(), make()]);
    await Promise.all(writes);
    for (const { name } of backups) {
      const checked = await server.call('POST', `/api/backups/${encodeURIComponent(name)}/verify`, {});
      expect(checked.status).toBe(200);
    }
    expect(new Set(backups.map(({ name }) => name)).size).toBe(2);
  });

  test('names that lead elsewhere, and files that are none', async () => {
    for (const name of ['..%2F..%2Fetc%2Fpasswd', '%2e%2e%2ftest.sqlite', 'nothing.zip', 'test.sqlite'])
      for (const [method, rest] of [
        ['GET', ''],
        ['GET', '/look'],
        ['POST', '/restore'],
        ['DELETE', ''],
      ] as const)
        expect(
          (await server.call(method, `/api/backups/${name}${rest}`, method === 'POST' ? {} : undefined))
            .status,
        ).toBe(404);
    mkdirSync(folder(), { recursive: true });
    writeFileSync(join(folder(), 'holiday.zip'), 'no zip');
    const { backups, unreadable } = await list();
    expect(backups).toEqual([]);
    expect(unreadable[0]).toMatchObject({ name: 'holiday.zip' });
    expect(existsSync(join(folder(), 'holiday.zip'))).toBe(true);
  });

  test('one that is sent and is none is refused, and nothing of it is left', async () => {
    const answer = await server.call<ApiError>('POST', '/api/backups/bring', Buffer.from('PK no zip'), {
      'content-type': 'application/zip',
    });
    expect(answer.status).toBe(400);
    expect(readdirSync(folder())).toEqual([]);
  });

  test('daily: once a day, the number kept, none of an empty studio, those made by hand stay', async () => {
    const { backups } = server;
    expect(await backups.daily(new Date('2026-05-01T08:00:00Z'))).toBeNull();
    await addSet('First');
    await backups.make('by hand', new Date('2026-04-01T08:00:00Z'));
    for (let day = 1; day <= 5; day++) {
      expect(await backups.daily(new Date(`2026-05-0${day}T08:00:00Z`))).not.toBeNull();
      expect(await backups.daily(new Date(`2026-05-0${day}T20:00:00Z`))).toBeNull();
    }
    const all = (await list()).backups;
    expect(all.map(({ reason, madeAt }) => `${reason} ${madeAt.slice(0, 10)}`)).toEqual([
      'daily 2026-05-05',
      'daily 2026-05-04',
      'daily 2026-05-03',
      'by hand 2026-04-01',
    ]);
    const off = createBackups({
      database: server.database,
      pictureFolder: join(server.folder, 'pictures'),
      folder: folder(),
      keep: 0,
    });
    expect(await off.daily(new Date('2027-01-01T00:00:00Z'))).toBeNull();
  });

  test('what one that was killed has left goes at the next start, and nothing else', async () => {
    const { name } = await make();
    const cut = join(folder(), '.work-1-x');
    mkdirSync(cut);
    copyFileSync(join(folder(), name), join(cut, 'backup.zip'));
    truncateSync(join(cut, 'backup.zip'), 10);
    await clearCutOff(folder());
    expect(readdirSync(folder())).toEqual([name]);
  });
});

interface Told {
  answer: unknown;
  stderr: string;
  status: number | null;
}

describe('backups from the command line', () => {
  test('killed at any moment, in a backup or while one is put back, the studio is one or the other', async () => {
    const server = await startTestServer();
    const add = (name: string) =>
      server.call('POST', '/api/sets', { document: { ...demoSet('cordial'), name } });
    await add('Before');
    const { name } = await server.backups.make('by hand');
    await add('After');
    const names = async () =>
      (await server.call<SetList>('GET', '/api/sets')).body.sets
        .map((set) => set.name)
        .sort()
        .join();
    // The command line opens the database of its data folder by its own name.
    const data = join(server.folder, 'data');
    mkdirSync(data);
    await server.database.snapshot(join(data, 'fendrix.sqlite'));
    const env = { ...process.env, FENDRIX_DATA: data, FENDRIX_BACKUPS: join(server.folder, 'backups') };
    try {
      for (const [command, ms] of [
        ['make', 900],
        ['restore', 800],
        ['restore', 1100],
        ['restore', 1400],
      ] as const) {
        const words = command === 'make' ? ['make'] : ['restore', name, '--yes'];
        const child = spawn(
          process.execPath,
          ['--import', 'tsx', 'apps/server/src/backup/commandLine.ts', ...words],
          { cwd: root, env, stdio: 'ignore' },
        );
        await new Promise((resolve) => {
          const timer = setTimeout(() => child.kill('SIGKILL'), ms);
          child.once('exit', () => {
            clearTimeout(timer);
            resolve(null);
          });
        });
        const { database, setAside } = await openOrSetAside(join(data, 'fendrix.sqlite'));
        expect(setAside).toBeNull();
        const rows = await database.query.all<{ name: string }>('SELECT name FROM sets ORDER BY name');
        expect(['After,Before', 'Before']).toContain(rows.map((row) => row.name).join());
        await database.close();
        await clearCutOff(join(server.folder, 'backups'));
        for (const own of (await server.backups.list()).backups) await server.backups.verify(own.name);
      }
      expect(await names()).toBe('After,Before');
    } finally {
      await server.stop();
    }
  });

  const withData = (body: (call: (...words: string[]) => Told) => void) => {
    const data = mkdtempSync(join(tmpdir(), 'fendrix-backup-'));
    try {
      body((...words) => {
        const { stdout, stderr, status } = spawnSync(
          process.execPath,
          ['--import', 'tsx', 'apps/server/src/backup/commandLine.ts', ...words],
          { cwd: root, env: { ...process.env, FENDRIX_DATA: data }, encoding: 'utf8' },
        );
        return { answer: stdout === '' ? null : JSON.parse(stdout), stderr, status };
      });
    } finally {
      rmSync(data, { recursive: true, force: true });
    }
  };

  test('made, and put back only when told so, while the studio may be open elsewhere', () =>
    withData((call) => {
      const made = call('make');
      expect(made.status).toBe(0);
      const { name } = made.answer as Backup;
      expect(call('restore', name)).toMatchObject({ status: 2, answer: null });
      expect(call('restore', name, '--yes').status).toBe(0);
      expect((call('list').answer as BackupList).backups.map(({ reason }) => reason).sort()).toEqual([
        'before a restore',
        'by hand',
      ]);
    }));

  test('looked at and brought; without a command it says what there is', { tags: ['more'] }, () =>
    withData((call) => {
      const { name } = call('make').answer as Backup;
      expect(call('verify', name).answer).toMatchObject({ name, sets: 0 });
      expect(call('bring', 'nowhere.zip').stderr).toContain('there is no file "nowhere.zip"');
      expect(call().stderr).toContain('usage');
    }),
  );
});
