import type { MirrorOverlay } from '../figures/liveFigures';
import type { ShownPart } from './MirrorOverlayCanvas';

export interface RegionTag {
  tag: string;
  /** Place in the picture, 0 to 1 across and down. */
  across: number;
  down: number;
}

/** An image smaller than this part of the picture gets no tag: it would hide what it names. */
const SMALLEST_PART = 0.0008;

/** Where on the products the images of lights and sheets are tagged: once each, well within the image. */
export function regionTags({ map, things }: MirrorOverlay, show: ShownPart = 'mirrors'): RegionTag[] {
  const { width, height, thing } = map;
  const named = show === 'mirrors' ? map.mirrored : map.through;
  const counts = new Float64Array(things.length);
  const sumX = new Float64Array(things.length);
  const sumY = new Float64Array(things.length);
  const tagged = things.map(({ kind }) => kind === 'light' || kind === 'sheet');
  const isProduct = things.map(({ kind }) => kind === 'product');
  const each = (visit: (image: number, x: number, y: number) => void) => {
    for (let pixel = 0; pixel < named.length; pixel++) {
      const image = named[pixel] as number;
      if (!tagged[image] || !isProduct[thing[pixel] as number]) continue;
      visit(image, pixel % width, Math.floor(pixel / width));
    }
  };
  each((image, x, y) => {
    counts[image] = (counts[image] as number) + 1;
    sumX[image] = (sumX[image] as number) + x;
    sumY[image] = (sumY[image] as number) + y;
  });
  // A bent image may not contain its own middle: take its pixel nearest to it.
  const nearest = things.map(() => ({ gap: Number.POSITIVE_INFINITY, x: 0, y: 0 }));
  each((image, x, y) => {
    const count = counts[image] as number;
    const gap = Math.hypot(x - (sumX[image] as number) / count, y - (sumY[image] as number) / count);
    const best = nearest[image];
    if (best && gap < best.gap) Object.assign(best, { gap, x, y });
  });
  return things.flatMap(({ key }, image) => {
    const place = nearest[image];
    if (!place || (counts[image] as number) < SMALLEST_PART * width * height) return [];
    return [{ tag: key, across: (place.x + 0.5) / width, down: (place.y + 0.5) / height }];
  });
}
