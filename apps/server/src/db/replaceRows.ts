import type { Client } from '@libsql/client';
import { getTableColumns, getTableName } from 'drizzle-orm';
import * as schema from './schema.js';

const TABLES = Object.values(schema);

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/**
 * Puts the rows of another database file in the place of those here, in one transaction: what fails leaves all as it was.
 * @param file a database brought up to the tables of today
 */
export async function replaceRows(client: Client, file: string): Promise<void> {
  const statements = TABLES.flatMap((table) => {
    const name = quoted(getTableName(table));
    const columns = Object.values(getTableColumns(table)).map((column) => quoted(column.name));
    const list = columns.join(', ');
    const isRevised = columns.includes('"revision"');
    const values = isRevised
      ? columns
          .map((column) =>
            column === '"revision"'
              ? `1 + max(revision, coalesce((SELECT revision FROM old_${getTableName(table)} AS old WHERE old.id = other.id), 0))`
              : column,
          )
          .join(', ')
      : list;
    return [
      ...(isRevised
        ? [`CREATE TEMP TABLE old_${getTableName(table)} AS SELECT id, revision FROM main.${name}`]
        : []),
      `DELETE FROM main.${name}`,
      `INSERT INTO main.${name} (${list}) SELECT ${values} FROM restored.${name} AS other`,
      ...(isRevised ? [`DROP TABLE temp.old_${getTableName(table)}`] : []),
    ];
  });
  await client.execute({ sql: 'ATTACH DATABASE ? AS restored', args: [file] });
  try {
    await client.executeMultiple(['BEGIN IMMEDIATE', ...statements, 'COMMIT'].join(';\n'));
  } catch (error) {
    await client.execute('ROLLBACK').catch(() => undefined);
    throw error;
  } finally {
    await client.execute('DETACH DATABASE restored').catch(() => undefined);
  }
}
