import type { Job } from '@fendrix/contract';

/** What tells two states of a job apart, in words. */
export function jobDifferences(before: Job, after: Job): string[] {
  const other = (one: unknown, two: unknown) => JSON.stringify(one) !== JSON.stringify(two);
  const words: string[] = [];
  if (before.name !== after.name) words.push(`named “${after.name}”`);
  if (before.client !== after.client) words.push('another client');
  if (before.dueOn !== after.dueOn) words.push('another day');
  const parts: [keyof Job['brief'], string][] = [
    ['need', 'what is wanted'],
    ['mood', 'the mood'],
    ['notes', 'the notes'],
    ['deliverables', 'the formats'],
    ['supplied', 'products from the client'],
    ['references', 'reference pictures'],
  ];
  for (const [part, name] of parts) if (other(before.brief[part], after.brief[part])) words.push(name);
  words.push(
    ...rows(before.products, after.products, 'product'),
    ...rows(before.shots, after.shots, 'picture'),
  );
  if (other(before.series, after.series)) words.push('the series');
  return words;
}

function rows<R extends { id: string; name: string }>(
  before: readonly R[],
  after: readonly R[],
  what: string,
): string[] {
  const old = new Map(before.map((row) => [row.id, row] as const));
  const kept = new Set(after.map(({ id }) => id));
  return [
    ...after.flatMap((row) => {
      const one = old.get(row.id);
      if (!one) return [`${what} “${row.name}” added`];
      return JSON.stringify(one) === JSON.stringify(row) ? [] : [`${what} “${row.name}” changed`];
    }),
    ...before.filter(({ id }) => !kept.has(id)).map(({ name }) => `${what} “${name}” taken out`),
  ];
}
