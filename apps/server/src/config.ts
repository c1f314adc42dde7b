import { accessSync, constants, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';

/** A setting that keeps the server from starting; one clear line. */
export class ConfigError extends Error {}

export interface Config {
  host: string;
  port: number;
  /** A file, or the address of a libSQL server with its token. */
  database: { file: string } | { url: string; token: string | undefined };
  pictureFolder: string;
  demo: boolean;
  webRoot: string | undefined;
  /** Where phones and tablets find the day of a job, once it is switched on. */
  setSide: { host: string; port: number };
  /** Folder that cameras write to, and that of small pictures of what is in it. */
  frames: { folder: string; kept: string };
  /** Where backups lie, and how many daily ones are kept. */
  backups: { folder: string; keep: number };
  origins: string[];
  hosts: string[];
}

/**
 * Settings from the environment: FENDRIX_HOST (127.0.0.1), FENDRIX_PORT (4280), FENDRIX_DATA (folder),
 * FENDRIX_DEMO (1: load the demo set), FENDRIX_WEB (built pages), FENDRIX_NAMES and FENDRIX_ORIGINS (further
 * host names and page origins, comma separated), FENDRIX_SET_SIDE_HOST (0.0.0.0) and FENDRIX_SET_SIDE_PORT (the port
 * after FENDRIX_PORT), opened only while phones may pair, FENDRIX_FRAMES (folder that cameras write to; one in the data folder),
 * FENDRIX_DATABASE (address of a libSQL server instead of the file in the data folder, with FENDRIX_DATABASE_TOKEN),
 * FENDRIX_PICTURES (folder of pictures, shared where several servers share a database), FENDRIX_BACKUPS (folder of backups; one in the data folder) and FENDRIX_KEEP_BACKUPS (daily ones kept, 7; 0 for none).
 * @throws {ConfigError} a setting is wrong or the data folder cannot be written
 */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const port = portOf(env, 'FENDRIX_PORT', 4280);
  const setSidePort = portOf(env, 'FENDRIX_SET_SIDE_PORT', port < 65535 ? port + 1 : port - 1);
  const host = env.FENDRIX_HOST ?? '127.0.0.1';
  const names = ['127.0.0.1', 'localhost', '[::1]', host, ...list(env.FENDRIX_NAMES)];
  const hosts = names.map((name) => `${name.toLowerCase()}:${port}`);
  const data = resolve(env.FENDRIX_DATA ?? '.data');
  makeWritable(data);
  // One that is set may be on a disk that is not there yet: it is watched once it is.
  const frames = env.FENDRIX_FRAMES ? resolve(env.FENDRIX_FRAMES) : join(data, 'frames');
  if (!env.FENDRIX_FRAMES) makeWritable(frames);
  return {
    host,
    port,
    hosts,
    origins: [...hosts.map((name) => `http://${name}`), ...list(env.FENDRIX_ORIGINS)],
    database: databaseOf(env, data),
    pictureFolder: env.FENDRIX_PICTURES ? resolve(env.FENDRIX_PICTURES) : join(data, 'pictures'),
    frames: { folder: frames, kept: join(data, 'frame-pictures') },
    backups: {
      folder: env.FENDRIX_BACKUPS ? resolve(env.FENDRIX_BACKUPS) : join(data, 'backups'),
      keep: keptOf(env),
    },
    demo: env.FENDRIX_DEMO === '1',
    webRoot: env.FENDRIX_WEB,
    setSide: { host: env.FENDRIX_SET_SIDE_HOST ?? '0.0.0.0', port: setSidePort },
  };
}

function portOf(env: NodeJS.ProcessEnv, name: string, usual: number): number {
  const port = Number(env[name] ?? usual);
  if (Number.isInteger(port) && port >= 1 && port <= 65535) return port;
  throw new ConfigError(`${name} is "${env[name]}"; give a port from 1 to 65535`);
}

function databaseOf(env: NodeJS.ProcessEnv, data: string): Config['database'] {
  const address = env.FENDRIX_DATABASE;
  if (address === undefined || address === '') return { file: join(data, 'fendrix.sqlite') };
  if (address.startsWith('file:')) return { file: resolve(address.slice('file:'.length)) };
  if (/^(libsql|https?|wss?):\/\/\S+$/.test(address))
    return { url: address, token: env.FENDRIX_DATABASE_TOKEN };
  throw new ConfigError(
    `FENDRIX_DATABASE is "${address}"; give the address of a libSQL server, such as libsql://studio.local:8080, or file:PATH`,
  );
}

function keptOf(env: NodeJS.ProcessEnv): number {
  const kept = Number(env.FENDRIX_KEEP_BACKUPS ?? 7);
  if (Number.isInteger(kept) && kept >= 0 && kept <= 1000) return kept;
  throw new ConfigError(
    `FENDRIX_KEEP_BACKUPS is "${env.FENDRIX_KEEP_BACKUPS}"; give a number from 0 to 1000`,
  );
}

function makeWritable(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK | constants.R_OK);
  } catch {
    throw new ConfigError(`the data folder ${folder} cannot be written; set FENDRIX_DATA to one that can`);
  }
}

const list = (text = ''): string[] =>
  text
    .split(',')
    .map((part) => part.trim().toLowerCase())
    .filter((part) => part !== '');
