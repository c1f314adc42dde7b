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
