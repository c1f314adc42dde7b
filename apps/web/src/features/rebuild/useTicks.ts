import { useState } from 'react';

const placeOf = (set: string) => `fendrix built ${set}`;

function ticked(set: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(placeOf(set)) ?? '[]');
    return Array.isArray(kept) ? kept.filter((key): key is string => typeof key === 'string') : [];
  } catch {
    return [];
  }
}

/**
 * What is done of building a set, on this device: kept over a reload. A tick is of a step with its figures: where those change,
 * the step has another key and is open again.
 */
export function useTicks(set: string): {
  isDone(key: string): boolean;
  tick(key: string, done: boolean): void;
} {
  const [keys, setKeys] = useState(() => ticked(set));
  return {
    isDone: (key) => keys.includes(key),
    tick(key, done) {
      const next = done ? [...keys, key] : keys.filter((own) => own !== key);
      setKeys(next);
      try {
        localStorage.setItem(placeOf(set), JSON.stringify(next));
      } catch {
        // A browser that keeps nothing: the ticks hold until the page is left.
      }
    },
  };
}
