import type { ZoneGrid } from '@fendrix/core';
import { useMemo } from 'react';
import { useFigure } from '../figures/figureStore';
import { useBench } from '../state/hooks';
import type { Plan } from './plan';

/** Where a source would glare in the product, and a card be seen in it: the denser the dots, the more of it. */
export function ZoneLayer({ plan }: { plan: Plan }) {
  const zones = useFigure('zones');
  const wanted = useBench((bench) => bench.zones);
  const grid = zones && (plan.kind === 'above' ? zones.above : zones.side);
  const url = useMemo(() => (grid ? drawn(grid) : null), [grid]);
  if (wanted === 'off' || !grid || !url) return null;
  const [x0, y0] = grid.fromM;
  const [wide, high] = [grid.across * grid.squareM, grid.along * grid.squareM];
  // Rows run away from the camera, or up: both are upwards in the plan.
  const [left, top] = plan.kind === 'above' ? plan.at([x0, y0 + high, 0]) : plan.at([0, x0, y0 + high]);
  return (
    <image
      href={url}
      x={left}
      y={top}
      width={wide * plan.scale}
      height={high * plan.scale}
      data-testid={`zone ${plan.kind}`}
      pointerEvents="none"
      style={{ imageRendering: 'pixelated' }}
    />
  );
}

/** Shares from a thousandth to a fifth of the surface, by their logarithm. */
const LEAST = 0.001;
const MOST = 0.2;
/** Pixels of a square: dots in it carry the share, so that it reads without colour. */
const DOTS = 3;

function drawn({ across, along, share }: ZoneGrid): string {
  const canvas = document.createElement('canvas');
  canvas.width = across * DOTS;
  canvas.height = along * DOTS;
  const context = canvas.getContext('2d');
  if (!context) return '';
  const image = context.createImageData(canvas.width, canvas.height);
  for (let j = 0; j < along; j++) {
    for (let i = 0; i < across; i++) {
      const value = share[j * across + i] as number;
      if (value < LEAST) continue;
      const strength = Math.min(1, Math.log(value / LEAST) / Math.log(MOST / LEAST));
      for (let dot = 0; dot < DOTS * DOTS; dot++) {
        const [dx, dy] = [dot % DOTS, Math.floor(dot / DOTS)];
        const middle = dx === 1 && dy === 1;
        const at = 4 * (((along - 1 - j) * DOTS + dy) * across * DOTS + i * DOTS + dx);
        image.data.set([224, 168, 74, Math.round((middle ? 120 : 40) + (middle ? 135 : 130) * strength)], at);
      }
    }
  }
  context.putImageData(image, 0, 0);
  return canvas.toDataURL();
}
