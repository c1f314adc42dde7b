/** Texts that are remembered at once. */
const MOST = 24;

/**
 * Long texts that were found sound: a document is checked at each step of a drag, and its meshes and pictures seldom
 * change. The oldest is forgotten first.
 * @param least shorter texts are not worth remembering, signs
 */
export function soundTexts(least = 4096) {
  const known = new Map<string, unknown>();
  return {
    /** Whether this text was sound before, beside the same other one. */
    has: (text: string, beside?: string): boolean => known.has(text) && known.get(text) === beside,
    add(text: string, beside?: string): void {
      if (text.length < least) return;
      known.delete(text);
      known.set(text, beside);
      const [oldest] = known.keys();
      if (known.size > MOST && oldest !== undefined) known.delete(oldest);
    },
  };
}
