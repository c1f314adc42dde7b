import { enqueueSnackbar } from 'notistack';
import { describe, expect, test, vi } from 'vitest';
import { benchSet } from '../src/features/bench/state/benchSlice';
import { moveThing, renameSet } from '../src/features/bench/state/edits';
import { edit, openSet } from '../src/features/bench/state/thunks';
import { openStore, STORED } from './benchStore';

vi.mock('notistack', () => ({ enqueueSnackbar: vi.fn() }));

const card = { kind: 'sheet', key: '1' } as const;

describe('edits and undo', () => {
  test('one gesture is one step, gestures are apart', () => {
    const { store, set } = openStore();
    const start = set().sheets[0]?.positionM;
    for (let i = 1; i <= 5; i++) store.dispatch(edit(moveThing(card, [0.3, 0.01 * i, 0.1]), 'drag 1'));
    for (let i = 1; i <= 5; i++) store.dispatch(edit(moveThing(card, [0.4, 0.01 * i, 0.1]), 'drag 2'));
    store.dispatch(benchSet.undo());
    expect(set().sheets[0]?.positionM).toEqual([0.3, 0.05, 0.1]);
    store.dispatch(benchSet.undo());
    expect(set().sheets[0]?.positionM).toEqual(start);
    expect(store.getState().benchSet.history.past).toHaveLength(0);
    store.dispatch(benchSet.redo());
    store.dispatch(benchSet.redo());
    expect(set().sheets[0]?.positionM).toEqual([0.4, 0.05, 0.1]);
  });

  test('an edit that would break the set is refused and leaves no step', () => {
    const { store, set } = openStore();
    const before = set();
    expect(store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [50, 0, 0])))).toBe(false);
    expect(store.dispatch(edit(renameSet('')))).toBe(false);
    expect(set()).toBe(before);
    expect(vi.mocked(enqueueSnackbar).mock.calls[0]?.[0]).toContain(
      'Light A: position is outside of the room',
    );
    expect(store.getState().benchSet.history.past).toHaveLength(0);
  });

  test('opening another set forgets the steps of the last', () => {
    const { store, set } = openStore();
    store.dispatch(edit(renameSet('Changed')));
    store.dispatch(openSet({ ...STORED, id: '00000000-0000-4000-8000-000000000002' }, null));
    expect(set().name).toBe(STORED.name);
    store.dispatch(benchSet.undo());
    expect(set().name).toBe(STORED.name);
  });

  test('a kept draft comes first and can be undone; a broken one is left alone', () => {
    const draft = { ...STORED.document, name: 'Kept while offline' };
    const kept = openStore({ draft });
    expect(kept.set().name).toBe('Kept while offline');
    kept.store.dispatch(benchSet.undo());
    expect(kept.set().name).toBe(STORED.name);
    expect(openStore({ draft: { name: 'broken' } }).set().name).toBe(STORED.name);
  });
});
