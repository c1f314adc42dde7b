import { setTimeout as later } from 'node:timers/promises';

/** How much of some work is done, 0 to 1. */
export type OnPart = (part: number) => void;

/** What is not there within this is answered by how much of it is done, ms. */
const WAIT_MS = 800;
/** What nobody has asked for again within this is given up, ms. */
const PATIENCE_MS = 10_000;

interface Work<T> {
  answer: Promise<T>;
  part: number;
  abort: AbortController;
  patience: ReturnType<typeof setTimeout> | undefined;
}

/** Work that takes a minute: whoever wants it asks again until it is done; once nobody does, it is given up. */
export function createAskedAgain<T>({ waitMs = WAIT_MS, patienceMs = PATIENCE_MS } = {}) {
  const underWay = new Map<string, Work<T>>();

  function begun(key: string, start: (signal: AbortSignal, onPart: OnPart) => Promise<T>): Work<T> {
    const abort = new AbortController();
    const work: Work<T> = { answer: Promise.resolve(null as T), part: 0, abort, patience: undefined };
    work.answer = start(abort.signal, (part) => {
      work.part = part;
    });
    underWay.set(key, work);
    // What failed is tried anew when it is asked for next.
    work.answer.catch(() => forget(key, work));
    return work;
  }

  function forget(key: string, work: Work<T>): void {
    if (underWay.get(key) === work) underWay.delete(key);
  }

  /** The answer, or how much of it is done. @param start what answers; its signal says that nobody wants it any more */
  return async function ask(
    key: string,
    start: (signal: AbortSignal, onPart: OnPart) => Promise<T>,
  ): Promise<{ answer: T } | { part: number }> {
    const work = underWay.get(key) ?? begun(key, start);
    clearTimeout(work.patience);
    const soon = new AbortController();
    try {
      return await Promise.race([
        work.answer.then((answer) => ({ answer })),
        later(waitMs, null, { signal: soon.signal }).then(() => ({ part: work.part })),
      ]);
    } finally {
      soon.abort();
      clearTimeout(work.patience);
      work.patience = setTimeout(() => {
        forget(key, work);
        work.abort.abort(new Error('nobody waits for it any more'));
      }, patienceMs);
      work.patience.unref();
    }
  };
}
