import type { Frame, JobProgress, MeasuredFrame, StoredPicture } from '@fendrix/contract';
import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';

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

/** Picture files of the watched folder, by content; the files stay where they are. */
export const frames = sqliteTable(
  'frames',
  {
    id: text('id').primaryKey(),
    sha256: text('sha256').notNull().unique(),
    name: text('name').notNull(),
    bytes: integer('bytes').notNull(),
    /** When the file was last written, ms since 1970: with name and bytes it is known without being read again. */
    writtenMs: integer('written_ms').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    arrivedAt: text('arrived_at').notNull(),
    takenAt: text('taken_at'),
    /** Whether it came while the folder was watched: then both clocks tell of one moment. */
    live: integer('live', { mode: 'boolean' }).notNull(),
    exposureS: real('exposure_s'),
    fNumber: real('f_number'),
    iso: real('iso'),
    focalMm: real('focal_mm'),
    body: text('body'),
    job: text('job'),
    shot: text('shot'),
    plate: text('plate'),
    take: text('take'),
    placedBy: text('placed_by').$type<Frame['placedBy']>(),
    state: text('state').$type<Frame['state']>().notNull(),
    starred: integer('starred', { mode: 'boolean' }).notNull(),
    gone: integer('gone', { mode: 'boolean' }).notNull(),
  },
  (table) => [index('frames_by_job').on(table.job, table.arrivedAt), index('frames_by_name').on(table.name)],
);

/** What is known of frames that were kept: how they came about. */
export const logEntries = sqliteTable(
  'log_entries',
  {
    /** The frame. */
    id: text('id').primaryKey(),
    /** Whether its frame is still kept; one that is not keeps what was written of it. */
    kept: integer('kept', { mode: 'boolean' }).notNull().default(true),
    at: text('at').notNull(),
    job: text('job').notNull(),
    jobName: text('job_name').notNull(),
    client: text('client').notNull(),
    shot: text('shot').notNull(),
    shotName: text('shot_name').notNull(),
    products: text('products', { mode: 'json' }).$type<string[]>().notNull(),
    lights: text('lights', { mode: 'json' }).$type<string[]>().notNull(),
    look: text('look').notNull(),
    tone: text('tone').notNull(),
    /** All that is searched, in small letters. */
    words: text('words').notNull(),
    begunAt: text('begun_at'),
    minutes: real('minutes'),
    plannedMinutes: real('planned_minutes').notNull(),
    tries: integer('tries').notNull(),
    verdicts: text('verdicts', { mode: 'json' }).$type<string[] | null>(),
    measured: text('measured', { mode: 'json' }).$type<MeasuredFrame | null>(),
    note: text('note').notNull().default(''),
    retouchMinutes: real('retouch_minutes'),
    setId: text('set_id').notNull(),
    setName: text('set_name').notNull(),
    setRevision: integer('set_revision').notNull(),
    /** JSON of the set as it was, its long texts named by their content. */
    document: text('document').notNull(),
  },
  (table) => [index('log_by_time').on(table.kept, table.at), index('log_by_job').on(table.job, table.at)],
);

/** Long texts of documents, as of meshes, by content: kept once, however many documents and takes hold them. */
export const longTexts = sqliteTable('long_texts', {
  sha256: text('sha256').primaryKey(),
  text: text('text').notNull(),
});
