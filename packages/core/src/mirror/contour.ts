import type { BoxProduct, Product, Turned, Vector } from '@fendrix/contract';
import { FOOT_GAP_M } from '../geometry/products/addProduct.js';
import { type OutlinePiece, outlineAt, outlinePieces } from '../geometry/products/outline.js';
import { productBounds } from '../geometry/shape.js';
import { projectPoint, type View } from '../render/view.js';
import { radians } from '../units/angle.js';
import { add, turnUpright } from '../units/vector.js';

/**
 * The line round a product at one height, as far as it faces the camera.
 * `at(s)` runs from its camera-left end (0) to its camera-right end (1).
 */
export interface Contour {
  at(s: number): Vector;
}

/** Ends of a contour in the picture, 0 to 1 across the frame; null where it is not seen from left to right. */
export function endsInPicture(view: View, contour: Contour): { left: number; right: number } | null {
  const [left, right] = [contour.at(0), contour.at(1)].map((point) => projectPoint(view, point));
  return left && right && right[0] > left[0] ? { left: left[0], right: right[0] } : null;
}

/** Height of a product above its foot, m. */
export function productHeightM(product: Product): number {
  if (product.kind === 'turned') return product.profile.at(-1)?.heightM ?? 0;
  if (product.kind === 'box') return product.heightM;
  const { low, high } = productBounds(product);
  return high[2] - low[2];
}

/** Height above the foot at which the mirror band of a product is read, m. */
export function bandHeightM(product: Product): number {
  return product.bandHeightM ?? productHeightM(product) / 2;
}

/**
 * The visible contour of a product at a height above its foot; null where the camera sees none
 * of it, and for what is neither turned nor a box, or leans.
 */
export function contourAt(product: Product, heightM: number, camera: Vector): Contour | null {
  if (product.lean && product.lean.deg > 0) return null;
  if (product.kind === 'turned') return turnedContour(product, heightM, camera);
  return product.kind === 'box' ? boxContour(product, heightM, camera) : null;
}

function turnedContour(product: Turned, heightM: number, camera: Vector): Contour | null {
  const piece = outlinePieces(product.profile).find((candidate) => spans(candidate, heightM));
  if (!piece) return null;
  const { r, nr, nz } = outlineAt(piece, heightM);
  const foot = add(product.positionM, [0, 0, FOOT_GAP_M]);
  const z = foot[2] + heightM;
  const toCamera: [number, number] = [camera[0] - foot[0], camera[1] - foot[1]];
  const away = Math.hypot(...toCamera);
  if (!(r > 0 && nr > 1e-6 && away > r)) return null;
  // Facing the camera: nr (D cos a - r) + nz (zc - z) > 0; and within the silhouette: D cos a > r.
  const facing = (r - (nz / nr) * (camera[2] - z)) / away;
  if (facing >= 1) return null;
  const reach = Math.acos(Math.max(facing, r / away));
  const middle = Math.atan2(toCamera[1], toCamera[0]);
  const edge = Math.sin(reach) * (1 - 1e-9);
  return {
    at(s) {
      const angle = middle + Math.asin((2 * s - 1) * edge);
      return [foot[0] + r * Math.cos(angle), foot[1] + r * Math.sin(angle), z];
    },
  };
}

const spans = ({ lower, upper }: OutlinePiece, z: number) =>
  upper.z - lower.z > 1e-9 && z >= lower.z && z <= upper.z;

function boxContour(product: BoxProduct, heightM: number, camera: Vector): Contour | null {
  if (heightM < 0 || heightM > product.heightM) return null;
  const z = product.positionM[2] + FOOT_GAP_M + heightM;
  const turn = radians(product.turnDeg);
  const half: [number, number] = [product.widthM / 2, product.depthM / 2];
  const corner = (sx: number, sy: number): Vector => {
    const [x, y] = turnUpright([sx * half[0], sy * half[1], 0], turn);
    return [product.positionM[0] + x, product.positionM[1] + y, z];
  };
  // Counter-clockwise from above: the outside lies on the right of each edge, so faces run left to right.
  const corners = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const visible = corners.map((a, i) => {
    const b = corners[(i + 1) % 4] as Vector;
    return (b[1] - a[1]) * (camera[0] - a[0]) - (b[0] - a[0]) * (camera[1] - a[1]) > 0;
  });
  const first = visible.findIndex((seen, i) => seen && !visible[(i + 3) % 4]);
  if (first < 0) return null;
  const line: Vector[] = [corners[first] as Vector];
  for (let i = first; visible[i % 4]; i++) line.push(corners[(i + 1) % 4] as Vector);
  return polyline(line);
}

function polyline(points: readonly Vector[]): Contour {
  const lengths = points.slice(1).map((b, i) => {
    const a = points[i] as Vector;
    return Math.hypot(b[0] - a[0], b[1] - a[1]);
  });
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  return {
    at(s) {
      // Just within the ends, so that a ray to the very edge still meets the product.
      let rest = Math.min(1 - 1e-6, Math.max(1e-6, s)) * whole;
      let i = 0;
      while (i + 1 < lengths.length && rest > (lengths[i] as number)) rest -= lengths[i++] as number;
      const a = points[i] as Vector;
      const b = points[i + 1] as Vector;
      const part = rest / (lengths[i] as number);
      return [a[0] + part * (b[0] - a[0]), a[1] + part * (b[1] - a[1]), a[2]];
    },
  };
}
