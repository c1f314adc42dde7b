import { developFilms, type Films } from '@fendrix/core';
import type { QuickPicture } from './developProtocol';
import type { FrameWindow } from './frameWindow';

/** A picture of a part of the frame that is there, but for what its films are weighed by. */
export interface Developable {
  width: number;
  height: number;
  window: FrameWindow;
  /** It in linear light, 3 a pixel, films weighed by three numbers each; null where it cannot be had so. */
  develop(weights: Float64Array): Float32Array | null;
}

/** With any weights, three for each film. */
export function ofFilms(films: Films, window: FrameWindow): Developable {
  const { width, height, channels } = films;
  return {
    width,
    height,
    window,
    develop(weights) {
      if (weights.length !== 3 * channels) return null;
      const linear = new Float32Array(width * height * 3);
      developFilms(linear, films, weights);
      return linear;
    },
  };
}

/** Films of which only some pixels have samples, the others as another picture of the same part of the frame shows them, enlarged. */
export function ofSomeFilms(films: Films, under: Developable): Developable {
  const own = ofFilms(films, under.window);
  return {
    ...own,
    develop(weights) {
      const linear = own.develop(weights);
      const below = linear && under.develop(weights);
      if (!below) return null;
      for (let pixel = 0; pixel < films.samples.length; pixel++)
        if (films.samples[pixel] === 0) setEnlarged(linear, pixel, own, below, under);
      return linear;
    },
  };
}

/** Sets a pixel to what another picture of the same shape shows there, between the middles of its pixels. */
function setEnlarged(
  linear: Float32Array,
  pixel: number,
  { width, height }: Developable,
  from: Float32Array,
  other: Developable,
): void {
  const place = (at: number, size: number, otherSize: number) =>
    Math.max(0, Math.min(otherSize - 1, ((at + 0.5) / size) * otherSize - 0.5));
  const x = place(pixel % width, width, other.width);
  const y = place(Math.floor(pixel / width), height, other.height);
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const across = Math.min(left + 1, other.width - 1) - left;
  const down = (Math.min(top + 1, other.height - 1) - top) * other.width;
  const [u, v] = [x - left, y - top];
  for (let c = 0; c < 3; c++) {
    const value = (of: number) => from[3 * (top * other.width + left + of) + c] as number;
    const above = (1 - u) * value(0) + u * value(across);
    linear[3 * pixel + c] = (1 - v) * above + v * ((1 - u) * value(down) + u * value(down + across));
  }
}

/** With the weights that it was mixed by. */
export function ofMixes({ width, height, window, mixes, linear }: QuickPicture): Developable {
  const size = 3 * width * height;
  const known = mixes.map((weights) => weights.join());
  return {
    width,
    height,
    window,
    develop(weights) {
      const mix = known.indexOf(weights.join());
      return mix < 0 ? null : linear.slice(size * mix, size * (mix + 1));
    },
  };
}
