import type { Stored } from '@fendrix/contract';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import equal from 'fast-deep-equal';
import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { type Draft, dropDraft, readDrafts } from './drafts';
import type { OpenDocument, OpenDocumentState } from './openDocument';
import { isOpen, ownWindow } from './windows';

/**
 * Opens a document once it is read from the server. What this window kept of it unsaved, on the same revision, is gone on with;
 * all else that closed windows have left is offered to be decided on.
 * @param openStored opens it with what this window kept, or null
 */
export function useOpening<D extends { name: string }, K extends string>(
  open: OpenDocument<D, K>,
  stored: Stored<D> | undefined,
  openStored: (stored: Stored<D>, draft: unknown) => unknown,
): void {
  const dispatch = useDispatch<ThunkDispatch<Record<K, OpenDocumentState<D>>, unknown, UnknownAction>>();
  useEffect(() => {
    if (!stored) return;
    let current = true;
    void findDrafts(stored).then(({ own, offered }) => {
      if (!current) return;
      dispatch(openStored(stored, own?.document ?? null) as UnknownAction);
      if (offered.length > 0) dispatch(open.draftsMet(offered));
    });
    return () => {
      current = false;
    };
  }, [open, stored, openStored, dispatch]);
}

async function findDrafts(stored: Stored<unknown>): Promise<{ own: Draft | undefined; offered: Draft[] }> {
  const offered: Draft[] = [];
  let own: Draft | undefined;
  for (const draft of await readDrafts(stored.id)) {
    const mine = draft.window === ownWindow();
    if (equal(draft.document, stored.document)) {
      if (mine || !(await isOpen(draft.window))) dropDraft(stored.id, draft.window);
    } else if (mine && draft.revision === stored.revision) own = draft;
    // Another window that is open looks after its own.
    else if (mine || !(await isOpen(draft.window))) offered.push(draft);
  }
  return { own, offered };
}
