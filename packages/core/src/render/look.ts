import { SURFACE_STRIDE } from '../engine/layouts.js';
import {
  MIRRORED,
  MIRRORED_FRONT,
  MIRRORED_POINT,
  MIRRORED_WEIGHT,
  NO_SUCH_PART,
  SEEN,
  SEEN_NORMAL,
  SEEN_POINT,
  SEEN_SURFACE,
  THROUGH,
  THROUGH_FRONT,
  THROUGH_POINT,
  THROUGH_WEIGHT,
} from '../engine/sight.js';
import { NO_MIRROR_PART } from '../engine/surfaces/surfaceModel.js';
import { luminanceOf } from '../exposure/display.js';
import type { Tracing } from './prepareTracing.js';

/** Nothing was hit: beyond the set it is dark. */
export const NOTHING = -1;
/** The surface seen has no such part: a matte one no mirror, an opaque one nothing behind it. */
export const NO_PART = -2;

/** What one ray from the lens meets first, what is mirrored there, and what is seen through it. */
export interface Look {
  /** Index into the scene's things, or NOTHING. */
  thing: number;
  /** Index into the scene's surfaces of the side seen, -1 for nothing or a light's face. */
  surface: number;
  /** Index of the thing mirrored, NOTHING for the dark, NO_PART for a matte surface. */
  mirrored: number;
  /** Whether the mirrored thing shows its front: a softbox its cloth, a card its working side. */
  mirroredFront: boolean;
  /** Part of the light that the surface mirrors, as luminance: Fresnel for glass, coats and metals. */
  weight: number;
  /** Index of the thing seen through glass, a net or frost; NOTHING for the dark, NO_PART for an opaque surface. */
  through: number;
  throughFront: boolean;
  /** Part of its light that comes through, as luminance. */
  throughWeight: number;
  /** 0-2 point seen, 3-5 its shading normal, 6-8 point mirrored, 9-11 point seen through; m. NaN where there is none. */
  geometry: Float64Array;
}

export function createLook(): Look {
  return {
    thing: NOTHING,
    surface: -1,
    mirrored: NO_PART,
    mirroredFront: false,
    weight: 0,
    through: NO_PART,
    throughFront: false,
    throughWeight: 0,
    geometry: new Float64Array(12),
  };
}

/** Looks along a ray from the lens; see `Sight` for the model and its limits. */
export function look(
  out: Look,
  { scene, engine }: Tracing,
  origin: ArrayLike<number>,
  direction: ArrayLike<number>,
): void {
  const { point, direction: way } = engine;
  for (let a = 0; a < 3; a++) {
    point[a] = origin[a] as number;
    way[a] = direction[a] as number;
  }
  engine.look();
  const s = engine.sight;
  const things = scene.table.thing;
  const seen = s[SEEN] as number;
  const mirrored = s[MIRRORED] as number;
  const through = s[THROUGH] as number;
  out.thing = thingOf(things, seen);
  out.surface = s[SEEN_SURFACE] as number;
  out.mirrored = thingOf(things, mirrored);
  out.mirroredFront = s[MIRRORED_FRONT] === 1;
  out.weight = mirrored === NO_SUCH_PART ? 0 : weightAt(s, MIRRORED_WEIGHT);
  out.through = thingOf(things, through);
  out.throughFront = s[THROUGH_FRONT] === 1;
  out.throughWeight = through === NO_SUCH_PART ? 0 : weightAt(s, THROUGH_WEIGHT);
  const g = out.geometry;
  for (let a = 0; a < 3; a++) {
    g[a] = seen < 0 ? Number.NaN : (s[SEEN_POINT + a] as number);
    g[3 + a] = seen < 0 ? Number.NaN : (s[SEEN_NORMAL + a] as number);
    g[6 + a] = mirrored < 0 ? Number.NaN : (s[MIRRORED_POINT + a] as number);
    g[9 + a] = through < 0 ? Number.NaN : (s[THROUGH_POINT + a] as number);
  }
}

/** Thing that a primitive belongs to; what is no primitive stays what it says. */
export function thingOf(things: Int32Array, primitive: number): number {
  return primitive < 0 ? primitive : (things[primitive] as number);
}

const weightAt = (s: Float64Array, at: number): number =>
  luminanceOf(s[at] as number, s[at + 1] as number, s[at + 2] as number);

/** Whether a surface, by its index, has a mirror part at all. */
export function isShiny({ models }: Tracing, surface: number): boolean {
  return models.ofSurface(surface).roughness(surface * SURFACE_STRIDE) < NO_MIRROR_PART;
}
