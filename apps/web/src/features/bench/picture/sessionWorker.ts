import { serveSession } from './serveSession';
import { PictureSession } from './session';
import type { ToSession } from './sessionProtocol';

const receive = serveSession(
  (message, transfer) => globalThis.postMessage(message, { transfer }),
  (events) => new PictureSession(events),
);

globalThis.addEventListener('message', ({ data }: MessageEvent<ToSession>) => receive(data));
