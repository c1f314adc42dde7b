import { Engine } from '../engine/engine.js';
import { SPECULAR_TOO } from '../engine/path/traceMode.js';
import type { SceneTables } from '../engine/tables.js';
import type { EngineCalls } from './engineCalls.js';

/** The engine as it is written, in JavaScript: the reference, and the fallback where WebAssembly is missing. */
export function createPlainEngine(tables: SceneTables): EngineCalls {
  const engine = new Engine(tables, 1);
  const { kernel, sampler, tracer, tiles } = engine;
  return {
    name: 'plain',
    ray: kernel.ray,
    rays: kernel.rays,
    films: tracer.films.sums,
    wanted: tracer.films.wanted,
    ambient: tracer.quick.ambient,
    point: engine.point,
    direction: engine.direction,
    light: engine.light,
    uv: sampler.uv,
    photonBox: tracer.photonSource.box,
    photons: tracer.photonSource.photons,
    batch: engine.batch,
    sight: engine.sight.answer,
    tileWholes: engine.sight.tileWholes,
    tileNumbers: engine.sight.tileNumbers,
    list: tiles.list,
    pixels: tiles.sums,
    view: tiles.view,
    closestHit: () => kernel.closestHit(),
    anyHit: () => kernel.anyHit(),
    castBatch: (count, any) => engine.castBatch(count, any),
    reseed: (seed) => sampler.reseed(seed),
    startSample: (pixel, sample) => sampler.start(pixel, sample),
    next: () => sampler.next(),
    setMode: ({ quick = false, lightmaps = false, recording = false, specular = SPECULAR_TOO }) => {
      tracer.mode.quick = quick;
      tracer.mode.useLightmaps = lightmaps;
      tracer.mode.recording = recording;
      tracer.mode.specular = specular;
    },
    trace: (scattered) => engine.trace(scattered),
    look: () => engine.sight.cast(engine.point, engine.direction),
    lookTile: (px, py, columns, rows, width, height) =>
      engine.sight.castTile(tiles.view, px, py, columns, rows, width, height),
    castBlock: (px, py, columns, rows, width, height) =>
      engine.castBlock(px, py, columns, rows, width, height),
    sendPhotons: (lamp, thing, first, count, all) => tracer.photonSource.send(lamp, thing, first, count, all),
    sampleLight: (index) => engine.sampleLight(index),
    renderPixels: (count, width, height, first, samples) =>
      tiles.renderPixels(count, width, height, first, samples),
    gather: (rays) => engine.createGatherer(rays),
    memoryBytes: () =>
      Object.values(tables).reduce(
        (sum: number, table) => sum + (ArrayBuffer.isView(table) ? table.byteLength : 0),
        0,
      ),
    renewLightmaps: () => tracer.renewLightmaps(),
    renewCaustics: () => undefined,
  };
}
