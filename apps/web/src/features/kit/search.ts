import type { KitEntry } from '@fendrix/contract';

/**
 * Entries that a search finds, best first: every word must be in the name, a purpose or the kind. A name that starts with the
 * first word comes before a product of whose name it is a word, that before a purpose, and that before a name that holds it.
 */
export function searchKit(entries: readonly KitEntry[], search: string): KitEntry[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const [first] = words;
  if (!first) return [...entries];
  const found = entries
    .filter((entry) => words.every((word) => textOf(entry).includes(word)))
    .map((entry) => ({ entry, rank: rankOf(entry, first) }));
  return found.sort((a, b) => a.rank - b.rank).map(({ entry }) => entry);
}

const textOf = ({ name, purposes, thing, what }: KitEntry): string =>
  [name, ...purposes, thing.kind, what].join(' ').toLowerCase();

function rankOf({ name, purposes, what }: KitEntry, word: string): number {
  const lower = name.toLowerCase();
  if (lower.startsWith(word)) return 0;
  if (what === 'product' && lower.includes(` ${word}`)) return 1;
  if (purposes.some((purpose) => purpose.toLowerCase() === word)) return 2;
  if (lower.includes(word)) return 3;
  return 4;
}
