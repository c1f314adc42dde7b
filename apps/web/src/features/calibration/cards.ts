/** Cards that are sold everywhere, by what they send back. */
export const CARDS = [
  { value: '0.18', words: 'grey card, 18 %' },
  { value: '0.9', words: 'white card, 90 %' },
] as const;
