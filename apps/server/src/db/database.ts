import { existsSync, renameSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { type Client, createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { AppError } from '../errors.js';
import { replaceRows } from './replaceRows.js';
import * as schema from './schema.js';

const MIGRATIONS = fileURLToPath(new URL('./migrations', import.meta.url));

export interface Database {
  query: LibSQLDatabase<typeof schema>;
  /** Runs a write after all earlier ones: SQLite takes one writer, and waiting in line beats SQLITE_BUSY. */
  write<T>(work: (query: LibSQLDatabase<typeof schema>) => Promise<T>): Promise<T>;
  /** Writes all of it as it is at one moment into a new file, while others read and wait to write. */
  snapshot(file: string): Promise<void>;
  /**
   * Puts the rows of another database of the same tables in the place of its own, all or none. Revisions go on from the higher of
   * both: who still holds an older document is told when saving it.
   */
  replaceWith(file: string): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens the database file, in write-ahead mode, and brings its tables up to date.
 * @param url `file:` address, `:memory:` for a database that is gone when closed, or that of a libSQL server, which keeps its own
 * @param token that the server asks for
 */
export async function openDatabase(url: string, token?: string): Promise<Database> {
  const client: Client = createClient({ url, ...(token === undefined ? {} : { authToken: token }) });
  const isFile = /^(file:|:memory:)/.test(url);
  try {
    if (isFile) await prepareFile(client);
    const query = drizzle(client, { schema });
    await migrate(query, { migrationsFolder: MIGRATIONS });
    let last: Promise<unknown> = Promise.resolve();
    const write: Database['write'] = (work) => {
      const next = last.then(() => work(query));
      last = next.catch(() => undefined);
      return next;
    };
    return {
      query,
      write,
      async snapshot(file) {
        requireFile(isFile);
        await write(() => client.execute({ sql: 'VACUUM INTO ?', args: [file] }));
      },
      async replaceWith(file) {
        requireFile(isFile);
        await write(() => replaceRows(client, file));
      },
      async close() {
        await last;
        // All of it into the one file: a copy of that file is then a copy of everything.
        if (isFile) await client.execute('PRAGMA wal_checkpoint(TRUNCATE)').catch(() => undefined);
        client.close();
      },
    };
  } catch (error) {
    client.close();
    throw isDamage(error) ? new DamagedDatabase((error as Error).message) : error;
  }
}

async function prepareFile(client: Client): Promise<void> {
  const check = await client.execute('PRAGMA quick_check(1)');
  const state = String(check.rows[0]?.[0] ?? '');
  if (state !== 'ok') throw new DamagedDatabase(state);
  await client.execute('PRAGMA journal_mode = WAL');
  await client.execute('PRAGMA synchronous = NORMAL');
  // Another server may be writing to the same file.
  await client.execute('PRAGMA busy_timeout = 5000');
}

function requireFile(isFile: boolean): void {
  if (!isFile)
    throw new AppError('unavailable', 'This studio is kept on a database server.', {
      hint: 'Backups are made and put back there, by its own means.',
    });
}

/** The file is no database, or what is in it contradicts itself. */
export class DamagedDatabase extends Error {}

const isDamage = (error: unknown): boolean =>
  !(error instanceof DamagedDatabase) &&
  error instanceof Error &&
  /SQLITE_(NOTADB|CORRUPT)|malformed|not a database/.test(
    `${(error as { code?: string }).code} ${error.message}`,
  );

/**
 * Opens the database file; a damaged one is set aside under another name, never deleted, and an empty one begun.
 * @param file path of the database
 * @returns where the damaged one lies now; null where it was sound
 */
export async function openOrSetAside(
  file: string,
  now = new Date(),
): Promise<{ database: Database; setAside: string | null }> {
  try {
    return { database: await openDatabase(`file:${file}`), setAside: null };
  } catch (error) {
    if (!(error instanceof DamagedDatabase)) throw error;
    const setAside = `${file}.damaged-${now.toISOString().replace(/[:.]/g, '-')}`;
    for (const end of ['', '-wal', '-shm']) {
      if (existsSync(`${file}${end}`)) renameSync(`${file}${end}`, `${setAside}${end}`);
    }
    return { database: await openDatabase(`file:${file}`), setAside };
  }
}
