import { useState } from 'react';

const saysTheSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The value of before while the new one says the same, so that what is drawn from it need not be drawn again. */
export function useUnchanged<T>(value: T, same: (a: T, b: T) => boolean = saysTheSame): T {
  const [kept, setKept] = useState(value);
  if (kept === value || same(kept, value)) return kept;
  setKept(value);
  return value;
}
