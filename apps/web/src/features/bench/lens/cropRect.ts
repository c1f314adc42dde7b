import type { Camera } from '@fendrix/contract';
import type { FrameRect } from '@fendrix/core';

/** A crop as large as the frame holds in its shape, moved as asked and kept within the frame. */
export function cropRect({ body }: Camera, crop: Camera['crops'][number]): FrameRect {
  const frame = body.sensorWidthM / body.sensorHeightM;
  const shape = crop.widthPx / crop.heightPx;
  const width = Math.min(1, shape / frame);
  const height = Math.min(1, frame / shape);
  const start = (size: number, shift: number) => Math.max(0, Math.min(1 - size, (1 - size) / 2 + shift));
  const [left, top] = [start(width, crop.shiftAcross), start(height, crop.shiftDown)];
  return { left, top, right: left + width, bottom: top + height };
}
