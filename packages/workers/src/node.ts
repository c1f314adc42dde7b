import { Worker } from 'node:worker_threads';
import { type PoolOptions, WorkerPool, type WorkerPort } from './pool.js';
import type { FromWorker } from './protocol.js';

/** A pool of worker threads. */
export function createNodePool(size: number, options: PoolOptions = {}): WorkerPool {
  return new WorkerPool(spawnThread, size, options);
}

/** From sources a worker starts by way of a loader; where the program is bundled (apps/cli) it lies beside it. */
const WORKER = import.meta.url.endsWith('.ts') ? './nodeWorkerStart.mjs' : './nodeWorker.mjs';

function spawnThread(): WorkerPort {
  const worker = new Worker(new URL(WORKER, import.meta.url));
  return {
    post: (message) => worker.postMessage(message),
    onMessage: (listener) => {
      worker.on('message', (answer: FromWorker) => listener(answer));
    },
    onCrash: (listener) => {
      worker.on('error', (error) => listener(error.message));
      worker.on('exit', (code) => listener(`the worker ended with code ${code}`));
    },
    terminate: () => {
      void worker.terminate();
    },
  };
}
