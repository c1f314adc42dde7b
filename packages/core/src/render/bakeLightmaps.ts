import { SPREAD, SURFACE_STRIDE } from '../engine/layouts.js';
import { pointOnPrimitive } from '../engine/normals.js';
import { surfaceColour } from '../engine/print.js';
import type { SceneTables } from '../engine/tables.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { type LightmapLayout, packBrightLightmaps, packLightmaps } from './lightmaps.js';
import { packLightSamples } from './packLightSamples.js';
import { packPathGuide } from './packPathGuide.js';

export interface BakeOptions {
  /** Rays from each patch. */
  rays: number;
  seed: number;
}

/** Rays a patch for a whole picture: more change demo pictures by less than 1 % (docs/physics/render.md). */
export const BAKE_RAYS = 48;
/** Light goes to and fro until no patch gains more than this part in a round, or for so many rounds. */
const SETTLED = 1e-4;
const MOST_ROUNDS = 200;

/** Light gathered by a range of patches, and where their rays met other patches. */
export interface Gathered {
  first: number;
  count: number;
  rays: number;
  /** Irradiance from lamps and by way of things that are no lightmaps: [(patch * channels + channel) * 3 + colour]. */
  direct: Float32Array;
  /** 2 a ray: patch met, and the patch behind it where light shines through; -1 for none. */
  met: Int32Array;
  /** 6 a ray: what the irradiance of the two counts, red green blue. */
  factor: Float32Array;
  /** Cell of the direction of each ray, see `PathGuide`. */
  cell: Uint8Array;
  /** Of each patch: see `PatchGatherer.near`. */
  near: Int32Array;
  /** 2 a lamp: see `PatchGatherer.told`. */
  told: Float32Array;
}

/** First half of baking: traces the rays of a range of patches. Any split into ranges gives the same numbers. */
export function gatherPatches(
  engine: EngineCalls,
  layout: LightmapLayout,
  channels: number,
  first: number,
  count: number,
  { rays, seed }: BakeOptions,
): Gathered {
  const size = channels * 3;
  const gathered: Gathered = {
    first,
    count,
    rays,
    direct: new Float32Array(count * size),
    met: new Int32Array(count * rays * 2),
    factor: new Float32Array(count * rays * 6),
    cell: new Uint8Array(count * rays),
    near: new Int32Array(count),
    told: new Float32Array(0),
  };
  engine.reseed(seed ^ 0x2f6b1d);
  engine.setMode({ lightmaps: true, recording: true });
  const gatherer = engine.gather(rays);
  const lamps = gatherer.told.length;
  gathered.told = new Float32Array(count * lamps);
  layout.lightmaps.forEach((lightmap, index) => {
    const n = lightmap.across * lightmap.up;
    for (let cell = 0; cell < n; cell++) {
      const at = lightmap.first + cell - first;
      if (at < 0 || at >= count) continue;
      gatherer.gather(index, cell);
      gathered.direct.set(gatherer.direct, at * size);
      gathered.met.set(gatherer.met, at * rays * 2);
      gathered.factor.set(gatherer.factor, at * rays * 6);
      gathered.cell.set(gatherer.cell, at * rays);
      gathered.near[at] = gatherer.near[0] as number;
      gathered.told.set(gatherer.told, at * lamps);
    }
  });
  engine.setMode({});
  return gathered;
}

/**
 * Second half: light goes to and fro between the patches until it is spent (Gauss-Seidel iteration of the radiosity
 * equation with the rays' own meetings as form factors). Writes the light into the tables.
 * @param parts of all patches, from `gatherPatches`
 */
export function solveLightmaps(
  tables: SceneTables,
  layout: LightmapLayout,
  parts: readonly Gathered[],
): void {
  const size = tables.channelCount * 3;
  const direct = new Float64Array(layout.patches * size);
  for (const part of parts) direct.set(part.direct, part.first * size);
  const now = Float64Array.from(direct);
  const exchange = exchangeOf(layout.patches, parts);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (sendLight(now, direct, exchange, size) < SETTLED) break;
  }
  packLightmaps(tables, layout);
  tables.irradiance = now;
  for (const { first, near } of parts)
    near.forEach((rays, at) => {
      tables.coarse[first + at] = rays > 0 ? 1 : 0;
    });
  packPathGuide(tables, layout, parts);
  packBrightLightmaps(tables, layout, radiosityOf(tables, layout));
  packLightSamples(tables, layout, parts);
}

/** What each patch receives of others: its entries lie together, one for each patch that its rays have met. */
interface Exchange {
  /** First entry of each patch, and the end of the last. */
  start: Int32Array;
  source: Int32Array;
  /** 3 an entry: what the irradiance of the source counts, red green blue. */
  share: Float64Array;
}

function exchangeOf(patches: number, parts: readonly Gathered[]): Exchange {
  const most = parts.reduce((sum, { met }) => sum + met.length, 0);
  const exchange: Exchange = {
    start: new Int32Array(patches + 1),
    source: new Int32Array(most),
    share: new Float64Array(3 * most),
  };
  const { start, source, share } = exchange;
  // Entry of the patch at hand for each source it has met.
  const entryOf = new Int32Array(patches).fill(-1);
  let entries = 0;
  for (const { first, count, rays, met, factor } of parts) {
    for (let patch = 0; patch < count; patch++) {
      const begin = entries;
      start[first + patch] = begin;
      for (let i = 2 * patch * rays; i < 2 * (patch + 1) * rays; i++) {
        const from = met[i] as number;
        if (from < 0) continue;
        let entry = entryOf[from] as number;
        if (entry < begin) {
          entry = entries++;
          entryOf[from] = entry;
          source[entry] = from;
        }
        for (let c = 0; c < 3; c++) {
          share[3 * entry + c] = (share[3 * entry + c] as number) + (factor[3 * i + c] as number);
        }
      }
      start[first + patch + 1] = entries;
    }
  }
  return exchange;
}

/** One round, each patch in turn with the newest light of the others. @returns the largest relative change */
function sendLight(
  light: Float64Array,
  direct: Float64Array,
  { start, source, share }: Exchange,
  size: number,
): number {
  let change = 0;
  for (let patch = 0; patch + 1 < start.length; patch++) {
    const begin = start[patch] as number;
    const end = start[patch + 1] as number;
    for (let c = patch * size; c < (patch + 1) * size; c += 3) {
      const offset = c - patch * size;
      let r = direct[c] as number;
      let g = direct[c + 1] as number;
      let b = direct[c + 2] as number;
      for (let entry = begin; entry < end; entry++) {
        const from = (source[entry] as number) * size + offset;
        r += (share[3 * entry] as number) * (light[from] as number);
        g += (share[3 * entry + 1] as number) * (light[from + 1] as number);
        b += (share[3 * entry + 2] as number) * (light[from + 2] as number);
      }
      change = Math.max(change, gain(light[c], r), gain(light[c + 1], g), gain(light[c + 2], b));
      light[c] = r;
      light[c + 1] = g;
      light[c + 2] = b;
    }
  }
  return change;
}

/** Part of what there is now that was not there before. */
const gain = (before: number | undefined, now: number): number =>
  now > 0 ? 1 - (before as number) / now : 0;

/** What leaves each patch to its side. */
function radiosityOf(tables: SceneTables, { lightmaps, patches }: LightmapLayout): Float64Array {
  const size = tables.channelCount * 3;
  const radiosity = new Float64Array(patches * size);
  const point = new Float64Array(3);
  const colour = new Float64Array(3);
  for (const lightmap of lightmaps) {
    const surface = (lightmap.side === 0 ? tables.front : tables.back)[lightmap.primitive] as number;
    const spread = tables.surfaces.subarray(
      surface * SURFACE_STRIDE + SPREAD,
      surface * SURFACE_STRIDE + SPREAD + 3,
    );
    const other = lightmaps[lightmap.other];
    for (let i = 0; i < lightmap.across * lightmap.up; i++) {
      const a = ((i % lightmap.across) + 0.5) / lightmap.across;
      const b = (Math.floor(i / lightmap.across) + 0.5) / lightmap.up;
      pointOnPrimitive(point, tables, lightmap.primitive, a, b);
      surfaceColour(colour, tables, surface, lightmap.primitive, point);
      for (let c = 0; c < size; c++) {
        const own =
          (tables.irradiance[(lightmap.first + i) * size + c] as number) * (colour[c % 3] as number);
        const beyond = other ? (tables.irradiance[(other.first + i) * size + c] as number) : 0;
        radiosity[(lightmap.first + i) * size + c] = own + beyond * (spread[c % 3] as number);
      }
    }
  }
  return radiosity;
}
