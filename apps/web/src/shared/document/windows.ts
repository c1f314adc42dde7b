import { nanoid } from '@reduxjs/toolkit';

/** This window by a name that outlives a reload; other windows of the browser have names of their own. */

const KEY = 'fendrix.window';
const lockOf = (window: string) => `${KEY} ${window}`;

let own = remembered();

function remembered(): string {
  try {
    const known = sessionStorage.getItem(KEY);
    if (known) return known;
  } catch {
    // Without a store of its own the name lasts as long as the page.
  }
  return renewed();
}

function renewed(): string {
  // The page of the set side comes over plain HTTP, where browsers make no random UUIDs.
  const name = nanoid();
  try {
    sessionStorage.setItem(KEY, name);
  } catch {
    // As above.
  }
  return name;
}

// Held as long as the page is there: other windows see by it that this one is open. A window that was duplicated finds its
// name taken, and takes another.
void holdOwn();

async function holdOwn(): Promise<void> {
  const locks = globalThis.navigator?.locks;
  if (!locks) return;
  const taken = await locks
    .request(lockOf(own), { ifAvailable: true }, (lock) => (lock ? new Promise(() => undefined) : true))
    .catch(() => false);
  if (taken !== true) return;
  own = renewed();
  await holdOwn();
}

export const ownWindow = (): string => own;

/** Whether a window is open now; only this one is known to be where the browser tells nothing of others. */
export async function isOpen(window: string): Promise<boolean> {
  if (window === own) return true;
  const held = (await globalThis.navigator?.locks?.query().catch(() => null))?.held ?? [];
  return held.some(({ name }) => name === lockOf(window));
}
