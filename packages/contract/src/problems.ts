import type { z } from 'zod';
import { upgraded } from './versions.js';

/** One thing wrong with foreign data: where it is and what would mend it. */
export interface Problem {
  /** Path to the field, such as `lights[0].output.energyJ`; empty for the whole document. */
  path: string;
  /** A sentence that follows the path, such as "must be at least 1." */
  message: string;
  /** Of a number out of range: its limit as a number, in the unit of the field, to be told in another. */
  limit?: { word: 'at least' | 'at most' | 'above' | 'below'; value: number };
}

/** `['lights', 0, 'tag']` becomes `lights[0].tag`. */
export function fieldPath(path: readonly PropertyKey[]): string {
  let text = '';
  for (const key of path) {
    if (typeof key === 'number') text += `[${key}]`;
    else text += text === '' ? String(key) : `.${String(key)}`;
  }
  return text;
}

/** Zod's issues as problems a person can act on; at most `most` of them. */
export function problemsOf(error: z.ZodError, most = 20): Problem[] {
  return error.issues.slice(0, most).map((issue) => {
    const path = [...issue.path];
    if (issue.code === 'unrecognized_keys' && issue.keys[0] !== undefined) path.push(issue.keys[0]);
    const limit = limitOf(issue);
    return { path: fieldPath(path), message: sentence(issue), ...(limit ? { limit } : {}) };
  });
}

/** Checks foreign data, documents of earlier versions too; a value or the list of its problems, never an exception. */
export function checkDocument<T>(
  schema: z.ZodType<T>,
  data: unknown,
): { ok: true; value: T } | { ok: false; problems: Problem[] } {
  const now = upgraded(data);
  if (!now.ok) return { ok: false, problems: [now.problem] };
  const result = schema.safeParse(now.data, { reportInput: true });
  return result.success
    ? { ok: true, value: result.data }
    : { ok: false, problems: problemsOf(result.error) };
}

/** Whether the schema says itself what is wrong: its sentence stands as it is. */
const saysItself = ({ message }: z.core.$ZodIssue): boolean => message.startsWith('must ');

function limitOf(issue: z.core.$ZodIssue): Problem['limit'] {
  if (saysItself(issue)) return undefined;
  if (issue.code !== 'too_small' && issue.code !== 'too_big') return undefined;
  if (issue.origin !== 'number' && issue.origin !== 'int') return undefined;
  const whole = issue.inclusive !== false;
  return issue.code === 'too_small'
    ? { word: whole ? 'at least' : 'above', value: Number(issue.minimum) }
    : { word: whole ? 'at most' : 'below', value: Number(issue.maximum) };
}

function sentence(issue: z.core.$ZodIssue): string {
  if (saysItself(issue)) return issue.message;
  const missing = 'input' in issue && issue.input === undefined;
  switch (issue.code) {
    case 'unrecognized_keys':
      return 'is not a known field. Remove it, or check its spelling.';
    case 'invalid_type':
      if (!missing) return `must be ${kindOf(issue.expected)}.`;
      return issue.expected === 'nonoptional' ? 'is missing.' : `is missing. Give ${kindOf(issue.expected)}.`;
    case 'too_small':
      return sizeSentence(issue.origin, issue.inclusive === false ? 'above' : 'at least', issue.minimum);
    case 'too_big':
      return sizeSentence(issue.origin, issue.inclusive === false ? 'below' : 'at most', issue.maximum);
    case 'invalid_value':
      return `must be ${issue.values.map((value) => JSON.stringify(value)).join(' or ')}.`;
    case 'invalid_union':
      return unionSentence(issue);
    default:
      return issue.message;
  }
}

function unionSentence(issue: z.core.$ZodIssueInvalidUnion): string {
  const options = (issue as { options?: unknown }).options;
  if (Array.isArray(options)) return `must be ${options.map((o) => JSON.stringify(o)).join(' or ')}.`;
  const kinds = issue.errors.map((branch) => branch.map(sentence)[0]).filter((text) => text !== undefined);
  const first = kinds.map((text) => text.replace(/\.$/, '')).join(', or ');
  return first === '' ? 'has an unknown kind. See the schema for those there are.' : `${first}.`;
}

function sizeSentence(origin: string, word: string, limit: number | bigint): string {
  if (origin === 'array') return `must have ${word} ${limit} entries.`;
  if (origin === 'string') return `must have ${word} ${limit} characters.`;
  return `must be ${word} ${limit}.`;
}

function kindOf(expected: string): string {
  const kinds: Record<string, string> = {
    number: 'a number',
    int: 'a whole number',
    string: 'text',
    boolean: 'true or false',
    object: 'an object in braces',
    array: 'a list in brackets',
    tuple: 'a list in brackets',
    record: 'an object in braces',
  };
  return kinds[expected] ?? expected;
}
