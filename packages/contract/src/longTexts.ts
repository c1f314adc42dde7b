/** A text longer than this, as of a mesh or a picture, may be named by its content instead of written out, signs. */
export const LONG_TEXT = 65_536;

/** What stands in a document in the place of a long text: the SHA-256 of its UTF-8 bytes, in hexadecimal. */
export interface LongTextReference {
  longText: string;
}

/** A reference, and nothing that a document itself can hold. */
export function isLongTextReference(value: unknown): value is LongTextReference {
  if (typeof value !== 'object' || value === null || Object.keys(value).length !== 1) return false;
  const { longText } = value as { longText?: unknown };
  return typeof longText === 'string' && /^[0-9a-f]{64}$/.test(longText);
}

/** Long texts within a document, each once. */
export function longTextsOf(document: unknown): string[] {
  const found = new Set<string>();
  visit(document, (value) => {
    if (typeof value === 'string' && value.length > LONG_TEXT) found.add(value);
  });
  return [...found];
}

/** References within a document, each once. */
export function longTextReferencesOf(document: unknown): string[] {
  const found = new Set<string>();
  visit(document, (value) => {
    if (isLongTextReference(value)) found.add(value.longText);
  });
  return [...found];
}

/** The document with references in place of the long texts that have a name here; nothing given is changed. */
export function withLongTextReferences(
  document: unknown,
  names: Pick<ReadonlyMap<string, string>, 'get'>,
): unknown {
  return replaced(document, (value) => {
    if (typeof value !== 'string' || value.length <= LONG_TEXT) return value;
    const longText = names.get(value);
    return longText === undefined ? value : { longText };
  });
}

/** The document with its long texts written out; a reference whose text is not here stays. */
export function withLongTexts(document: unknown, texts: ReadonlyMap<string, string>): unknown {
  return replaced(document, (value) =>
    isLongTextReference(value) ? (texts.get(value.longText) ?? value) : value,
  );
}

/** No document is nested deeper; what is, is left as it stands for the check to refuse. */
const DEEPEST = 64;

function visit(value: unknown, each: (value: unknown) => void, depth = 0): void {
  each(value);
  if (typeof value !== 'object' || value === null || depth > DEEPEST) return;
  for (const key in value) visit((value as Record<string, unknown>)[key], each, depth + 1);
}

/** The same value with whatever `other` takes another thing for replaced; what stays is not copied. */
function replaced(value: unknown, other: (value: unknown) => unknown, depth = 0): unknown {
  const own = other(value);
  if (own !== value || typeof value !== 'object' || value === null || depth > DEEPEST) return own;
  if (Array.isArray(value)) {
    const items = value.map((item) => replaced(item, other, depth + 1));
    return items.some((item, i) => item !== value[i]) ? items : value;
  }
  const entries = Object.entries(value);
  const changed = entries.map(([key, item]) => [key, replaced(item, other, depth + 1)] as const);
  return changed.some(([, item], i) => item !== entries[i]?.[1]) ? Object.fromEntries(changed) : value;
}
