import type { SetDocument, StoredSet } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { createStore } from '../src/app/createStore';
import { benchSet } from '../src/features/bench/state/benchSlice';
import { openSet } from '../src/features/bench/state/thunks';
import { startAutosave } from '../src/shared/document/autosave';

export const STORED: StoredSet = {
  id: '00000000-0000-4000-8000-000000000001',
  name: 'Damson cordial, one soft light',
  revision: 3,
  updatedAt: '2026-01-01T00:00:00.000Z',
  document: demoSet('cordial'),
};

/** A store with the demo set open, as the application makes it. */
export function openStore({ autosave = false, draft = null as unknown } = {}) {
  const { store, listeners } = createStore();
  if (autosave) startAutosave(listeners, benchSet);
  store.dispatch(openSet(STORED, draft));
  const set = (): SetDocument => {
    const open = benchSet.documentOf(store.getState());
    if (!open) throw new Error('a set is open');
    return open;
  };
  return { store, set };
}
