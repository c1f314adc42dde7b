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
  FLAT_PER_U2,
  FLAT_PER_V2,
  MAP_ACROSS,
  MAP_AREA,
  MAP_FIRST,
  MAP_OTHER,
  MAP_PATCH,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  MAP_UP,
  PRIMITIVE_STRIDE,
} from '../engine/layouts.js';
import { halfArc, pointOnPrimitive } from '../engine/normals.js';
import type { SurfaceModels } from '../engine/surfaces/surfaceModels.js';
import type { SceneTables } from '../engine/tables.js';
import type { Scene, Thing } from '../geometry/scene.js';

/** One side of a sheet and its grid of patches. */
export interface Lightmap {
  primitive: number;
  side: 0 | 1;
  across: number;
  up: number;
  /** Place of its first patch among all. */
  first: number;
  /** The lightmap of the other side, -1 for none. */
  other: number;
  areaM2: number;
}

export interface LightmapLayout {
  lightmaps: Lightmap[];
  patches: number;
}

/**
 * Patches along a side: most where light falls off fast on what is near the product, fewer on what spreads light
 * itself, fewest on backs and on what stands far off.
 */
const ALONG = { near: 14, spreading: 9, rest: 6 };
const LEAST_PATCH_M = 0.02;
const MOST_PATCH_M = 0.3;
const MOST_ALONG = 16;

/** Large and matte enough to be worth baking; all else is traced. */
const CARRIES_LIGHT = new Set<Thing['kind']>(['light', 'sheet', 'bench', 'backdrop', 'room']);

/** Lays out the lightmaps of a scene. */
export function layOutLightmaps(scene: Scene, tables: SceneTables, models: SurfaceModels): LightmapLayout {
  const { table, things } = scene;
  const lightmaps: Lightmap[] = [];
  let patches = 0;
  for (let primitive = 0; primitive < table.count; primitive++) {
    const kind = table.kind[primitive];
    if (kind !== FLAT && kind !== CONE) continue;
    const thing = things[table.thing[primitive] as number];
    if (thing === undefined || !CARRIES_LIGHT.has(thing.kind)) continue;
    const { width, height } = extentOf(tables, primitive);
    const sides: (0 | 1)[] = thing.kind === 'room' ? [0] : [0, 1];
    const made: Lightmap[] = [];
    for (const side of sides) {
      if (side === 0 && (table.emitter[primitive] as number) >= 0) continue;
      const model = models.ofSurface((side === 0 ? table.front : table.back)[primitive] as number);
      if (!model.takesIrradiance) continue;
      // Both sides of what lets light through share their places.
      const spreading = model.transmits;
      const near = side === 0 && (thing.kind === 'sheet' || thing.kind === 'backdrop');
      const along = spreading ? ALONG.spreading : near ? ALONG.near : ALONG.rest;
      const across = patchesAlong(width, along);
      const up = patchesAlong(height, along);
      const lightmap = { primitive, side, across, up, first: patches, other: -1, areaM2: width * height };
      made.push(lightmap);
      lightmaps.push(lightmap);
      patches += across * up;
    }
    const [front, back] = made;
    if (front && back && front.across === back.across && front.up === back.up) {
      front.other = lightmaps.length - 1;
      back.other = lightmaps.length - 2;
    }
  }
  return { lightmaps, patches };
}

/** Writes the layout into the tables, with no light yet. */
export function packLightmaps(tables: SceneTables, { lightmaps, patches }: LightmapLayout): void {
  tables.lightmapAt = new Int32Array(2 * tables.count).fill(-1);
  tables.lightmaps = new Float64Array(lightmaps.length * MAP_STRIDE);
  lightmaps.forEach((lightmap, index) => {
    const p = tables.lightmaps.subarray(index * MAP_STRIDE, (index + 1) * MAP_STRIDE);
    p[MAP_PRIMITIVE] = lightmap.primitive;
    p[MAP_SIDE] = lightmap.side;
    p[MAP_ACROSS] = lightmap.across;
    p[MAP_UP] = lightmap.up;
    p[MAP_FIRST] = lightmap.first;
    p[MAP_OTHER] = lightmap.other;
    p[MAP_AREA] = lightmap.areaM2;
    p[MAP_PATCH] = Math.sqrt(lightmap.areaM2 / (lightmap.across * lightmap.up));
    tables.lightmapAt[2 * lightmap.primitive + lightmap.side] = index;
  });
  tables.irradiance = new Float64Array(patches * tables.channelCount * 3);
  tables.cumulative = new Float64Array(patches);
  tables.coarse = new Int32Array(patches);
  tables.brightIndex = new Int32Array(lightmaps.length).fill(-1);
  tables.brightLightmap = new Int32Array(0);
  tables.bright = new Float64Array(0);
}

function patchesAlong(lengthM: number, along: number): number {
  const size = Math.min(MOST_PATCH_M, Math.max(LEAST_PATCH_M, lengthM / along));
  return Math.max(1, Math.min(MOST_ALONG, Math.round(lengthM / size)));
}

/** Size of a primitive along its pattern, m. */
function extentOf(tables: SceneTables, primitive: number): { width: number; height: number } {
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  if (tables.kind[primitive] === FLAT) {
    return {
      width: 1 / Math.sqrt(d[o + FLAT_PER_U2] as number),
      height: 1 / Math.sqrt(d[o + FLAT_PER_V2] as number),
    };
  }
  const height = d[o + CONE_HEIGHT] as number;
  const slope = d[o + CONE_SLOPE] as number;
  const radius = (d[o + CONE_RADIUS] as number) + (slope * height) / 2;
  return { width: 2 * halfArc(d, o) * radius, height: height * Math.hypot(1, slope) };
}

/** Patches this many times as bright as the mean are worth sampling. */
const BRIGHT = 6;

/**
 * Finds the lightmaps that hold patches much brighter than the mean, over all films together, each film taken relative
 * to its own mean, and writes them into the tables.
 * @param radiosity what leaves each patch towards its side, [(patch * channels + channel) * 3 + colour]
 */
export function packBrightLightmaps(
  tables: SceneTables,
  layout: LightmapLayout,
  radiosity: Float64Array,
): void {
  const { lightmaps, patches } = layout;
  const channels = tables.channelCount;
  const brightness = relativeBrightness(layout, channels, radiosity);
  const chosen: number[] = [];
  const numbers: number[] = [];
  const cumulative = new Float64Array(patches);
  const brightIndex = new Int32Array(lightmaps.length).fill(-1);
  lightmaps.forEach((lightmap, index) => {
    const n = lightmap.across * lightmap.up;
    const own = brightness.subarray(lightmap.first, lightmap.first + n).map((b) => Math.max(0, b - channels));
    const sum = own.reduce((a, b) => a + b, 0);
    if (!(Math.max(...own) > (BRIGHT - 1) * channels)) return;
    brightIndex[index] = chosen.length;
    chosen.push(index);
    const row = new Float64Array(BRIGHT_STRIDE);
    row[BRIGHT_POWER] = (sum * lightmap.areaM2) / n;
    writeMiddleAndReach(row, tables, lightmap.primitive);
    numbers.push(...row);
    let running = 0;
    for (let i = 0; i < n; i++) {
      running += (own[i] as number) / sum;
      cumulative[lightmap.first + i] = running;
    }
    cumulative[lightmap.first + n - 1] = 1;
  });
  tables.brightLightmap = Int32Array.from(chosen);
  tables.bright = Float64Array.from(numbers);
  tables.brightIndex = brightIndex;
  tables.cumulative = cumulative;
}

function relativeBrightness(
  { lightmaps, patches }: LightmapLayout,
  channels: number,
  radiosity: Float64Array,
): Float64Array {
  const brightness = new Float64Array(patches);
  const areas = new Float64Array(patches);
  for (const lightmap of lightmaps) {
    const n = lightmap.across * lightmap.up;
    areas.fill(lightmap.areaM2 / n, lightmap.first, lightmap.first + n);
  }
  const whole = areas.reduce((sum, area) => sum + area, 0);
  for (let channel = 0; channel < channels; channel++) {
    const grey = (patch: number) => {
      const at = (patch * channels + channel) * 3;
      return (radiosity[at] as number) + (radiosity[at + 1] as number) + (radiosity[at + 2] as number);
    };
    let mean = 0;
    for (let patch = 0; patch < patches; patch++) mean += (grey(patch) * (areas[patch] as number)) / whole;
    if (!(mean > 0)) continue;
    for (let patch = 0; patch < patches; patch++) {
      brightness[patch] = (brightness[patch] as number) + grey(patch) / mean;
    }
  }
  return brightness;
}

/** Middle of a primitive, and the squared distance from there to its farthest corner. */
function writeMiddleAndReach(row: Float64Array, tables: SceneTables, primitive: number): void {
  const middle = row.subarray(BRIGHT_MIDDLE, BRIGHT_MIDDLE + 3);
  const corner = new Float64Array(3);
  pointOnPrimitive(middle, tables, primitive, 0.5, 0.5);
  for (const [a, b] of [
    [0, 0],
    [0, 1],
    [1, 0],
    [1, 1],
  ] as const) {
    pointOnPrimitive(corner, tables, primitive, a, b);
    const squared = corner.reduce((sum, value, i) => sum + (value - (middle[i] as number)) ** 2, 0);
    row[BRIGHT_REACH2] = Math.max(row[BRIGHT_REACH2] as number, squared);
  }
}
