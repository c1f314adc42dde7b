import {
  addTile,
  createFilms,
  createGuide,
  developFilms,
  encodePicture,
  type Films,
  type FilterGuide,
  placeGuide,
  smoothFilms,
  smoothingRadius,
} from '@fendrix/core';
import type { FromDeveloper, ToDeveloper } from './developProtocol';

/**
 * Keeps the films of the picture in view and develops them: sums of tiles, preview filter, weights, display.
 * Runs in a worker of its own, so that the page never touches pixels.
 */
let films: Films | null = null;
let smooth: Films | null = null;
let guide: FilterGuide | null = null;
let weights = new Float64Array(0);
let picture = 0;
let fewest = 1;
let widest = 0;
let filmsChanged = false;
let wanted = false;

globalThis.addEventListener('message', ({ data }: MessageEvent<ToDeveloper>) => {
  switch (data.type) {
    case 'begin':
      films = createFilms(data.width, data.height, data.lights);
      smooth = createFilms(data.width, data.height, data.lights);
      guide = createGuide(data.width, data.height);
      picture = data.picture;
      fewest = data.fewest;
      widest = data.widest;
      break;
    case 'guide':
      if (guide && data.picture === picture) placeGuide(guide, data.tile, data.guide);
      break;
    case 'tile':
      if (!films || data.picture !== picture) return;
      addTile(films, data.tile, data.sums, data.samples);
      filmsChanged = true;
      break;
    case 'weights':
      weights = data.weights;
      want();
      break;
    case 'show':
      if (data.picture === picture) want();
      break;
  }
});

/** Develops once after all messages that wait, however many ask for it. */
function want(): void {
  if (wanted) return;
  wanted = true;
  setTimeout(() => {
    wanted = false;
    develop();
  }, 0);
}

function develop(): void {
  if (!films || !smooth || !guide || weights.length !== films.lights) return;
  const least = films.samples.reduce((low, count) => Math.min(low, count), Number.POSITIVE_INFINITY);
  if (least < fewest) return;
  if (filmsChanged) {
    smoothFilms(smooth, films, guide, Math.min(widest, smoothingRadius(least)));
    filmsChanged = false;
  }
  const { width, height } = films;
  const linear = new Float32Array(width * height * 3);
  developFilms(linear, smooth, weights);
  const pixels = new Uint8ClampedArray(width * height * 4);
  encodePicture(pixels, linear);
  const answer: FromDeveloper = { picture, width, height, samples: least, pixels };
  globalThis.postMessage(answer, { transfer: [pixels.buffer] });
}
