import { type PoolOptions, WorkerPool, type WorkerPort } from './pool.js';
import type { FromWorker } from './protocol.js';

/** A pool of web workers, one core left for the page; `spare` ones may use that too. */
export function createBrowserPool(options: PoolOptions = {}): WorkerPool {
  const size = Math.max(1, Math.min(16, (navigator.hardwareConcurrency || 2) - 1));
  return new WorkerPool(spawnWebWorker, size, options);
}

function spawnWebWorker(): WorkerPort {
  const worker = new Worker(new URL('./browserWorker.ts', import.meta.url), { type: 'module' });
  return {
    post: (message) => worker.postMessage(message),
    onMessage: (listener) => {
      worker.addEventListener('message', (event: MessageEvent<FromWorker>) => listener(event.data));
    },
    onCrash: (listener) => {
      worker.addEventListener('error', (event) => {
        // Dealt with here: a worker that owns this pool is not to die of it too.
        event.preventDefault();
        listener(event.message || 'the worker could not start');
      });
      worker.addEventListener('messageerror', () => listener('the worker sent something unreadable'));
    },
    terminate: () => worker.terminate(),
  };
}
