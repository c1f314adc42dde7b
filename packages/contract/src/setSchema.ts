import { z } from 'zod';
import { kitDocument } from './kit.js';
import { setDocument } from './set.js';

/** JSON Schema (draft 2020-12) of the set document as it may be written: defaults may be left out. */
export function setJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(setDocument, { io: 'input' }) };
}

/** JSON Schema of the kit, and so of each single light, sheet, product and material. */
export function kitJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(kitDocument, { io: 'input' }) };
}
