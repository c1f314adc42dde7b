import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Set documents, whole, with the revision that guards against lost changes. */
export const sets = sqliteTable('sets', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  revision: integer('revision').notNull(),
  /** JSON of the document as the contract defines it. */
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
