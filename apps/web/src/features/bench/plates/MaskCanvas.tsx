import { useEffect, useRef } from 'react';
import { placeInWindow } from '../lens/placeInWindow';
import type { FromDeveloper } from '../picture/developProtocol';
import type { FrameWindow } from '../picture/frameWindow';

/** The mask of the chosen plate over the picture: what is not taken is hatched. */
export function MaskCanvas({
  picture,
  mask,
  window,
}: {
  picture: FromDeveloper;
  mask: Uint8ClampedArray<ArrayBuffer>;
  window: FrameWindow;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = picture;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(mask, width, height), 0, 0);
  }, [mask, width, height]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      role="img"
      aria-label="What the plate takes; hatched where it takes nothing"
      style={placeInWindow(picture.window, window)}
    />
  );
}
