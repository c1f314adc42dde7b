import { demoNames, demoSet } from '@fendrix/demo';
import { InputError, readWords } from '../input.js';

/** Names of the demo documents, or one of them. */
export function example(words: string[]): unknown {
  const listed = words.includes('--list');
  const { positionals } = readWords(words, { list: { type: 'boolean' } }, listed ? 0 : 1);
  if (listed) return demoNames;
  const name = demoNames.find((known) => known === positionals[0]);
  if (!name)
    throw new InputError(`there is no example "${positionals[0]}"; there are: ${demoNames.join(', ')}`);
  return demoSet(name);
}
