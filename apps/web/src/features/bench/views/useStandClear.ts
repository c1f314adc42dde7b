import { vector } from '@fendrix/core';
import { useStore } from 'react-redux';
import { useSession } from '../picture/useSession';
import { benchSet, type WithBench } from '../state/benchSlice';
import { moveThing, positionOf, type ThingRef } from '../state/edits';
import { useBenchDispatch } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';
import { edit } from '../state/thunks';

/**
 * Moves what was just put on the set out of what it goes through, in the same step of undo. Once anything else has been
 * changed it stays where it is, and the notes tell.
 */
export function useStandClear(): (added: ThingRef, gesture: string) => Promise<void> {
  const session = useSession();
  const store = useStore<WithBench>();
  const dispatch = useBenchDispatch();
  return async (added, gesture) => {
    const set = benchSet.documentOf(store.getState());
    const place = set && positionOf(set, added);
    if (!session || !place) return;
    const found = await session.ask({ kind: 'overlaps' }, set).catch((error: unknown) => {
      tellFailure('Whether it stands in something', error);
      return null;
    });
    const move = found?.find(({ kind, key }) => kind === added.kind && key === added.key)?.wayOutM;
    if (!move || benchSet.documentOf(store.getState()) !== set) return;
    dispatch(edit(moveThing(added, vector.add(place, move)), gesture));
  };
}
