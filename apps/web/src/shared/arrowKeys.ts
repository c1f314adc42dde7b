import type { KeyboardEvent } from 'react';

const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/**
 * The move that an arrow key asks for, right and up; null for other keys, which go on their way.
 * @param steps plain, with Shift, with Alt
 */
export function arrowMove(
  event: KeyboardEvent,
  steps: { plain: number; wide?: number; fine?: number },
): [number, number] | null {
  const way = WAYS[event.key];
  if (!way) return null;
  event.preventDefault();
  event.stopPropagation();
  const { plain, wide = plain, fine = plain } = steps;
  const step = event.shiftKey ? wide : event.altKey ? fine : plain;
  return [way[0] * step, way[1] * step];
}
