/** The engine as a WebAssembly module: one scene an instance. Compiled by AssemblyScript only. */
import { OBJECT, TOTAL_OVERHEAD } from 'rt/common';
import { Engine } from '../src/engine/engine';
import { PatchGatherer } from '../src/engine/path/gather';
import { tables } from './tableCalls';

export * from './tableCalls';

let engine: Engine | null = null;
let gatherer: PatchGatherer | null = null;

/** Bytes of an array of fixed size: its header says. */
export function bytesAt(array: usize): i32 {
  return changetype<OBJECT>(array - TOTAL_OVERHEAD).rtSize;
}

/** Call once, after the tables are filled. */
export function start(seed: i32): void {
  engine = new Engine(tables, seed);
}

// Where the numbers of each part of the engine start, by the names of `EngineCalls`.
export function ray(): usize {
  return changetype<usize>(engine!.kernel.ray);
}

export function rays(): usize {
  return changetype<usize>(engine!.kernel.rays);
}

export function films(): usize {
  return changetype<usize>(engine!.tracer.films.sums);
}

export function wanted(): usize {
  return changetype<usize>(engine!.tracer.films.wanted);
}

export function ambient(): usize {
  return changetype<usize>(engine!.tracer.quick.ambient);
}

export function point(): usize {
  return changetype<usize>(engine!.point);
}

export function direction(): usize {
  return changetype<usize>(engine!.direction);
}

export function light(): usize {
  return changetype<usize>(engine!.light);
}

export function uv(): usize {
  return changetype<usize>(engine!.sampler.uv);
}

export function batch(): usize {
  return changetype<usize>(engine!.batch);
}

export function sight(): usize {
  return changetype<usize>(engine!.sight.answer);
}

export function tileWholes(): usize {
  return changetype<usize>(engine!.sight.tileWholes);
}

export function tileNumbers(): usize {
  return changetype<usize>(engine!.sight.tileNumbers);
}

export function list(): usize {
  return changetype<usize>(engine!.tiles.list);
}

export function pixels(): usize {
  return changetype<usize>(engine!.tiles.sums);
}

export function view(): usize {
  return changetype<usize>(engine!.tiles.view);
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

export function setMode(quick: i32, sheets: i32, recording: i32, specular: i32): void {
  const mode = engine!.tracer.mode;
  mode.quick = quick != 0;
  mode.useLightmaps = sheets != 0;
  mode.recording = recording != 0;
  mode.specular = specular;
}

export function renewLightmaps(): void {
  engine!.tracer.renewLightmaps();
}

export function trace(scattered: i32): void {
  engine!.trace(scattered != 0);
}

export function photonBox(): usize {
  return changetype<usize>(engine!.tracer.photonSource.box);
}

export function photons(): usize {
  return changetype<usize>(engine!.tracer.photonSource.photons);
}

export function sendPhotons(lamp: i32, thing: i32, first: i32, count: i32, all: i32): i32 {
  return engine!.tracer.photonSource.send(lamp, thing, first, count, all);
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

export function sampleLight(index: i32): i32 {
  return engine!.sampleLight(index) ? 1 : 0;
}

export function renderPixels(count: i32, width: i32, height: i32, first: i32, samples: i32): void {
  engine!.tiles.renderPixels(count, width, height, first, samples);
}

export function beginGather(rays: i32): void {
  gatherer = engine!.createGatherer(rays);
}

// The same of the gatherer, by the names of `GatherCalls`.
export function direct(): usize {
  return changetype<usize>(gatherer!.direct);
}

export function met(): usize {
  return changetype<usize>(gatherer!.met);
}

export function factor(): usize {
  return changetype<usize>(gatherer!.factor);
}

export function cell(): usize {
  return changetype<usize>(gatherer!.cell);
}

export function near(): usize {
  return changetype<usize>(gatherer!.near);
}
export function told(): usize {
  return changetype<usize>(gatherer!.told);
}

export function gather(lightmap: i32, cell: i32): void {
  gatherer!.gather(lightmap, cell);
}
