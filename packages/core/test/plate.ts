import type { Plate } from '@fendrix/contract';

/** A plate that differs in nothing but what is said. */
export const plateOf = (changes: Partial<Plate> = {}): Plate => ({
  id: 'one',
  name: 'One',
  gives: 'other',
  note: '',
  lights: [],
  mask: [],
  featherPart: 0,
  laid: true,
  ...changes,
});
