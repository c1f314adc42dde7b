import type { Light, Person, Product, SetDocument, Sheet, Vector } from '@fendrix/contract';
import {
  BALL,
  BALL_CENTRE,
  BALL_RADIUS,
  CONE,
  FLAT,
  FLAT_DIAGONAL,
  PRIMITIVE_STRIDE,
  TRIANGLE_CORNER,
  TRIANGLE_EDGE_U,
  TRIANGLE_EDGE_V,
} from '../engine/layouts.js';
import { isOnPrimitive, pointOnPrimitive } from '../engine/normals.js';
import { SceneTables } from '../engine/tables.js';
import { add, subtract } from '../units/vector.js';
import { SceneParts } from './builder.js';
import { addCameraBody, addPerson, addStand, type Ground } from './bystanders.js';
import { addLight } from './lights.js';
import { type PrimitiveTable, primitiveBounds } from './primitives.js';
import { addProduct } from './products/addProduct.js';
import { addSheet } from './sheets.js';
import { UnseenSurfaces } from './surface.js';

/** Points round the outline of a curved piece. */
const ROUND_POINTS = 24;

/** What a thing looks like in a plan: for each of its pieces points whose hull is its outline, m from the mark. */
export type Shape = Vector[][];

export const lightShape = (light: Light): Shape =>
  light.kind === 'surround' ? [] : shapeOf((parts) => addLight(parts, [], light, 0, 0));
export const sheetShape = (sheet: Sheet): Shape => shapeOf((parts) => addSheet(parts, sheet));
export const cameraShape = (set: Pick<SetDocument, 'camera'> & Ground): Shape =>
  shapeOf((parts) => addCameraBody(parts, set.camera, set));
export const personShape = (person: Person, set: Ground): Shape =>
  shapeOf((parts) => addPerson(parts, person, set));
export const standShape = (held: Light | Sheet, set: Ground): Shape =>
  shapeOf((parts) => addStand(parts, held, set));
export const productShape = (product: Product): Shape => shapeOf((parts) => addProduct(parts, product));

interface Bounds {
  low: Vector;
  high: Vector;
}

/** Products are never changed in place, so that what was worked out of one stays true. */
const known = new WeakMap<Product, Bounds>();
/** The last product of a material that bounds were worked out of: one that is dragged is the same but for its place. */
const last = new WeakMap<Product['material'], Product>();

/** Lowest and highest corner of a product, m from the mark. @throws {DomainError} a mesh that is none */
export function productBounds(product: Product): Bounds {
  const kept = known.get(product);
  if (kept) return { low: [...kept.low], high: [...kept.high] };
  const before = last.get(product.material);
  const bounds =
    before && isMoved(before, product)
      ? moved(known.get(before) as Bounds, subtract(product.positionM, before.positionM))
      : boundsOf(product);
  known.set(product, bounds);
  last.set(product.material, product);
  return { low: [...bounds.low], high: [...bounds.high] };
}

/** Whether two products are the same but for where they stand. */
function isMoved(a: Product, b: Product): boolean {
  const keys = Object.keys(b) as (keyof Product)[];
  return (
    keys.length === Object.keys(a).length && keys.every((key) => key === 'positionM' || a[key] === b[key])
  );
}

const moved = ({ low, high }: Bounds, by: Vector): Bounds => ({ low: add(low, by), high: add(high, by) });

function boundsOf(product: Product): Bounds {
  const parts = new SceneParts(new UnseenSurfaces());
  addProduct(parts, product);
  const table = parts.list.pack();
  const low: Vector = [Infinity, Infinity, Infinity];
  const high: Vector = [-Infinity, -Infinity, -Infinity];
  const box = new Float64Array(6);
  for (let i = 0; i < table.count; i++) {
    primitiveBounds(table, i, box);
    for (let a = 0; a < 3; a++) {
      low[a] = Math.min(low[a] as number, box[a] as number);
      high[a] = Math.max(high[a] as number, box[a + 3] as number);
    }
  }
  return { low, high };
}

function shapeOf(build: (parts: SceneParts) => void): Shape {
  const parts = new SceneParts(new UnseenSurfaces());
  build(parts);
  const table = parts.list.pack();
  const tables = new SceneTables();
  tables.data = table.data;
  tables.kind = Int32Array.from(table.kind);
  const pieces: Shape = [];
  const corners: Vector[] = [];
  for (let i = 0; i < table.count; i++) {
    const piece = piecePoints(tables, i);
    if (piece) pieces.push(piece);
    else corners.push(...trianglePoints(table, i));
  }
  return corners.length > 0 ? [...pieces, corners] : pieces;
}

function piecePoints(tables: SceneTables, index: number): Vector[] | null {
  const d = tables.data;
  const o = index * PRIMITIVE_STRIDE;
  const out = new Float64Array(3);
  const at = (a: number, b: number): Vector => {
    pointOnPrimitive(out, tables, index, a, b);
    return [out[0] as number, out[1] as number, out[2] as number];
  };
  switch (tables.kind[index]) {
    case FLAT: {
      const corners: [number, number][] = [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ];
      if (corners.every(([a, b]) => isOnPrimitive(tables, index, a, b)))
        return corners.map(([a, b]) => at(a, b));
      // Round or with cut corners: from the middle out to the edge.
      const reach =
        (d[o + FLAT_DIAGONAL] as number) < 2 ? Math.SQRT2 / 2 / Math.cos(Math.PI / 8) / Math.SQRT2 : 0.5;
      return Array.from({ length: ROUND_POINTS }, (_, i) => {
        const angle = (2 * Math.PI * (i + 0.5)) / ROUND_POINTS;
        return at(0.5 + reach * Math.cos(angle), 0.5 + reach * Math.sin(angle));
      });
    }
    case CONE:
      return [0, 1].flatMap((b) =>
        Array.from({ length: ROUND_POINTS + 1 }, (_, i) => at(i / ROUND_POINTS, b)),
      );
    case BALL: {
      const [x, y, z] = vectorAt(d, o + BALL_CENTRE);
      const r = d[o + BALL_RADIUS] as number;
      return Array.from({ length: ROUND_POINTS }, (_, i) => {
        const c = r * Math.cos((2 * Math.PI * i) / ROUND_POINTS);
        const s = r * Math.sin((2 * Math.PI * i) / ROUND_POINTS);
        return [
          [x + c, y + s, z],
          [x, y + c, z + s],
        ] as Vector[];
      }).flat();
    }
    default:
      return null;
  }
}

function trianglePoints(table: PrimitiveTable, index: number): Vector[] {
  const row = index * PRIMITIVE_STRIDE;
  const corner = vectorAt(table.data, row + TRIANGLE_CORNER);
  const u = vectorAt(table.data, row + TRIANGLE_EDGE_U);
  const v = vectorAt(table.data, row + TRIANGLE_EDGE_V);
  return [corner, add(corner, u), add(corner, v)];
}

const vectorAt = (d: Float64Array, at: number): Vector => [
  d[at] as number,
  d[at + 1] as number,
  d[at + 2] as number,
];
