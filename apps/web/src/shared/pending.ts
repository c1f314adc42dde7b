import { useLayoutEffect, useRef, useSyncExternalStore } from 'react';

/** Sets what is typed in a field and not yet set. */
type Settle = () => void;

const fields = new Map<symbol, Settle | null>();
const listeners = new Set<() => void>();

function changed(field: symbol, settle: Settle | null): void {
  const before = isPending();
  fields.set(field, settle);
  if (isPending() !== before) for (const listener of listeners) listener();
}

const isPending = (): boolean => [...fields.values()].some((settle) => settle !== null);

/** Sets all that is half typed anywhere on the page: before it is left. */
export function settlePending(): void {
  for (const settle of [...fields.values()]) settle?.();
}

/**
 * A field that holds something typed and not yet set: it is set when the field goes or the page is left.
 * @param settle null while nothing is being typed
 */
export function usePending(settle: Settle | null): void {
  const key = useRef(Symbol('field'));
  const latest = useRef(settle);
  useLayoutEffect(() => {
    latest.current = settle;
    if (fields.has(key.current)) changed(key.current, settle);
  });
  useLayoutEffect(() => {
    const own = key.current;
    changed(own, latest.current);
    return () => {
      latest.current?.();
      changed(own, null);
      fields.delete(own);
    };
  }, []);
}

/** Whether anything on the page is typed and not yet set. */
export function useAnyPending(): boolean {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, isPending);
}
