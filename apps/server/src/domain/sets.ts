import { randomUUID } from 'node:crypto';
import {
  checkDocument,
  type SetDocument,
  type SetList,
  type SetSummary,
  type StoredSet,
  setDocument,
} from '@fendrix/contract';
import { and, count, desc, eq, like } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { sets } from '../db/schema.js';
import { AppError } from '../errors.js';

export interface ListOptions {
  search: string;
  limit: number;
  offset: number;
}

/** Stored set documents: what may be done with them, and the rules of revisions. */
export interface SetStore {
  list(options: ListOptions): Promise<SetList>;
  read(id: string): Promise<StoredSet>;
  create(document: unknown): Promise<StoredSet>;
  /** Saves over the revision given; an older one is refused with the newer document. */
  save(id: string, revision: number, document: unknown): Promise<StoredSet>;
  remove(id: string): Promise<void>;
}

type Row = typeof sets.$inferSelect;

export function createSetStore(database: Database): SetStore {
  async function find(id: string): Promise<Row | undefined> {
    const [row] = await database.query.select().from(sets).where(eq(sets.id, id)).limit(1);
    return row;
  }

  return {
    async list({ search, limit, offset }) {
      const matches = search === '' ? undefined : like(sets.name, `%${search.replace(/[%_]/g, '')}%`);
      const rows = await database.query
        .select({ id: sets.id, name: sets.name, revision: sets.revision, updatedAt: sets.updatedAt })
        .from(sets)
        .where(matches)
        .orderBy(desc(sets.updatedAt), sets.id)
        .limit(limit)
        .offset(offset);
      const [total] = await database.query.select({ value: count() }).from(sets).where(matches);
      return { sets: rows, total: total?.value ?? 0 };
    },

    async read(id) {
      const row = await find(id);
      if (!row) throw missing();
      return storedSet(row);
    },

    async create(document) {
      const checked = requireSet(document);
      const row: Row = { id: randomUUID(), revision: 1, ...columns(checked) };
      await database.write((query) => query.insert(sets).values(row));
      return { ...summary(row), document: checked };
    },

    async save(id, revision, document) {
      const checked = requireSet(document);
      const [row] = await database.write((query) =>
        query
          .update(sets)
          .set({ revision: revision + 1, ...columns(checked) })
          .where(and(eq(sets.id, id), eq(sets.revision, revision)))
          .returning(),
      );
      if (row) return { ...summary(row), document: checked };
      const newer = await find(id);
      if (!newer) throw missing();
      throw new AppError('conflict', 'This set was changed elsewhere in the meantime.', {
        hint: 'Look at the newer one, then keep it or save yours over it.',
        newer: storedSet(newer),
      });
    },

    async remove(id) {
      const gone = await database.write((query) =>
        query.delete(sets).where(eq(sets.id, id)).returning({ id: sets.id }),
      );
      if (gone.length === 0) throw missing();
    },
  };
}

const missing = () =>
  new AppError('not-found', 'There is no set with this address.', { hint: 'It may have been deleted.' });

function requireSet(data: unknown): SetDocument {
  const checked = checkDocument(setDocument, data);
  if (checked.ok) return checked.value;
  throw new AppError('bad-input', 'The set document is not valid.', {
    hint: 'Mend the fields named; nothing was saved.',
    problems: checked.problems,
  });
}

const columns = (document: SetDocument) => ({
  name: document.name,
  document: JSON.stringify(document),
  updatedAt: new Date().toISOString(),
});

const summary = ({ id, name, revision, updatedAt }: Row): SetSummary => ({ id, name, revision, updatedAt });

const storedSet = (row: Row): StoredSet => ({
  ...summary(row),
  document: requireSet(JSON.parse(row.document)),
});
