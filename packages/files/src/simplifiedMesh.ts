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
 * Edges are collapsed where the surface suffers least. Its parts stay apart.
 */
export async function simplifiedMesh(
  product: ProductOf<'mesh'>,
  triangles: number,
): Promise<ProductOf<'mesh'>> {
  if (trianglesIn(product) <= triangles) return product;
  await MeshoptSimplifier.ready;
  const points = new Float32Array(bytesOf(product.positionsBase64).buffer);
  const corners = new Uint32Array(bytesOf(product.trianglesBase64).buffer);
  // Part by part, each to its share; where they meet nothing is collapsed, so that no gap opens.
  const runs: Uint32Array[] = [];
  let from = 0;
  for (const part of [...product.parts, null]) {
    const to = part ? from + 3 * part.triangles : corners.length;
    const run = corners.subarray(from, to);
    const target = 3 * Math.ceil((run.length / corners.length) * triangles);
    runs.push(run.length > target ? fewer(run, points, target, product.parts.length > 0) : run);
    from = to;
  }
  const few = joined(runs);
  const [remap, count] = MeshoptSimplifier.compactMesh(few);
  const kept = new Float32Array(3 * count);
  remap.forEach((to, at) => {
    if (to < count) kept.set(points.subarray(3 * at, 3 * at + 3), 3 * to);
  });
  return {
    ...product,
    positionsBase64: base64Of(kept),
    trianglesBase64: base64Of(few),
    parts: product.parts.map((part, i) => ({ ...part, triangles: (runs[i] as Uint32Array).length / 3 })),
  };
}

/** About so many corners of a surface; where it is in so many pieces that this leaves too many, near points are merged. */
function fewer(corners: Uint32Array, points: Float32Array, target: number, holdBorder: boolean): Uint32Array {
  const own = Uint32Array.from(corners);
  const flags = holdBorder ? (['LockBorder'] as const) : [];
  let [few] = MeshoptSimplifier.simplify(own, points, 3, target, CLOSE, [...flags]);
  if (few.length > 2 * target) [few] = MeshoptSimplifier.simplify(own, points, 3, target, 1, [...flags]);
  if (few.length > 2 * target) [few] = MeshoptSimplifier.simplifySloppy(own, points, 3, null, target, 1);
  return few;
}

function joined(runs: readonly Uint32Array[]): Uint32Array {
  const all = new Uint32Array(runs.reduce((sum, run) => sum + run.length, 0));
  let at = 0;
  for (const run of runs) {
    all.set(run, at);
    at += run.length;
  }
  return all;
}

/** Triangles that a mesh is thinned out to which has more than a set can hold: more than a picture of it shows. */
const THINNED_TO = 140_000;

/** A mesh that a set can hold: one with more triangles thinned out. */
export const heldMesh = async (product: ProductOf<'mesh'>): Promise<ProductOf<'mesh'>> =>
  trianglesIn(product) > MOST_TRIANGLES ? simplifiedMesh(product, THINNED_TO) : product;
