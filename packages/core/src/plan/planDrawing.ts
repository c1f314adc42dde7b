import type { SetDocument, Vector } from '@fendrix/contract';
import { backdropProfile, liesOnTable } from '../geometry/backdrop.js';
import { type Flat, hull } from '../geometry/hull.js';
import { cameraShape, lightShape, productShape, type Shape, sheetShape } from '../geometry/shape.js';
import { radians } from '../units/angle.js';
import { add, scale, turnUpright } from '../units/vector.js';
import { benchCorners, coneOfView, flatInPlan, type PlanKind, productOutline } from './planGeometry.js';

/** One outline of a drawing: what it is of, and its corners, m right and down from the centre of the set. */
export interface PlanOutline {
  of: 'table' | 'background' | 'view' | 'product' | 'light' | 'sheet' | 'camera';
  corners: Flat[];
  /** Lines that do not come back to where they began are open. */
  closed: boolean;
}

/** A set drawn from above or from the side, to be printed to scale. */
export interface PlanDrawing {
  kind: PlanKind;
  outlines: PlanOutline[];
  /** Tags of lights and sheets, where their middles are. */
  tags: { text: string; of: 'light' | 'sheet'; at: Flat }[];
  /** Corners of what is drawn. */
  low: Flat;
  high: Flat;
}

/** How far beyond the point it aims at the cone of view is drawn. */
const BEYOND = 1.15;

/** The outlines of all that stands on a set and is built; the light from all round and the room are not drawn. */
export function planDrawing(kind: PlanKind, set: SetDocument): PlanDrawing {
  const pieces = (of: PlanOutline['of'], shape: Shape): PlanOutline[] =>
    shape.map((points) => ({
      of,
      corners: hull(points.map((point) => flatInPlan(kind, point))),
      closed: true,
    }));
  const reachM =
    BEYOND * Math.hypot(...set.camera.aimM.map((v, i) => v - (set.camera.positionM[i] as number)));
  const lights = set.lights.filter((light) => light.kind !== 'surround');
  const outlines: PlanOutline[] = [
    ...(set.bench ? pieces('table', [benchCorners(set.bench)]) : []),
    ...backgroundOf(kind, set),
    { of: 'view', corners: coneOfView(kind, set.camera, reachM), closed: true },
    ...set.products.flatMap((product) => {
      const plain = product.lean ? [] : productOutline(kind, product);
      return plain.length > 0
        ? [{ of: 'product' as const, corners: plain, closed: true }]
        : pieces('product', productShape(product));
    }),
    ...lights.flatMap((light) => pieces('light', lightShape(light))),
    ...set.sheets.flatMap((sheet) => pieces('sheet', sheetShape(sheet))),
    ...pieces('camera', cameraShape(withoutLegs(set))),
  ];
  const tags = [
    ...lights.map(({ tag, positionM }) => ({ text: tag, of: 'light' as const, at: positionM })),
    ...set.sheets.map(({ tag, positionM }) => ({ text: tag, of: 'sheet' as const, at: positionM })),
  ].map(({ at, ...tag }) => ({ ...tag, at: flatInPlan(kind, at as Vector) }));
  const all = [...outlines.flatMap(({ corners }) => corners), ...tags.map(({ at }) => at)];
  const ends = (pick: (...values: number[]) => number): Flat => [
    pick(...all.map(([right]) => right)),
    pick(...all.map(([, down]) => down)),
  ];
  return { kind, outlines, tags, low: ends(Math.min), high: ends(Math.max) };
}

/** Body and lens alone: the legs of a stand would only cover the rest. */
function withoutLegs(set: SetDocument): SetDocument {
  const { camera } = set;
  return camera.rig ? { ...set, camera: { ...camera, rig: { ...camera.rig, tripod: false } } } : set;
}

function backgroundOf(kind: PlanKind, { backdrop }: SetDocument): PlanOutline[] {
  if (!backdrop) return [];
  const line = (points: readonly Vector[]): PlanOutline[] => [
    { of: 'background', corners: points.map((point) => flatInPlan(kind, point)), closed: false },
  ];
  if (!liesOnTable(backdrop)) {
    const { centreM, widthM, heightM, turnDeg } = backdrop;
    const across = turnUpright([widthM / 2, 0, 0], radians(turnDeg));
    const up: Vector = [0, 0, heightM / 2];
    return kind === 'above'
      ? line([add(centreM, scale(across, -1)), add(centreM, across)])
      : line([add(centreM, scale(up, -1)), add(centreM, up)]);
  }
  if (kind === 'side') return line(backdropProfile(backdrop).map(([y, z]): Vector => [0, y, z]));
  const { widthM, frontM, backM } = backdrop;
  const [left, right] = [-widthM / 2, widthM / 2];
  return line([
    [left, frontM, 0],
    [left, backM, 0],
    [right, backM, 0],
    [right, frontM, 0],
  ]);
}
