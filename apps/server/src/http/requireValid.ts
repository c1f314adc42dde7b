import { checkDocument, storedId } from '@fendrix/contract';
import type { ZodType } from 'zod';
import { AppError } from '../errors.js';

/** The checked value, or a `bad-input` answer that names the fields. */
export function requireValid<T>(schema: ZodType<T>, data: unknown, where: string): T {
  const checked = checkDocument(schema, data);
  if (checked.ok) return checked.value;
  throw new AppError('bad-input', `The ${where} of the request is not valid.`, {
    problems: checked.problems,
  });
}

/** Identifier of a document from an address. */
export const documentId = (text: string | undefined): string => requireValid(storedId, text, 'address');
