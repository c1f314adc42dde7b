/** A rectangle within the frame, 0 to 1 right and down. */
export interface FrameRect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

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
}

/** Parts of a crop that must stay free: left, top, right, bottom. */
function freeEdges({ widthPx, heightPx, marginPart, copySide, copyPart }: Format): FrameRect {
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
  if (!(scale > 0 && scale >= least)) return { crop: null, copy: null, pixelsWide: 0, scale: 0 };
  const left = place(product.left, product.right, free.left, free.right, width * scale);
  const top = place(product.top, product.bottom, free.top, free.bottom, height * scale);
  const crop = { left, top, right: left + width * scale, bottom: top + height * scale };
  const pixelsWide = Math.floor(frame.pixelsWide * width * scale);
  return { crop, copy: copyRect(crop, format), pixelsWide, scale };
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

function copyRect(crop: FrameRect, { copySide, copyPart }: Format): FrameRect | null {
  if (copySide === 'none' || copyPart === 0) return null;
  const width = copyPart * (crop.right - crop.left);
  const height = copyPart * (crop.bottom - crop.top);
  if (copySide === 'left') return { ...crop, right: crop.left + width };
  if (copySide === 'right') return { ...crop, left: crop.right - width };
  if (copySide === 'top') return { ...crop, bottom: crop.top + height };
  return { ...crop, top: crop.bottom - height };
}
