import type { Pick } from '@fendrix/workers';
import { expect, test } from 'vitest';
import { benchActions, benchReducers } from '../src/features/bench/state/benchSlice';

/** What is met at a place, as far as it is told apart here. */
const met = (key: string) => ({ thing: { kind: 'product', key, name: key }, sources: [] }) as never as Pick;

const pointed = (key: string, at: [number, number]) =>
  benchReducers.bench(undefined, benchActions.picked({ pick: met(key), at }));

test('a place that is read again late never stands for the one pointed at since', () => {
  const now = pointed('new', [0.5, 0.5]);
  const late = benchReducers.bench(now, benchActions.pickRead({ at: [0.42, 0.5], pick: met('old') }));
  expect(late.pick?.thing.key).toBe('new');
  const gone = benchReducers.bench(now, benchActions.pickRead({ at: [0.42, 0.5], pick: null }));
  expect(gone.pickAt).toEqual([0.5, 0.5]);
});

test('the place pointed at is told as it is now, and forgotten where nothing is there any more', () => {
  const before = pointed('before', [0.5, 0.5]);
  const again = benchReducers.bench(before, benchActions.pickRead({ at: [0.5, 0.5], pick: met('after') }));
  expect(again.pick?.thing.key).toBe('after');
  expect(again.pickStale).toBe(false);
  const none = benchReducers.bench(before, benchActions.pickRead({ at: [0.5, 0.5], pick: null }));
  expect([none.pick, none.pickAt]).toEqual([null, null]);
  const closed = benchReducers.bench(undefined, benchActions.pickRead({ at: [0.5, 0.5], pick: met('late') }));
  expect(closed.pick).toBeNull();
});
