import { bytesIn, dataOf } from './base64.js';
import { materialKinds } from './material.js';
import { type Product, type ProductOf, product, type Turned } from './product.js';
import type { Report } from './report.js';
import { soundTexts } from './soundTexts.js';

/** A mesh of more triangles than this is refused. */
export const MOST_TRIANGLES = 300_000;
/** Of all meshes of a set: two workers with their trees of boxes then stay under 1.5 GB of a browser's memory. */
const MOST_TRIANGLES_TOGETHER = 400_000;
/** No point of a mesh lies farther out than this, m. */
const FARTHEST_M = 100;

/** Rules within one product. */
export function checkProduct(product: Product, path: PropertyKey[], report: Report): void {
  switch (product.kind) {
    case 'turned':
      checkTurned(product, path, report);
      return;
    case 'box':
      checkBox(product, path, report);
      return;
    case 'ring':
      if (product.signet && product.pose === 'lying') {
        report([...path, 'signet'], 'needs a standing ring. Take the plate away or set pose to standing.');
      }
      return;
    case 'dish':
      if (product.footDiameterM > product.diameterM) {
        report([...path, 'footDiameterM'], 'is wider than the dish. Keep it within its diameter.');
      }
      if (product.thicknessM >= product.heightM) {
        report([...path, 'thicknessM'], 'leaves no hollow. Keep it below the height.');
      }
      return;
    case 'mesh':
      checkMesh(product, path, report);
      return;
    default:
  }
}

function checkBox(product: ProductOf<'box'>, path: PropertyKey[], report: Report): void {
  const { widthM, depthM, heightM, edgeRadiusM, label } = product;
  if ((product.bandHeightM ?? 0) > heightM) {
    report([...path, 'bandHeightM'], 'lies above the product. Give a height within it.');
  }
  if (edgeRadiusM > Math.min(widthM, depthM, heightM) / 2) {
    report([...path, 'edgeRadiusM'], 'is more than half of the smallest side. Make the edges sharper.');
  }
  if (!label) return;
  const face = { width: widthM - 2 * edgeRadiusM, low: edgeRadiusM, high: heightM - edgeRadiusM };
  if (label.widthM > face.width + 1e-9) {
    report([...path, 'label', 'widthM'], 'is wider than the flat front. Make the label narrower.');
  }
  const half = label.heightM / 2;
  if (label.centreHeightM - half < face.low - 1e-9 || label.centreHeightM + half > face.high + 1e-9) {
    report(
      [...path, 'label', 'centreHeightM'],
      'puts the label beyond the flat front. Move it or make it lower.',
    );
  }
}

/** The meshes of a set together; the first that is too much is told. */
export function checkMeshesTogether(products: readonly Product[], report: Report): void {
  let together = 0;
  for (const [index, product] of products.entries()) {
    if (product.kind !== 'mesh') continue;
    together += Math.floor(bytesIn(product.trianglesBase64) / 12);
    if (together <= MOST_TRIANGLES_TOGETHER) continue;
    report(
      ['products', index, 'trianglesBase64'],
      `brings the meshes of this set to more than ${MOST_TRIANGLES_TOGETHER} triangles together. Thin one of them out first.`,
    );
    return;
  }
}

/** Triangles that were found sound beside their points. */
const soundMeshes = soundTexts();

function checkMesh(product: ProductOf<'mesh'>, path: PropertyKey[], report: Report): void {
  const { positionsBase64, trianglesBase64 } = product;
  const points = bytesIn(positionsBase64) / 12;
  const triangles = bytesIn(trianglesBase64) / 12;
  if (!Number.isInteger(points) || points < 3) {
    report([...path, 'positionsBase64'], 'must hold three points or more of three 32-bit numbers each.');
    return;
  }
  if (!Number.isInteger(triangles) || triangles < 1) {
    report([...path, 'trianglesBase64'], 'must hold at least one whole triangle of three 32-bit indices.');
    return;
  }
  if (triangles > MOST_TRIANGLES) {
    report(
      [...path, 'trianglesBase64'],
      `has more than ${MOST_TRIANGLES} triangles. Thin the mesh out first.`,
    );
    return;
  }
  const inParts = product.parts.reduce((sum, part) => sum + part.triangles, 0);
  if (inParts > triangles) {
    report([...path, 'parts'], `name ${inParts} triangles of ${triangles}. Leave some to the body.`);
    return;
  }
  if (soundMeshes.has(trianglesBase64, positionsBase64)) return;
  const places = dataOf(positionsBase64);
  for (let i = 0; i < 3 * points; i++) {
    if (Math.abs(places.getFloat32(4 * i, true)) < FARTHEST_M) continue;
    report([...path, 'positionsBase64'], `has a point ${Math.floor(i / 3)} that is no place in a room.`);
    return;
  }
  const corners = dataOf(trianglesBase64);
  for (let i = 0; i < 3 * triangles; i++) {
    const corner = corners.getUint32(4 * i, true);
    if (corner < points) continue;
    report([...path, 'trianglesBase64'], `names point ${corner} of ${points}. Indices start at 0.`);
    return;
  }
  soundMeshes.add(trianglesBase64, positionsBase64);
}

function checkTurned(product: Turned, path: PropertyKey[], report: Report): void {
  const { profile } = product;
  const height = profile.at(-1)?.heightM ?? 0;
  if (profile[0]?.heightM !== 0) {
    report([...path, 'profile', 0, 'heightM'], 'must be 0: the outline starts at the foot.');
  }
  if (height < 1e-4) {
    report(
      [...path, 'profile', profile.length - 1, 'heightM'],
      'must be above 0: the outline has no height.',
    );
  }
  if (!profile.some((point) => point.radiusM >= 1e-4)) {
    report([...path, 'profile'], 'has no radius of 0.1 mm or more. Give the outline some width.');
  }
  for (let i = 1; i < profile.length; i++) {
    const below = profile[i - 1];
    const here = profile[i];
    if (!below || !here) continue;
    if (here.heightM < below.heightM) {
      report(
        [...path, 'profile', i, 'heightM'],
        'is lower than the point before it. List points upwards from the foot.',
      );
    } else if (Math.hypot(here.heightM - below.heightM, here.radiusM - below.radiusM) < 1e-6) {
      report([...path, 'profile', i], 'repeats the point before it. Remove one of the two.');
    } else if (here.radiusM === 0 && below.radiusM === 0) {
      report([...path, 'profile', i, 'radiusM'], 'follows another 0: the outline would run along its axis.');
    }
  }
  const ranges = [
    ...product.parts.map((part, index) => ({ ...part, path: [...path, 'parts', index] })),
    ...product.labels.map((label, index) => ({ ...label, path: [...path, 'labels', index] })),
  ];
  for (const range of ranges) {
    if (range.toM - range.fromM < 1e-4) {
      report([...range.path, 'toM'], 'must lie above where it starts by 0.1 mm or more.');
    }
    if (range.toM > height + 1e-9) {
      report(
        [...range.path, 'toM'],
        `lies above the product, which ends at ${Number((100 * height).toFixed(2))} cm.`,
      );
    }
  }
  product.parts.forEach((part, index) => {
    const other = product.parts.findIndex(
      (earlier, at) => at < index && earlier.fromM < part.toM && part.fromM < earlier.toM,
    );
    if (other >= 0) {
      report([...path, 'parts', index, 'fromM'], `overlaps part ${other + 1}. Parts may touch, not overlap.`);
    }
  });
  if (product.bandHeightM !== undefined && product.bandHeightM > height) {
    report([...path, 'bandHeightM'], 'lies above the product. Give a height within it.');
  }
  checkAttached(product, path, report);
  checkHollow(product, height, path, report);
}

/** What a bar can be made of: one that reaches into a clear wall of its own stuff would be two bodies in one place. */
const OPAQUE: ReadonlySet<string> = materialKinds.opaque;

function checkAttached({ attached, material }: Turned, path: PropertyKey[], report: Report): void {
  attached.forEach(({ pathM, material: own }, index) => {
    if (!OPAQUE.has((own ?? material).kind)) {
      report([...path, 'attached', index, 'material'], 'needs an opaque material, as the body has none.');
    }
    const stands = pathM.findIndex((point, i) => {
      const before = pathM[i - 1];
      return (
        before !== undefined &&
        point.every((value, axis) => Math.abs(value - (before[axis] as number)) < 1e-6)
      );
    });
    if (stands > 0) {
      report(
        [...path, 'attached', index, 'pathM', stands],
        'is the point before it. Move it, or take it out.',
      );
    }
  });
}

function checkHollow(product: Turned, height: number, path: PropertyKey[], report: Report): void {
  const { hollow } = product;
  if (!hollow) return;
  if (hollow.liquid && product.lean) {
    report([...path, 'lean'], 'would spill the liquid. Stand the product upright or take the liquid out.');
  }
  if (product.material.kind === 'wax' || product.material.kind === 'translucent') {
    report([...path, 'hollow'], 'needs a clear or an opaque material. Make the body solid, or of another.');
  }
  if (hollow.baseM >= height) {
    report([...path, 'hollow', 'baseM'], 'is as high as the product. Make the base thinner.');
  }
  if (!product.profile.some((point) => point.radiusM > hollow.wallM + 1e-4)) {
    report([...path, 'hollow', 'wallM'], 'fills the whole body. Make the wall thinner.');
  }
  const { liquid } = hollow;
  if (liquid && (liquid.fillToM <= hollow.baseM || liquid.fillToM > height)) {
    report([...path, 'hollow', 'liquid', 'fillToM'], 'must lie above the base and not above the product.');
  }
}

/** A product by itself, with the rules that hold within it. */
export const productDocument = product.superRefine((own, problems) => {
  checkProduct(own, [], (path, message) => problems.addIssue({ code: 'custom', path, message }));
});
