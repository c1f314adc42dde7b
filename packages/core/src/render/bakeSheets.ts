import { normalsAt } from '../geometry/normal.js';
import { isOnPanel, pointOnPanel } from '../geometry/pattern.js';
import type { Scene } from '../geometry/scene.js';
import type { Surface } from '../geometry/surface.js';
import { sampleEmitter } from '../photometry/sampleEmitter.js';
import { type RayKernel, setRay } from '../trace/kernel.js';
import { frameRound } from './directions.js';
import { brightPanels, type LitSheets, layOutSheets, type Panel } from './litSheets.js';
import { createPassage } from './passage.js';
import type { PathTracer, SheetRecord, TraceMode } from './path.js';
import { createSampler } from './sampler.js';
import { cosineAbove } from './shade.js';
import { surfaceColour } from './surfaceHit.js';

export interface BakeOptions {
  /** Rays from each patch. */
  rays: number;
  seed: number;
}

/** Rays a patch for a whole picture: doubling them changes demo pictures by less than 1 % (docs/physics/render.md). */
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

/**
 * First half of baking: traces the rays of a range of patches. Each ray starts at its own place of the patch, asks
 * every lamp, and goes on by the cosine law until it meets a lit sheet.
 */
export function gatherPatches(
  scene: Scene,
  kernel: RayKernel,
  tracer: PathTracer,
  first: number,
  count: number,
  { rays, seed }: BakeOptions,
): Gathered {
  const lit = layOutSheets(scene);
  const { channels } = lit;
  const size = channels * 3;
  const gathered: Gathered = {
    first,
    count,
    rays,
    direct: new Float32Array(count * size),
    met: new Int32Array(count * rays * 2).fill(-1),
    factor: new Float32Array(count * rays * 6),
  };
  const record: SheetRecord = { patch: -1, otherPatch: -1, factor: new Float64Array(6) };
  const mode: TraceMode = { skipFirstLight: true, ambient: null, lit, record };
  const passage = createPassage(scene, kernel);
  const sampler = createSampler(seed ^ 0x2f6b1d);
  const films = new Float64Array(size);
  const point = new Float64Array(3);
  const normals = new Float64Array(6);
  const normal = new Float64Array(3);
  const frame = new Float64Array(6);
  const into = new Float64Array(3);
  const direction = new Float64Array(3);
  const light = new Float64Array(6);
  const passed = new Float64Array(3);

  for (const panel of lit.panels) {
    const n = panel.across * panel.up;
    for (let i = 0; i < n; i++) {
      const patch = panel.first + i;
      if (patch < first || patch >= first + count) continue;
      gather(panel, i, patch - first);
    }
  }
  return gathered;

  function gather(panel: Panel, cell: number, at: number): void {
    films.fill(0);
    let taken = 0;
    for (let ray = 0; ray < rays; ray++) {
      sampler.start(panel.first + cell, ray);
      sampler.next();
      const a = ((cell % panel.across) + (sampler.uv[0] as number)) / panel.across;
      const b = (Math.floor(cell / panel.across) + (sampler.uv[1] as number)) / panel.up;
      if (!isOnPanel(scene.table, panel.primitive, a, b)) continue;
      taken++;
      pointOnPanel(point, scene.table, panel.primitive, a, b);
      normalsAt(normals, scene.table, panel.primitive, point);
      const sign = panel.side === 0 ? 1 : -1;
      for (let k = 0; k < 3; k++) normal[k] = sign * (normals[k] as number);
      frameRound(frame, normal);
      askLamps();
      sampler.next();
      cosineAbove(into, sampler.uv);
      for (let k = 0; k < 3; k++) {
        direction[k] =
          (into[0] as number) * (frame[k] as number) +
          (into[1] as number) * (frame[3 + k] as number) +
          (into[2] as number) * (normal[k] as number);
      }
      askSurround();
      record.patch = -1;
      record.otherPatch = -1;
      scaleFilms(1 / Math.PI);
      tracer.trace(films, sampler, point, direction, mode);
      scaleFilms(Math.PI);
      const place = at * rays + ray;
      gathered.met[2 * place] = record.patch;
      gathered.met[2 * place + 1] = record.otherPatch;
      for (let k = 0; k < 6; k++) gathered.factor[6 * place + k] = Math.PI * (record.factor[k] as number);
    }
    if (taken === 0) return;
    for (let c = 0; c < size; c++) gathered.direct[at * size + c] = (films[c] as number) / taken;
    for (let ray = 0; ray < rays; ray++) {
      for (let k = 0; k < 6; k++) {
        const i = 6 * (at * rays + ray) + k;
        gathered.factor[i] = (gathered.factor[i] as number) / taken;
      }
    }
  }

  /** `films` holds sums of irradiance; paths add luminance. */
  function scaleFilms(by: number): void {
    for (let c = 0; c < size; c++) films[c] = (films[c] as number) * by;
  }

  /** Light from beyond everything, where the ray meets nothing: paths leave out what they meet at once. */
  function askSurround(): void {
    if (scene.surrounds.length === 0) return;
    setRay(kernel.ray, point, direction);
    if (kernel.anyHit()) return;
    for (const channel of scene.surrounds) {
      for (let c = 0; c < 3; c++) films[3 * channel + c] = (films[3 * channel + c] as number) + Math.PI;
    }
  }

  function askLamps(): void {
    for (const emitter of scene.emitters) {
      sampler.next();
      if (!sampleEmitter(light, emitter, point, sampler.uv)) continue;
      let cosine = 0;
      for (let k = 0; k < 3; k++) cosine += (light[k] as number) * (normal[k] as number);
      if (!(cosine > 0 && (light[5] as number) > 0)) continue;
      if (!passage.between(passed, point, light, light[3] as number)) continue;
      const value = ((light[5] as number) * cosine) / (light[4] as number);
      for (let c = 0; c < 3; c++) {
        const i = 3 * emitter.channel + c;
        films[i] = (films[i] as number) + value * (passed[c] as number);
      }
    }
  }
}

/**
 * Second half: light goes to and fro between the patches until it is spent (Jacobi iteration of the radiosity
 * equation with the rays' own meetings as form factors).
 * @param parts of all patches, from `gatherPatches`
 */
export function solveSheets(scene: Scene, parts: readonly Gathered[]): LitSheets {
  const lit = layOutSheets(scene);
  const size = lit.channels * 3;
  const total = lit.patches * size;
  const direct = new Float32Array(total);
  for (const part of parts) direct.set(part.direct, part.first * size);
  let now = Float32Array.from(direct);
  let next = new Float32Array(total);
  for (let round = 0; round < ROUNDS; round++) {
    next.set(direct);
    for (const { first, count, rays, met, factor } of parts) {
      for (let patch = 0; patch < count; patch++) {
        const to = (first + patch) * size;
        for (let ray = 0; ray < rays; ray++) {
          const place = patch * rays + ray;
          for (let side = 0; side < 2; side++) {
            const from = met[2 * place + side] as number;
            if (from < 0) continue;
            const at = 6 * place + 3 * side;
            const r = factor[at] as number;
            const g = factor[at + 1] as number;
            const b = factor[at + 2] as number;
            const start = from * size;
            for (let c = 0; c < size; c += 3) {
              next[to + c] = (next[to + c] as number) + r * (now[start + c] as number);
              next[to + c + 1] = (next[to + c + 1] as number) + g * (now[start + c + 1] as number);
              next[to + c + 2] = (next[to + c + 2] as number) + b * (now[start + c + 2] as number);
            }
          }
        }
      }
    }
    [now, next] = [next, now];
  }
  lit.irradiance = now;
  lit.bright = brightPanels(lit, scene.table, radiosityOf(lit, scene));
  return lit;
}

/** What leaves each patch to its side. */
function radiosityOf(lit: LitSheets, scene: Scene): Float32Array {
  const { table, surfaces } = scene;
  const size = lit.channels * 3;
  const radiosity = new Float32Array(lit.patches * size);
  const point = new Float64Array(3);
  const colour = new Float64Array(3);
  for (const panel of lit.panels) {
    const list = panel.side === 0 ? table.front : table.back;
    const surface = surfaces[list[panel.primitive] as number] as Surface;
    const other = panel.other < 0 ? null : (lit.panels[panel.other] as Panel);
    for (let i = 0; i < panel.across * panel.up; i++) {
      const a = ((i % panel.across) + 0.5) / panel.across;
      const b = (Math.floor(i / panel.across) + 0.5) / panel.up;
      pointOnPanel(point, table, panel.primitive, a, b);
      surfaceColour(colour, scene, surface, panel.primitive, point);
      for (let c = 0; c < size; c++) {
        const own = (lit.irradiance[(panel.first + i) * size + c] as number) * (colour[c % 3] as number);
        const through = other
          ? (lit.irradiance[(other.first + i) * size + c] as number) * (surface.spread[c % 3] as number)
          : 0;
        radiosity[(panel.first + i) * size + c] = own + through;
      }
    }
  }
  return radiosity;
}

/** Bakes all sheets of a scene on this thread. */
export function bakeSheets(
  scene: Scene,
  kernel: RayKernel,
  tracer: PathTracer,
  options: BakeOptions,
): LitSheets {
  const { patches } = layOutSheets(scene);
  return solveSheets(scene, [gatherPatches(scene, kernel, tracer, 0, patches, options)]);
}
