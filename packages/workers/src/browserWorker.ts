import { createMessageHandler } from './handleMessage.js';
import type { ToWorker } from './protocol.js';

const handle = createMessageHandler((answer, transfer) => {
  globalThis.postMessage(answer, { transfer });
});
globalThis.addEventListener('message', (event: MessageEvent<ToWorker>) => handle(event.data));
