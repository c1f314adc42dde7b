import { useEffect, useRef } from 'react';
import type { FromDeveloper } from '../picture/developProtocol';
import { type FrameWindow, WHOLE_FRAME } from '../picture/frameWindow';
import { placeInWindow } from './placeInWindow';

/** The newest picture; one of another part of the frame is shown where it belongs until the next one is there. */
export function PictureCanvas({ picture, window }: { picture: FromDeveloper | null; window: FrameWindow }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    if (!picture || !element) return;
    element.width = picture.width;
    element.height = picture.height;
    const context = element.getContext('2d');
    context?.putImageData(new ImageData(picture.pixels, picture.width, picture.height), 0, 0);
  }, [picture]);
  const sharp = picture !== null && picture.window.zoom >= 4;
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label="Picture as the camera would record it"
      style={{
        ...placeInWindow(picture?.window ?? WHOLE_FRAME, window),
        display: 'block',
        imageRendering: sharp ? 'pixelated' : 'auto',
      }}
    />
  );
}
