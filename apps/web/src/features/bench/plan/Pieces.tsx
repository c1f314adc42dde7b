import type { Shape } from '@fendrix/core';
import { memo } from 'react';
import type { Plan } from './plan';

/** Draws a thing piece by piece; each piece as the outline of its points. */
export const Pieces = memo(function Pieces({
  plan,
  shape,
  tone,
  opacity,
}: {
  plan: Plan;
  shape: Shape;
  tone: string;
  opacity: number;
}) {
  return (
    <path
      d={shape.map((piece) => plan.outline(piece)).join(' ')}
      fill={tone}
      fillOpacity={opacity}
      stroke={tone}
      strokeWidth={2}
      strokeLinejoin="round"
    />
  );
});
