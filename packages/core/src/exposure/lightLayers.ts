import type { SetDocument } from '@fendrix/contract';
import { channelsOf } from '../photometry/channels.js';

/** A light that is on, with the films that are its: a picture of it alone is a layer, and all layers together are the picture. */
export interface LightLayer {
  name: string;
  channels: number[];
}

/** The layers of a set, in the order of its lights. */
export function lightLayers(set: SetDocument): LightLayer[] {
  const channels = channelsOf(set);
  return set.lights.flatMap(({ on, tag, name }, light) =>
    on
      ? [
          {
            name: `${tag} ${name}`,
            channels: channels.flatMap((channel, index) => (channel.light === light ? [index] : [])),
          },
        ]
      : [],
  );
}

/** Weights of some films alone, all others dark. @param weights three a film */
export const weightsOfChannels = (
  weights: Float64Array<ArrayBufferLike>,
  channels: readonly number[],
): Float64Array =>
  Float64Array.from(weights, (weight, i) => (channels.includes(Math.floor(i / 3)) ? weight : 0));
