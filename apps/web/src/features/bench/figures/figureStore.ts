import { createContext, useCallback, useContext, useSyncExternalStore } from 'react';
import type { FigureName, FigureValues } from './liveFigures';

export type Figures = Pick<FigureStore, 'get' | 'subscribe'>;

/** The newest figures of the open set. They hold large arrays of numbers, and so stand beside the store of the page. */
export class FigureStore {
  private readonly values: Partial<FigureValues> = {};
  private readonly listeners = new Map<FigureName, Set<() => void>>();

  get<Name extends FigureName>(name: Name): FigureValues[Name] | null {
    return (this.values[name] as FigureValues[Name] | undefined) ?? null;
  }

  set<Name extends FigureName>(name: Name, value: FigureValues[Name]): void {
    this.values[name] = value;
    for (const listener of [...(this.listeners.get(name) ?? [])]) listener();
  }

  /** @returns ends it */
  subscribe(name: FigureName, listener: () => void): () => void {
    const own = this.listeners.get(name) ?? new Set();
    this.listeners.set(name, own.add(listener));
    return () => own.delete(listener);
  }

  /** The set moves: the spots are read anew from now on. */
  unsettle(): void {
    const spots = this.get('spots');
    if (spots?.settled) this.set('spots', { ...spots, settled: false });
  }
}

export const FiguresContext = createContext<Figures>(new FigureStore());

export const useFigures = (): Figures => useContext(FiguresContext);

/** The newest value of a figure, null before it was read; drawn anew when it changes. */
export function useFigure<Name extends FigureName>(name: Name): FigureValues[Name] | null {
  const figures = useFigures();
  const subscribe = useCallback((listener: () => void) => figures.subscribe(name, listener), [figures, name]);
  return useSyncExternalStore(subscribe, () => figures.get(name));
}
