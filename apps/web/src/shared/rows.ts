/** An identifier made of a name that no row has yet. */
export function freeId(rows: readonly { id: string }[], name: string, fallback: string): string {
  const stem = slug(name) || fallback;
  const taken = new Set(rows.map(({ id }) => id));
  if (!taken.has(stem)) return stem;
  let n = 2;
  while (taken.has(`${stem.slice(0, 36)}-${n}`)) n++;
  return `${stem.slice(0, 36)}-${n}`;
}

function slug(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[-0-9]+|-+$/g, '');
  return plain.slice(0, 40).replace(/-+$/, '');
}

/** Rows with one of them changed. */
export const changeRow = <R extends { id: string }>(
  rows: readonly R[],
  id: string,
  changes: Partial<R>,
): R[] => rows.map((row) => (row.id === id ? { ...row, ...changes } : row));

/** Rows without one of them. */
export const withoutRow = <R extends { id: string }>(rows: readonly R[], id: string): R[] =>
  rows.filter((row) => row.id !== id);
