import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import Libsql from 'libsql';

/** A number, a text, bytes or nothing as they stand in JSON. */
type WireValue =
  | { type: 'null' }
  | { type: 'integer'; value: string }
  | { type: 'float'; value: number }
  | { type: 'text'; value: string }
  | { type: 'blob'; base64: string };
interface Statement {
  sql?: string;
  sql_id?: number;
  args?: WireValue[];
}
type Condition =
  | { type: 'ok' | 'error'; step: number }
  | { type: 'not'; cond: Condition }
  | { type: 'and' | 'or'; conds: Condition[] }
  | { type: 'is_autocommit' };
type Request =
  | { type: 'close' | 'get_autocommit' }
  | { type: 'execute'; stmt: Statement }
  | { type: 'batch'; batch: { steps: { condition?: Condition; stmt: Statement }[] } }
  | { type: 'sequence' | 'describe'; sql?: string; sql_id?: number }
  | { type: 'store_sql'; sql_id: number; sql: string }
  | { type: 'close_sql'; sql_id: number };

/** One connection that a client goes on with by its baton. */
interface Stream {
  database: Libsql.Database;
  texts: Map<number, string>;
}

/** Another stream is writing: it is waited for so long, s. */
const WAIT_S = 10;

/**
 * A stand-in for a libSQL server over one file: its protocol over HTTP (Hrana 2 in JSON), each stream a connection of its own.
 * @param token asked for in each request
 */
export async function libsqlStandIn(
  file: string,
  token: string,
): Promise<{ url: string; requests: () => number; close: () => Promise<void> }> {
  const streams = new Map<string, Stream>();
  let requests = 0;
  new Libsql(file).exec('PRAGMA journal_mode = WAL');
  const server: Server = createServer((request, response) => {
    const say = (status: number, body: unknown) => {
      response.writeHead(status, { 'content-type': 'application/json' });
      response.end(JSON.stringify(body));
    };
    if (request.headers.authorization !== `Bearer ${token}`) return say(401, { error: 'token' });
    if (request.method === 'GET') return say(request.url === '/v2' ? 200 : 404, {});
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', async () => {
      requests++;
      const body = JSON.parse(Buffer.concat(parts).toString()) as { baton?: string; requests: Request[] };
      let baton: string | null = body.baton ?? randomUUID();
      const stream = streams.get(baton) ?? { database: new Libsql(file), texts: new Map() };
      streams.set(baton, stream);
      const results = [];
      for (const one of body.requests) {
        try {
          results.push({ type: 'ok', response: { type: one.type, ...(await answer(stream, one)) } });
        } catch (error) {
          results.push({ type: 'error', error: errorOf(error) });
        }
        if (one.type !== 'close') continue;
        stream.database.close();
        streams.delete(baton);
        baton = null;
        break;
      }
      say(200, { baton, base_url: null, results });
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    requests: () => requests,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}

async function answer(stream: Stream, request: Request): Promise<object> {
  const textOf = (one: { sql?: string; sql_id?: number }) =>
    one.sql ?? stream.texts.get(one.sql_id as number) ?? '';
  const execute = (stmt: Statement) => patiently(() => executed(stream.database, textOf(stmt), stmt.args));
  switch (request.type) {
    case 'execute':
      return { result: await execute(request.stmt) };
    case 'batch': {
      const results: (object | null)[] = [];
      const errors: (object | null)[] = [];
      for (const { condition, stmt } of request.batch.steps) {
        const isMet = !condition || holds(condition, results, errors, stream.database);
        let result = null;
        let error = null;
        try {
          if (isMet) result = await execute(stmt);
        } catch (reason) {
          error = errorOf(reason);
        }
        results.push(result);
        errors.push(error);
      }
      return { result: { step_results: results, step_errors: errors } };
    }
    case 'sequence':
      await patiently(() => stream.database.exec(textOf(request)));
      return {};
    case 'store_sql':
      stream.texts.set(request.sql_id, request.sql);
      return {};
    case 'close_sql':
      stream.texts.delete(request.sql_id);
      return {};
    case 'close':
      return {};
    default:
      throw new Error(`The stand-in does not know ${request.type}.`);
  }
}

function holds(
  condition: Condition,
  results: readonly (object | null)[],
  errors: readonly (object | null)[],
  database: Libsql.Database,
): boolean {
  const again = (one: Condition) => holds(one, results, errors, database);
  switch (condition.type) {
    case 'ok':
      return Boolean(results[condition.step]);
    case 'error':
      return Boolean(errors[condition.step]);
    case 'not':
      return !again(condition.cond);
    case 'and':
      return condition.conds.every(again);
    case 'or':
      return condition.conds.some(again);
    case 'is_autocommit':
      return !database.inTransaction;
  }
}

function executed(database: Libsql.Database, sql: string, args: readonly WireValue[] = []): object {
  const values = args.map(read);
  const statement = database.prepare(sql);
  const rowsOf = () => ({
    cols: statement.columns().map(({ name, type }) => ({ name, decltype: type })),
    rows: (statement.raw(true).all(...values) as unknown[][]).map((row) => row.map(write)),
    affected_row_count: 0,
    last_insert_rowid: null,
  });
  if (statement.reader) return rowsOf();
  const { changes, lastInsertRowid } = statement.run(...values);
  return {
    cols: [],
    rows: [],
    affected_row_count: changes,
    last_insert_rowid: String(lastInsertRowid),
  };
}

/** What another stream holds is waited for, as a server does that takes one writer after the other. */
async function patiently<T>(work: () => T): Promise<T> {
  const end = Date.now() + WAIT_S * 1000;
  for (;;) {
    try {
      return work();
    } catch (error) {
      if (!/SQLITE_BUSY|locked/.test(`${(error as { code?: string }).code} ${error}`) || Date.now() > end)
        throw error;
      await sleep(2);
    }
  }
}

const errorOf = (error: unknown) => ({
  message: (error as Error).message,
  code: (error as { code?: string }).code ?? 'UNKNOWN',
});

function read(value: WireValue): unknown {
  if (value.type === 'null') return null;
  if (value.type === 'integer') return BigInt(value.value);
  if (value.type === 'blob') return Buffer.from(value.base64, 'base64');
  return value.value;
}

function write(value: unknown): WireValue {
  if (value === null || value === undefined) return { type: 'null' };
  if (typeof value === 'string') return { type: 'text', value };
  if (typeof value === 'bigint' || Number.isInteger(value)) return { type: 'integer', value: String(value) };
  if (typeof value === 'number') return { type: 'float', value };
  return { type: 'blob', base64: Buffer.from(value as Uint8Array).toString('base64') };
}
