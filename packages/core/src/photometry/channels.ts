import type { Light, SetDocument } from '@fendrix/contract';

/** Which of the linear Stokes numbers a film holds: all light, level less upright, one slant less the other. */
export type StokesNumber = 'all' | 'plane' | 'slant';

/**
 * A film of its own. A light has one; a window with sun has a second for the sun. Where a filter is on the lens each has
 * two films more, by which the filter can be turned without a ray.
 */
export interface Channel {
  /** Place among the lights of the document. */
  light: number;
  part: 'whole' | 'sun';
  stokes: StokesNumber;
}

/** The films of a set, lights in the document's order; those of one part side by side: all, plane, slant. */
export function channelsOf({ lights, camera }: SetDocument): Channel[] {
  const numbers = stokesOf(camera);
  return lights.flatMap((light, index) => {
    const parts = light.kind === 'window' && light.sun ? (['whole', 'sun'] as const) : (['whole'] as const);
    return parts.flatMap((part) => numbers.map((stokes): Channel => ({ light: index, part, stokes })));
  });
}

/** The Stokes numbers that are told apart. */
export const stokesOf = ({ polariser }: SetDocument['camera']): readonly StokesNumber[] =>
  polariser ? ['all', 'plane', 'slant'] : ['all'];

export function isPolarised(light: Light): boolean {
  return 'polarised' in light && light.polarised !== undefined;
}
