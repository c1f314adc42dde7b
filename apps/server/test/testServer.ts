import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createFilms, type Films } from '@fendrix/core';
import { pino } from 'pino';
import { createApp } from '../src/app.js';
import { createBackups } from '../src/backup/backups.js';
import { openDatabase } from '../src/db/database.js';
import { createSetLight, type PictureSize, type SetLight } from '../src/devices/setLight.js';

export interface Answer<T> {
  status: number;
  headers: Record<string, unknown>;
  body: T;
}

const setLight = createSetLight({ spotSamples: 512 });

/** Films with each pixel repeated until they have a size. */
function enlarged(films: Films, { width, height }: PictureSize): Films {
  const large = createFilms(width, height, films.channels, films.stokes);
  const from = (place: number) => {
    const [x, y] = [place % width, Math.floor(place / width)];
    return Math.floor((y * films.height) / height) * films.width + Math.floor((x * films.width) / width);
  };
  const pixels = width * height;
  large.samples.forEach((_, place) => {
    large.samples[place] = films.samples[from(place)] as number;
    for (let channel = 0; channel < films.channels; channel++) {
      const at = 3 * (channel * films.width * films.height + from(place));
      large.data.set(films.data.subarray(at, at + 3), 3 * (channel * pixels + place));
    }
  });
  return large;
}

/**
 * One for all: its threads read the modules once. Fewer paths a spot and a picture than in the studio.
 * @param coarser pixels of a picture, to each side, that are traced as one
 */
const lightOf = (coarser: number): SetLight => ({
  ...setLight,
  films: async (set, size, samples, seed) => {
    const traced = { width: Math.ceil(size.width / coarser), height: Math.ceil(size.height / coarser) };
    const films = await setLight.films(set, traced, Math.ceil(samples / 4), seed);
    return coarser === 1 ? films : enlarged(films, size);
  },
  close() {},
});

/** A server of its own with an empty database in a folder that is gone when it is stopped, or over the folder of one that left it. */
export async function startTestServer({
  folder = mkdtempSync(join(tmpdir(), 'fendrix-server-')),
  coarser = 3,
} = {}) {
  const database = await openDatabase(`file:${join(folder, 'test.sqlite')}`);
  const hosts: string[] = [];
  const origins: string[] = [];
  const pictureFolder = join(folder, 'pictures');
  const frames = { folder: join(folder, 'frames'), kept: join(folder, 'frame-pictures') };
  mkdirSync(frames.folder, { recursive: true });
  const backups = createBackups({ database, pictureFolder, folder: join(folder, 'backups'), keep: 3 });
  const { app, close } = createApp({
    database,
    backups,
    log: pino({ level: 'silent' }),
    pictureFolder,
    hosts,
    origins,
    setSide: { host: '127.0.0.1', port: 0 },
    frames,
    light: lightOf(coarser),
  });
  const server = createServer(app.callback());
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  hosts.push(`127.0.0.1:${port}`);
  origins.push(`http://127.0.0.1:${port}`);

  /** One request, to the server itself or to another port of this machine; text and bytes are sent as they stand. Answers that are not JSON come as bytes. */
  function call<T = unknown>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    at = port,
  ): Promise<Answer<T>> {
    return new Promise((resolve, reject) => {
      const plain = typeof body === 'string' || body instanceof Uint8Array;
      const type = body === undefined ? {} : { 'content-type': 'application/json' };
      const sent = request(
        // A connection of its own: one that is kept may have been closed while a test was busy.
        { host: '127.0.0.1', port: at, method, path, headers: { ...type, ...headers }, agent: false },
        (response) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => {
            const data = Buffer.concat(parts);
            const json = String(response.headers['content-type']).includes('json');
            resolve({
              status: response.statusCode ?? 0,
              headers: response.headers,
              body: (json ? JSON.parse(data.toString()) : data) as T,
            });
          });
        },
      );
      sent.on('error', reject);
      sent.end(body === undefined ? '' : plain ? body : JSON.stringify(body));
    });
  }

  /** Stops it and leaves its folder. */
  async function leave(): Promise<void> {
    await close();
    server.closeAllConnections();
    server.close();
    await database.close();
  }

  return {
    folder,
    port,
    database,
    backups,
    call,
    leave,
    async stop() {
      await leave();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
