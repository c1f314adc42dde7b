import type { CameraBody, CameraLens } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { type Bounds, cornersOf, joinBounds } from '../geometry/bounds.js';
import type { FrameRect } from '../render/view.js';
import { viewOf } from '../render/view.js';
import type { Format } from './frameFit.js';
import { outlineOf, type PlacedCamera, placeCamera } from './placeCamera.js';

export interface SeriesItem {
  id: string;
  /** With its foot on the bench at the mark, m. */
  bounds: Bounds;
}

export interface SeriesPlace {
  id: string;
  /** Height of the riser under it, m. */
  liftM: number;
  /** Part of the frame it will fill in the tighter way. */
  fillPart: number;
  /** Another lens would show it larger: it fills less than half of what the largest does. */
  wantsOwnLens: boolean;
  /** Its outline box in the frame. */
  outline: FrameRect;
}

export interface Series {
  placed: PlacedCamera;
  /** Largest first, so that the camera is set once. */
  places: SeriesPlace[];
}

export interface SeriesWish {
  body: CameraBody;
  lens: CameraLens;
  tiltDeg: number;
  fillPart: number;
  fNumber: number;
  formats: readonly Format[];
  /** What stays on one line in the pictures: the feet, or the middles. */
  align: 'base' | 'centre';
  /** Box that the camera must stay in, m from the mark. */
  within?: Bounds | undefined;
}

/**
 * One camera for several products: it fits the largest; each stands on a riser so that base or centre agrees.
 * @throws {DomainError} no product
 */
export function planSeries(items: readonly SeriesItem[], wish: SeriesWish): Series {
  requireDomain(items.length > 0, 'a series has a product');
  const highest = Math.max(...items.map(tall));
  const lifted = items.map((item) => {
    const liftM = wish.align === 'centre' ? (highest - tall(item)) / 2 : 0;
    return { item, liftM, bounds: raise(item.bounds, liftM) };
  });
  const whole = lifted.map(({ bounds }) => bounds).reduce(joinBounds);
  const placed = placeCamera({ ...wish, product: whole });
  const view = viewOf(placed.camera);
  const places = lifted.map(({ item, liftM, bounds }) => {
    const outline = outlineOf(view, cornersOf(bounds));
    const fillPart = Math.max(outline.right - outline.left, outline.bottom - outline.top);
    return { id: item.id, liftM, fillPart, wantsOwnLens: false, outline };
  });
  const most = Math.max(...places.map(({ fillPart }) => fillPart));
  for (const place of places) place.wantsOwnLens = place.fillPart < most / 2;
  return { placed, places: places.sort((a, b) => b.fillPart - a.fillPart) };
}

const tall = ({ bounds }: { bounds: Bounds }) => bounds.high[2] - bounds.low[2];

const raise = ({ low, high }: Bounds, by: number): Bounds => ({
  low: [low[0], low[1], low[2] + by],
  high: [high[0], high[1], high[2] + by],
});
