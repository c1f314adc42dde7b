import type { FrameSettings, Plate, SetDocument } from '@fendrix/contract';
import { textDigest } from '../units/textDigest.js';
import { exposedAs } from './exposedAs.js';
import { setOfPlate } from './plateSet.js';

/** One of the frames that a picture is put together from. */
export interface PlannedFrame {
  /** The same frame with the same lights and settings has the same key: what was ticked holds only for it. */
  key: string;
  /** Null for the frame of the set as it stands. */
  plate: Plate | null;
  /** The set as it is then. */
  set: SetDocument;
}

/** The frames of a set in the order in which they are taken: as it stands, then its plates. One where it has no plates. */
export function plannedFrames(set: SetDocument): PlannedFrame[] {
  const frame = (plate: Plate | null): PlannedFrame => {
    const own = plate ? setOfPlate(set, plate) : set;
    const { fNumber, shutterS, iso, focusM } = own.camera;
    const lights = own.lights.map(({ tag, on, powerStops }) => [tag, on, powerStops]);
    const digest = textDigest(JSON.stringify([lights, own.sheets, fNumber, shutterS, iso, focusM]));
    return { key: `frame ${plate?.id ?? '-'} ${digest}`, plate, set: own };
  };
  return [frame(null), ...set.plates.map(frame)];
}

/**
 * Which plate a frame is, by its settings where only one is exposed so, otherwise by what has been ticked as taken.
 * @param built steps of the picture that are done, frames among them
 * @returns id of the plate; null for the set's own frame
 */
export function placePlate(
  settings: Pick<FrameSettings, 'exposureS' | 'fNumber' | 'iso'>,
  set: SetDocument,
  built: readonly string[],
): string | null {
  const frames = plannedFrames(set);
  const due = frames.find(({ key }) => !built.includes(key)) ?? frames.at(-1);
  const fitting = frames.filter((frame) => exposedAs(settings, frame.set.camera));
  const found = fitting.length === 0 || fitting.includes(due as PlannedFrame) ? due : fitting[0];
  return (fitting.length === 1 ? fitting[0] : found)?.plate?.id ?? null;
}
