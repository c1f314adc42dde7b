import { defaultKit } from '@fendrix/catalogue';
import type { SetDocument } from '@fendrix/contract';
import {
  bakeLightmaps,
  mirrorBand,
  pickSources,
  prepareTracing,
  rayThrough,
  spotReading,
  type Tracing,
  traceKey,
  traceSpot,
} from '@fendrix/core';
import { type DemoName, demoSet } from '@fendrix/demo';
import { doTask, type Pick, type Task } from '@fendrix/workers';
import { act, cleanup, render } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { afterEach, beforeEach, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { FigureStore, FiguresContext } from '../src/features/bench/figures/figureStore';
import { SessionContext } from '../src/features/bench/picture/useSession';
import { benchActions, benchSet } from '../src/features/bench/state/benchSlice';
import { openSet } from '../src/features/bench/state/thunks';
import { kitApi } from '../src/features/kit';

/** Samples of what takes long, fewer than on a bench. */
const FEW: Partial<Record<Task['kind'], number>> = { field: 8, view: 3, tryCure: 3, judge: 2 };

/** Sets that are kept ready, as a worker keeps its last: what it takes to bake the light of one is paid once. */
const KEPT = 3;
const ready = new Map<string, Tracing>();

function tracingOf(set: SetDocument): Tracing {
  const key = traceKey(set);
  const tracing = ready.get(key) ?? prepareTracing(set);
  ready.delete(key);
  ready.set(key, tracing);
  for (const old of [...ready.keys()].slice(0, -KEPT)) ready.delete(old);
  return tracing;
}

/** Does a task here and now, as a worker does, with few samples. */
function done(set: SetDocument, task: Task): unknown {
  const samples = FEW[task.kind];
  const tracing = tracingOf(set);
  if (samples === undefined) return doTask(set, tracing, task);
  // Light of few rays: most of what a placement that is tried once takes.
  bakeLightmaps(tracing, { rays: 8, photons: 2000 });
  return doTask(set, tracing, { ...task, samples } as Task);
}

const alreadyRead = new Map<string, ReturnType<typeof readAnew>>();

/** What is read of a set, once for all tests of a file. */
function read(set: SetDocument) {
  const key = JSON.stringify(set);
  const found = alreadyRead.get(key) ?? readAnew(set);
  alreadyRead.set(key, found);
  return found;
}

function readAnew(set: SetDocument) {
  const tracing = prepareTracing(set);
  return {
    tracing,
    traces: set.spots.map((spot) => traceSpot(tracing, spot, 96, 1)),
    bands: set.products.flatMap((product) => mirrorBand(tracing, product) ?? []),
  };
}

/** A bench with a demo set, its spots and bands read, and a session that answers at once. */
export function openDemo(name: DemoName, change: (set: SetDocument) => SetDocument = (set) => set) {
  const { store } = createStore();
  void store.dispatch(
    kitApi.util.upsertQueryData('readKit', undefined, { revision: 0, document: defaultKit() }),
  );
  const document = change(demoSet(name));
  store.dispatch(openSet({ id: 'x', name: document.name, revision: 1, updatedAt: '', document }, null));
  const set = (): SetDocument => {
    const open = benchSet.documentOf(store.getState());
    if (!open) throw new Error('a set is open');
    return open;
  };
  const { tracing, traces, bands } = read(document);
  const figures = new FigureStore();
  figures.set('spots', { traces, settled: true });
  figures.set('bands', bands);
  // As a worker: what was asked is worked out for the set as it was then, and answered later.
  const ask = vi.fn(async (task: Task, other?: SetDocument) => {
    const asked = other ?? set();
    await held;
    return done(asked, task);
  });
  let held: Promise<void> = Promise.resolve();
  /** Answers wait until they are let go. */
  const hold = (): (() => void) => {
    let letGo = () => {};
    held = new Promise((resolve) => {
      letGo = resolve;
    });
    return letGo;
  };
  const session = { ask } as never;
  const show = (view: ReactNode) =>
    render(
      <Provider store={store}>
        <SnackbarProvider>
          <FiguresContext.Provider value={figures}>
            <SessionContext.Provider value={session}>{view}</SessionContext.Provider>
          </FiguresContext.Provider>
        </SnackbarProvider>
      </Provider>,
    );
  /** Points at a place of the frame. */
  const pointAt = (across: number, down: number) => {
    const direction = new Float64Array(3);
    rayThrough(direction, tracing.view, across, down);
    const sources = pickSources(tracing, tracing.view.origin, direction, 64);
    const mirrored = sources.find(({ how }) => how === 'mirrored')?.thing ?? null;
    const pick = {
      thing: { kind: 'product', key: document.products[0]?.id ?? '', name: document.products[0]?.name ?? '' },
      pointM: [0, 0, 0.1],
      normal: [0, -1, 0],
      mirrored,
      mirroredPointM: null,
      weight: 0.5,
      through: null,
      throughPointM: null,
      throughWeight: 0,
      sources,
    } as Pick;
    act(() => void store.dispatch(benchActions.picked({ pick, at: [across, down] })));
  };
  const stops = (spot: string) => {
    const trace = figures.get('spots')?.traces.find((own) => own.name === spot);
    return trace ? (spotReading(set(), trace).stopsFromMidTone ?? Number.NaN) : Number.NaN;
  };
  return { store, figures, set, show, ask, hold, pointAt, stops, tracing };
}

/** What a view on the bench needs of a browser. */
export function standInBrowser(): void {
  beforeEach(() => {
    vi.stubGlobal(
      'ResizeObserver',
      class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    );
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}
