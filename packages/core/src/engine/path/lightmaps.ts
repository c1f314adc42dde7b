/**
 * Lightmaps: every matte or translucent sheet, board, backdrop, bench and wall keeps the light that falls on it on
 * a grid of patches, for each film. Paths end there once they have scattered, and bright patches are sampled like
 * lamps. What the lens sees itself, directly or in mirrors and glass, is never taken from the grid.
 */
import { blendFour } from '../blend.js';
import {
  BRIGHT_MIDDLE,
  BRIGHT_POWER,
  BRIGHT_REACH2,
  BRIGHT_STRIDE,
  CONE,
  CONE_HEIGHT,
  CONE_RADIUS,
  CONE_SLOPE,
  FLAT,
  FLAT_NORMAL,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  MAP_ACROSS,
  MAP_AREA,
  MAP_FIRST,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  MAP_UP,
  NORMALS,
  PRIMITIVE_STRIDE,
} from '../layouts.js';
import { coordinatesOn, isOnPrimitive, normalsAt, pointOnPrimitive } from '../normals.js';
import { divide32, floor32, type i32, real, whole32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { copy3, dot3, scale3 } from '../vectors.js';

const coordinates = new Float64Array(2);

function within(i: i32, count: i32): i32 {
  return i < 0 ? 0 : i >= count ? count - 1 : i;
}

/** Patch of a lightmap, from its first, that a point lies in. */
export function patchAt(t: SceneTables, lightmap: i32, point: Float64Array): i32 {
  const p = t.lightmaps;
  const o = lightmap * MAP_STRIDE;
  const across = whole32(p[o + MAP_ACROSS]);
  const up = whole32(p[o + MAP_UP]);
  coordinatesOn(coordinates, t, whole32(p[o + MAP_PRIMITIVE]), point);
  const i = within(floor32(coordinates[0] * real(across)), across);
  const j = within(floor32(coordinates[1] * real(up)), up);
  return j * across + i;
}

/**
 * Irradiance of all films at a point of a lightmap, bilinear between the patches' middles.
 * @param out [channel * 3 + colour]
 */
export function irradianceAt(out: Float64Array, t: SceneTables, lightmap: i32, point: Float64Array): void {
  const p = t.lightmaps;
  const o = lightmap * MAP_STRIDE;
  const across = whole32(p[o + MAP_ACROSS]);
  const up = whole32(p[o + MAP_UP]);
  const first = whole32(p[o + MAP_FIRST]);
  coordinatesOn(coordinates, t, whole32(p[o + MAP_PRIMITIVE]), point);
  const x = Math.max(0, Math.min(real(across - 1), coordinates[0] * real(across) - 0.5));
  const y = Math.max(0, Math.min(real(up - 1), coordinates[1] * real(up) - 0.5));
  const i0 = floor32(x);
  const j0 = floor32(y);
  const i1 = within(i0 + 1, across);
  const j1 = within(j0 + 1, up);
  const fx = x - real(i0);
  const fy = y - real(j0);
  const size = t.channelCount * 3;
  places[0] = (first + j0 * across + i0) * size;
  places[1] = (first + j0 * across + i1) * size;
  places[2] = (first + j1 * across + i0) * size;
  places[3] = (first + j1 * across + i1) * size;
  shares[0] = (1 - fx) * (1 - fy);
  shares[1] = fx * (1 - fy);
  shares[2] = (1 - fx) * fy;
  shares[3] = fx * fy;
  blendFour(out, t.irradiance, places, shares, size);
}

const places = new Int32Array(4);
const shares = new Float64Array(4);
const normals = new Float64Array(NORMALS);

/** Samples a place on a bright lightmap from a point, and knows the density of having done so. */
export class LightmapSampler {
  /** Point sampled last, and the cosine there towards the point looked from. */
  target: Float64Array = new Float64Array(3);
  cosine: number = 1;
  private tables: SceneTables;
  private chance: Float64Array;
  private from: Float64Array = new Float64Array(3);
  private total: number = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.chance = new Float64Array(tables.brightLightmap.length);
  }

  /** Makes ready for a point; false where no bright lightmap can be seen from there. */
  look(point: Float64Array): boolean {
    const t = this.tables;
    const chance = this.chance;
    let total: number = 0;
    copy3(this.from, point);
    const count = t.brightLightmap.length;
    for (let i = 0; i < count; i++) {
      const b = i * BRIGHT_STRIDE;
      const dx = t.bright[b + BRIGHT_MIDDLE] - point[0];
      const dy = t.bright[b + BRIGHT_MIDDLE + 1] - point[1];
      const dz = t.bright[b + BRIGHT_MIDDLE + 2] - point[2];
      let weight = t.bright[b + BRIGHT_POWER] / (dx * dx + dy * dy + dz * dz + t.bright[b + BRIGHT_REACH2]);
      const lightmap = t.brightLightmap[i] * MAP_STRIDE;
      const primitive = whole32(t.lightmaps[lightmap + MAP_PRIMITIVE]);
      if (t.kind[primitive] === FLAT) {
        const o = primitive * PRIMITIVE_STRIDE;
        const d = t.data;
        const towards = dx * d[o + FLAT_NORMAL] + dy * d[o + FLAT_NORMAL + 1] + dz * d[o + FLAT_NORMAL + 2];
        const back = t.lightmaps[lightmap + MAP_SIDE] > 0;
        if ((back ? -towards : towards) >= 0) weight = 0;
      }
      chance[i] = weight;
      total += weight;
    }
    this.total = total;
    return total > 0;
  }

  /**
   * @param uv two numbers from 0 to 1: the first picks lightmap, patch and place across, the second the place up
   * @param out 0-2 direction, 3 distance m, 4 density per sr
   * @returns the lightmap, or -1 when the place sampled cannot shine here
   */
  sample(out: Float64Array, uv: Float64Array): i32 {
    const t = this.tables;
    const count = t.brightLightmap.length;
    let left = uv[0] * this.total;
    let i: i32 = 0;
    while (i < count - 1 && left >= this.chance[i]) {
      left -= this.chance[i];
      i++;
    }
    const lightmapIndex = t.brightLightmap[i];
    const lightmap = lightmapIndex * MAP_STRIDE;
    const across = whole32(t.lightmaps[lightmap + MAP_ACROSS]);
    const up = whole32(t.lightmaps[lightmap + MAP_UP]);
    const first = whole32(t.lightmaps[lightmap + MAP_FIRST]);
    const primitive = whole32(t.lightmaps[lightmap + MAP_PRIMITIVE]);
    const u = Math.min(1, left / this.chance[i]);
    // The patch by bisection of the running sum.
    let low: i32 = 0;
    let high: i32 = across * up - 1;
    while (low < high) {
      const middle = divide32(low + high, 2);
      if (t.cumulative[first + middle] > u) high = middle;
      else low = middle + 1;
    }
    const before = this.runningBefore(first, low);
    const share = t.cumulative[first + low] - before;
    const row = divide32(low, across);
    const a = (real(low - row * across) + (u - before) / share) / real(across);
    const b = (real(row) + uv[1]) / real(up);
    if (!isOnPrimitive(t, primitive, a, b)) return -1;
    pointOnPrimitive(this.target, t, primitive, a, b);
    for (let k = 0; k < 3; k++) out[k] = this.target[k] - this.from[k];
    const distance = Math.sqrt(dot3(out, out));
    if (!(distance > 1e-6)) return -1;
    scale3(out, 1 / distance);
    out[LIGHT_DISTANCE] = distance;
    const density = this.density(i, lightmap, share, b, out, distance);
    out[LIGHT_DENSITY] = density;
    return density > 0 ? lightmapIndex : -1;
  }

  /** Density per sr, from the point made ready, of a direction that hits a lightmap at a point and distance. */
  pdf(lightmapIndex: i32, at: Float64Array, direction: Float64Array, distance: number): number {
    const t = this.tables;
    const i = t.brightIndex[lightmapIndex];
    if (i < 0) return 0;
    const lightmap = lightmapIndex * MAP_STRIDE;
    const first = whole32(t.lightmaps[lightmap + MAP_FIRST]);
    const patch = patchAt(t, lightmapIndex, at);
    const b = coordinates[1];
    const share = t.cumulative[first + patch] - this.runningBefore(first, patch);
    copy3(this.target, at);
    return this.density(i, lightmap, share, b, direction, distance);
  }

  private runningBefore(first: i32, patch: i32): number {
    return patch === 0 ? 0 : this.tables.cumulative[first + patch - 1];
  }

  /** Chance of the lightmap and patch over the patch's area there, turned to solid angle. */
  private density(
    i: i32,
    lightmap: i32,
    share: number,
    b: number,
    direction: Float64Array,
    distance: number,
  ): number {
    const t = this.tables;
    const primitive = whole32(t.lightmaps[lightmap + MAP_PRIMITIVE]);
    normalsAt(normals, t, primitive, this.target);
    const facing = normals[0] * direction[0] + normals[1] * direction[1] + normals[2] * direction[2];
    const cosine = t.lightmaps[lightmap + MAP_SIDE] > 0 ? facing : -facing;
    if (!(cosine > 1e-6)) return 0;
    this.cosine = Math.min(1, cosine);
    const patches = t.lightmaps[lightmap + MAP_ACROSS] * t.lightmaps[lightmap + MAP_UP];
    const perArea = (this.chance[i] / this.total) * share * patches;
    const area = t.lightmaps[lightmap + MAP_AREA] * narrowing(t, primitive, b);
    return (perArea * distance * distance) / (cosine * area);
  }
}

/** Area of a stretch of a cone at a height over that at its middle. */
function narrowing(t: SceneTables, primitive: i32, b: number): number {
  if (t.kind[primitive] !== CONE) return 1;
  const d = t.data;
  const o = primitive * PRIMITIVE_STRIDE;
  const slope = d[o + CONE_SLOPE] * d[o + CONE_HEIGHT];
  const foot = d[o + CONE_RADIUS];
  return (foot + b * slope) / (foot + slope / 2);
}
