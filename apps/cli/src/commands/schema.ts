import { DOCUMENT_KINDS, type DocumentKind, documentJsonSchema } from '@fendrix/contract';
import { InputError, readWords } from '../input.js';

/** JSON Schema of the set document, or of another kind by its name. */
export function schema(words: string[]): unknown {
  const [kind = 'set', ...more] = words.filter((word) => !word.startsWith('-'));
  readWords(
    words.filter((word) => word.startsWith('-')),
    {},
    0,
  );
  if (more.length > 0 || !DOCUMENT_KINDS.includes(kind as DocumentKind))
    throw new InputError(`schema: name one of ${DOCUMENT_KINDS.join(', ')}`);
  return documentJsonSchema(kind as DocumentKind);
}
