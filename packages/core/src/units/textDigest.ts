import { LRUCache } from 'lru-cache';

/** Digests of the last few texts. */
const known = new LRUCache<string, string>({ max: 24 });

/**
 * A short name for a long text, the same wherever it is made: its length and two 32-bit FNV-1a sums. For telling sets apart,
 * not for safety: texts can be made that share one.
 */
export function textDigest(text: string): string {
  const digest = known.get(text) ?? digestOf(text);
  known.set(text, digest);
  return digest;
}

function digestOf(text: string): string {
  let first = 0x811c9dc5;
  let second = 0x9e3779b9;
  for (let i = 0; i < text.length; i++) {
    const sign = text.charCodeAt(i);
    first = Math.imul(first ^ sign, 0x01000193);
    second = Math.imul(second ^ (sign + i), 0x01000193);
  }
  return `${text.length} ${(first >>> 0).toString(16)} ${(second >>> 0).toString(16)}`;
}
