import { SmallDeveloper, type ToSmallDeveloper } from './smallDeveloper';

const developer = new SmallDeveloper((picture) => {
  globalThis.postMessage(picture, { transfer: [picture.pixels.buffer, picture.linear.buffer] });
});

globalThis.addEventListener('message', ({ data }: MessageEvent<ToSmallDeveloper>) => developer.receive(data));
