import type { SetDocument } from '@fendrix/contract';

/** A change of the set: from one document to the next, nothing else. */
export type Edit = (set: SetDocument) => SetDocument;

/**
 * What was changed of a thing as it was shown, made to it as it is now: panels are drawn a moment behind, and two figures may be typed
 * within that moment.
 */
export function changedSince<T extends object>(shown: T, changed: T, now: T): T {
  if (now === shown) return changed;
  const next = { ...now };
  for (const key of new Set([...Object.keys(shown), ...Object.keys(changed)]) as Set<keyof T & string>) {
    if (changed[key] === shown[key]) continue;
    if (key in changed) next[key] = changed[key];
    else delete next[key];
  }
  return next;
}
