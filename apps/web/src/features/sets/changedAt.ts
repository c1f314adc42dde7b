/** When a set was last changed, as a list tells it: two of one name are told apart by it. */
export const changedAt = (iso: string): string =>
  `changed ${new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}`;
