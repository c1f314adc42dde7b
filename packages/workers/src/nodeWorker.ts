import { parentPort } from 'node:worker_threads';
import { createMessageHandler } from './handleMessage.js';
import type { ToWorker } from './protocol.js';

const port = parentPort;
if (!port) throw new Error('this file runs as a worker thread');
const handle = createMessageHandler((answer, transfer) => port.postMessage(answer, transfer));
port.on('message', (message: ToWorker) => handle(message));
