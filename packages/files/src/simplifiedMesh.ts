import { MOST_TRIANGLES, type ProductOf } from '@fendrix/contract';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { base64Of, bytesOf } from './base64.js';

/** How far a simplified surface may lie from the true one, as a part of the body's size, where that suffices. */
const CLOSE = 0.005;

/** Triangles of a mesh. */
export const trianglesIn = ({ trianglesBase64 }: ProductOf<'mesh'>): number =>
  Math.floor((trianglesBase64.length * 3) / 4 / 12);

/**
 * The same body with about so many triangles, for pictures that must be quick; one that has no more is given back as it is.
 * Edges are collapsed where the surface suffers least; where a body is in so many pieces that this leaves too many
 * triangles, points that lie close together are merged.
 */
export async function simplifiedMesh(
  product: ProductOf<'mesh'>,
  triangles: number,
): Promise<ProductOf<'mesh'>> {
  if (trianglesIn(product) <= triangles) return product;
  await MeshoptSimplifier.ready;
  const points = new Float32Array(bytesOf(product.positionsBase64).buffer);
  const corners = new Uint32Array(bytesOf(product.trianglesBase64).buffer);
  const target = 3 * triangles;
  let [few] = MeshoptSimplifier.simplify(corners, points, 3, target, CLOSE);
  if (few.length > 2 * target) [few] = MeshoptSimplifier.simplify(corners, points, 3, target, 1);
  if (few.length > 2 * target) [few] = MeshoptSimplifier.simplifySloppy(corners, points, 3, null, target, 1);
  const [remap, count] = MeshoptSimplifier.compactMesh(few);
  const kept = new Float32Array(3 * count);
  remap.forEach((to, from) => {
    if (to < count) kept.set(points.subarray(3 * from, 3 * from + 3), 3 * to);
  });
  return { ...product, positionsBase64: base64Of(kept), trianglesBase64: base64Of(few) };
}

/** Triangles that a mesh is thinned out to which has more than a set can hold: more than a picture of it shows. */
const THINNED_TO = 140_000;

/** A mesh that a set can hold: one with more triangles thinned out. */
export const heldMesh = async (product: ProductOf<'mesh'>): Promise<ProductOf<'mesh'>> =>
  trianglesIn(product) > MOST_TRIANGLES ? simplifiedMesh(product, THINNED_TO) : product;
