import { ENGINE_BYTES } from '../engine/engineBytes.js';
import { SPECULAR_TOO } from '../engine/path/traceMode.js';
import type { SceneTables } from '../engine/tables.js';
import { bytesOfBase64 } from '../units/base64.js';
import { CAUSTIC_TABLES, LIGHTMAP_TABLES } from './bakedTables.js';
import type { EngineCalls, GatherCalls } from './engineCalls.js';

/** What is used of WebAssembly; the core knows no browser and no Node. */
declare const WebAssembly:
  | {
      Module: new (bytes: Uint8Array) => object;
      Instance: new (module: object, imports: object) => { exports: object };
    }
  | undefined;

/** Parts of the engine that are numbers in its memory; the module exports where each starts, by its name. */
type PartName = { [K in keyof EngineCalls]: EngineCalls[K] extends Numbers ? K : never }[keyof EngineCalls];
type GathererPartName = {
  [K in keyof GatherCalls]: GatherCalls[K] extends Numbers ? K : never;
}[keyof GatherCalls];

/** What the module exports: packages/core/wasm/entry.ts, and for each field of `SceneTables` how to set it. */
type Exports = Record<PartName | GathererPartName, () => number> &
  Record<`size_${TableName}`, (length: number) => number> &
  Record<`set_${ScalarName}`, (value: number) => void> & {
    memory: { buffer: ArrayBuffer };
    bytesAt(array: number): number;
    start(seed: number): void;
    closestHit(): number;
    anyHit(): number;
    castBatch(count: number, any: number): void;
    reseed(seed: number): void;
    startSample(pixel: number, sample: number): void;
    next(): void;
    setMode(quick: number, sheets: number, recording: number, specular: number): void;
    renewLightmaps(): void;
    trace(scattered: number): void;
    look(): void;
    lookTile(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
    castBlock(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
    sendPhotons(lamp: number, thing: number, first: number, count: number, all: number): number;
    sampleLight(index: number): number;
    renderPixels(count: number, width: number, height: number, first: number, samples: number): void;
    beginGather(rays: number): void;
    gather(lightmap: number, cell: number): void;
  };

type Numbers = Float64Array | Int32Array | Float32Array;
interface ArrayKind<T> {
  new (buffer: ArrayBuffer, at: number, length: number): T;
  readonly BYTES_PER_ELEMENT: number;
}
/** The kind of array that another is. */
const kindOf = (array: Numbers): ArrayKind<Numbers> =>
  array instanceof Float64Array ? Float64Array : array instanceof Int32Array ? Int32Array : Float32Array;

type ScalarName = { [K in keyof SceneTables]: SceneTables[K] extends number ? K : never }[keyof SceneTables];
type TableName = { [K in keyof SceneTables]: SceneTables[K] extends Numbers ? K : never }[keyof SceneTables];

let compiled: object | null | undefined;

/** The module, compiled once a thread; null where WebAssembly or its 128-bit numbers are missing. */
function engineModule(): object | null {
  if (compiled === undefined) {
    try {
      compiled =
        typeof WebAssembly === 'undefined' ? null : new WebAssembly.Module(bytesOfBase64(ENGINE_BYTES));
    } catch {
      compiled = null;
    }
  }
  return compiled;
}

/** The engine in WebAssembly, with a copy of the tables in its own memory; null where it cannot run. */
export function createWasmEngine(tables: SceneTables): EngineCalls | null {
  const module = engineModule();
  if (module === null || typeof WebAssembly === 'undefined') return null;
  const imports = { env: { abort: () => {} } };
  const wasm = new WebAssembly.Instance(module, imports).exports as Exports;
  for (const name of Object.keys(tables) as (TableName | ScalarName)[]) {
    if (isScalar(name)) wasm[`set_${name}`](tables[name]);
    else copyTable(name);
  }
  wasm.start(1);

  function isScalar(name: TableName | ScalarName): name is ScalarName {
    return typeof tables[name] === 'number';
  }

  function copyTable(name: TableName): void {
    const from = tables[name];
    const at = wasm[`size_${name}`](from.length);
    new (kindOf(from))(wasm.memory.buffer, at, from.length).set(from);
  }
  /** An array of the engine as a view, made anew when the memory has grown. */
  function view<T extends Numbers>(Kind: ArrayKind<T>, at: number): () => T {
    const length = wasm.bytesAt(at) / Kind.BYTES_PER_ELEMENT;
    let made = new Kind(wasm.memory.buffer, at, length);
    return () => {
      if (made.buffer !== wasm.memory.buffer) made = new Kind(wasm.memory.buffer, at, length);
      return made;
    };
  }
  const ray = view(Float64Array, wasm.ray());
  const rays = view(Float64Array, wasm.rays());
  const films = view(Float64Array, wasm.films());
  const ambient = view(Float64Array, wasm.ambient());
  const point = view(Float64Array, wasm.point());
  const direction = view(Float64Array, wasm.direction());
  const light = view(Float64Array, wasm.light());
  const uv = view(Float64Array, wasm.uv());
  const camera = view(Float64Array, wasm.view());
  const sight = view(Float64Array, wasm.sight());
  const wanted = view(Float64Array, wasm.wanted());
  const tileWholes = view(Int32Array, wasm.tileWholes());
  const tileNumbers = view(Float32Array, wasm.tileNumbers());
  const photonBox = view(Float64Array, wasm.photonBox());
  const photons = view(Float32Array, wasm.photons());
  const batch = view(Float64Array, wasm.batch());
  const pixels = view(Float64Array, wasm.pixels());
  const list = view(Float64Array, wasm.list());

  return {
    name: 'wasm',
    get ray() {
      return ray();
    },
    get rays() {
      return rays();
    },
    get films() {
      return films();
    },
    get ambient() {
      return ambient();
    },
    get point() {
      return point();
    },
    get direction() {
      return direction();
    },
    get light() {
      return light();
    },
    get uv() {
      return uv();
    },
    get tileWholes() {
      return tileWholes();
    },
    get tileNumbers() {
      return tileNumbers();
    },
    get pixels() {
      return pixels();
    },
    get list() {
      return list();
    },
    get photonBox() {
      return photonBox();
    },
    get photons() {
      return photons();
    },
    get batch() {
      return batch();
    },
    get wanted() {
      return wanted();
    },
    get sight() {
      return sight();
    },
    get view() {
      return camera();
    },
    closestHit: () => wasm.closestHit(),
    anyHit: () => wasm.anyHit() !== 0,
    castBatch: (count, any) => wasm.castBatch(count, any ? 1 : 0),
    reseed: (seed) => wasm.reseed(seed),
    startSample: (pixel, sample) => wasm.startSample(pixel, sample),
    next: () => wasm.next(),
    setMode: ({ quick, lightmaps, recording, specular }) =>
      wasm.setMode(quick ? 1 : 0, lightmaps ? 1 : 0, recording ? 1 : 0, specular ?? SPECULAR_TOO),
    trace: (scattered) => wasm.trace(scattered ? 1 : 0),
    look: () => wasm.look(),
    lookTile: (px, py, columns, rows, width, height) => wasm.lookTile(px, py, columns, rows, width, height),
    castBlock: (px, py, columns, rows, width, height) => wasm.castBlock(px, py, columns, rows, width, height),
    sendPhotons: (lamp, thing, first, count, all) => wasm.sendPhotons(lamp, thing, first, count, all),
    sampleLight: (index) => wasm.sampleLight(index) !== 0,
    renderPixels: (count, width, height, first, samples) =>
      wasm.renderPixels(count, width, height, first, samples),
    gather(count) {
      wasm.beginGather(count);
      return gatherCalls();
    },
    memoryBytes: () => wasm.memory.buffer.byteLength,
    renewLightmaps() {
      for (const name of LIGHTMAP_TABLES) copyTable(name);
      wasm.renewLightmaps();
    },
    renewCaustics() {
      for (const name of CAUSTIC_TABLES) copyTable(name);
    },
  };

  function gatherCalls(): GatherCalls {
    return {
      direct: view(Float64Array, wasm.direct())(),
      met: view(Int32Array, wasm.met())(),
      factor: view(Float64Array, wasm.factor())(),
      cell: view(Int32Array, wasm.cell())(),
      near: view(Int32Array, wasm.near())(),
      told: view(Float64Array, wasm.told())(),
      gather: (lightmap, cell) => wasm.gather(lightmap, cell),
    };
  }
}
