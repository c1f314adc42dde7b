import type { Camera } from '@fendrix/contract';
import { pointBlur } from '@fendrix/core';
import { useEffect, useRef } from 'react';
import type { DepthOverlay } from '../figures/liveFigures';
import type { FrameWindow } from '../picture/frameWindow';
import { placeInWindow } from './placeInWindow';

/** Blur by defocus and diffraction, in pixels of the sensor, at which a spot counts as sharp, soft, and lost. */
const SHARP_PX = 2.5;
const SOFT_PX = 6;

/** Where the picture is sharp: clear; soft: dotted; unsharp: barred, with a line where the plane of focus lies. */
export function FocusLayer({
  overlay,
  window,
  camera,
}: {
  overlay: DepthOverlay;
  window: FrameWindow;
  camera: Camera;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, depth } = overlay;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const image = context.createImageData(width, height);
    paintFocus(image, depth, camera);
    context.putImageData(image, 0, 0);
  }, [depth, width, height, camera]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      role="img"
      aria-label={`Sharpness: clear where blur is below ${SHARP_PX} pixels of the sensor, dotted up to ${SOFT_PX}, barred beyond`}
      style={placeInWindow(overlay.window, window)}
    />
  );
}

function paintFocus({ data, width }: ImageData, depth: Float32Array, camera: Camera): void {
  // Blur follows from depth alone: asked once for each of many depths instead of for each pixel.
  const blurAt = tabled((depthM) => pointBlur(camera, depthM).pixels);
  for (let i = 0; i < depth.length; i++) {
    const here = depth[i] as number;
    if (Number.isNaN(here)) continue;
    const x = i % width;
    const y = (i - x) / width;
    const next = depth[i + 1];
    const crosses =
      next !== undefined &&
      x + 1 < width &&
      (here - camera.focusM) * (next - camera.focusM) <= 0 &&
      Math.abs(next - here) < 0.02;
    const blur = blurAt(here);
    if (crosses) paint(data, i, [90, 230, 200, 255]);
    else if (blur > SOFT_PX && (x + y) % 6 < 2) paint(data, i, [235, 120, 40, 230]);
    else if (blur > SHARP_PX && blur <= SOFT_PX && x % 4 === 0 && y % 4 === 0)
      paint(data, i, [255, 205, 80, 255]);
  }
}

const TABLE = 2048;
const NEAR_M = 0.02;
const FAR_M = 40;

function tabled(of: (depthM: number) => number): (depthM: number) => number {
  const values = Float32Array.from({ length: TABLE }, (_, i) =>
    of(NEAR_M * (FAR_M / NEAR_M) ** (i / (TABLE - 1))),
  );
  const scale = (TABLE - 1) / Math.log(FAR_M / NEAR_M);
  return (depthM) =>
    values[Math.max(0, Math.min(TABLE - 1, Math.round(scale * Math.log(depthM / NEAR_M))))] as number;
}

function paint(data: Uint8ClampedArray, pixel: number, rgba: readonly number[]): void {
  for (let c = 0; c < 4; c++) data[4 * pixel + c] = rgba[c] as number;
}
