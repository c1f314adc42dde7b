import type { SetDocument } from '@fendrix/contract';
import { type BakedLight, sceneKey } from '@fendrix/core';
import type { FromWorker, Task, TaskResult, ToWorker } from './protocol.js';

/** A worker of either kind, as the pool sees it. */
export interface WorkerPort {
  post(message: ToWorker): void;
  onMessage(listener: (answer: FromWorker) => void): void;
  /** Called once when the worker dies or cannot be loaded. */
  onCrash(listener: (reason: string) => void): void;
  terminate(): void;
}

/** A set with the key of what rays depend on. */
export interface KeyedSet {
  key: string;
  set: SetDocument;
}

export interface RunOptions {
  signal?: AbortSignal;
  /** Tasks of a higher number are started first. */
  priority?: number;
  /** Nobody moves anything meanwhile: the core that is otherwise left to the page may help. */
  atRest?: boolean;
  /** Something is being moved: a set that is made ready sooner will do, see `prepareTracing`. */
  moving?: boolean;
}

export interface PoolOptions {
  /** A worker died or hung; it has been replaced and its task will be tried again. */
  onCrash?(reason: string): void;
  /** A worker that gives no answer for so long is taken for hung, ms. */
  patienceMs?: number;
  /** Workers beside the others that help at rest only. */
  spare?: number;
}

interface Waiting {
  id: number;
  keyed: KeyedSet;
  task: Task;
  priority: number;
  atRest: boolean;
  moving: boolean;
  tries: number;
  settle(outcome: { result: TaskResult<Task>; rays: number } | Error): void;
}

interface Slot {
  port: WorkerPort;
  held: KeyedSet | null;
  /** The light it was given last. */
  light: BakedLight | null;
  busy: Waiting | null;
  watch: ReturnType<typeof setTimeout> | undefined;
}

/** A task is tried this often before its failure is given to the caller. */
const MOST_TRIES = 3;
/** So many crashes for each worker without one answer between them, and the pool gives up. */
const MOST_CRASHES_PER_WORKER = 5;
/** See `PoolOptions.patienceMs`. */
const PATIENCE_MS = 60_000;

/**
 * A fixed number of workers that share a queue, and spare ones for what is asked for at rest. Each call settles, whatever happens to the workers:
 * with the result, with an abort, or with an error after a task has killed three of them.
 */
export class WorkerPool {
  /** Rays traced by finished tasks. */
  rays = 0;
  private readonly slots: Slot[] = [];
  private readonly queue: Waiting[] = [];
  private nextId = 1;
  /** Crashes since the last answer of any worker. */
  private crashes = 0;
  /** Light that was baked last, and of which scene. */
  private baked: { scene: string; light: BakedLight } | null = null;
  /** Whether no task may be begun for now. */
  private held = false;
  /** Why no task can run any more: closed, or workers that cannot be started. */
  private ended: Error | null = null;

  constructor(
    private readonly spawn: () => WorkerPort,
    readonly size: number,
    private readonly options: PoolOptions = {},
  ) {
    for (let i = 0; i < size + (options.spare ?? 0); i++) this.slots.push(this.openSlot());
  }

  /** Runs a task on the set given, on any free worker. Rejects with the signal's reason when aborted. */
  run<T extends Task>(
    keyed: KeyedSet,
    task: T,
    { signal, priority = 0, atRest = false, moving = false }: RunOptions = {},
  ): Promise<TaskResult<T>> {
    return new Promise((resolve, reject) => {
      if (this.ended) return reject(this.ended);
      if (signal?.aborted) return reject(signal.reason);
      const onAbort = () => {
        const place = this.queue.indexOf(waiting);
        if (place >= 0) this.queue.splice(place, 1);
        waiting.settle(signal?.reason);
      };
      const waiting: Waiting = {
        id: this.nextId++,
        keyed,
        task,
        priority,
        atRest,
        moving,
        tries: 0,
        settle: (outcome) => {
          signal?.removeEventListener('abort', onAbort);
          if (outcome && 'result' in outcome) resolve(outcome.result as TaskResult<T>);
          else reject(outcome);
        },
      };
      signal?.addEventListener('abort', onAbort, { once: true });
      this.enqueue(waiting);
      this.dispatch();
    });
  }

  /** How many workers may take part in a task that is split. */
  helpers(atRest: boolean): number {
    return atRest ? this.slots.length : this.size;
  }

  /** Whether the light of the lightmaps is known for the scene of a set. */
  isLit({ set }: KeyedSet): boolean {
    return this.baked?.scene === sceneKeyOf(set);
  }

  /** From here on every worker that is asked about a set of this scene has its light. */
  giveLight({ set }: KeyedSet, light: BakedLight): void {
    this.baked = { scene: sceneKeyOf(set), light };
  }

  /** Starts nothing while it is held; what has been begun is finished. */
  hold(held: boolean): void {
    this.held = held;
    this.dispatch();
  }

  /** Ends the workers; what still waits is rejected. */
  close(): void {
    this.end(new Error('the workers have been closed'));
  }

  private end(reason: Error): void {
    this.ended = reason;
    for (const slot of this.slots) {
      clearTimeout(slot.watch);
      slot.port.terminate();
      slot.busy?.settle(reason);
    }
    for (const waiting of this.queue.splice(0)) waiting.settle(reason);
  }

  private enqueue(waiting: Waiting): void {
    const after = this.queue.findIndex((other) => other.priority < waiting.priority);
    this.queue.splice(after < 0 ? this.queue.length : after, 0, waiting);
  }

  private openSlot(): Slot {
    const port = this.spawn();
    const slot: Slot = { port, held: null, light: null, busy: null, watch: undefined };
    port.onMessage((answer) => this.receive(slot, port, answer));
    port.onCrash((reason) => {
      if (this.slots.includes(slot) && !this.ended) this.replace(slot, reason);
    });
    return slot;
  }

  private dispatch(): void {
    if (this.held) return;
    for (const [place, slot] of this.slots.entries()) {
      if (slot.busy) continue;
      const next = place < this.size ? 0 : this.queue.findIndex(({ atRest }) => atRest);
      const waiting = next < 0 ? undefined : this.queue.splice(next, 1)[0];
      if (!waiting) return;
      const { key, set } = waiting.keyed;
      // A set of the same light paths too: answers count with its powers and settings.
      if (slot.held?.set !== set || slot.held.key !== key) slot.port.post({ type: 'hold', key, set });
      slot.held = waiting.keyed;
      if (this.baked && slot.light !== this.baked.light && this.isLit(waiting.keyed)) {
        slot.port.post({ type: 'light', ...this.baked });
        slot.light = this.baked.light;
      }
      slot.busy = waiting;
      waiting.tries++;
      const { id, task, moving } = waiting;
      slot.port.post({ type: 'task', id, key, task, moving });
      const patienceMs = this.options.patienceMs ?? PATIENCE_MS;
      slot.watch = setTimeout(() => this.replace(slot, 'the worker gave no answer'), patienceMs);
    }
  }

  private receive(slot: Slot, port: WorkerPort, answer: FromWorker): void {
    const { busy } = slot;
    if (slot.port !== port || busy?.id !== answer.id) return;
    clearTimeout(slot.watch);
    this.crashes = 0;
    slot.busy = null;
    if (answer.type === 'done') {
      this.rays += answer.rays;
      busy.settle({ result: answer.result, rays: answer.rays });
    } else busy.settle(new Error(answer.message));
    this.dispatch();
  }

  private replace(slot: Slot, reason: string): void {
    clearTimeout(slot.watch);
    slot.port.terminate();
    const { busy } = slot;
    this.crashes++;
    if (this.crashes > MOST_CRASHES_PER_WORKER * this.size) {
      this.end(new Error(`the workers cannot be started: ${reason}`));
      return;
    }
    const fresh = this.openSlot();
    this.slots[this.slots.indexOf(slot)] = fresh;
    this.options.onCrash?.(reason);
    if (busy && busy.tries < MOST_TRIES) this.enqueue(busy);
    else busy?.settle(new Error(reason));
    this.dispatch();
  }
}

const sceneKeys = new WeakMap<SetDocument, string>();

/** See `sceneKey`; made once for each set. */
function sceneKeyOf(set: SetDocument): string {
  const known = sceneKeys.get(set) ?? sceneKey(set);
  sceneKeys.set(set, known);
  return known;
}
