import { readFile, stat } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { checkDocument, type SetDocument, setDocument } from '@fendrix/contract';
import { messageOf } from '@fendrix/workers';

/** Something the user typed or a file they gave is wrong; the message says what and how to mend it. */
export class InputError extends Error {}

/** A set document with large meshes in it. */
const MOST_BYTES = 40_000_000;

type Options = Record<string, { type: 'string' | 'boolean' }>;

interface Words<T extends Options> {
  values: { [K in keyof T]?: T[K]['type'] extends 'string' ? string : boolean };
  positionals: string[];
}

/** Reads a command's words; values may start with a minus sign, as coordinates do. */
export function readWords<T extends Options>(words: string[], options: T, positionals: number): Words<T> {
  const joined: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as string;
    const next = words[i + 1];
    const takesValue = word.startsWith('--') && options[word.slice(2)]?.type === 'string';
    if (takesValue && next !== undefined && /^-[\d.]/.test(next)) {
      joined.push(`${word}=${next}`);
      i++;
    } else joined.push(word);
  }
  try {
    const read = parseArgs({ args: joined, options, allowPositionals: true });
    if (read.positionals.length !== positionals) {
      throw new InputError(
        positionals === 0 ? 'this command takes no file' : 'give the file of one set document',
      );
    }
    return { values: { ...read.values } as Words<T>['values'], positionals: read.positionals };
  } catch (error) {
    if (error instanceof InputError) throw error;
    throw new InputError(messageOf(error));
  }
}

/** A whole number from an option, within limits. */
export function wholeNumber(name: string, text: string | undefined, fallback: number, most: number): number {
  if (text === undefined) return fallback;
  const value = Number(text);
  if (!(Number.isInteger(value) && value >= 1 && value <= most)) {
    throw new InputError(`--${name}: must be a whole number from 1 to ${most}`);
  }
  return value;
}

/** "x,y,z" as three finite numbers. */
export function triple(name: string, text: string | undefined): [number, number, number] {
  const parts = text?.split(',').map((part) => (part.trim() === '' ? Number.NaN : Number(part))) ?? [];
  const [x, y, z] = parts;
  if (
    parts.length !== 3 ||
    x === undefined ||
    y === undefined ||
    z === undefined ||
    !parts.every(Number.isFinite)
  ) {
    throw new InputError(`--${name}: give three numbers, such as --${name} 0,0,1`);
  }
  return [x, y, z];
}

/** Reads and checks a set document. @throws {InputError} with every field that is wrong */
export async function readSet(path: string): Promise<SetDocument> {
  let text: string;
  try {
    if ((await stat(path)).size > MOST_BYTES) throw new InputError(`${path}: is larger than a set can be`);
    text = await readFile(path, 'utf8');
  } catch (error) {
    if (error instanceof InputError) throw error;
    throw new InputError(`${path}: cannot be read. Check the name of the file.`);
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    throw new InputError(`${path}: is not JSON. ${error instanceof Error ? error.message : ''}`);
  }
  const checked = checkDocument(setDocument, data);
  if (checked.ok) return checked.value;
  const lines = checked.problems.map(({ path: field, message }) => `  ${field || 'document'} ${message}`);
  throw new InputError(`${path}: is not a set document\n${lines.join('\n')}`);
}
