import type { SetDocument } from '@fendrix/contract';
import {
  type BakedLight,
  type MirrorMap,
  prepareTracing,
  sceneKey,
  seenBy,
  type Tracing,
  takeBakedLight,
} from '@fendrix/core';
import { doTask } from './doTask.js';
import { messageOf } from './messageOf.js';
import type { FromWorker, Task, TaskResults, ToWorker } from './protocol.js';

/** A set made ready. */
interface Held {
  key: string;
  scene: string;
  set: SetDocument;
  tracing: Tracing;
  /** Those that its bounding tree was built for: its own, or of a set before it. */
  built: Tracing['tables'];
}

/** Sets that are held ready at once: the two of a comparison, one before a change and after it. */
const MOST_HELD = 2;
/** A set of more primitives is held alone: two scenes of large meshes may be more than there is room for. */
const MOST_BESIDE_ANOTHER = 20_000;

/** Whether its bounding tree was built for it. */
const isWhole = ({ tracing, built }: Held): boolean => tracing.tables === built;

const isSmall = ({ tracing }: Held): boolean => tracing.tables.count <= MOST_BESIDE_ANOTHER;

/**
 * The worker's side of the protocol, the same in browser and Node.
 * @param post sends an answer; arrays in `transfer` are given away, not copied
 */
export function createMessageHandler(
  post: (answer: FromWorker, transfer: ArrayBuffer[]) => void,
): (message: ToWorker) => void {
  /** The one that was asked last stands last. */
  let held: readonly Held[] = [];
  let wanted: { key: string; set: SetDocument } | null = null;
  /** Light that others have baked. */
  let given: { scene: string; light: BakedLight } | null = null;

  function ready(key: string, moving: boolean): Held {
    const found = held.find((one) => one.key === key);
    const own = found && (moving || isWhole(found)) ? found : prepare(key, moving);
    held = [...held.filter((one) => one.key !== key && isSmall(one) && isSmall(own)), own].slice(-MOST_HELD);
    if (given?.scene === own.scene && own.tracing.tables.lit === 0) takeBakedLight(own.tracing, given.light);
    return own;
  }

  function prepare(key: string, moving: boolean): Held {
    if (wanted?.key !== key) throw new Error('the worker holds another set');
    const { set } = wanted;
    const scene = sceneKey(set);
    // A moved camera alone leaves the scene and the light of its sheets as they are.
    const known = held.find((one) => one.scene === scene && (moving || isWhole(one)));
    if (known) return { ...known, key, set, tracing: seenBy(known.tracing, set.camera) };
    const last = held.at(-1);
    const like = moving && last && isSmall(last) ? last.built : null;
    held = held.filter(isSmall);
    const tracing = prepareTracing(set, 'best', like);
    const fits = like !== null && tracing.tables.children === like.children;
    return { key, scene, set, tracing, built: fits ? like : tracing.tables };
  }

  return (message) => {
    if (message.type === 'hold') {
      wanted = message;
      held = held.map((one) => (one.key === message.key ? { ...one, set: message.set } : one));
      return;
    }
    if (message.type === 'light') {
      given = message;
      return;
    }
    const { id, key, task, moving } = message;
    try {
      const { set, tracing } = ready(key, moving);
      const before = tracing.engine.rays[0] ?? 0;
      const result = doTask(set, tracing, task);
      const rays = (tracing.engine.rays[0] ?? 0) - before;
      post({ type: 'done', id, result, rays }, buffersOf(result));
    } catch (error) {
      post({ type: 'failed', id, message: messageOf(error) }, []);
    }
  };
}

function buffersOf(result: TaskResults[Task['kind']]): ArrayBuffer[] {
  if (result instanceof Float32Array) return [result.buffer as ArrayBuffer];
  if (result !== null && !Array.isArray(result) && 'gathered' in result) {
    const { direct, met, factor, cell, near, told } = result.gathered;
    return [direct, met, factor, cell, near, told].map((array) => array.buffer as ArrayBuffer);
  }
  if (result !== null && !Array.isArray(result) && 'map' in result) return mapBuffers(result.map);
  if (result !== null && !Array.isArray(result) && 'region' in result) {
    return [result.region, result.shiny, result.normal].map((array) => array.buffer as ArrayBuffer);
  }
  if (result !== null && !Array.isArray(result) && 'depth' in result) {
    return [result.part.buffer as ArrayBuffer, result.depth.buffer as ArrayBuffer];
  }
  return [];
}

const mapBuffers = (map: MirrorMap): ArrayBuffer[] =>
  [map.thing, map.mirrored, map.weight, map.point, map.through, map.throughWeight].map(
    (array) => array.buffer as ArrayBuffer,
  );
