let waiting: (() => void) | null = null;
let done = 0;

/** Least time between two changes, ms: drawing the page more often takes the time that the picture needs. */
const APART_MS = 30;

/** Does the newest of many wishes at one of the next frames: a mouse reports more often than a page need be drawn. */
export function onceAFrame(work: () => void): void {
  if (waiting === null) requestAnimationFrame(whenDue);
  waiting = work;
}

function whenDue(): void {
  if (waiting !== null && performance.now() - done < APART_MS) requestAnimationFrame(whenDue);
  else flushFrame();
}

/** Does now what waits for the frame. */
export function flushFrame(): void {
  const work = waiting;
  waiting = null;
  done = performance.now();
  work?.();
}
