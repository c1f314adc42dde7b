import { setJsonSchema } from '@fendrix/contract';
import { readWords } from '../input.js';

/** JSON Schema of the set document. */
export function schema(words: string[]): unknown {
  readWords(words, {}, 0);
  return setJsonSchema();
}
