import type { Store } from '@reduxjs/toolkit';
import { createContext, type ReactNode, useContext, useState } from 'react';
import { Provider, useStore } from 'react-redux';
import { type Figures, FiguresContext, useFigures } from '../figures/figureStore';
import type { FigureName } from '../figures/liveFigures';
import { onBeat } from './drag';

/** What the page is drawn from. */
interface Sources {
  store: Store;
  figures: Figures;
}

const AtOnceContext = createContext<Sources | null>(null);

/** While something is dragged, what it holds is drawn anew at a slower beat than picture and plans. */
export function Paced({ children }: { children: ReactNode }) {
  const store = useStore();
  const figures = useFigures();
  const [{ atOnce, paced }] = useState(() => ({
    atOnce: { store, figures },
    paced: { store: pacedStore(store), figures: pacedFigures(figures) },
  }));
  return (
    <AtOnceContext.Provider value={atOnce}>
      <Sourced {...paced}>{children}</Sourced>
    </AtOnceContext.Provider>
  );
}

/** Within what is paced: what it holds follows a drag at every step. */
export function AtOnce({ children }: { children: ReactNode }) {
  const sources = useContext(AtOnceContext);
  return sources ? <Sourced {...sources}>{children}</Sourced> : children;
}

function Sourced({ store, figures, children }: Sources & { children: ReactNode }) {
  return (
    <Provider store={store}>
      <FiguresContext.Provider value={figures}>{children}</FiguresContext.Provider>
    </Provider>
  );
}

/** The store, whose state changes at beats for those who read it here. */
function pacedStore(store: Store): Store {
  const { get, subscribe } = paced({ get: store.getState, subscribe: store.subscribe });
  return { ...store, getState: get, subscribe };
}

function pacedFigures(figures: Figures): Figures {
  const known = new Map<FigureName, Source<unknown>>();
  const sourceOf = (name: FigureName): Source<unknown> => {
    const source =
      known.get(name) ??
      paced({ get: () => figures.get(name), subscribe: (listener) => figures.subscribe(name, listener) });
    known.set(name, source);
    return source;
  };
  return {
    get: (name) => sourceOf(name).get() as ReturnType<typeof figures.get<typeof name>>,
    subscribe: (name, listener) => sourceOf(name).subscribe(listener),
  };
}

interface Source<T> {
  get(): T;
  /** @returns ends it */
  subscribe(listener: () => void): () => void;
}

/** A source that changes at beats for those who have subscribed to it. */
function paced<T>(source: Source<T>): Source<T> {
  const listeners = new Set<() => void>();
  let leave: (() => void) | null = null;
  let told: T;
  const tell = () => {
    told = source.get();
    for (const listener of [...listeners]) listener();
  };
  return {
    get: () => (leave ? told : source.get()),
    subscribe(listener) {
      listeners.add(listener);
      if (!leave) {
        told = source.get();
        leave = source.subscribe(() => onBeat(tell));
      }
      return () => {
        listeners.delete(listener);
        if (listeners.size > 0) return;
        leave?.();
        leave = null;
      };
    },
  };
}
