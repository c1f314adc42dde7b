import type { Bench, Camera, Product, SetDocument, Vector } from '@fendrix/contract';
import { type Flat, hull } from '../geometry/hull.js';
import { outlinePieces } from '../geometry/products/outline.js';
import { lightShape, sheetShape } from '../geometry/shape.js';
import { viewOf } from '../render/view.js';
import { radians } from '../units/angle.js';
import { aimFrame } from '../units/frame.js';
import { add, scale, turnUpright } from '../units/vector.js';

/** A plan looks along one axis: from above, or from camera left with the camera at the left edge. */
export type PlanKind = 'above' | 'side';

export function flatInPlan(kind: PlanKind, [x, y, z]: Vector): Flat {
  return kind === 'above' ? [x, -y] : [y, -z];
}

/** Moves a point by a distance in the plan, m right and down; what the plan cannot show stays. */
export function shiftInPlan(kind: PlanKind, [x, y, z]: Vector, right: number, down: number): Vector {
  return kind === 'above' ? [x + right, y - down, z] : [x, y + right, z - down];
}

interface Rectangle {
  positionM: Vector;
  aimM: Vector;
  rollDeg: number;
  widthM: number;
  heightM: number;
}

/** Corners of a light's or sheet's face, moved back from it by a depth. */
export function faceCorners(thing: Rectangle, backM = 0): Vector[] {
  const { right, up, forward } = aimFrame(thing.positionM, thing.aimM, thing.rollDeg);
  const centre = add(thing.positionM, scale(forward, -backM));
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([a = 0, b = 0]) =>
    add(centre, add(scale(right, (a * thing.widthM) / 2), scale(up, (b * thing.heightM) / 2))),
  );
}

/** Outline of a turned or box-shaped product in a plan; nothing for others, which are drawn by their pieces. */
export function productOutline(kind: PlanKind, product: Product): Flat[] {
  const at = product.positionM;
  if (product.kind === 'box') {
    const corners = [0, product.heightM].flatMap((z) =>
      [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ].map(
        ([a = 0, b = 0]): Vector =>
          add(
            at,
            add(
              turnUpright([(a * product.widthM) / 2, (b * product.depthM) / 2, 0], radians(product.turnDeg)),
              [0, 0, z],
            ),
          ),
      ),
    );
    return hull(corners.map((corner) => flatInPlan(kind, corner)));
  }
  if (product.kind !== 'turned') return [];
  const pieces = outlinePieces(product.profile);
  if (kind === 'above') {
    const radius = Math.max(...pieces.map(({ lower, upper }) => Math.max(lower.r, upper.r)));
    return Array.from({ length: 36 }, (_, i): Flat => {
      const angle = (i / 36) * 2 * Math.PI;
      return flatInPlan(kind, add(at, [radius * Math.cos(angle), radius * Math.sin(angle), 0]));
    });
  }
  const right = pieces.flatMap(({ lower, upper }) => [lower, upper]);
  const side = (sign: number) => right.map(({ r, z }) => flatInPlan(kind, add(at, [0, sign * r, z])));
  return [...side(1), ...side(-1).reverse()];
}

/** Ends of the camera's cone of view at the distance of its aim point and beyond. */
export function coneOfView(kind: PlanKind, camera: Camera, reachM: number): Flat[] {
  const view = viewOf(camera);
  const across = kind === 'above' ? scale(view.right, view.halfWidth) : scale(view.up, view.halfHeight);
  const end = (sign: number) => add(view.origin, scale(add(view.forward, scale(across, sign)), reachM));
  return [view.origin, end(-1), end(1)].map((point) => flatInPlan(kind, point));
}

export function benchCorners({ centreM: [x, y], widthM, depthM, thicknessM }: Bench): Vector[] {
  return [-1, 1].flatMap((sx) =>
    [-1, 1].flatMap((sy) =>
      [0, -thicknessM].map((z): Vector => [x + (sx * widthM) / 2, y + (sy * depthM) / 2, z]),
    ),
  );
}

/** Everything that should be within the plan, for its first fit. */
export function planExtent(kind: PlanKind, set: SetDocument): { min: Flat; max: Flat } {
  const points: Vector[] = [set.camera.positionM, [0, 0, 0]];
  for (const light of set.lights) {
    if (light.kind === 'softbox') points.push(...faceCorners(light, 0.12));
    else points.push(...lightShape(light).flat());
  }
  for (const sheet of set.sheets) points.push(...sheetShape(sheet).flat());
  if (set.backdrop?.kind === 'panel') points.push(set.backdrop.centreM);
  else if (set.backdrop) {
    const { widthM, frontM, backM, heightM } = set.backdrop;
    points.push([-widthM / 2, frontM, 0], [widthM / 2, backM, heightM]);
  }
  if (set.bench) points.push(...benchCorners(set.bench));
  const flats = points.map((point) => flatInPlan(kind, point));
  return {
    min: [Math.min(...flats.map(([a]) => a)), Math.min(...flats.map(([, b]) => b))],
    max: [Math.max(...flats.map(([a]) => a)), Math.max(...flats.map(([, b]) => b))],
  };
}
