import { z } from 'zod';
import { setDocument } from './set.js';

/** JSON Schema (draft 2020-12) of the set document as it may be written: defaults may be left out. */
export function setJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(setDocument, { io: 'input' }) };
}
