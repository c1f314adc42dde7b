import { pointOnPanel } from '../engine/normals.js';
import { surfaceColour } from '../engine/print.js';
import { type SceneTables, SPREAD, SURFACE } from '../engine/tables.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { packBrightPanels, packSheets, type SheetLayout } from './litSheets.js';

export interface BakeOptions {
  /** Rays from each patch. */
  rays: number;
  seed: number;
}

/** Rays a patch for a whole picture: more change demo pictures by less than 1 % (docs/physics/render.md). */
export const BAKE_RAYS = 48;
/** Rounds of light between the sheets; what is left then is below 0.1 % even at a reflectance of 0.85. */
const ROUNDS = 48;

/** Light gathered by a range of patches, and where their rays met other patches. */
export interface Gathered {
  first: number;
  count: number;
  rays: number;
  /** Irradiance from lamps and by way of things that are no lit sheets: [(patch * channels + channel) * 3 + colour]. */
  direct: Float32Array;
  /** 2 a ray: patch met, and the patch behind it where light shines through; -1 for none. */
  met: Int32Array;
  /** 6 a ray: what the irradiance of the two counts, red green blue. */
  factor: Float32Array;
}

/** First half of baking: traces the rays of a range of patches. Any split into ranges gives the same numbers. */
export function gatherPatches(
  engine: EngineCalls,
  layout: SheetLayout,
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
  };
  engine.reseed(seed ^ 0x2f6b1d);
  engine.setMode({ sheets: true, recording: true });
  const gatherer = engine.gather(rays);
  layout.panels.forEach((panel, index) => {
    const n = panel.across * panel.up;
    for (let cell = 0; cell < n; cell++) {
      const at = panel.first + cell - first;
      if (at < 0 || at >= count) continue;
      gatherer.gather(index, cell);
      gathered.direct.set(gatherer.direct, at * size);
      gathered.met.set(gatherer.met, at * rays * 2);
      gathered.factor.set(gatherer.factor, at * rays * 6);
    }
  });
  engine.setMode({});
  return gathered;
}

/**
 * Second half: light goes to and fro between the patches until it is spent (Jacobi iteration of the radiosity
 * equation with the rays' own meetings as form factors). Writes the light into the tables.
 * @param parts of all patches, from `gatherPatches`
 */
export function solveSheets(tables: SceneTables, layout: SheetLayout, parts: readonly Gathered[]): void {
  const size = tables.channelCount * 3;
  const direct = new Float64Array(layout.patches * size);
  for (const part of parts) direct.set(part.direct, part.first * size);
  let now = Float64Array.from(direct);
  let next = new Float64Array(direct.length);
  for (let round = 0; round < ROUNDS; round++) {
    next.set(direct);
    for (const part of parts) sendLight(next, now, part, size);
    [now, next] = [next, now];
  }
  packSheets(tables, layout);
  tables.irradiance = now;
  packBrightPanels(tables, layout, radiosityOf(tables, layout));
  tables.lit = 1;
}

function sendLight(to: Float64Array, from: Float64Array, part: Gathered, size: number): void {
  const { first, count, rays, met, factor } = part;
  for (let patch = 0; patch < count; patch++) {
    const here = (first + patch) * size;
    for (let i = 2 * patch * rays; i < 2 * (patch + 1) * rays; i++) {
      const source = met[i] as number;
      if (source < 0) continue;
      const r = factor[3 * i] as number;
      const g = factor[3 * i + 1] as number;
      const b = factor[3 * i + 2] as number;
      const start = source * size;
      for (let c = 0; c < size; c += 3) {
        to[here + c] = (to[here + c] as number) + r * (from[start + c] as number);
        to[here + c + 1] = (to[here + c + 1] as number) + g * (from[start + c + 1] as number);
        to[here + c + 2] = (to[here + c + 2] as number) + b * (from[start + c + 2] as number);
      }
    }
  }
}

/** What leaves each patch to its side. */
function radiosityOf(tables: SceneTables, { panels, patches }: SheetLayout): Float64Array {
  const size = tables.channelCount * 3;
  const radiosity = new Float64Array(patches * size);
  const point = new Float64Array(3);
  const colour = new Float64Array(3);
  for (const panel of panels) {
    const surface = (panel.side === 0 ? tables.front : tables.back)[panel.primitive] as number;
    const spread = tables.surfaces.subarray(surface * SURFACE + SPREAD, surface * SURFACE + SPREAD + 3);
    const other = panels[panel.other];
    for (let i = 0; i < panel.across * panel.up; i++) {
      const a = ((i % panel.across) + 0.5) / panel.across;
      const b = (Math.floor(i / panel.across) + 0.5) / panel.up;
      pointOnPanel(point, tables, panel.primitive, a, b);
      surfaceColour(colour, tables, surface, panel.primitive, point);
      for (let c = 0; c < size; c++) {
        const own = (tables.irradiance[(panel.first + i) * size + c] as number) * (colour[c % 3] as number);
        const beyond = other ? (tables.irradiance[(other.first + i) * size + c] as number) : 0;
        radiosity[(panel.first + i) * size + c] = own + beyond * (spread[c % 3] as number);
      }
    }
  }
  return radiosity;
}
