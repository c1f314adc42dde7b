import type { Light, Studio } from '@fendrix/contract';

/** Part of a breaker's rating that a load of hours may take: usual practice for lasting loads. */
export const LASTING_PART = 0.8;

/** What one circuit bears for hours, W. Source: docs/physics/planning.md */
export const lastingLoadW = ({ breakerA, mainsV }: Pick<Studio, 'breakerA' | 'mainsV'>): number =>
  Math.floor(breakerA * mainsV * LASTING_PART);

export interface MainsDraw {
  /** Sum of what is given, W. */
  watts: number;
  /** Tags of lights that shine and whose draw is not given: on batteries, or not known. */
  unknown: string[];
}

/** What all lights that are on draw from the mains together; modelling lamps count. */
export function mainsDraw(lights: readonly Light[]): MainsDraw {
  const draw: MainsDraw = { watts: 0, unknown: [] };
  for (const light of lights) {
    if (!light.on || light.kind === 'window' || light.kind === 'surround') continue;
    const modelling = light.modelling?.on ? [light.modelling.drawW] : [];
    const own = [light.drawW, ...modelling];
    if (own.includes(undefined)) draw.unknown.push(light.tag);
    for (const watts of own) draw.watts += watts ?? 0;
  }
  return draw;
}
