import type { SetDocument } from '@fendrix/contract';

/** One field, or one thing of a list, that an answer changes. */
export interface FieldChange {
  /** Names of fields from the set inwards; in a list of things the tag, id or name of the thing. */
  path: readonly string[];
  /** What stands there afterwards; undefined where it is taken away. */
  value: unknown;
}

/**
 * What an answer changes, as data: it is applied to the set as it is by then, so that what was changed meanwhile
 * elsewhere stays as it is.
 */
export type SetChange = readonly FieldChange[];

/** Lists whose things are told apart by a field of their own. */
const IDENTITY: Readonly<Record<string, string>> = {
  lights: 'tag',
  sheets: 'tag',
  products: 'id',
  people: 'name',
  spots: 'name',
};

type Fields = Readonly<Record<string, unknown>>;

/** What changed from one state of a set to another; name, note and takes left aside. */
export function changeBetween(before: SetDocument, after: SetDocument): SetChange {
  const standing = ({ name: _name, note: _note, takes: _takes, takeId: _takeId, ...rest }: SetDocument) =>
    rest;
  const change: FieldChange[] = [];
  collect(change, [], standing(before), standing(after));
  return change;
}

function collect(change: FieldChange[], path: readonly string[], before: Fields, after: Fields): void {
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [one, other] = [before[key], after[key]];
    if (same(one, other)) continue;
    const here = [...path, key];
    const identity = path.length === 0 ? IDENTITY[key] : undefined;
    if (identity) collect(change, here, byIdentity(one, identity), byIdentity(other, identity));
    // Of two kinds the fields have nothing to do with each other.
    else if (isFields(one) && isFields(other) && one.kind === other.kind) collect(change, here, one, other);
    else change.push({ path: here, value: other });
  }
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const byIdentity = (list: unknown, identity: string): Fields =>
  Object.fromEntries((list as Fields[]).map((thing) => [String(thing[identity]), thing]));

/**
 * A set with a change made to it and nothing else.
 * @returns null where that cannot be: a thing it changes is gone, or one it adds has a tag that is taken by now
 */
export function applyChange(set: SetDocument, change: SetChange): SetDocument | null {
  let changed: Fields | null = set as unknown as Fields;
  for (const { path, value } of change) {
    changed = changed && put(changed, path, value, IDENTITY[path[0] as string]);
  }
  return changed as SetDocument | null;
}

/** @param identity of the list that the first name leads to, if it is one */
function put(fields: Fields, path: readonly string[], value: unknown, identity?: string): Fields | null {
  const [key, ...rest] = path as [string, ...string[]];
  if (identity) {
    const list = putInList(fields[key] as Fields[], rest, value, identity);
    return list && { ...fields, [key]: list };
  }
  if (rest.length > 0) {
    const inner = fields[key];
    const made = isFields(inner) ? put(inner, rest, value) : null;
    return made && { ...fields, [key]: made };
  }
  const { [key]: _gone, ...others } = fields;
  return value === undefined ? others : { ...fields, [key]: value };
}

function putInList(
  list: readonly Fields[],
  [key, ...rest]: readonly string[],
  value: unknown,
  identity: string,
): Fields[] | null {
  const at = list.findIndex((thing) => thing[identity] === key);
  if (rest.length === 0 && value === undefined) return list.filter((_, index) => index !== at);
  if (rest.length === 0) return at < 0 ? [...list, value as Fields] : null;
  const thing = list[at];
  const made = thing ? put(thing, rest, value) : null;
  return made && list.map((other, index) => (index === at ? made : other));
}
