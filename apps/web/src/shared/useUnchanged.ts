import { useState } from 'react';

/** The value of before while the new one says the same, so that what is drawn from it need not be drawn again. */
export function useUnchanged<T>(value: T): T {
  const [kept, setKept] = useState(value);
  if (kept === value || JSON.stringify(kept) === JSON.stringify(value)) return kept;
  setKept(value);
  return value;
}
