/*
 * The session of a picture, with its workers, takes half a second to start: where a bench is about to be opened it starts while the page is
 * being loaded. This module stands alone, so that nothing has to be there before it.
 */

let waiting: Worker | null = null;

const started = (): Worker =>
  new Worker(new URL('./picture/sessionWorker.ts', import.meta.url), { type: 'module' });

/** Starts the session of the next bench that is opened. */
export function startEarly(): void {
  waiting ??= started();
}

/** The session that was started early, or a new one. */
export function sessionWorker(): Worker {
  const own = waiting ?? started();
  waiting = null;
  return own;
}
