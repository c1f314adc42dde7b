import type { SetDocument } from '@fendrix/contract';
import {
  ambientByLight,
  bandProfile,
  createLook,
  depthTile,
  filterGuide,
  glareZones,
  lampBehindFrost,
  look,
  loseGlare,
  type MirrorMap,
  mirrorBand,
  mirrorMapTile,
  overlaps,
  pickSources,
  placeForBand,
  prepareTracing,
  rayThrough,
  renderTile,
  sceneKey,
  seenBy,
  type Tracing,
  touchedFilms,
  traceField,
  traceRims,
  traceSpot,
} from '@fendrix/core';
import type { FromWorker, Pick, Task, TaskResults, ToWorker } from './protocol.js';

/**
 * The worker's side of the protocol, the same in browser and Node.
 * @param post sends an answer; arrays in `transfer` are given away, not copied
 */
export function createMessageHandler(
  post: (answer: FromWorker, transfer: ArrayBuffer[]) => void,
): (message: ToWorker) => void {
  let held: { key: string; scene: string; set: SetDocument; tracing: Tracing } | null = null;
  let wanted: { key: string; set: SetDocument } | null = null;
  return (message) => {
    if (message.type === 'hold') {
      wanted = message;
      if (held?.key === message.key) held = { ...held, set: message.set };
      return;
    }
    const { id, key, task } = message;
    try {
      if (held?.key !== key) {
        if (wanted?.key !== key) throw new Error('the worker holds another set');
        const { set } = wanted;
        const scene = sceneKey(set);
        // A moved camera alone leaves the scene and the light of its sheets as they are.
        const known = held?.scene === scene ? held.tracing : null;
        // Two scenes of large meshes at once may be more than there is room for.
        held = null;
        const tracing = known ? seenBy(known, set.camera) : prepareTracing(set);
        held = { key, scene, set, tracing };
      }
      const before = held.tracing.kernel.rays[0] ?? 0;
      const result = doTask(held.set, held.tracing, task);
      const rays = (held.tracing.kernel.rays[0] ?? 0) - before;
      post({ type: 'done', id, result, rays }, buffersOf(result));
    } catch (error) {
      post({ type: 'failed', id, message: error instanceof Error ? error.message : String(error) }, []);
    }
  };
}

function doTask(set: SetDocument, tracing: Tracing, task: Task): TaskResults[Task['kind']] {
  switch (task.kind) {
    case 'tile':
      return renderTile(tracing, task.job);
    case 'mirror':
      return {
        map: mirrorMapTile(tracing, task.width, task.height, task.tile),
        things: tracing.scene.things,
      };
    case 'guide':
      return filterGuide(tracing, task.width, task.height, task.tile);
    case 'ambient':
      return ambientByLight(tracing, 1);
    case 'bands':
      return set.products.map((product) => mirrorBand(tracing, product)).filter((band) => band !== null);
    case 'touched':
      return touchedFilms(task.before, set);
    case 'spots':
      return task.spots.map((spot) => traceSpot(tracing, spot, task.samples, task.seed));
    case 'pick':
      return pick(tracing, task.across, task.down);
    case 'things':
      return tracing.scene.things;
    case 'depth':
      return depthTile(tracing, task.width, task.height, task.tile);
    case 'profile': {
      const product = set.products.find(({ id }) => id === task.product);
      return product ? bandProfile(tracing, product, task) : null;
    }
    case 'zones':
      return glareZones(set, task.options);
    case 'field':
      return traceField(tracing, task.rect, task);
    case 'placeForBand':
      return placeForBand(set, task.wish);
    case 'loseGlare':
      return loseGlare(set, task.across, task.down);
    case 'gradient':
      return lampBehindFrost(set, task.wish);
    case 'overlaps':
      return overlaps(set);
    case 'rims':
      return traceRims(tracing);
  }
}

/** Paths for each part of a picked spot: enough to name its sources in order. */
const PICK_SAMPLES = 384;

function pick(tracing: Tracing, across: number, down: number): Pick | null {
  const direction = new Float64Array(3);
  const seen = createLook();
  rayThrough(direction, tracing.view, across, down);
  look(seen, tracing, tracing.view.origin, direction);
  const thing = tracing.scene.things[seen.thing];
  if (!thing) return null;
  const mirrored = tracing.scene.things[seen.mirrored] ?? null;
  const through = tracing.scene.things[seen.through] ?? null;
  const triple = (from: number) => [...seen.geometry.subarray(from, from + 3)] as [number, number, number];
  return {
    thing,
    pointM: triple(0),
    normal: triple(3),
    mirrored,
    mirroredPointM: mirrored ? triple(6) : null,
    weight: seen.weight,
    through,
    throughPointM: through ? triple(9) : null,
    throughWeight: seen.throughWeight,
    sources: pickSources(tracing, tracing.view.origin, direction, PICK_SAMPLES),
  };
}

function buffersOf(result: TaskResults[Task['kind']]): ArrayBuffer[] {
  if (result instanceof Float32Array) return [result.buffer as ArrayBuffer];
  if (result !== null && !Array.isArray(result) && 'map' in result) return mapBuffers(result.map);
  if (result !== null && !Array.isArray(result) && 'region' in result) {
    return [result.region, result.shiny, result.normal].map((array) => array.buffer as ArrayBuffer);
  }
  return [];
}

const mapBuffers = (map: MirrorMap): ArrayBuffer[] =>
  [map.thing, map.mirrored, map.weight, map.point, map.through, map.throughWeight].map(
    (array) => array.buffer as ArrayBuffer,
  );
