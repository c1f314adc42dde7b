import type { JobProgress, StoredPicture } from '@fendrix/contract';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Set documents, whole, with the revision that guards against lost changes. */
export const sets = sqliteTable('sets', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  revision: integer('revision').notNull(),
  /** JSON of the document as the contract defines it, its long texts named by their content. */
  document: text('document').notNull(),
  /** ISO 8601, UTC. */
  updatedAt: text('updated_at').notNull(),
});

/** The kit document; its one row has id 1. */
export const kits = sqliteTable('kits', {
  id: integer('id').primaryKey(),
  revision: integer('revision').notNull(),
  /** JSON of the document as the contract defines it. */
  document: text('document').notNull(),
});

/** Facts about this database itself. */
export const facts = sqliteTable('facts', {
  name: text('name').primaryKey(),
  value: text('value').notNull(),
});

/** Job documents, whole; what lists show is kept beside them. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    revision: integer('revision').notNull(),
    /** JSON, as that of sets. */
    document: text('document').notNull(),
    updatedAt: text('updated_at').notNull(),
    client: text('client').notNull(),
    state: text('state').$type<JobProgress['state']>().notNull(),
    picture: text('picture'),
    waiting: integer('waiting').notNull().default(0),
    /** YYYY-MM-DD. */
    dueOn: text('due_on'),
    archived: integer('archived', { mode: 'boolean' }).notNull(),
    shots: integer('shots').notNull(),
  },
  (table) => [index('jobs_by_due').on(table.archived, table.dueOn, table.updatedAt)],
);

/** Pictures by content; the bytes lie in a folder beside the database, the row is written last. */
export const pictures = sqliteTable('pictures', {
  sha256: text('sha256').primaryKey(),
  mediaType: text('media_type').$type<StoredPicture['mediaType']>().notNull(),
  widthPx: integer('width_px').notNull(),
  heightPx: integer('height_px').notNull(),
  bytes: integer('bytes').notNull(),
});

/** Long texts of documents, as of meshes, by content: kept once, however many documents and takes hold them. */
export const longTexts = sqliteTable('long_texts', {
  sha256: text('sha256').primaryKey(),
  text: text('text').notNull(),
});
