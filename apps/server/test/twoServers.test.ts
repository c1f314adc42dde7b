import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ApiError, SetList, StoredSet } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { libsqlStandIn } from './libsqlStandIn.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));

/** A port that nobody listens on. */
const freePort = () =>
  new Promise<number>((resolve, reject) => {
    const probe = createServer().once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

const TOKEN = 'a-token-of-the-studio';

/** Where the database of both servers is. */
const PLACES = ['one file', 'a database server'] as const;

describe.each(PLACES)('two servers on one database, %s', (place) => {
  const folder = mkdtempSync(join(tmpdir(), 'fendrix-two-'));
  let databaseServer: Awaited<ReturnType<typeof libsqlStandIn>> | undefined;
  const servers: ChildProcess[] = [];
  const addresses: string[] = [];

  /** A server process over the folder of both, once it says where it is. */
  async function start(): Promise<void> {
    const port = await freePort();
    const child = spawn(process.execPath, ['--import', 'tsx', 'apps/server/src/main.ts'], {
      cwd: root,
      env: {
        ...process.env,
        FENDRIX_PORT: String(port),
        FENDRIX_DATA: folder,
        FENDRIX_DEMO: '',
        ...(databaseServer ? { FENDRIX_DATABASE: databaseServer.url, FENDRIX_DATABASE_TOKEN: TOKEN } : {}),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    servers.push(child);
    await new Promise<void>((resolve, reject) => {
      child.stdout?.on('data', (data: Buffer) => data.toString().includes('Fendrix is at') && resolve());
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
    addresses.push(`http://127.0.0.1:${port}`);
  }
  beforeAll(async () => {
    if (place === 'a database server')
      databaseServer = await libsqlStandIn(join(folder, 'on-server.sqlite'), TOKEN);
    await start();
    await start();
  }, 60_000);
  afterAll(async () => {
    for (const child of servers) child.kill('SIGKILL');
    await databaseServer?.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const send = async <T>(server: number, method: string, path: string, body?: unknown) => {
    const answer = await fetch(`${addresses[server]}${path}`, {
      method,
      ...(body === undefined
        ? {}
        : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    return { status: answer.status, body: (await answer.json()) as T };
  };

  test('of two saves over one revision one is taken and the other told, whichever server each went to', async () => {
    const { body: made } = await send<StoredSet>(0, 'POST', '/api/sets', { document: demoSet('cordial') });
    for (let revision = 1; revision <= 12; revision++) {
      const save = (server: number) =>
        send<StoredSet | ApiError>(server, 'PUT', `/api/sets/${made.id}`, {
          revision,
          document: { ...made.document, name: `By ${server} over ${revision}` },
        });
      const answers = await Promise.all([save(0), save(1)]);
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
      const winner = answers.findIndex(({ status }) => status === 200);
      for (const server of [0, 1]) {
        const { body } = await send<StoredSet>(server, 'GET', `/api/sets/${made.id}`);
        expect(body).toMatchObject({ revision: revision + 1, name: `By ${winner} over ${revision}` });
      }
    }
  });

  test('many at once from both: none is lost, none refused', async () => {
    const answers = await Promise.all(
      Array.from({ length: 40 }, (_, i) =>
        send(i % 2, 'POST', '/api/sets', { document: { ...demoSet('mill'), name: `Many ${i}` } }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array(40).fill(201));
    for (const server of [0, 1])
      expect((await send<SetList>(server, 'GET', '/api/sets?search=Many&limit=100')).body.total).toBe(40);
  });
});
