import type { Flat, PlanDrawing } from '@fendrix/core';

/** Scales that a ruler has. */
const SCALES = [2, 5, 10, 20, 25, 50, 100, 200, 500];

/** Where points of a drawing lie on paper, mm from its upper left corner. */
export interface PlanOnPaper {
  /** Metres of the set to one metre of paper. */
  scale: number;
  widthMm: number;
  heightMm: number;
  at(point: Flat): Flat;
}

/** Room for the tags of what stands at the edge, mm. */
const MARGIN_MM = 4;

const sizeMm = ({ low, high }: PlanDrawing, axis: 0 | 1, scale: number): number =>
  (1000 * (high[axis] - low[axis])) / scale + 2 * MARGIN_MM;

/** The largest scale at which all of some drawings fit each into a field of the paper, mm: so they can be read side by side. */
export function commonScale(
  drawings: readonly PlanDrawing[],
  mostWideMm: number,
  mostHighMm: number,
): number {
  const fits = (scale: number) =>
    drawings.every(
      (drawing) => sizeMm(drawing, 0, scale) <= mostWideMm && sizeMm(drawing, 1, scale) <= mostHighMm,
    );
  return SCALES.find(fits) ?? (SCALES.at(-1) as number);
}

export function planOnPaper(drawing: PlanDrawing, scale: number): PlanOnPaper {
  const { low } = drawing;
  return {
    scale,
    widthMm: sizeMm(drawing, 0, scale),
    heightMm: sizeMm(drawing, 1, scale),
    at: ([right, down]) => [
      MARGIN_MM + (1000 * (right - low[0])) / scale,
      MARGIN_MM + (1000 * (down - low[1])) / scale,
    ],
  };
}

/** An outline as the path of an SVG drawing, mm. */
export function pathOf({ corners, closed }: PlanDrawing['outlines'][number], { at }: PlanOnPaper): string {
  const points = corners.map((corner) =>
    at(corner)
      .map((value) => value.toFixed(2))
      .join(' '),
  );
  return `M${points.join(' L')}${closed ? ' Z' : ''}`;
}

/** How outlines are drawn: ink from 0 black to 1 white, lines in mm. In black and white they are told apart by line and tone. */
export const PEN: Readonly<
  Record<PlanDrawing['outlines'][number]['of'], { lineMm: number; fill: number | null; dashMm?: number }>
> = {
  table: { lineMm: 0.15, fill: null },
  background: { lineMm: 0.6, fill: null },
  view: { lineMm: 0.1, fill: null, dashMm: 1 },
  product: { lineMm: 0.2, fill: 0.75 },
  light: { lineMm: 0.35, fill: 1 },
  sheet: { lineMm: 0.35, fill: 0.45 },
  camera: { lineMm: 0.25, fill: 0.2 },
};

/** Side of a tag, mm. */
export const TAG_MM = 3.6;
