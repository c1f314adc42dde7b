import { fileURLToPath } from 'node:url';
import { type Client, createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import * as schema from './schema.js';

const MIGRATIONS = fileURLToPath(new URL('./migrations', import.meta.url));

export interface Database {
  query: LibSQLDatabase<typeof schema>;
  /** Runs a write after all earlier ones: SQLite takes one writer, and waiting in line beats SQLITE_BUSY. */
  write<T>(work: (query: LibSQLDatabase<typeof schema>) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/**
 * Opens the database file, in write-ahead mode, and brings its tables up to date.
 * @param url `file:` address, or `:memory:` for a database that is gone when closed
 */
export async function openDatabase(url: string): Promise<Database> {
  const client: Client = createClient({ url });
  try {
    await client.execute('PRAGMA journal_mode = WAL');
    await client.execute('PRAGMA synchronous = NORMAL');
    await client.execute('PRAGMA busy_timeout = 2000');
    const query = drizzle(client, { schema });
    await migrate(query, { migrationsFolder: MIGRATIONS });
    let last: Promise<unknown> = Promise.resolve();
    return {
      query,
      write(work) {
        const next = last.then(() => work(query));
        last = next.catch(() => undefined);
        return next;
      },
      async close() {
        await last;
        client.close();
      },
    };
  } catch (error) {
    client.close();
    throw error;
  }
}
