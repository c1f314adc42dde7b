import { LRUCache } from 'lru-cache';

/** Texts that are remembered at once. */
const MOST = 24;

/**
 * Long texts that were found sound: a document is checked at each step of a drag, and its meshes and pictures seldom
 * change. The one that was used longest ago is forgotten first.
 * @param least shorter texts are not worth remembering, signs
 */
export function soundTexts(least = 4096) {
  const known = new LRUCache<string, { beside: string | undefined }>({ max: MOST });
  return {
    /** Whether this text was sound before, beside the same other one. */
    has(text: string, beside?: string): boolean {
      const found = known.get(text);
      return found !== undefined && found.beside === beside;
    },
    add(text: string, beside?: string): void {
      if (text.length >= least) known.set(text, { beside });
    },
  };
}
