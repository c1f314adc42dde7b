// A worker thread does not inherit the loader that reads TypeScript: register it, then start the worker.
import { register } from 'tsx/esm/api';

register();
await import('./nodeWorker.ts');
