import type { FrameRect, Tile } from '@fendrix/core';

/** The part of the frame that the lens view shows: the whole, or some of it magnified. */
export interface FrameWindow {
  /** How many times larger than the whole frame would be shown. */
  zoom: number;
  /** Left and upper edge, parts of the frame. */
  left: number;
  top: number;
}

export const WHOLE_FRAME: FrameWindow = { zoom: 1, left: 0, top: 0 };

/** Keeps a window within the frame. @param mostZoom at which a pixel of the sensor is one of the screen */
export function withinFrame({ zoom, left, top }: FrameWindow, mostZoom: number): FrameWindow {
  const kept = Math.max(1, Math.min(mostZoom, zoom));
  const most = 1 - 1 / kept;
  return { zoom: kept, left: Math.max(0, Math.min(most, left)), top: Math.max(0, Math.min(most, top)) };
}

/** Zooms by a factor while a place of the frame stays where it is shown. */
export function zoomedAt(
  window: FrameWindow,
  factor: number,
  [u, v]: readonly [number, number],
  most: number,
): FrameWindow {
  const zoom = Math.max(1, Math.min(most, window.zoom * factor));
  const keep = (edge: number, place: number) => place - ((place - edge) * window.zoom) / zoom;
  return withinFrame({ zoom, left: keep(window.left, u), top: keep(window.top, v) }, most);
}

/** Frame place shown at a place of the view, both in parts. */
export const toFrame = ({ zoom, left, top }: FrameWindow, x: number, y: number): [number, number] => [
  left + x / zoom,
  top + y / zoom,
];

/** Place of the view at which a frame place is shown, in parts; may lie outside of 0 to 1. */
export const toView = ({ zoom, left, top }: FrameWindow, across: number, down: number): [number, number] => [
  (across - left) * zoom,
  (down - top) * zoom,
];

/** A part of the frame as a rectangle of a view of so many pixels. */
export function boxInView(window: FrameWindow, rect: FrameRect, width: number, height: number) {
  const [x0, y0] = toView(window, rect.left, rect.top);
  const [x1, y1] = toView(window, rect.right, rect.bottom);
  return { x: x0 * width, y: y0 * height, width: (x1 - x0) * width, height: (y1 - y0) * height };
}

/** A magnified picture: its whole size, px, and the part of it that is traced. */
export function pictureOf(
  window: FrameWindow,
  width: number,
  aspect: number,
): { width: number; height: number; part: Tile } {
  const whole = Math.max(1, Math.round(width * window.zoom));
  const wholeHigh = Math.max(1, Math.round(whole / aspect));
  const part: Tile = {
    x: Math.min(whole - 1, Math.round(window.left * whole)),
    y: Math.min(wholeHigh - 1, Math.round(window.top * wholeHigh)),
    width: Math.min(whole, width),
    height: Math.max(1, Math.min(wholeHigh, Math.round(width / aspect))),
  };
  part.x = Math.min(part.x, whole - part.width);
  part.y = Math.min(part.y, wholeHigh - part.height);
  return { width: whole, height: wholeHigh, part };
}
