let waiting: (() => void) | null = null;

/** Does the newest of many wishes at the next frame: a mouse may report more often than a page is drawn. */
export function onceAFrame(work: () => void): void {
  if (waiting === null) requestAnimationFrame(flushFrame);
  waiting = work;
}

/** Does now what waits for the frame. */
export function flushFrame(): void {
  const work = waiting;
  waiting = null;
  work?.();
}
