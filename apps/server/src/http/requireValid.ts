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

/** Identifier of a document from an address; what is none leads to nothing. */
export function documentId(text: string | undefined): string {
  const id = storedId.safeParse(text);
  if (!id.success) throw new AppError('not-found', 'There is nothing at this address.');
  return id.data;
}
