/** The engine as a WebAssembly module: one scene an instance. Compiled by AssemblyScript only. */
import { Engine } from '../src/engine/engine';
import { PatchGatherer } from '../src/engine/gather';
import { SceneTables } from '../src/engine/tables';

const tables = new SceneTables();
let engine: Engine | null = null;
let gatherer: PatchGatherer | null = null;

/** Gives a table its size; returns where its numbers start. The order is that of `TABLES` in loadEngine.ts. */
export function sizeTable(table: i32, length: i32): usize {
  switch (table) {
    case 0:
      return doubles((tables.data = new StaticArray<f64>(length)));
    case 1:
      return doubles((tables.surfaces = new StaticArray<f64>(length)));
    case 2:
      return doubles((tables.albedos = new StaticArray<f64>(length)));
    case 3:
      return doubles((tables.media = new StaticArray<f64>(length)));
    case 4:
      return doubles((tables.emitters = new StaticArray<f64>(length)));
    case 5:
      return doubles((tables.angles = new StaticArray<f64>(length)));
    case 6:
      return doubles((tables.boxes = new StaticArray<f64>(length)));
    case 7:
      return doubles((tables.panels = new StaticArray<f64>(length)));
    case 8:
      return doubles((tables.irradiance = new StaticArray<f64>(length)));
    case 9:
      return doubles((tables.bright = new StaticArray<f64>(length)));
    case 10:
      return doubles((tables.cumulative = new StaticArray<f64>(length)));
    case 11:
      return whole((tables.kind = new StaticArray<i32>(length)));
    case 12:
      return whole((tables.front = new StaticArray<i32>(length)));
    case 13:
      return whole((tables.back = new StaticArray<i32>(length)));
    case 14:
      return whole((tables.emitterOf = new StaticArray<i32>(length)));
    case 15:
      return whole((tables.keptChannel = new StaticArray<i32>(length)));
    case 16:
      return whole((tables.surrounds = new StaticArray<i32>(length)));
    case 17:
      return whole((tables.children = new StaticArray<i32>(length)));
    case 18:
      return whole((tables.leaves = new StaticArray<i32>(length)));
    case 19:
      return whole((tables.order = new StaticArray<i32>(length)));
    case 20:
      return whole((tables.panelAt = new StaticArray<i32>(length)));
    case 21:
      return whole((tables.brightPanel = new StaticArray<i32>(length)));
    case 22:
      return whole((tables.brightPlace = new StaticArray<i32>(length)));
    case 23:
      return singles((tables.tones = new StaticArray<f32>(length)));
    case 24:
      return singles((tables.guide = new StaticArray<f32>(length)));
    case 25:
      return doubles((tables.bounds = new StaticArray<f64>(length)));
    case 26:
      return whole((tables.thing = new StaticArray<i32>(length)));
    case 27:
      return whole((tables.questions = new StaticArray<i32>(length)));
    default:
      return singles((tables.rasters = new StaticArray<f32>(length)));
  }
}

function doubles(array: StaticArray<f64>): usize {
  return changetype<usize>(array);
}

function singles(array: StaticArray<f32>): usize {
  return changetype<usize>(array);
}

function whole(array: StaticArray<i32>): usize {
  return changetype<usize>(array);
}

export function setCounts(count: i32, room: i32, surfaces: i32, emitters: i32, channels: i32, seeThrough: i32): void {
  tables.count = count;
  tables.room = room;
  tables.surfaceCount = surfaces;
  tables.emitterCount = emitters;
  tables.channelCount = channels;
  tables.seeThrough = seeThrough;
}

/** Call once, after the tables are filled. */
export function start(seed: i32): void {
  engine = new Engine(tables, seed);
}

/**
 * Where the numbers of a part start: 0 ray, 1 rays, 2 films, 3 ambient, 4 point, 5 direction, 6 light, 7 uv, 8 view, 9 sight,
 * 10 wanted, 11 whole numbers of a tile, 12 batch, 13 pixels, 14 list, 15 numbers of a tile.
 */
export function place(part: i32): usize {
  const e = engine!;
  switch (part) {
    case 0:
      return doubles(e.kernel.ray);
    case 1:
      return doubles(e.kernel.rays);
    case 2:
      return doubles(e.tracer.films);
    case 3:
      return doubles(e.tracer.ambient);
    case 4:
      return doubles(e.point);
    case 5:
      return doubles(e.direction);
    case 6:
      return doubles(e.light);
    case 7:
      return doubles(e.sampler.uv);
    case 8:
      return doubles(e.tiles.view);
    case 9:
      return doubles(e.sight.answer);
    case 10:
      return doubles(e.tracer.wanted);
    case 11:
      return whole(e.sight.tileWholes);
    case 12:
      return doubles(e.batch);
    case 13:
      return doubles(e.tiles.sums);
    case 14:
      return doubles(e.tiles.list);
    default:
      return singles(e.sight.tileNumbers);
  }
}

export function closestHit(): i32 {
  return engine!.kernel.closestHit();
}

export function anyHit(): i32 {
  return engine!.kernel.anyHit() ? 1 : 0;
}

export function castBatch(count: i32, any: i32): void {
  engine!.castBatch(count, any != 0);
}

export function reseed(seed: i32): void {
  engine!.sampler.reseed(seed);
}

export function startSample(pixel: i32, sample: i32): void {
  engine!.sampler.start(pixel, sample);
}

export function next(): void {
  engine!.sampler.next();
}

export function setMode(quick: i32, sheets: i32, recording: i32): void {
  const tracer = engine!.tracer;
  tracer.quick = quick != 0;
  tracer.useSheets = sheets != 0;
  tracer.recording = recording != 0;
}

export function renewSheets(): void {
  engine!.tracer.renewSheets();
}

export function trace(scattered: i32): void {
  engine!.trace(scattered != 0);
}

export function look(): void {
  const e = engine!;
  e.sight.cast(e.point, e.direction);
}

export function lookTile(px: i32, py: i32, columns: i32, rows: i32, width: i32, height: i32): void {
  const e = engine!;
  e.sight.castTile(e.tiles.view, px, py, columns, rows, width, height);
}

export function castBlock(px: i32, py: i32, columns: i32, rows: i32, width: i32, height: i32): void {
  engine!.castBlock(px, py, columns, rows, width, height);
}

export function askLight(index: i32): i32 {
  return engine!.askLight(index) ? 1 : 0;
}

export function renderPixels(count: i32, width: i32, height: i32, first: i32, samples: i32): void {
  engine!.tiles.renderPixels(count, width, height, first, samples);
}

export function beginGather(rays: i32): void {
  gatherer = engine!.createGatherer(rays);
}

/** Where the gatherer's numbers start: 0 direct, 1 met, 2 factor, 3 cell, 4 told. */
export function gatherPlace(part: i32): usize {
  const g = gatherer!;
  if (part === 1) return whole(g.met);
  if (part === 3) return whole(g.cell);
  return doubles(part === 0 ? g.direct : part === 2 ? g.factor : g.told);
}

export function gather(panel: i32, cell: i32): void {
  gatherer!.gather(panel, cell);
}
