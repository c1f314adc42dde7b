import type { Problem } from '@fendrix/contract';
import { labelOf, quantityOf } from '../form/words';

const AXES = ['to the right', 'away', 'up'];

/** Lists whose things go by a word of their own before their tag or name. */
const KINDS: Record<string, (thing: Fields) => string> = {
  lights: ({ tag }) => `Light ${tag}`,
  sheets: ({ kind, tag }) => `${capital(String(kind))} ${tag}`,
};

type Fields = Readonly<Record<string, unknown>>;

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

/**
 * What is wrong with a document, as it is said at its fields: the thing by its tag or name, the field by its label, limits in
 * the unit in which the field is typed. No names of fields and no paths.
 */
export function problemWords({ path, message, limit }: Problem, document: unknown): string {
  const place = placeWords(path, document);
  const field = fieldOf(path);
  const said = limit ? `must be ${limit.word} ${quantityOf(field).format(limit.value)}.` : message;
  return place === '' ? capital(said) : `${place} ${said}`;
}

/** The last field that has a name. */
const fieldOf = (path: string): string => namesOf(path).findLast((name) => !/^\d+$/.test(name)) ?? '';

const namesOf = (path: string): string[] => path.split(/[.[\]]/).filter(Boolean);

function placeWords(path: string, document: unknown): string {
  const owners: string[] = [];
  let label = '';
  let here: unknown = document;
  let list = '';
  for (const name of namesOf(path)) {
    here = (here as Fields | undefined)?.[name];
    if (!/^\d+$/.test(name)) {
      // A group is told by its name only where nothing in it says more.
      label = labelOf(name);
      list = name;
    } else if (typeof here === 'number' && list.endsWith('M')) label += ` ${AXES[Number(name)] ?? ''}`;
    else {
      const thing = (typeof here === 'object' && here !== null ? here : {}) as Fields;
      const own =
        KINDS[list]?.(thing) ?? (typeof thing.name === 'string' && thing.name ? `“${thing.name}”` : '');
      owners.push(own || `${capital(label.replace(/s$/, ''))} ${Number(name) + 1}`);
      label = '';
    }
  }
  const first = namesOf(path)[0] ?? '';
  const whole = owners.length === 0 && namesOf(path).length > 1 ? [capital(labelOf(first))] : owners;
  return [whole.join(', '), label].filter(Boolean).join(': ');
}
