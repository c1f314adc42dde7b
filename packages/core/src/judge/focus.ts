import type { Camera, SetDocument, Vector } from '@fendrix/contract';
import { cornersOf } from '../geometry/bounds.js';
import { productBounds } from '../geometry/shape.js';
import { depthOfField, lensFigures } from '../optics/lens.js';
import { viewOf } from '../render/view.js';
import { add, dot, scale, subtract } from '../units/vector.js';

/** Depth of a point along the lens axis, from the entrance pupil, m. */
export function depthAlongLens(camera: Camera, pointM: Vector): number {
  const { origin, forward } = viewOf(camera);
  return dot(subtract(pointM, origin), forward);
}

/** A product within this distance of the point in focus is what the focus is on, m. */
const ON_IT_M = 0.03;

/**
 * What the focus is on: the point chosen, or where the lens axis meets the plane in focus; and the product it goes with.
 * A chosen point of a product that is gone counts as none.
 */
export function focusPoint({ camera, products }: SetDocument): { pointM: Vector; product: string | null } {
  const { focusOn } = camera;
  if (focusOn?.product === undefined && focusOn) return { pointM: focusOn.pointM, product: null };
  const own = products.find(({ id }) => id === focusOn?.product);
  if (focusOn && own) return { pointM: add(own.positionM, focusOn.pointM), product: own.id };
  const { origin, forward } = viewOf(camera);
  const pointM = add(origin, scale(forward, camera.focusM));
  const near = products.find((product) => {
    const { low, high } = productBounds(product);
    return pointM.every(
      (value, a) => value >= (low[a] as number) - ON_IT_M && value <= (high[a] as number) + ON_IT_M,
    );
  });
  return { pointM, product: near?.id ?? null };
}

/**
 * The set after a change, with the focus still on what it was on before: when the camera or the product moves, the plane in
 * focus goes along. As it is where the focus is locked, was itself changed, or cannot come so near.
 */
export function withFocusKept(before: SetDocument, after: SetDocument): SetDocument {
  const { camera } = after;
  if (
    camera.focusLocked ||
    camera.focusM !== before.camera.focusM ||
    camera.focusOn !== before.camera.focusOn
  )
    return after;
  if (camera === before.camera && after.products === before.products) return after;
  const { pointM, product } = focusPoint(before);
  const placeOf = ({ products }: SetDocument) => products.find(({ id }) => id === product)?.positionM;
  const [from, to] = [placeOf(before), placeOf(after)];
  const moved = from && to ? add(pointM, subtract(to, from)) : pointM;
  const focusM = depthAlongLens(camera, moved);
  if (Math.abs(focusM - camera.focusM) < 1e-9 || !canFocus(camera, focusM)) return after;
  return { ...after, camera: { ...camera, focusM } };
}

/** Whether a lens can form an image of a plane so near. Its own near limit is told, not kept. */
const canFocus = ({ lens }: Camera, focusM: number) =>
  focusM > (1.01 * lens.focalLengthM) / lens.pupilRatio && focusM < 1000;

/** A product that is not in focus anywhere. */
export interface OutOfFocus {
  product: string;
  name: string;
  /** From what is drawn sharp to the nearest part of it, m. */
  byM: number;
  /** Where the focus lies against it. */
  focusIs: 'before' | 'behind';
  /** Depth of its nearest part: to focus there, m. */
  nearM: number;
}

/** Sensor pixels that the circle of confusion spans: sharp when the whole file is looked at. */
const CIRCLE_PIXELS = 2;

/**
 * Products of which no part lies within the depth of field, by the depths of the corners of their bounds.
 * Those behind the camera are left out.
 */
export function outOfFocus({ camera, products }: Pick<SetDocument, 'camera' | 'products'>): OutOfFocus[] {
  const held = depthOfField(camera, CIRCLE_PIXELS * lensFigures(camera).pixelPitchM);
  return products.flatMap((product): OutOfFocus[] => {
    const depths = cornersOf(productBounds(product)).map((corner) => depthAlongLens(camera, corner));
    const [near, far] = [Math.min(...depths), Math.max(...depths)];
    if (near <= 0) return [];
    const byM = Math.max(near - held.farM, held.nearM - far);
    if (!(byM > 0)) return [];
    const focusIs = held.farM < near ? 'before' : 'behind';
    return [{ product: product.id, name: product.name, byM, focusIs, nearM: near }];
  });
}
