import { checkDocument, type KitEntry, kitDocument } from '@fendrix/contract';
import Papa from 'papaparse';
import { freeId } from '../../shared/rows';

type EquipmentEntry = Extract<KitEntry, { what: 'equipment' }>;

/** Equipment as CSV, one row a piece, a column for each figure that any of them has. */
export function equipmentCsv(entries: readonly KitEntry[]): string {
  const rows = entries.flatMap((entry) =>
    entry.what === 'equipment'
      ? [{ id: entry.id, name: entry.name, count: entry.count, ...entry.thing, source: entry.source }]
      : [],
  );
  const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  return Papa.unparse(rows, { columns, escapeFormulae: true });
}

export type CsvRead =
  | { ok: true; entries: KitEntry[]; added: number; changed: number }
  | { ok: false; why: string };

/**
 * Puts rows of a CSV file into the kit: a row whose id is there changes that piece, others are added. All or nothing;
 * what is wrong is told by row and column.
 */
export function readEquipmentCsv(entries: readonly KitEntry[], text: string): CsvRead {
  const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  if (!meta.fields?.includes('kind') || !meta.fields.includes('name')) {
    return { ok: false, why: 'The first row must name the columns, among them kind and name.' };
  }
  const next = [...entries];
  let [added, changed] = [0, 0];
  for (const [index, row] of data.entries()) {
    const { id = '', name = '', count = '', source = '', ...figures } = row;
    const old = next.findIndex((entry) => entry.id === id && entry.what === 'equipment');
    const entry: EquipmentEntry = {
      what: 'equipment',
      id:
        old >= 0 || (id !== '' && !next.some((other) => other.id === id))
          ? id
          : freeId(next, name, 'equipment'),
      name,
      count: Number(count) || 1,
      purposes: old >= 0 ? (next[old] as EquipmentEntry).purposes : [],
      source,
      thing: thingOf(figures) as EquipmentEntry['thing'],
    };
    const checked = checkDocument(kitDocument, { format: 'fendrix-kit', version: 1, entries: [entry] });
    if (!checked.ok) {
      const [problem] = checked.problems;
      const field = problem?.path.replace(/^entries\[0\]\.(thing\.)?/, '') ?? '';
      return { ok: false, why: `Row ${index + 2}, ${field}: ${problem?.message ?? 'not valid'}` };
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

/** Figures out of cells: empty ones are left out, numbers and yes or no are read as such. */
function thingOf(cells: Record<string, string>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(cells).flatMap(([key, cell]): [string, unknown][] => {
      const text = cell.trim();
      if (text === '') return [];
      if (text === 'true' || text === 'false') return [[key, text === 'true']];
      const value = Number(text);
      return [[key, Number.isFinite(value) ? value : text]];
    }),
  );
}
