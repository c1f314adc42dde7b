import type { Vector } from '@fendrix/contract';
import { type Flat, flatInPlan, hull, type PlanKind } from '@fendrix/core';

/** Size and place of the set in a plan. */
export interface Fit {
  /** Pixels per metre. */
  scale: number;
  /** Where the mark is drawn, px. */
  originX: number;
  originY: number;
}

/** Draws points of the set into a plan. */
export interface Plan {
  kind: PlanKind;
  scale: number;
  at(point: Vector): Flat;
  /** SVG path through flat points, m. */
  path(points: readonly Flat[], close?: boolean): string;
  /** SVG path round the hull of points of the set. */
  outline(points: readonly Vector[]): string;
}

export function makePlan(kind: PlanKind, { scale, originX, originY }: Fit): Plan {
  const to = ([x, y]: Flat): Flat => [originX + x * scale, originY + y * scale];
  const path = (points: readonly Flat[], close = true) => {
    const corners = points.map((point) =>
      to(point)
        .map((value) => value.toFixed(1))
        .join(' '),
    );
    return `M${corners.join(' L')}${close ? ' Z' : ''}`;
  };
  return {
    kind,
    scale,
    path,
    at: (point) => to(flatInPlan(kind, point)),
    outline: (points) => path(hull(points.map((point) => flatInPlan(kind, point)))),
  };
}
