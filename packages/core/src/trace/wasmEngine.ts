import { BATCH_RAYS } from '../engine/engine.js';
import { ENGINE_BYTES } from '../engine/engineBytes.js';
import { SIGHT, TILE_NUMBERS, TILE_WHOLES } from '../engine/sight.js';
import type { SceneTables } from '../engine/tables.js';
import { CALL_PIXELS, VIEW } from '../engine/tile.js';
import { bytesOfBase64 } from '../units/base64.js';
import type { EngineCalls, GatherCalls } from './engineCalls.js';

/** What is used of WebAssembly; the core knows no browser and no Node. */
declare const WebAssembly:
  | {
      Module: new (bytes: Uint8Array) => object;
      Instance: new (module: object, imports: object) => { exports: object };
    }
  | undefined;

/** What packages/core/wasm/entry.ts exports. */
interface Exports {
  memory: { buffer: ArrayBuffer };
  sizeTable(table: number, length: number): number;
  setCounts(
    count: number,
    room: number,
    surfaces: number,
    emitters: number,
    channels: number,
    seeThrough: number,
  ): void;
  start(seed: number): void;
  place(part: number): number;
  closestHit(): number;
  anyHit(): number;
  castBatch(count: number, any: number): void;
  reseed(seed: number): void;
  startSample(pixel: number, sample: number): void;
  next(): void;
  setMode(quick: number, sheets: number, recording: number): void;
  renewSheets(): void;
  trace(scattered: number): void;
  look(): void;
  lookTile(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
  castBlock(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
  askLight(index: number): number;
  renderPixels(count: number, width: number, height: number, first: number, samples: number): void;
  beginGather(rays: number): void;
  gatherPlace(part: number): number;
  gather(panel: number, cell: number): void;
}

type Numbers = Float64Array | Int32Array | Float32Array;
type TableName = { [K in keyof SceneTables]: SceneTables[K] extends Numbers ? K : never }[keyof SceneTables];

/** Tables in the order of `sizeTable`. */
const TABLES: readonly TableName[] = [
  'data',
  'surfaces',
  'albedos',
  'media',
  'emitters',
  'angles',
  'boxes',
  'panels',
  'irradiance',
  'bright',
  'cumulative',
  'kind',
  'front',
  'back',
  'emitterOf',
  'keptChannel',
  'surrounds',
  'children',
  'leaves',
  'order',
  'panelAt',
  'brightPanel',
  'brightPlace',
  'tones',
  'guide',
  'bounds',
  'thing',
  'questions',
  'rasters',
];
const SHEET_TABLES: readonly TableName[] = [
  'panels',
  'irradiance',
  'bright',
  'cumulative',
  'panelAt',
  'brightPanel',
  'brightPlace',
  'guide',
  'questions',
];

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
  for (const name of TABLES) copyTable(name);
  const { count, room, surfaceCount, emitterCount, channelCount, seeThrough } = tables;
  wasm.setCounts(count, room, surfaceCount, emitterCount, channelCount, seeThrough);
  wasm.start(1);

  function copyTable(name: TableName): void {
    const from = tables[name];
    const at = wasm.sizeTable(TABLES.indexOf(name), from.length);
    const Kind = from.constructor as new (buffer: ArrayBuffer, at: number, length: number) => Numbers;
    new Kind(wasm.memory.buffer, at, from.length).set(from);
  }

  /** Numbers of a part, by its place in `place`; the view is made anew when the memory has grown. */
  function part(index: number, length: number): () => Float64Array {
    return view(Float64Array, index, length);
  }

  function view<T extends Numbers>(
    Kind: new (buffer: ArrayBuffer, at: number, length: number) => T,
    index: number,
    length: number,
  ): () => T {
    const at = wasm.place(index);
    let made = new Kind(wasm.memory.buffer, at, length);
    return () => {
      if (made.buffer !== wasm.memory.buffer) made = new Kind(wasm.memory.buffer, at, length);
      return made;
    };
  }
  const ray = part(0, 8);
  const rays = part(1, 1);
  const films = part(2, 3 * channelCount);
  const ambient = part(3, channelCount);
  const point = part(4, 3);
  const direction = part(5, 3);
  const light = part(6, 9);
  const uv = part(7, 2);
  const camera = part(8, VIEW);
  const sight = part(9, SIGHT);
  const wanted = part(10, channelCount);
  const tileWholes = view(Int32Array, 11, TILE_WHOLES);
  const tileNumbers = view(Float32Array, 15, TILE_NUMBERS);
  const batch = part(12, 8 * BATCH_RAYS);
  const pixels = part(13, CALL_PIXELS * 3 * channelCount);
  const list = part(14, CALL_PIXELS);

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
    setMode: ({ quick, sheets, recording }) => wasm.setMode(quick ? 1 : 0, sheets ? 1 : 0, recording ? 1 : 0),
    trace: (scattered) => wasm.trace(scattered ? 1 : 0),
    look: () => wasm.look(),
    lookTile: (px, py, columns, rows, width, height) => wasm.lookTile(px, py, columns, rows, width, height),
    castBlock: (px, py, columns, rows, width, height) => wasm.castBlock(px, py, columns, rows, width, height),
    askLight: (index) => wasm.askLight(index) !== 0,
    renderPixels: (count, width, height, first, samples) =>
      wasm.renderPixels(count, width, height, first, samples),
    gather(count) {
      wasm.beginGather(count);
      return gatherCalls(count);
    },
    memoryBytes: () => wasm.memory.buffer.byteLength,
    renewSheets() {
      for (const name of SHEET_TABLES) copyTable(name);
      wasm.renewSheets();
    },
  };

  function gatherCalls(count: number): GatherCalls {
    const { buffer } = wasm.memory;
    return {
      direct: new Float64Array(buffer, wasm.gatherPlace(0), 3 * channelCount),
      met: new Int32Array(buffer, wasm.gatherPlace(1), 2 * count),
      factor: new Float64Array(buffer, wasm.gatherPlace(2), 6 * count),
      cell: new Int32Array(buffer, wasm.gatherPlace(3), count),
      told: new Float64Array(buffer, wasm.gatherPlace(4), 2 * emitterCount),
      gather: (panel, cell) => wasm.gather(panel, cell),
    };
  }
}
