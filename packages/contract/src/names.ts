import { z } from 'zod';

/** A name people read: 1 to 80 characters on one line. */
export const name = z
  .string()
  .min(1)
  .max(80)
  .regex(/^[^\p{Cc}]*$/u, 'holds a control character. Use letters on one line.');

export const lightTag = z
  .string()
  .regex(/^[A-Z]$/, 'must be one capital letter, A to Z.')
  .describe('Letter on its spike tape, A to Z');

export const sheetTag = z
  .string()
  .regex(/^[1-9][0-9]?$/, 'must be a number from 1 to 99.')
  .describe('Number on its spike tape, "1" to "99"');

export const productId = z
  .string()
  .regex(/^[a-z][a-z0-9-]{0,39}$/, 'must be lower-case letters, digits and dashes, at most 40, letter first.')
  .describe('Short name used in tables, such as "bottle"');
