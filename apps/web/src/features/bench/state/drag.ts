import { useSyncExternalStore } from 'react';

/*
 * How the page follows a drag: what is dragged at each of its frames, what stands beside picture and plans at a slower beat. Drawing
 * all of the page at every step takes the time that the picture needs.
 */

/** Least time between two steps of a drag, ms. */
const APART_MS = 30;
/** Time between two beats, ms. */
const BEAT_MS = 200;

let dragging = false;
const watchers = new Set<() => void>();

function setDragging(now: boolean): void {
  dragging = now;
  for (const watcher of [...watchers]) watcher();
}

/** Something has been taken hold of; what takes hold of it also ends it. */
export const beginDrag = (): void => setDragging(true);

/** Does the newest of many steps at one of the next frames: a mouse reports more often than a page need be drawn. */
export function dragStep(work: () => void): void {
  if (waiting === null) requestAnimationFrame(whenDue);
  waiting = work;
}

let waiting: (() => void) | null = null;
let stepped = 0;

function whenDue(): void {
  if (waiting !== null && performance.now() - stepped < APART_MS) requestAnimationFrame(whenDue);
  else doStep();
}

function doStep(): void {
  const work = waiting;
  waiting = null;
  stepped = performance.now();
  work?.();
}

/** Does what is left of a drag now. */
export function endDrag(): void {
  doStep();
  setDragging(false);
  beat();
}

/** Whether something is being dragged. */
export const useDragging = (): boolean =>
  useSyncExternalStore(
    (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    () => dragging,
  );

const due = new Set<() => void>();
let timer: ReturnType<typeof setTimeout> | undefined;

/** Does at the next beat what need not follow a drag at every step; at once while nothing is dragged. */
export function onBeat(work: () => void): void {
  if (!dragging) {
    work();
    return;
  }
  due.add(work);
  timer ??= setTimeout(beat, BEAT_MS);
}

function beat(): void {
  clearTimeout(timer);
  timer = undefined;
  const all = [...due];
  due.clear();
  for (const work of all) work();
}
