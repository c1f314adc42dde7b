import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { brighter } from '../../exposure/dials.js';
import { F_NUMBERS, fStopsOf, nearestStep, SHUTTERS } from '../../exposure/series.js';
import { standsInRoom } from '../../geometry/roomBounds.js';
import { add } from '../../units/vector.js';

/** Changes of a set from which cures are made; each gives null where it changes nothing. */

/** A light by so many stops, on its dial. */
export function byStops(set: SetDocument, tag: string, stops: number): SetDocument | null {
  const light = set.lights.find((own) => own.tag === tag);
  if (!light) return null;
  const powerStops = brighter(light, stops);
  return powerStops === light.powerStops ? null : withLight(set, tag, { powerStops });
}

/** All lights that are on, and so the whole picture, by so many stops, on their dials. */
export function allByStops(set: SetDocument, stops: number): SetDocument | null {
  const lights = set.lights.map((light) =>
    light.on ? { ...light, powerStops: brighter(light, stops) } : light,
  );
  return lights.some(({ powerStops }, i) => powerStops !== set.lights[i]?.powerStops)
    ? { ...set, lights }
    : null;
}

export const withLight = (set: SetDocument, tag: string, more: Partial<Light>): SetDocument => ({
  ...set,
  lights: set.lights.map((light) => (light.tag === tag ? ({ ...light, ...more } as Light) : light)),
});

export const switchedOff = (set: SetDocument, tag: string): SetDocument => withLight(set, tag, { on: false });

export const withCamera = (set: SetDocument, more: Partial<SetDocument['camera']>): SetDocument => ({
  ...set,
  camera: { ...set.camera, ...more },
});

/** The f-stop of the lens nearest to a wanted one. */
export function withFStop(set: SetDocument, wanted: number): SetDocument | null {
  const steps = fStopsOf(set.camera.lens);
  const step = steps[nearestStep(steps, wanted)] ?? F_NUMBERS[nearestStep(F_NUMBERS, wanted)];
  return step && Math.abs(step.value / set.camera.fNumber - 1) > 0.01
    ? withCamera(set, { fNumber: step.value })
    : null;
}

/** The shutter of the dial nearest to a time, s. */
export function withShutter(set: SetDocument, wanted: number): SetDocument | null {
  const step = SHUTTERS[nearestStep(SHUTTERS, wanted)];
  return step && Math.abs(step.value / set.camera.shutterS - 1) > 0.01
    ? withCamera(set, { shutterS: step.value })
    : null;
}

/** A light or sheet moved, its aim with it where it keeps its direction; null outside of the room or where it stands nowhere. */
export function movedBy(
  set: SetDocument,
  kind: 'light' | 'sheet',
  tag: string,
  by: Vector,
): SetDocument | null {
  const move = <T extends Light | Sheet>(thing: T): T | null => {
    if (thing.tag !== tag || !('positionM' in thing)) return null;
    const positionM = add(thing.positionM, by);
    if (!standsInRoom(set, positionM)) return null;
    const aim = 'aimM' in thing && thing.keepsDirection ? { aimM: add(thing.aimM, by) } : {};
    return { ...thing, positionM, ...aim };
  };
  const list: readonly (Light | Sheet)[] = kind === 'light' ? set.lights : set.sheets;
  const moved = list.map(move);
  if (!moved.some(Boolean)) return null;
  const all = list.map((thing, i) => moved[i] ?? thing);
  return kind === 'light' ? { ...set, lights: all as Light[] } : { ...set, sheets: all as Sheet[] };
}

/** Things without their stands: hung or clamped from where the products do not see it. */
export const withoutStands = (set: SetDocument, tags: readonly string[]): SetDocument => ({
  ...set,
  lights: set.lights.map((light) =>
    tags.includes(light.tag) ? ({ ...light, stand: false } as Light) : light,
  ),
  sheets: set.sheets.map((sheet) => (tags.includes(sheet.tag) ? { ...sheet, stand: false } : sheet)),
});

/** Without some of the people: they stand aside. */
export const withoutPeople = (set: SetDocument, names: readonly string[]): SetDocument => ({
  ...set,
  people: set.people.filter(({ name }) => !names.includes(name)),
});

/** The sets that there are. */
export const those = (...sets: readonly (SetDocument | null)[]): SetDocument[] =>
  sets.filter((set) => set !== null);
