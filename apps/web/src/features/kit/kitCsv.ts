import { checkDocument, type KitEntry, kitDocument } from '@fendrix/contract';
import Papa from 'papaparse';
import { freeId } from '../../shared/rows';

/** Columns that every entry has, before its figures. */
const COMMON = ['what', 'id', 'name', 'count', 'purposes', 'source'] as const;

/**
 * Entries of the kit as CSV: one row an entry, a column for each figure that any of them has. Figures within figures
 * are named with dots (`output.energyJ`), lists are JSON.
 */
export function kitCsv(entries: readonly KitEntry[]): string {
  const rows = entries.map(({ what, id, name, count, purposes, source, thing }) => ({
    what,
    id,
    name,
    count,
    purposes: purposes.join(', '),
    source,
    ...apart(flat(thing as unknown as Record<string, unknown>)),
  }));
  const columns = [...new Set([...COMMON, ...rows.flatMap((row) => Object.keys(row))])];
  return Papa.unparse(rows.map(harmless), { columns });
}

/** What a table reader would take for a formula. Numbers below 0 are none. */
const FORMULA = /^[=+@\t\r-]/;
const NUMBER = /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i;
/** Stands before text that would else be a formula, and before text that begins with it. */
const QUOTE = "'";

const harmless = (row: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(row).map(([column, value]) => {
      const quoted =
        typeof value === 'string' &&
        (value.startsWith(QUOTE) || (FORMULA.test(value) && !NUMBER.test(value)));
      return [column, quoted ? `${QUOTE}${value}` : value];
    }),
  );

const asWritten = (cell: string): string =>
  cell.startsWith(QUOTE) && (cell[1] === QUOTE || FORMULA.test(cell.slice(1))) ? cell.slice(1) : cell;

/** Largest file taken, characters, and rows in it. */
export const MOST_CSV_CHARACTERS = 5_000_000;
const MOST_ROWS = 2000;

export type CsvRead =
  | { ok: true; entries: KitEntry[]; added: number; changed: number }
  | { ok: false; why: string };

/**
 * Puts rows of a CSV file into the kit: a row whose id is there changes that entry, others are added. All or nothing;
 * what is wrong is told by row and column.
 */
export function readKitCsv(entries: readonly KitEntry[], text: string): CsvRead {
  if (text.length > MOST_CSV_CHARACTERS)
    return { ok: false, why: `It is larger than ${MOST_CSV_CHARACTERS / 1e6} MB.` };
  const { data, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: true,
    preview: MOST_ROWS + 1,
  });
  if (data.length > MOST_ROWS) return { ok: false, why: `It has more than ${MOST_ROWS} rows.` };
  const clash = clashOf(meta.fields ?? []);
  if (clash) return { ok: false, why: clash };
  const missing = ['what', 'kind', 'name'].filter((column) => !meta.fields?.includes(column));
  if (missing.length > 0) {
    return { ok: false, why: `The first row must name the columns; ${missing.join(', ')} is missing.` };
  }
  const next = [...entries];
  let [added, changed] = [0, 0];
  for (const [index, written] of data.entries()) {
    const row = Object.fromEntries(
      Object.entries(written).map(([column, cell]) => [
        column,
        typeof cell === 'string' ? asWritten(cell) : cell,
      ]),
    ) as Record<string, string>;
    const old = next.findIndex(({ id, what }) => id === row.id && what === row.what);
    const entry = entryOf(row, next, old);
    const checked = checkDocument(kitDocument, { format: 'fendrix-kit', version: 1, entries: [entry] });
    if (!checked.ok) {
      const [problem] = checked.problems;
      const column = problem?.path.replace(/^entries\[0\]\.(thing\.)?/, '') ?? '';
      return { ok: false, why: `Row ${index + 2}, ${column}: ${problem?.message ?? 'not valid'}` };
    }
    const [kept] = checked.value.entries as [KitEntry];
    if (old >= 0) {
      next[old] = kept;
      changed++;
    } else {
      next.push(kept);
      added++;
    }
  }
  return { ok: true, entries: next, added, changed };
}

/** A column cannot hold a figure and figures within it, nor stand there twice. */
function clashOf(columns: readonly string[]): string | null {
  for (const column of columns) {
    const inner = columns.find((other) => other.startsWith(`${column}.`));
    if (inner) return `The columns ${column} and ${inner} cannot both be there: one of them is too much.`;
    if (columns.filter((other) => other === column).length > 1) return `The column ${column} is there twice.`;
  }
  return null;
}

function entryOf(row: Record<string, string>, entries: readonly KitEntry[], old: number): object {
  const { what, id = '', name = '', count = '', purposes, source = '', ...figures } = row;
  const isFree = id !== '' && !entries.some((other) => other.id === id);
  const words = purposes
    ?.split(',')
    .map((word) => word.trim())
    .filter(Boolean);
  return {
    what,
    id: old >= 0 || isFree ? id : freeId(entries, name, 'entry'),
    name,
    ...(count.trim() === '' ? {} : { count: Number(count) }),
    purposes: words ?? entries[old]?.purposes ?? [],
    source,
    ...calibrationOf(entries[old]),
    thing: { ...(NAMED.has(what ?? '') ? { name } : {}), ...deep(figures) },
  };
}

/** What an entry was calibrated from is no column: it stays with it. */
const calibrationOf = (entry: KitEntry | undefined) =>
  entry && 'calibrated' in entry && entry.calibrated ? { calibrated: entry.calibrated } : {};

/** Things on a set have a name of their own, as a rule that of their entry. */
const NAMED = new Set(['light', 'sheet', 'product']);
const OWN = 'thing.';

/** Figures that are called like a column of every entry get a name apart. */
const apart = (figures: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(figures).map(([key, value]) => [
      (COMMON as readonly string[]).includes(key) ? `${OWN}${key}` : key,
      value,
    ]),
  );

/** Figures within figures under names with dots; lists as JSON. */
function flat(value: Record<string, unknown>, before = ''): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, inner]): [string, unknown][] => {
      const name = `${before}${key}`;
      if (Array.isArray(inner)) return [[name, JSON.stringify(inner)]];
      if (typeof inner === 'object' && inner !== null) {
        return Object.entries(flat(inner as Record<string, unknown>, `${name}.`));
      }
      // Text that would be read as something else, such as a tag of digits, stands in quotes.
      const unclear = typeof inner === 'string' && cellValue(inner) !== inner;
      return [[name, unclear ? JSON.stringify(inner) : inner]];
    }),
  );
}

/** The other way round; empty cells are left out. */
function deep(cells: Record<string, string>): Record<string, unknown> {
  const thing: Record<string, unknown> = {};
  for (const [column, cell] of Object.entries(cells)) {
    if (typeof cell !== 'string' || cell.trim() === '') continue;
    const path = (column.startsWith(OWN) ? column.slice(OWN.length) : column).split('.');
    const last = path.pop() as string;
    let at = thing;
    for (const key of path) {
      if (!Object.hasOwn(at, key)) at[key] = {};
      at = at[key] as Record<string, unknown>;
    }
    Object.defineProperty(at, last, {
      value: cellValue(cell.trim()),
      enumerable: true,
      configurable: true,
      writable: true,
    });
  }
  return thing;
}

/** Numbers, yes or no, lists and quoted text are read as such; all else is text as it stands. */
function cellValue(text: string): unknown {
  if (text === 'true' || text === 'false') return text === 'true';
  if (/^-?\d/.test(text) && Number.isFinite(Number(text))) return Number(text);
  if (!/^[["]/.test(text)) return text;
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
