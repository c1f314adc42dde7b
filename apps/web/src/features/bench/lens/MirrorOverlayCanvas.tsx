import { useEffect, useRef } from 'react';
import type { MirrorOverlay } from '../figures/liveFigures';
import type { FrameWindow } from '../picture/frameWindow';
import { hatchOf } from './hatch';
import { placeInWindow } from './placeInWindow';

/** What is named at each spot: what it mirrors, or what is seen through it. */
export type ShownPart = 'mirrors' | 'through';

interface Props {
  overlay: MirrorOverlay;
  show: ShownPart;
  window: FrameWindow;
}

/** Narrower maps are drawn this wide, so that the hatches stay fine, px. */
const LEAST_WIDTH = 560;

/** Each spot of the products in the hatch of what it mirrors, or of what it shows. */
export function MirrorOverlayCanvas({ overlay, show, window }: Props) {
  const ref = useRef<HTMLCanvasElement>(null);
  const { map } = overlay;
  const width = Math.max(LEAST_WIDTH, map.width);
  const height = Math.round((width * map.height) / map.width);
  useEffect(() => {
    const context = ref.current?.getContext('2d');
    if (!context) return;
    const image = context.createImageData(width, height);
    paintMirrors(image, overlay, show);
    context.putImageData(image, 0, 0);
  }, [overlay, show, width, height]);
  return (
    <canvas
      ref={ref}
      width={width}
      height={height}
      aria-hidden
      style={placeInWindow(overlay.window, window)}
    />
  );
}

interface Paint {
  rgb: [number, number, number];
  cos: number;
  sin: number;
  gap: number;
}

/** Paints a map as large as the image, in hatches. */
export function paintMirrors(image: ImageData, { map, things }: MirrorOverlay, show: ShownPart): void {
  const { width, height, data } = image;
  const named = show === 'mirrors' ? map.mirrored : map.through;
  const paints = things.map(({ kind, key }) => paintOf(kind, key));
  const dark = paintOf('dark', null);
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y * map.height) / height) * map.width;
    for (let x = 0; x < width; x++) {
      const sample = row + Math.floor((x * map.width) / width);
      const thing = named[sample] as number;
      if (thing === -2 || things[map.thing[sample] as number]?.kind !== 'product') continue;
      const { rgb, cos, sin, gap } = thing < 0 ? dark : (paints[thing] ?? dark);
      const along = gap > 0 ? (((x * cos + y * sin) % gap) + gap) % gap : 2;
      const shade = along < 1.6 ? 0.25 : 1;
      const at = 4 * (y * width + x);
      data[at] = rgb[0] * shade;
      data[at + 1] = rgb[1] * shade;
      data[at + 2] = rgb[2] * shade;
      data[at + 3] = 215;
    }
  }
}

function paintOf(kind: string, key: string | null): Paint {
  const { tone, angleDeg, gapPx } = hatchOf(kind, key);
  const value = Number.parseInt(tone.slice(1), 16);
  const angle = ((angleDeg ?? 0) * Math.PI) / 180;
  return {
    rgb: [value >> 16, (value >> 8) & 255, value & 255],
    cos: Math.cos(angle),
    sin: Math.sin(angle),
    gap: angleDeg === null ? 0 : gapPx,
  };
}
