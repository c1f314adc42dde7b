import type { KitEntry, Light, Sheet, Vector } from '@fendrix/contract';
import { lightShape, sheetShape } from '@fendrix/core';
import { useMemo } from 'react';
import { Swatch } from '../../shared/materials/Swatch';
import { ProductThumbnail } from '../../shared/render/ProductThumbnail';
import { THUMBNAIL_WIDTH as WIDTH } from '../../shared/render/Thumbnail';
import { onPage, surround } from '../../shared/theme';

const HEIGHT = 48;

/** What an entry of the kit looks like: products and materials as a small true picture, lights and sheets as they are drawn. */
export function EntryPicture({ entry }: { entry: Pick<KitEntry, 'what' | 'thing'> }) {
  const { what, thing } = entry as KitEntry;
  if (what === 'material') return <Swatch material={thing} />;
  if (what === 'product') return <ProductThumbnail product={thing} />;
  return what === 'light' || what === 'sheet' ? <Sketch what={what} thing={thing} /> : null;
}

/** Where a sketched thing stands and what it faces: the one who looks. */
const HERE: Vector = [0, 0, 1];
const TOWARDS: Vector = [0, -1, 1];

/** Light or sheet as seen from the front, a little from above and the side, in its true shape, as large as fits. */
function Sketch({ what, thing }: { what: 'light' | 'sheet'; thing: Light | Sheet }) {
  const outlines = useMemo(() => {
    const shown = 'aimM' in thing ? { ...thing, positionM: HERE, aimM: TOWARDS, rollDeg: 0 } : thing;
    const shape = what === 'light' ? lightShape(shown as Light) : sheetShape(shown as Sheet);
    const flat = shape.map((outline) => outline.map(seenObliquely));
    const all = flat.flat();
    const [left, right] = [Math.min(...all.map(([x]) => x)), Math.max(...all.map(([x]) => x))];
    const [top, low] = [Math.min(...all.map(([, y]) => y)), Math.max(...all.map(([, y]) => y))];
    const scale = Math.min(
      (WIDTH - 12) / Math.max(1e-3, right - left),
      (HEIGHT - 10) / Math.max(1e-3, low - top),
    );
    const place = ([x, y]: readonly [number, number]) =>
      `${(WIDTH / 2 + scale * (x - (left + right) / 2)).toFixed(1)} ${(HEIGHT / 2 + scale * (y - (top + low) / 2)).toFixed(1)}`;
    return flat.map((outline) => `M${outline.map(place).join('L')}Z`);
  }, [what, thing]);
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden style={{ flex: 'none', background: surround.page }}>
      {outlines.map((d) => (
        <path
          key={d}
          d={d}
          fill={what === 'light' ? onPage.lamp : onPage.thing}
          stroke={surround.text}
          strokeWidth={0.8}
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}

const TURN = Math.PI / 5;
const TILT = Math.PI / 7;

/** A place as it is seen from the front left and above: right and down. */
function seenObliquely([x, y, z]: Vector): [number, number] {
  const across = x * Math.cos(TURN) + y * Math.sin(TURN);
  const away = y * Math.cos(TURN) - x * Math.sin(TURN);
  return [across, -(z * Math.cos(TILT) + away * Math.sin(TILT))];
}
