import type { ToDeveloper } from './developProtocol';
import { FilmDeveloper } from './filmDeveloper';

const developer = new FilmDeveloper((picture) => {
  globalThis.postMessage(picture, { transfer: [picture.pixels.buffer] });
});

globalThis.addEventListener('message', ({ data }: MessageEvent<ToDeveloper>) => developer.receive(data));
