import type { SetDocument } from '@fendrix/contract';
import { applyChange, type SetChange, traceKey } from '@fendrix/core';
import type { Store } from '@reduxjs/toolkit';
import { enqueueSnackbar } from 'notistack';
import { useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { benchSet, type WithBench } from './benchSlice';
import { useSet } from './hooks';
import { tellFailure } from './tellFailure';
import { type BenchThunk, edit } from './thunks';

export interface Answer<A> {
  /** What was answered last; null where nothing was asked or found. */
  found: A | null;
  /** The set it was worked out for. */
  set: SetDocument;
  /** Light takes other paths by now: what was found does not hold any more. */
  old: boolean;
}

/**
 * An answer about the set as it was when asked, and whether it still holds. Only the newest question counts; one that
 * fails is told. What is taken of an answer is made as a change to the set as it is then (`takeChange`).
 */
export function useAnswer<A>() {
  const store = useStore<WithBench>();
  const present = useSet();
  const [asked, setAsked] = useState<{ found: A | null; set: SetDocument; key: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const newest = useRef<AbortController | null>(null);
  const key = useMemo(() => (asked ? traceKey(present) : ''), [asked, present]);

  /** @param work gets the set as it is now, without takes, and a signal that ends when it is asked no longer */
  async function ask(work: (set: SetDocument, signal: AbortSignal) => Promise<A | null>): Promise<void> {
    const set = benchSet.documentOf(store.getState());
    if (!set) return;
    newest.current?.abort(new Error('asked anew'));
    const own = new AbortController();
    newest.current = own;
    setBusy(true);
    setAsked(null);
    try {
      const found = await work({ ...set, takes: [] }, own.signal);
      if (!own.signal.aborted) setAsked({ found, set, key: traceKey(set) });
    } catch (error) {
      if (!own.signal.aborted) tellFailure('It', error);
    } finally {
      if (newest.current === own) setBusy(false);
    }
  }

  function drop(): void {
    newest.current?.abort(new Error('asked no longer'));
    newest.current = null;
    setBusy(false);
    setAsked(null);
  }

  const answer: Answer<A> | null = asked && { found: asked.found, set: asked.set, old: asked.key !== key };
  return { answer, busy, ask, drop };
}

/** Makes the change of an answer to the set as it is now, as one step of undo; told where it cannot be. */
export function takeChange(change: SetChange, gesture: string | null = null): BenchThunk<boolean> {
  return (dispatch, getState) => {
    const set = benchSet.documentOf(getState());
    if (set && applyChange(set, change)) {
      return dispatch(edit((now) => applyChange(now, change) ?? now, gesture));
    }
    const words = 'What this would change is not on the set any more: work it out again.';
    enqueueSnackbar(words, { variant: 'warning', key: words, preventDuplicate: true });
    return false;
  };
}

/** Times a quick question is asked again when the set moves while it is answered. */
const MOST_ASKED = 3;

/** An answer about the set as it is when the answer is there; null where it moves on and on. What fails is thrown. */
export async function askPresent<A>(
  store: Store<WithBench>,
  ask: () => Promise<A> | null,
): Promise<A | null> {
  const key = () => {
    const set = benchSet.documentOf(store.getState());
    return set ? traceKey(set) : '';
  };
  for (let i = 0; i < MOST_ASKED; i++) {
    const before = key();
    const found = await ask();
    if (key() === before) return found;
  }
  return null;
}
