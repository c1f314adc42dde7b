import type { SetDocument } from '@fendrix/contract';
import { type MirrorMap, prepareTracing, sceneKey, seenBy, type Tracing } from '@fendrix/core';
import { doTask } from './doTask.js';
import { messageOf } from './messageOf.js';
import type { FromWorker, Task, TaskResults, ToWorker } from './protocol.js';

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
      const before = held.tracing.engine.rays[0] ?? 0;
      const result = doTask(held.set, held.tracing, task);
      const rays = (held.tracing.engine.rays[0] ?? 0) - before;
      post({ type: 'done', id, result, rays }, buffersOf(result));
    } catch (error) {
      post({ type: 'failed', id, message: messageOf(error) }, []);
    }
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
