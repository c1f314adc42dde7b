import { del, get, keys, set } from 'idb-keyval';
import { ownWindow } from './windows';

/**
 * Documents that could not be saved yet, kept in this browser until they are: each window keeps its own, and none is dropped
 * but when it is saved or somebody says so. Those too large for the browser's quick store go to its database.
 */

const PREFIX = 'fendrix.unsaved.';
const keyOf = (id: string, window: string) => `${PREFIX}${id}.${window}`;
/** Of drafts from before windows had names. */
const NO_WINDOW = 'before';

export interface Draft {
  window: string;
  /** Of the stored document that it was made from. */
  revision: number;
  /** When it was last changed, ISO 8601; empty where it is not known. */
  at: string;
  document: unknown;
}

/**
 * Keeps a document of this window. The quick store is written before this returns, so that it can be done while the page goes.
 * @returns whether it is kept anywhere
 */
export async function keepDraft(id: string, revision: number, document: unknown): Promise<boolean> {
  const key = keyOf(id, ownWindow());
  const draft = { revision, at: new Date().toISOString(), document };
  try {
    localStorage.setItem(key, JSON.stringify(draft));
    return true;
  } catch {
    // Full or forbidden: an older one there would take the newer one's place.
    removeItem(key);
  }
  try {
    await set(key, draft);
    return true;
  } catch {
    return false;
  }
}

/** Drops the draft of a window, this one if none is named: it is saved, or somebody said so. */
export function dropDraft(id: string, window = ownWindow()): void {
  const key = window === NO_WINDOW ? `${PREFIX}${id}` : keyOf(id, window);
  removeItem(key);
  if (globalThis.indexedDB) void del(key).catch(() => undefined);
}

/** All drafts of a document, newest first. What is no draft is left where it is. */
export async function readDrafts(id: string): Promise<Draft[]> {
  const own = (key: string) => key === `${PREFIX}${id}` || key.startsWith(`${PREFIX}${id}.`);
  const windowOf = (key: string) => key.slice(PREFIX.length + id.length + 1) || NO_WINDOW;
  const found: Draft[] = [];
  const add = (key: string, value: unknown) => {
    const { revision, at, document } = (value ?? {}) as Partial<Draft>;
    if (typeof revision !== 'number' || document === undefined) return;
    found.push({ window: windowOf(key), revision, at: at ?? '', document });
  };
  for (const key of quickKeys().filter(own)) add(key, readItem(key));
  if (globalThis.indexedDB) {
    for (const key of await keys<string>().catch(() => [])) {
      if (own(key)) add(key, await get(key).catch(() => null));
    }
  }
  return found.sort((a, b) => b.at.localeCompare(a.at));
}

function quickKeys(): string[] {
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '');
  } catch {
    return [];
  }
}

function readItem(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null');
  } catch {
    return null;
  }
}

function removeItem(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing was kept.
  }
}
