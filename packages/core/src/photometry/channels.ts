import type { Light, SetDocument } from '@fendrix/contract';

/**
 * A film of its own. A light has one; a window with sun has a second for the sun; a light with polarising film has
 * a second for what reaches the lens by mirror reflection alone and so keeps its polarisation.
 */
export interface Channel {
  /** Place among the lights of the document. */
  light: number;
  part: 'whole' | 'sun' | 'kept';
}

/** The films of a set, lights in the document's order. */
export function channelsOf(set: SetDocument): Channel[] {
  return set.lights.flatMap((light, index) => {
    const channels: Channel[] = [{ light: index, part: 'whole' }];
    if (light.kind === 'window' && light.sun) channels.push({ light: index, part: 'sun' });
    if (isPolarised(light)) channels.push({ light: index, part: 'kept' });
    return channels;
  });
}

export function isPolarised(light: Light): boolean {
  return 'polarised' in light && light.polarised !== undefined;
}
