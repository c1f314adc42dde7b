import type { FrameWindow } from '../picture/frameWindow';

/** CSS place of something made for one part of the frame in a view that shows another. */
export function placeInWindow(made: FrameWindow, shown: FrameWindow) {
  const percent = (value: number) => `${100 * value}%`;
  return {
    position: 'absolute',
    left: percent((made.left - shown.left) * shown.zoom),
    top: percent((made.top - shown.top) * shown.zoom),
    width: percent(shown.zoom / made.zoom),
    height: percent(shown.zoom / made.zoom),
    pointerEvents: 'none',
  } as const;
}
