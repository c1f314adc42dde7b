import { longTextsOf, withLongTextReferences } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';

/** Names of the last few long texts that the server keeps. */
const kept = new LRUCache<string, string>({ max: 24 });

/** The document as it is sent: long texts that the server keeps already are only named. */
export const shortened = (document: unknown): unknown =>
  kept.size === 0 ? document : withLongTextReferences(document, kept);

/**
 * To be called with what the server has just stored whole. Names are worked out off the page's thread; where the browser has
 * no such service, as over plain HTTP from another machine, texts go on being sent whole.
 */
export async function noteKept(document: unknown): Promise<void> {
  const digest = globalThis.crypto?.subtle;
  if (!digest) return;
  for (const text of longTextsOf(document)) {
    if (kept.has(text)) continue;
    const sum = await digest.digest('SHA-256', new TextEncoder().encode(text));
    kept.set(text, Array.from(new Uint8Array(sum), (byte) => byte.toString(16).padStart(2, '0')).join(''));
  }
}

/** The server may have been begun anew: all is sent whole again. */
export function forgetKept(): void {
  kept.clear();
}
