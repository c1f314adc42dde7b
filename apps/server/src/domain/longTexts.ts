import { createHash } from 'node:crypto';
import { longTextReferencesOf, longTextsOf, withLongTextReferences, withLongTexts } from '@fendrix/contract';
import { inArray } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Database } from '../db/database.js';
import { jobs, logEntries, longTexts, sets } from '../db/schema.js';

/**
 * Keeps the long texts of a document that are not kept yet.
 * @returns JSON of the document, with its long texts named by their content
 */
export async function keepLongTexts(database: Database, document: unknown): Promise<string> {
  const texts = longTextsOf(document);
  if (texts.length === 0) return JSON.stringify(document);
  const names = new Map(texts.map((text) => [text, nameOf(text)]));
  const kept = await database.query
    .select({ sha256: longTexts.sha256 })
    .from(longTexts)
    .where(inArray(longTexts.sha256, [...names.values()]));
  const known = new Set(kept.map(({ sha256 }) => sha256));
  for (const [text, sha256] of names) {
    if (known.has(sha256)) continue;
    await database.write((query) => query.insert(longTexts).values({ sha256, text }).onConflictDoNothing());
  }
  return JSON.stringify(withLongTextReferences(document, names));
}

/** The document with the long texts it names written out; a name that is not kept stays, and is no sound document. */
export async function fillLongTexts(database: Database, document: unknown): Promise<unknown> {
  const names = longTextReferencesOf(document);
  if (names.length === 0) return document;
  const rows = await database.query.select().from(longTexts).where(inArray(longTexts.sha256, names));
  return withLongTexts(document, new Map(rows.map(({ sha256, text }) => [sha256, text])));
}

/**
 * Clears long texts that no document names any more. For the start, before anything is asked: a text is kept before the
 * document that names it.
 * @returns how many went
 */
export async function collectLongTexts(database: Database): Promise<number> {
  const kept = await database.query.select({ sha256: longTexts.sha256 }).from(longTexts);
  if (kept.length === 0) return 0;
  const used = new Set<string>();
  for (const table of [sets, jobs, logEntries]) {
    const rows = await database.query.select({ document: table.document }).from(table);
    for (const { document } of rows) for (const name of document.match(/[0-9a-f]{64}/g) ?? []) used.add(name);
  }
  const unused = kept.map(({ sha256 }) => sha256).filter((sha256) => !used.has(sha256));
  if (unused.length > 0) {
    await database.write((query) => query.delete(longTexts).where(inArray(longTexts.sha256, unused)));
  }
  return unused.length;
}

/** Names of the last few texts: the same one comes with each save of its document. */
const lastNames = new LRUCache<string, string>({ max: 12 });

function nameOf(text: string): string {
  const name = lastNames.get(text) ?? createHash('sha256').update(text).digest('hex');
  lastNames.set(text, name);
  return name;
}
