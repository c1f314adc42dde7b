import { randomUUID } from 'node:crypto';
import { checkDocument, type Problem, type Saved, type Stored } from '@fendrix/contract';
import { and, eq } from 'drizzle-orm';
import type { ZodType } from 'zod';
import type { Database } from '../db/database.js';
import type { jobs, sets } from '../db/schema.js';
import { AppError } from '../errors.js';
import { fillLongTexts, keepLongTexts } from './longTexts.js';

/** Documents with revisions: read, create, save over the revision they were made from, delete. */
export interface DocumentStore<D> {
  read(id: string): Promise<Stored<D>>;
  create(document: unknown): Promise<Stored<D>>;
  /** An older revision is refused with the newer document. */
  save(id: string, revision: number, document: unknown): Promise<Saved>;
  remove(id: string): Promise<void>;
  /** The text as it is stored, also of a document that cannot be read. */
  raw(id: string): Promise<{ name: string; text: string }>;
  /** The checked document, or an answer that names the fields. */
  require(data: unknown): D;
}

interface DocumentKind<D extends { name: string }> {
  table: typeof sets | typeof jobs;
  schema: ZodType<D>;
  /** What it is called: "set", "job". */
  noun: string;
  /** Columns beside those that every document has. */
  columns?(document: D): object;
}

export function createDocumentStore<D extends { name: string }>(
  database: Database,
  { noun, schema, columns, ...kind }: DocumentKind<D>,
): DocumentStore<D> {
  // Every table of documents has the columns of sets; its own ones are written by `columns`.
  const table = kind.table as typeof sets;

  const require = (data: unknown): D => {
    const checked = checkDocument(schema, data);
    if (checked.ok) return checked.value;
    throw new AppError('bad-input', `The ${noun} document is not valid.`, {
      hint: 'Mend the fields named; nothing was saved.',
      problems: checked.problems,
    });
  };
  const missing = () =>
    new AppError('not-found', `There is no ${noun} with this address.`, {
      hint: 'It may have been deleted.',
    });
  const row = async (document: D) => ({
    name: document.name,
    document: await keepLongTexts(database, document),
    updatedAt: new Date().toISOString(),
    ...columns?.(document),
  });
  const find = async (id: string): Promise<Stored<D> | null> => {
    const [found] = await database.query.select().from(table).where(eq(table.id, id)).limit(1);
    return found ? { ...found, document: await readable(id, found.name, found.document) } : null;
  };
  /** What is stored, if it is what it should be; told which one it is and why not, otherwise. */
  const readable = async (id: string, name: string, text: string): Promise<D> => {
    const unreadable = (problems: Problem[]) =>
      new AppError('unreadable', `The ${noun} “${name}” is stored in a way that cannot be read.`, {
        hint: 'Save it as a file to mend it, or remove it. It is left as it is until then.',
        problems: [{ path: '', message: `is kept under ${id}.` }, ...problems],
      });
    let data: unknown;
    try {
      data = JSON.parse(text);
    } catch {
      throw unreadable([{ path: '', message: 'is no readable JSON.' }]);
    }
    const checked = checkDocument(schema, await fillLongTexts(database, data));
    if (!checked.ok) throw unreadable(checked.problems);
    return checked.value;
  };
  const stored = (id: string, revision: number, document: D, updatedAt: string): Stored<D> => ({
    id,
    name: document.name,
    revision,
    updatedAt,
    document,
  });

  return {
    require,
    async read(id) {
      const found = await find(id);
      if (!found) throw missing();
      return stored(id, found.revision, found.document, found.updatedAt);
    },
    async create(document) {
      const checked = require(await fillLongTexts(database, document));
      const values = { id: randomUUID(), revision: 1, ...(await row(checked)) };
      await database.write((query) => query.insert(table).values(values));
      return stored(values.id, 1, checked, values.updatedAt);
    },
    async save(id, revision, document) {
      const checked = require(await fillLongTexts(database, document));
      const values = await row(checked);
      const saved = await database.write((query) =>
        query
          .update(table)
          .set({ revision: revision + 1, ...values })
          .where(and(eq(table.id, id), eq(table.revision, revision)))
          .returning({ id: table.id }),
      );
      if (saved.length > 0)
        return { id, name: checked.name, revision: revision + 1, updatedAt: values.updatedAt };
      const newer = await find(id);
      if (!newer) {
        throw new AppError('not-found', `This ${noun} was deleted in the meantime.`, {
          hint: 'Save yours as a copy; it is still here.',
        });
      }
      throw new AppError('conflict', `This ${noun} was changed elsewhere in the meantime.`, {
        hint: 'Look at the newer one, then keep it or save yours over it.',
        newer: stored(id, newer.revision, newer.document, newer.updatedAt),
      });
    },
    async raw(id) {
      const [found] = await database.query.select().from(table).where(eq(table.id, id)).limit(1);
      if (!found) throw missing();
      return { name: found.name, text: await written(database, found.document) };
    },
    async remove(id) {
      const gone = await database.write((query) =>
        query.delete(table).where(eq(table.id, id)).returning({ id: table.id }),
      );
      if (gone.length === 0) throw missing();
    },
  };
}

/** Stored text with its long texts written out, where it can be read at all. */
async function written(database: Database, text: string): Promise<string> {
  try {
    return JSON.stringify(await fillLongTexts(database, JSON.parse(text)));
  } catch {
    return text;
  }
}

/** A pattern that finds a text anywhere; the text's own wildcards mean nothing. */
export const anywhere = (search: string): string => `%${search.replace(/[%_]/g, '')}%`;
