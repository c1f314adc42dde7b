import type { KitEntryInput } from '@fendrix/contract';

export type LightEntry = Extract<KitEntryInput, { what: 'light' }>;
type LightInput = LightEntry['thing'];

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

const tag = 'A';
/** Where a light goes that is put on a set: camera left, a little in front and above. */
export const left = { positionM: [-0.6, -0.2, 0.4], aimM: [0, 0, 0.1] } satisfies Partial<LightInput>;
export const behind = { positionM: [-0.45, 0.45, 0.35], aimM: [0, 0, 0.12] } satisfies Partial<LightInput>;
export const tall = { positionM: [-0.45, 0.45, 0.65], aimM: [0, 0, 0.4] } satisfies Partial<LightInput>;
export const high = { positionM: [0, 0.1, 0.9], aimM: [0, 0, 0] } satisfies Partial<LightInput>;
export const flashColour = { temperatureK: 5500 };
export const ledColour = { temperatureK: 5600 };
export const flash = (modifierEfficiency: number, energyJ = 400) => ({
  kind: 'flash-energy' as const,
  energyJ,
  efficacyLmSPerJ: 35,
  modifierEfficiency,
});
export const dial = { leastStops: -7, stepStops: 0.1 };
export const modelling = (share: number) => ({
  on: false,
  lumens: Math.round(1900 * share),
  temperatureK: 3000,
  drawW: 100,
});

/** A studio head set by its voltage: a little longer when turned down. */
const voltageHead = { fullS: 1 / 800, stopsPerStop: -0.2 };

export const STUDIO =
  'Flash tubes give 30 to 40 lm s per joule, 35 taken; dial of seven stops in tenths; t0.1 of 1/800 s at full, a fifth of a stop longer for each stop down, as usual of heads set by voltage: see your data sheet';
export const CLOTH = 'two cloths let out 0.35 to 0.5 of the light; hot centre 1.3 to 2.5 to 1';

/** A studio head that is full again after a second, seven tenths of what it draws stored, W. */
const rechargingW = (energyJ: number) => Math.round(energyJ / 0.7 / 10) * 10;

/** An entry of the kit; a flash head burns as long and draws as much as its kind usually does unless its own figures are given. */
export function light(
  id: string,
  name: string,
  purposes: string[],
  source: string,
  thing: DistributiveOmit<LightInput, 'tag' | 'name'>,
): LightEntry {
  const timed =
    thing.output.kind === 'flash-energy'
      ? { duration: voltageHead, drawW: rechargingW(thing.output.energyJ), ...thing }
      : thing;
  return { what: 'light', id, name, purposes, source, thing: { tag, name, ...timed } as LightInput };
}
