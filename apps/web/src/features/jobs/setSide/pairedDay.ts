import type { ApiError, DayAction, DayAtTable } from '@fendrix/contract';

/** Where what is not told yet is kept, over a reload too. */
const KEPT = 'fendrix set side';
const AT_ONCE = 200;

/** What came of asking the server. */
export type Link = 'asking' | 'there' | 'lost' | 'not-paired' | 'no-day';

/** What was done and is not told yet, the oldest first. */
export function keptActions(storage: Storage = localStorage): DayAction[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(KEPT) ?? '[]');
    return Array.isArray(kept) ? (kept as DayAction[]) : [];
  } catch {
    return [];
  }
}

export const keepActions = (actions: readonly DayAction[], storage: Storage = localStorage): void =>
  storage.setItem(KEPT, JSON.stringify(actions));

/**
 * Tells the server what was done and reads the day. What it was told is taken off the list only when it said so; what it will
 * never take, as of a picture that is gone, is dropped, so that the rest is not held up.
 * @param kept what is not told yet: read anew each time, as more may be done meanwhile
 * @param told takes the first so many off that list
 * @returns the link, and the day where it has changed since `etag`
 */
export async function askServer(
  etag: string | null,
  kept: () => readonly DayAction[],
  told: (count: number) => void,
  ask: typeof fetch = fetch,
): Promise<{ link: Link; day?: DayAtTable; etag: string | null }> {
  try {
    let atOnce = AT_ONCE;
    while (kept().length > 0) {
      const actions = kept().slice(0, atOnce);
      const { status } = await ask('/api/set-side/actions', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ actions }),
      });
      if (status === 401) return { link: 'not-paired', etag };
      if (status !== 200 && status !== 400) return { link: 'lost', etag };
      // One of several is not taken: each by itself, then.
      if (status === 400 && actions.length > 1) atOnce = 1;
      else told(actions.length);
    }
    const answer = await ask('/api/set-side/day', {
      cache: 'no-store',
      headers: etag === null ? {} : { 'if-none-match': etag },
    });
    if (answer.status === 304) return { link: 'there', etag };
    if (answer.status === 401) return { link: 'not-paired', etag };
    // Another address of this machine, or a job that is gone.
    if (answer.status === 404) return { link: 'no-day', etag };
    if (answer.status !== 200) return { link: 'lost', etag };
    return { link: 'there', day: (await answer.json()) as DayAtTable, etag: answer.headers.get('etag') };
  } catch {
    return { link: 'lost', etag };
  }
}

/** Pairs this device. @returns what is wrong with the code; null if it is paired */
export async function pairWith(
  code: string,
  name: string,
  ask: typeof fetch = fetch,
): Promise<string | null> {
  try {
    const answer = await ask('/api/set-side/pair', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ code, name }),
    });
    if (answer.ok) return null;
    const { error } = (await answer.json()) as ApiError;
    return [error.message, error.hint].filter(Boolean).join(' ');
  } catch {
    return 'The machine in the studio cannot be reached: is this device in the same network?';
  }
}
