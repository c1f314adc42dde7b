import type { Camera } from '@fendrix/contract';
import type { FrameRect } from '../render/view.js';

/** A picture format as it is cut out of the frame. */
export interface Format {
  widthPx: number;
  heightPx: number;
  /** Kept free all round, part of the width. */
  marginPart: number;
  copySide: 'none' | 'left' | 'right' | 'top' | 'bottom';
  copyPart: number;
}

export interface FormatFit {
  /** The largest crop that holds the product clear of margins and words; null where none does. */
  crop: FrameRect | null;
  /** Place of the words within the frame. */
  copy: FrameRect | null;
  /** Pixels of the crop across; fewer than the format wants means enlarging. */
  pixelsWide: number;
  /** Crop over the largest of that ratio, 0 to 1. */
  scale: number;
  /** From the middle of what margins and words leave free to that of the product, parts of the frame. */
  off: { across: number; down: number };
}

/** What must stay free at each edge of a crop for margin and words, parts of its width and height. */
export function freeEdges({ widthPx, heightPx, marginPart, copySide, copyPart }: Format): FrameRect {
  const upright = (marginPart * widthPx) / heightPx;
  const edge = (side: Format['copySide'], margin: number) =>
    side === copySide ? Math.max(margin, copyPart) : margin;
  return {
    left: edge('left', marginPart),
    right: edge('right', marginPart),
    top: edge('top', upright),
    bottom: edge('bottom', upright),
  };
}

/**
 * The largest crop of a format within the frame whose part free of margins and words holds the product.
 * Closed form: every condition is linear in the size of the crop.
 * @param product its outline box in the frame  @param frame pixels of the whole frame
 */
export function fitFormat(
  product: FrameRect,
  format: Format,
  frame: { pixelsWide: number; pixelsHigh: number },
): FormatFit {
  const frameRatio = frame.pixelsWide / frame.pixelsHigh;
  const ratio = format.widthPx / format.heightPx;
  const width = Math.min(1, ratio / frameRatio);
  const height = Math.min(1, frameRatio / ratio);
  const free = freeEdges(format);
  const across = range(product.left, product.right, free.left, free.right, width);
  const down = range(product.top, product.bottom, free.top, free.bottom, height);
  const scale = Math.min(1, across.most, down.most);
  const least = Math.max(across.least, down.least);
  if (!(scale > 0 && scale >= least))
    return { crop: null, copy: null, pixelsWide: 0, scale: 0, off: { across: 0, down: 0 } };
  const left = place(product.left, product.right, free.left, free.right, width * scale);
  const top = place(product.top, product.bottom, free.top, free.bottom, height * scale);
  const crop = { left, top, right: left + width * scale, bottom: top + height * scale };
  const pixelsWide = Math.floor(frame.pixelsWide * width * scale);
  const off = {
    across: (product.left + product.right) / 2 - left - ((free.left + 1 - free.right) / 2) * width * scale,
    down: (product.top + product.bottom) / 2 - top - ((free.top + 1 - free.bottom) / 2) * height * scale,
  };
  return { crop, copy: wordsRect(crop, format), pixelsWide, scale, off };
}

/** Smallest and largest scale of a crop along one way. */
function range(from: number, to: number, before: number, after: number, size: number) {
  const free = 1 - before - after;
  return {
    least: free > 1e-3 ? (to - from) / (free * size) : Infinity,
    most: Math.min(
      before > 0 ? from / (before * size) : Infinity,
      after > 0 ? (1 - to) / (after * size) : Infinity,
    ),
  };
}

/** Where a crop starts: the product in the middle of the free part, as far as the frame allows. */
function place(from: number, to: number, before: number, after: number, size: number): number {
  const centred = (from + to) / 2 - (before + (1 - after)) * (size / 2);
  const least = Math.max(0, to - (1 - after) * size);
  const most = Math.min(1 - size, from - before * size);
  return Math.min(most, Math.max(least, centred));
}

/** Where the words of a format stand within its crop; null where it has none. */
export function wordsRect(
  crop: FrameRect,
  { copySide, copyPart }: Pick<Format, 'copySide' | 'copyPart'>,
): FrameRect | null {
  if (copySide === 'none' || copyPart === 0) return null;
  const width = copyPart * (crop.right - crop.left);
  const height = copyPart * (crop.bottom - crop.top);
  if (copySide === 'left') return { ...crop, right: crop.left + width };
  if (copySide === 'right') return { ...crop, left: crop.right - width };
  if (copySide === 'top') return { ...crop, bottom: crop.top + height };
  return { ...crop, top: crop.bottom - height };
}

/** A crop of a set's camera within the frame: of its shape, as large as it says, moved and kept within the frame. */
export function cropRect({ body }: Pick<Camera, 'body'>, crop: Camera['crops'][number]): FrameRect {
  const frame = body.sensorWidthM / body.sensorHeightM;
  const shape = crop.widthPx / crop.heightPx;
  const width = crop.scale * Math.min(1, shape / frame);
  const height = crop.scale * Math.min(1, frame / shape);
  const start = (size: number, shift: number) => Math.max(0, Math.min(1 - size, (1 - size) / 2 + shift));
  const [left, top] = [start(width, crop.shiftAcross), start(height, crop.shiftDown)];
  return { left, top, right: left + width, bottom: top + height };
}

/** Whether a place of the frame, parts of its width and height from the left and top, is kept: by any crop, or where there is none. */
export function isKept({ body, crops }: Pick<Camera, 'body' | 'crops'>, x: number, y: number): boolean {
  return (
    crops.length === 0 ||
    crops.some((crop) => {
      const { left, top, right, bottom } = cropRect({ body }, crop);
      return x > left && x < right && y > top && y < bottom;
    })
  );
}

/** A format as a crop of a set's camera, where it was fitted; in the middle where it did not fit. */
export function cropOf(
  format: Format & { name: string },
  { crop, scale }: FormatFit,
): Camera['crops'][number] {
  const { name, widthPx, heightPx, copySide, copyPart } = format;
  const shift = (from: number, to: number) => Math.round(1e4 * ((from + to) / 2 - 0.5)) / 1e4;
  return {
    name,
    widthPx,
    heightPx,
    shiftAcross: crop ? shift(crop.left, crop.right) : 0,
    shiftDown: crop ? shift(crop.top, crop.bottom) : 0,
    scale: crop ? Math.max(0.05, Math.floor(1e4 * scale) / 1e4) : 1,
    copySide,
    copyPart,
  };
}
