import { useEffect, useMemo, useRef } from 'react';
import type { MirrorOverlay } from '../figures/liveFigures';
import { paintMirrors } from '../lens/MirrorOverlayCanvas';
import { MirrorTags } from '../lens/MirrorTags';
import { regionTags } from '../lens/regionTags';

const HEIGHT = 132;
/** Room for the tags beside the map, px. */
const ASIDE = 90;

/** The product alone, enlarged, each spot in the hatch of what it mirrors: all a dome shows of the room. */
export function DomeMap({ overlay, product }: { overlay: MirrorOverlay; product: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const cut = useMemo(() => cutOut(overlay, product), [overlay, product]);
  const found = useMemo(() => (cut ? regionTags(cut) : []), [cut]);
  const width = cut ? Math.round((HEIGHT * cut.map.width) / cut.map.height) : 0;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !cut || width === 0) return;
    const image = context.createImageData(width, HEIGHT);
    paintMirrors(image, cut, 'mirrors');
    context.putImageData(image, 0, 0);
  }, [cut, width]);
  if (!cut || width === 0) return null;
  const tags = found.map(({ tag, across, down }) => ({
    tag,
    across: (ASIDE + across * width) / (width + 2 * ASIDE),
    down,
  }));
  return (
    <div style={{ position: 'relative', width: width + 2 * ASIDE, height: HEIGHT }} data-testid="dome-map">
      <canvas
        ref={canvas}
        width={width}
        height={HEIGHT}
        role="img"
        aria-label="Map of what each spot of it mirrors"
        style={{ position: 'absolute', left: ASIDE, top: 0 }}
      />
      <svg width={width + 2 * ASIDE} height={HEIGHT} aria-hidden style={{ position: 'absolute', inset: 0 }}>
        <MirrorTags tags={tags} width={width + 2 * ASIDE} height={HEIGHT} />
      </svg>
    </div>
  );
}

/** The part of the map that holds a product; null where it is not seen. */
function cutOut({ map, things, window }: MirrorOverlay, product: string): MirrorOverlay | null {
  const index = things.findIndex(({ kind, key }) => kind === 'product' && key === product);
  let [left, right, top, bottom] = [map.width, -1, map.height, -1];
  map.thing.forEach((thing, pixel) => {
    if (thing !== index) return;
    const x = pixel % map.width;
    const y = (pixel - x) / map.width;
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  });
  if (right < left) return null;
  const [width, height] = [right - left + 1, bottom - top + 1];
  const cut = <A extends Int32Array | Float32Array>(list: A): A => {
    const part = new (list.constructor as new (length: number) => A)(width * height);
    for (let y = 0; y < height; y++) {
      const from = (top + y) * map.width + left;
      part.set(list.subarray(from, from + width), y * width);
    }
    return part;
  };
  const { thing, mirrored, weight, through, throughWeight } = map;
  return {
    things,
    window,
    map: {
      ...map,
      width,
      height,
      thing: cut(thing),
      mirrored: cut(mirrored),
      weight: cut(weight),
      through: cut(through),
      throughWeight: cut(throughWeight),
    },
  };
}
