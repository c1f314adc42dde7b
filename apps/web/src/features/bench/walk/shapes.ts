import type { Backdrop, Product, Vector } from '@fendrix/contract';
import { backdropProfile, outlinePieces, productShape, type Shape } from '@fendrix/core';
import { BufferGeometry, Float32BufferAttribute, LatheGeometry, Vector2, Vector3 } from 'three';
import { ConvexGeometry } from 'three/addons/geometries/ConvexGeometry.js';

/** Points of a round piece as the core gives them: two rings. */
const RING = 25;
const FLAT_M = 1e-6;

/** Geometry of one piece of a shape: a flat face, a wall between two rings, a body, or loose triangles. */
function pieceGeometry(points: readonly Vector[]): BufferGeometry | null {
  if (points.length < 3) return null;
  if (points.length === 2 * RING) return strip(points);
  if (points.length > 2 * RING && points.length % 3 === 0) return triangles(points.flat());
  if (isFlat(points)) return fan(points);
  return new ConvexGeometry(points.map(([x, y, z]) => new Vector3(x, y, z)));
}

export function shapeGeometries(shape: Shape): BufferGeometry[] {
  return shape.flatMap((points) => pieceGeometry(points) ?? []);
}

/** A product: turned ones by their outline, others by their pieces. The lathe stands in the product's own frame. */
export function productGeometries(product: Product): { geometries: BufferGeometry[]; own: boolean } {
  if (product.kind === 'turned' && !product.lean) {
    const points = outlinePieces(product.profile).flatMap(({ lower, upper }) => [
      new Vector2(lower.r, lower.z),
      new Vector2(upper.r, upper.z),
    ]);
    const lathe = new LatheGeometry(points, 40);
    // A lathe turns round y; things on set stand up along z.
    lathe.rotateX(Math.PI / 2);
    return { geometries: [lathe], own: true };
  }
  return { geometries: shapeGeometries(productShape(product)), own: false };
}

/** A panel by its corners, what lies on the table too by its profile. */
export function backdropGeometry(backdrop: Backdrop): BufferGeometry {
  if (backdrop.kind === 'panel') {
    const { widthM, heightM, centreM, turnDeg } = backdrop;
    const turn = (turnDeg * Math.PI) / 180;
    const across: Vector = [(Math.cos(turn) * widthM) / 2, (Math.sin(turn) * widthM) / 2, 0];
    const corner = (s: number, t: number): Vector => [
      centreM[0] + s * across[0],
      centreM[1] + s * across[1],
      centreM[2] + (t * heightM) / 2,
    ];
    return fan([corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)]);
  }
  const { widthM } = backdrop;
  const profile = backdropProfile(backdrop);
  const corners: number[] = [];
  for (let i = 1; i < profile.length; i++) {
    const [y0, z0] = profile[i - 1] as [number, number];
    const [y1, z1] = profile[i] as [number, number];
    const w = widthM / 2;
    corners.push(-w, y0, z0, w, y0, z0, w, y1, z1, -w, y0, z0, w, y1, z1, -w, y1, z1);
  }
  return triangles(corners);
}

function triangles(coordinates: readonly number[]): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new Float32BufferAttribute(coordinates, 3));
  geometry.computeVertexNormals();
  return geometry;
}

function fan(points: readonly Vector[]): BufferGeometry {
  const corners: number[] = [];
  for (let i = 2; i < points.length; i++) {
    corners.push(...(points[0] as Vector), ...(points[i - 1] as Vector), ...(points[i] as Vector));
  }
  return triangles(corners);
}

function strip(points: readonly Vector[]): BufferGeometry {
  const corners: number[] = [];
  for (let i = 1; i < RING; i++) {
    const [a, b] = [points[i - 1] as Vector, points[i] as Vector];
    const [c, d] = [points[RING + i - 1] as Vector, points[RING + i] as Vector];
    corners.push(...a, ...b, ...d, ...a, ...d, ...c);
  }
  return triangles(corners);
}

/** Whether all points lie in one plane, so that no body can be spanned. */
function isFlat(points: readonly Vector[]): boolean {
  const [a, b] = points.map(([x, y, z]) => new Vector3(x, y, z)) as [Vector3, Vector3];
  const along = b.clone().sub(a).normalize();
  let normal: Vector3 | null = null;
  for (const [x, y, z] of points.slice(2)) {
    const off = new Vector3(x, y, z).sub(a);
    if (normal) {
      if (Math.abs(off.dot(normal)) > FLAT_M) return false;
    } else {
      const across = off.clone().cross(along);
      if (across.length() > FLAT_M) normal = across.normalize();
    }
  }
  return true;
}
