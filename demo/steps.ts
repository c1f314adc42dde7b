import { type SetDocument, setDocument, type Take } from '@fendrix/contract';
import { standingOf } from '@fendrix/core';

/** One step of a demo set: what is changed, and what to look for in the take that keeps it. */
export interface Step {
  id: string;
  name: string;
  note: string;
  /** Step that it starts from, where that is not the one before; "start" for the set as the file has it. */
  from?: string;
  pinned?: boolean;
  change(set: SetDocument): SetDocument;
}

/** The set as its file has it. */
const START = 'start';

/**
 * A set with a take for each step, one after the other; it stands as its last step leaves it.
 * @throws {ZodError} a step breaks the rules of the set document
 */
export function withTakes(base: SetDocument, steps: readonly Step[]): SetDocument {
  const takes: Take[] = [];
  const states = new Map<string, SetDocument>();
  let before: string | undefined;
  for (const { id, name, note, from = before, pinned = false, change } of steps) {
    const state = change((from !== undefined && states.get(from)) || base);
    states.set(id, state);
    const madeFrom = from === START ? before : from;
    takes.push({
      id,
      name,
      note,
      pinned,
      ...(madeFrom === undefined ? {} : { from: madeFrom }),
      set: standingOf(state),
    });
    before = id;
  }
  const last = before === undefined ? base : (states.get(before) as SetDocument);
  return setDocument.parse({ ...last, takes, ...(before === undefined ? {} : { takeId: before }) });
}

type Lights = SetDocument['lights'];
type Sheets = SetDocument['sheets'];
/** A light or sheet as the contract reads it: defaults may be left out. */
type Loose = Record<string, unknown> & { tag: string };

const FLASH = { kind: 'flash-energy', energyJ: 400, efficacyLmSPerJ: 35 } as const;

/** A flash head of the demo kit in a modifier. @param efficiency of the modifier */
export const head = (
  tag: string,
  powerStops: number,
  efficiency: number,
  more: Record<string, unknown>,
): Loose => ({
  tag,
  output: { ...FLASH, modifierEfficiency: efficiency },
  powerStops,
  dial: { leastStops: -7, stepStops: 0.1 },
  on: true,
  colour: { temperatureK: 5500 },
  duration: { fullS: 1 / 800, stopsPerStop: -0.2 },
  ...more,
});

/** Puts lights and sheets on, in place of those with the same tags. */
export function put(
  set: SetDocument,
  { lights = [], sheets = [] }: { lights?: Loose[]; sheets?: Loose[] },
): SetDocument {
  const merged = <T extends { tag: string }>(old: readonly T[], added: Loose[]): T[] =>
    [
      ...old.filter(({ tag }) => !added.some((other) => other.tag === tag)),
      ...(added as unknown as T[]),
    ].sort((a, b) => a.tag.localeCompare(b.tag, 'en', { numeric: true }));
  return setDocument.parse({
    ...set,
    lights: merged<Lights[number]>(set.lights, lights),
    sheets: merged<Sheets[number]>(set.sheets, sheets),
  });
}

/** Changes figures of one light or sheet. */
export function change(set: SetDocument, tag: string, changes: Record<string, unknown>): SetDocument {
  const changed = <T extends { tag: string }>(list: readonly T[]): T[] =>
    list.map((thing) => (thing.tag === tag ? { ...thing, ...changes } : thing));
  return { ...set, lights: changed(set.lights), sheets: changed(set.sheets) };
}

/** Takes lights and sheets off. */
export const without = (set: SetDocument, ...tags: string[]): SetDocument => ({
  ...set,
  lights: set.lights.filter(({ tag }) => !tags.includes(tag)),
  sheets: set.sheets.filter(({ tag }) => !tags.includes(tag)),
});

export const camera = (set: SetDocument, changes: Partial<SetDocument['camera']>): SetDocument => ({
  ...set,
  camera: { ...set.camera, ...changes },
});

const matte = (reflectance: number) => ({ kind: 'matte', reflectance }) as const;
export const WHITE = { front: matte(0.85), back: matte(0.85) };
export const BLACK = { front: matte(0.04), back: matte(0.04) };
export const VELVET = { front: matte(0.004), back: matte(0.004) };
const frost = { kind: 'translucent', reflectance: 0.38, transmittance: 0.45, haze: 0.94 } as const;
export const FROST = { front: frost, back: frost };
const silver = { kind: 'mirror', reflectance: 0.8, roughness: 0.3 } as const;
export const SILVER = { front: silver, back: matte(0.85) };

/** A card printed from ink to paper or back, from its left to its right edge. */
export const gradient = (from: number, to: number) => ({
  kind: 'matte',
  reflectance: 0.82,
  tone: { kind: 'gradient', direction: 'across', from, to, start: 0.05, end: 0.95, gamma: 1.3 },
});
