import type { Dielectric, Material, OpaqueMaterial, Product, ProductOf, Vector } from '@fendrix/contract';
import { degrees } from '../../units/angle.js';
import type { Pose } from '../../units/frame.js';
import { add, cross, dot, length, scale, subtract } from '../../units/vector.js';
import { poseOf } from './addProduct.js';
import { meshOf } from './meshes.js';
import { outlinePieces, outlineRadius } from './outline.js';

/** A piece of a product that is of a material of its own: the body, or what is on and in it. */
export interface ProductPiece {
  /** What it is called, as the document names it. */
  name: string;
  list: 'body' | 'parts' | 'labels' | 'attached' | 'label' | 'liquid' | 'food';
  /** Which of its list. */
  at: number;
  material: Material;
  /** What it may be of. */
  takes: 'body' | 'opaque' | 'liquid';
}

/** All pieces of a product, its body first. */
export function piecesOf(product: Product): ProductPiece[] {
  const body: ProductPiece = { name: 'body', list: 'body', at: 0, material: product.material, takes: 'body' };
  const opaque = (
    list: ProductPiece['list'],
    own: { name: string; material?: Material | undefined },
    at = 0,
  ) => ({
    name: own.name,
    list,
    at,
    material: own.material ?? product.material,
    takes: 'opaque' as const,
  });
  switch (product.kind) {
    case 'turned': {
      const liquid = product.hollow?.liquid?.material;
      return [
        body,
        ...product.parts.map((part, at) => opaque('parts', part, at)),
        ...product.labels.map((label, at) => opaque('labels', label, at)),
        ...product.attached.map((bar, at) => opaque('attached', bar, at)),
        ...(liquid
          ? [{ name: 'liquid', list: 'liquid', at: 0, material: liquid, takes: 'liquid' } as const]
          : []),
      ];
    }
    case 'box':
      return [body, ...(product.label ? [opaque('label', product.label)] : [])];
    case 'dish':
      return [
        body,
        ...(product.food
          ? [{ ...opaque('food', { name: 'food', ...product.food }), takes: 'body' as const }]
          : []),
      ];
    case 'mesh':
      return [
        body,
        ...product.parts.map((part, at) => ({ ...opaque('parts', part, at), takes: 'body' as const })),
      ];
    default:
      return [body];
  }
}

/** The product with a piece of another material; a print stays on the new paper, and a piece that is gone changes nothing. */
export function withPieceMaterial(
  product: Product,
  { list, at }: Pick<ProductPiece, 'list' | 'at'>,
  material: Material,
): Product {
  if (list === 'body') return { ...product, material } as Product;
  const changed = <T extends { material?: Material | undefined }>(own: T): T => ({
    ...own,
    material: printedAs(own.material, material),
  });
  const inList = <T extends { material?: Material | undefined }>(own: readonly T[]): T[] =>
    own.map((one, i) => (i === at ? changed(one) : one));
  switch (product.kind) {
    case 'turned':
      if (list === 'liquid') {
        const { hollow } = product;
        if (!hollow?.liquid) return product;
        return {
          ...product,
          hollow: { ...hollow, liquid: { ...hollow.liquid, material: material as Dielectric } },
        };
      }
      if (list === 'parts') return { ...product, parts: inList(product.parts) };
      if (list === 'labels') return { ...product, labels: inList(product.labels) };
      if (list === 'attached') return { ...product, attached: inList(product.attached) };
      return product;
    case 'box':
      return product.label ? { ...product, label: changed(product.label) } : product;
    case 'dish':
      return product.food ? { ...product, food: changed(product.food) } : product;
    case 'mesh':
      return { ...product, parts: inList(product.parts) };
    default:
      return product;
  }
}

/** Another paper under the same print: picture, words and tone of a label stay. */
function printedAs(before: Material | undefined, after: Material): Material {
  const tone = before && 'tone' in before ? before.tone : undefined;
  const takes = after.kind === 'matte' || after.kind === 'coated' || after.kind === 'cloth';
  return tone && takes ? ({ ...after, tone } as OpaqueMaterial) : after;
}

/** What sticks out of the outline by less is the outline itself, m. */
const ON_OUTLINE_M = 2e-3;

/**
 * The outer piece of a product at a point of its surface, by its measures: no ray is traced. What is seen through a wall,
 * as a liquid is, counts as the body.
 * Limits: the line of a bar is taken straight between its points; of a dish what lies within the rim is its food.
 * @param pointM a point on the surface, m from the mark
 */
export function pieceAt(product: Product, pointM: Vector): ProductPiece {
  const pieces = piecesOf(product);
  const body = pieces[0] as ProductPiece;
  const piece = (list: ProductPiece['list'], at: number) =>
    pieces.find((own) => own.list === list && own.at === at) ?? body;
  const local = inPose(poseOf(product), pointM);
  switch (product.kind) {
    case 'turned':
      return turnedPieceAt(product, local, piece) ?? body;
    case 'box': {
      const [x, y, z] = local;
      const { label, depthM } = product;
      const front = Math.abs(y + depthM / 2) < 1e-3;
      const within =
        label && Math.abs(x) <= label.widthM / 2 && Math.abs(z - label.centreHeightM) <= label.heightM / 2;
      return front && within ? piece('label', 0) : body;
    }
    case 'dish': {
      const [x, y, z] = local;
      const wallM =
        (product.footDiameterM + (product.diameterM - product.footDiameterM) * (z / product.heightM)) / 2;
      const within = z > product.thicknessM + 1e-4 && Math.hypot(x, y) < wallM - 1.2 * product.thicknessM;
      return within ? piece('food', 0) : body;
    }
    case 'mesh': {
      let left = nearestTriangle(product, local);
      const at = product.parts.findIndex(({ triangles }) => {
        left -= triangles;
        return left < 0;
      });
      return at < 0 ? body : piece('parts', at);
    }
    default:
      return body;
  }
}

function turnedPieceAt(
  product: ProductOf<'turned'>,
  [x, y, z]: Vector,
  piece: (list: ProductPiece['list'], at: number) => ProductPiece,
): ProductPiece | null {
  const radiusM = Math.hypot(x, y);
  const outlineM = outlineRadius(outlinePieces(product.profile), z);
  const bars = product.attached.map(({ pathM, fromDiameterM, toDiameterM }, at) => ({
    at,
    off: distanceToLine(pathM, [x, y, z]) / Math.max(fromDiameterM, toDiameterM),
  }));
  const [bar] = bars.sort((a, b) => a.off - b.off);
  if (bar && bar.off < 1 && radiusM > outlineM + ON_OUTLINE_M) return piece('attached', bar.at);
  // 0 faces the camera side, to the right is positive.
  const bearingDeg = degrees(Math.atan2(x, -y));
  const round = ({ centreBearingDeg, widthDeg }: { centreBearingDeg: number; widthDeg: number }) => {
    const off = ((((bearingDeg - centreBearingDeg) % 360) + 540) % 360) - 180;
    return Math.abs(off) <= widthDeg / 2;
  };
  const within = ({ fromM, toM }: { fromM: number; toM: number }) => z >= fromM && z <= toM;
  // Later labels lie over earlier ones.
  const label = product.labels.map((own) => within(own) && round(own)).lastIndexOf(true);
  if (label >= 0) return piece('labels', label);
  const part = product.parts.findIndex((own) => within({ ...own, toM: own.toM + 1e-4 }));
  return part >= 0 ? piece('parts', part) : null;
}

/** A place in the frame of a pose. */
function inPose({ origin, x, y, z }: Pose, pointM: Vector): Vector {
  const from = subtract(pointM, origin);
  return [dot(from, x), dot(from, y), dot(from, z)];
}

function distanceToLine(path: readonly Vector[], point: Vector): number {
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i + 1 < path.length; i++) {
    const [from, to] = [path[i] as Vector, path[i + 1] as Vector];
    const way = subtract(to, from);
    const part = Math.min(1, Math.max(0, dot(subtract(point, from), way) / dot(way, way)));
    least = Math.min(least, length(subtract(point, add(from, scale(way, part)))));
  }
  return least;
}

/** Which triangle of the file a point lies on: that whose plane is nearest of those that it lies over. */
function nearestTriangle(product: ProductOf<'mesh'>, point: Vector): number {
  const { points, corners, madeOf } = meshOf(product);
  const corner = (t: number, i: number): Vector => {
    const at = 3 * (corners[3 * t + i] as number);
    return [points[at] as number, points[at + 1] as number, points[at + 2] as number];
  };
  let [best, least] = [-1, Number.POSITIVE_INFINITY];
  for (let t = 0; t < madeOf.length; t++) {
    const [a, b, c] = [corner(t, 0), corner(t, 1), corner(t, 2)];
    const off = distanceToTriangle(point, a, b, c);
    if (off < least) [best, least] = [t, off];
  }
  return best < 0 ? Number.POSITIVE_INFINITY : (madeOf[best] as number);
}

/** From a point to a triangle: along its normal where it lies over it, to its sides elsewhere, m. */
function distanceToTriangle(point: Vector, a: Vector, b: Vector, c: Vector): number {
  const [u, v, w] = [subtract(b, a), subtract(c, a), subtract(point, a)];
  const normal = cross(u, v);
  const size = dot(normal, normal);
  const inB = dot(cross(w, v), normal) / size;
  const inC = dot(cross(u, w), normal) / size;
  if (inB >= 0 && inC >= 0 && inB + inC <= 1) return Math.abs(dot(w, normal)) / Math.sqrt(size);
  return distanceToLine([a, b, c, a], point);
}
