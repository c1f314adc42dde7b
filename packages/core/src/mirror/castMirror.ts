import { normalsAt } from '../engine/normals.js';
import { lobeFresnel } from '../engine/scatter.js';
import { DIELECTRIC, type SceneTables, SURFACE } from '../engine/tables.js';
import { luminanceOf } from '../exposure/display.js';
import type { Surface } from '../geometry/surface.js';
import { fresnelMean } from '../optics/fresnel.js';
import type { Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';

/** Nothing was hit: beyond the set it is dark. */
export const NOTHING = -1;
/** The surface seen has no mirror part. */
export const NO_MIRROR = -2;

/** What one ray from the lens meets first, and what is mirrored there. */
export interface MirrorCast {
  /** Index into the scene's things, or NOTHING. */
  thing: number;
  /** Index into the scene's surfaces of the side seen, -1 for nothing or a light's face. */
  surface: number;
  /** Index of the thing mirrored, NOTHING for the dark, NO_MIRROR for a matte surface. */
  mirrored: number;
  /** Whether the mirrored thing shows its front: a softbox its cloth, a card its working side. */
  mirroredFront: boolean;
  /** Part of the light that the surface mirrors: Fresnel for glass and coats, reflectance of a mirror. */
  weight: number;
  /** 0-2 point seen, 3-5 its shading normal, 6-8 point mirrored; m. NaN where there is none. */
  geometry: Float64Array;
}

export function createMirrorCast(): MirrorCast {
  return {
    thing: NOTHING,
    surface: -1,
    mirrored: NO_MIRROR,
    mirroredFront: false,
    weight: 0,
    geometry: new Float64Array(9),
  };
}

const normals = new Float64Array(6);
const mirrored = new Float64Array(3);
const target = new Float64Array(3);

/**
 * Follows a ray to the first surface and on in its mirror direction.
 * A rough coat is taken at the middle of its lobe. One bounce: a mirror seen in a mirror is named itself.
 */
export function castMirror(
  out: MirrorCast,
  { scene, tables, kernel }: Tracing,
  origin: ArrayLike<number>,
  direction: ArrayLike<number>,
): void {
  const { table, surfaces } = scene;
  const { ray } = kernel;
  const g = out.geometry;
  g.fill(Number.NaN);
  out.thing = NOTHING;
  out.surface = -1;
  out.mirrored = NO_MIRROR;
  out.weight = 0;
  setRay(ray, origin, direction);
  const primitive = kernel.closestHit();
  if (primitive < 0) return;
  for (let a = 0; a < 3; a++) g[a] = (ray[a] as number) + (ray[7] as number) * (ray[3 + a] as number);
  const front = facesRay(tables, primitive, g, ray);
  let cosine = 0;
  for (let a = 0; a < 3; a++) {
    g[3 + a] = (front ? 1 : -1) * (normals[3 + a] as number);
    cosine -= (g[3 + a] as number) * (ray[3 + a] as number);
  }
  out.thing = table.thing[primitive] as number;
  if ((table.emitter[primitive] as number) >= 0 && front) return;
  out.surface = (front ? table.front : table.back)[primitive] as number;
  const surface = surfaces[out.surface];
  if (surface === undefined || !isShiny(surface)) return;
  cosine = Math.min(1, Math.max(0, cosine));
  out.weight = mirrorWeight(tables, out.surface, surface, scene.media[surface.medium]?.index ?? 1, cosine);
  for (let a = 0; a < 3; a++) {
    mirrored[a] = (ray[3 + a] as number) + 2 * cosine * (g[3 + a] as number);
  }
  setRay(ray, g, mirrored);
  const seen = kernel.closestHit();
  out.mirrored = NOTHING;
  if (seen < 0) return;
  for (let a = 0; a < 3; a++) target[a] = (ray[a] as number) + (ray[7] as number) * (ray[3 + a] as number);
  g.set(target, 6);
  out.mirroredFront = facesRay(tables, seen, target, ray);
  out.mirrored = table.thing[seen] as number;
}

/** Whether a ray meets the front of a primitive; leaves the normals behind in `normals`. */
function facesRay(tables: SceneTables, primitive: number, point: Float64Array, ray: Float64Array): boolean {
  normalsAt(normals, tables, primitive, point);
  return (
    (normals[0] as number) * (ray[3] as number) +
      (normals[1] as number) * (ray[4] as number) +
      (normals[2] as number) * (ray[5] as number) <
    0
  );
}

/** Whether a surface has a mirror part at all. */
export function isShiny(surface: Surface): boolean {
  return surface.kind === DIELECTRIC || surface.coat !== null || surface.lobe !== null;
}

function mirrorWeight(
  tables: SceneTables,
  index: number,
  surface: Surface,
  mediumIndex: number,
  cosine: number,
): number {
  if (surface.coat !== null) return fresnelMean(cosine, surface.coat.index);
  if (surface.kind === DIELECTRIC) return fresnelMean(cosine, mediumIndex);
  if (surface.lobe === null) return 0;
  const place = index * SURFACE;
  const fresnel = (channel: number) => lobeFresnel(tables, place, channel, cosine);
  return luminanceOf(fresnel(0), fresnel(1), fresnel(2));
}
