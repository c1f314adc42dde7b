import { type PoolEvents, WorkerPool, type WorkerPort } from './pool.js';
import type { FromWorker } from './protocol.js';

/** A pool of web workers: one core is left for the page while things move, and helps at rest. */
export function createBrowserPool(events: PoolEvents = {}): WorkerPool {
  const size = Math.max(1, Math.min(16, (navigator.hardwareConcurrency || 2) - 1));
  return new WorkerPool(spawnWebWorker, size, { ...events, spare: 1 });
}

function spawnWebWorker(): WorkerPort {
  const worker = new Worker(new URL('./browserWorker.ts', import.meta.url), { type: 'module' });
  return {
    post: (message) => worker.postMessage(message),
    onMessage: (listener) => {
      worker.addEventListener('message', (event: MessageEvent<FromWorker>) => listener(event.data));
    },
    onCrash: (listener) => {
      worker.addEventListener('error', (event) => listener(event.message || 'the worker could not start'));
      worker.addEventListener('messageerror', () => listener('the worker sent something unreadable'));
    },
    terminate: () => worker.terminate(),
  };
}
