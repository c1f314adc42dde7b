import { type SetDocument, type SetList, setDocument } from '@fendrix/contract';
import { count, desc, like } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { sets } from '../db/schema.js';
import { anywhere, createDocumentStore, type DocumentStore } from './documents.js';

export interface ListOptions {
  search: string;
  limit: number;
  offset: number;
}

/** Stored set documents, newest first. */
export interface SetStore extends DocumentStore<SetDocument> {
  list(options: ListOptions): Promise<SetList>;
}

export function createSetStore(database: Database): SetStore {
  return {
    ...createDocumentStore(database, { table: sets, schema: setDocument, noun: 'set' }),
    async list({ search, limit, offset }) {
      const matches = search === '' ? undefined : like(sets.name, anywhere(search));
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
  };
}
