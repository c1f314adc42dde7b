import { defaultKit } from '@fendrix/catalogue';
import type { Job, StoredJob } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { cleanup, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { openJob } from '../src/features/jobs';
import { kitApi } from '../src/features/kit';

export const SET_ID = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';
export const kit = defaultKit();

/** A store with the demo job open and a kit that is answered at once. */
export function openDemo(changes: Partial<Job> = {}, own = kit) {
  const { store } = createStore();
  void store.dispatch(kitApi.util.upsertQueryData('readKit', undefined, { revision: 0, document: own }));
  const document = { ...demoJob(() => SET_ID), ...changes };
  const stored: StoredJob = { id: SET_ID, name: document.name, revision: 1, updatedAt: '', document };
  store.dispatch(openJob.open(stored, null));
  const job = (): Job => {
    const open = openJob.documentOf(store.getState());
    if (!open) throw new Error('a job is open');
    return open;
  };
  const show = (view: ReactNode) =>
    render(
      <Provider store={store}>
        <MemoryRouter>{view}</MemoryRouter>
      </Provider>,
    );
  return { store, job, show };
}

/** What the page of a test lacks: sizes that are watched, and a server, which does not answer unless a test says how. */
export function standInPage(): void {
  beforeEach(() => {
    vi.stubGlobal(
      'ResizeObserver',
      class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    );
    vi.stubGlobal('fetch', () => new Promise(() => {}));
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}
