import type { Shape } from '@fendrix/core';
import { memo, useMemo } from 'react';
import type { Plan } from './plan';

/** Draws a thing piece by piece; each piece as the outline of its points. */
export const Pieces = memo(function Pieces({
  plan,
  shape,
  tone,
  opacity,
  shift,
}: {
  plan: Plan;
  shape: Shape;
  tone: string;
  opacity: number;
  /** SVG transform that puts it where it stands; without one the shape is where it stands. */
  shift?: string;
}) {
  const outlines = useMemo(() => shape.map((piece) => plan.outline(piece)).join(' '), [plan, shape]);
  return (
    <path
      d={outlines}
      transform={shift}
      fill={tone}
      fillOpacity={opacity}
      stroke={tone}
      strokeWidth={2}
      strokeLinejoin="round"
    />
  );
});
