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
  const isTagged = Uint8Array.from(things, ({ kind }) => Number(kind === 'light' || kind === 'sheet'));
  const isProduct = Uint8Array.from(things, ({ kind }) => Number(kind === 'product'));
  /** What is tagged of what a product shows at a pixel; -1 for nothing. */
  const imageAt = (pixel: number): number => {
    const [image, shown] = [named[pixel] as number, thing[pixel] as number];
    return image >= 0 && shown >= 0 && isTagged[image] === 1 && isProduct[shown] === 1 ? image : -1;
  };
  for (let y = 0, pixel = 0; y < height; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      const image = imageAt(pixel);
      if (image < 0) continue;
      counts[image] = (counts[image] as number) + 1;
      sumX[image] = (sumX[image] as number) + x;
      sumY[image] = (sumY[image] as number) + y;
    }
  }
  // A bent image may not contain its own middle: take its pixel nearest to it.
  const nearest = things.map(() => ({ gap: Number.POSITIVE_INFINITY, x: 0, y: 0 }));
  for (let y = 0, pixel = 0; y < height; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      const image = imageAt(pixel);
      const best = nearest[image];
      if (!best) continue;
      const count = counts[image] as number;
      const gap = Math.hypot(x - (sumX[image] as number) / count, y - (sumY[image] as number) / count);
      if (gap < best.gap) Object.assign(best, { gap, x, y });
    }
  }
  return things.flatMap(({ key }, image) => {
    const place = nearest[image];
    if (!place || (counts[image] as number) < SMALLEST_PART * width * height) return [];
    return [{ tag: key, across: (place.x + 0.5) / width, down: (place.y + 0.5) / height }];
  });
}
