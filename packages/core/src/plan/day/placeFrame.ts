import type { FrameSettings, SetDocument, Shot } from '@fendrix/contract';
import { exposedAs } from '../../plates/exposedAs.js';
import { placePlate, plannedFrames } from '../../plates/plannedFrames.js';

/** Frames that come a moment after a picture was ticked as taken still are of it, ms. */
const AFTER_TAKEN_MS = 90_000;

/** What tells which picture a frame is of. */
export interface PlacedAmong {
  shot: Pick<Shot, 'id' | 'done' | 'begunAt' | 'takenAt' | 'built'>;
  /** Its set; null where it has none. */
  set: SetDocument | null;
}

/**
 * The picture that a frame is of: the one that was being taken at its time; otherwise the first that is not taken yet and is
 * exposed as the frame is, itself or one of its plates. With it which plate, and the take that its set stands on.
 * @param at when it was taken, by the clock of the day, ms since 1970; null where that is not known
 * @param among pictures in the order of the day
 */
export function placeFrame(
  at: number | null,
  settings: Pick<FrameSettings, 'exposureS' | 'fNumber' | 'iso'>,
  among: readonly PlacedAmong[],
): { shot: string; plate: string | null; take: string | null; by: 'time' | 'settings' } | null {
  const placed = ({ shot, set }: PlacedAmong, by: 'time' | 'settings') => ({
    shot: shot.id,
    plate: set && placePlate(settings, set, shot.built),
    take: set?.takeId ?? null,
    by,
  });
  if (at !== null) {
    const during = among
      .filter(({ shot: { begunAt, takenAt } }) => {
        if (begunAt === undefined || Date.parse(begunAt) > at) return false;
        return takenAt === undefined || at <= Date.parse(takenAt) + AFTER_TAKEN_MS;
      })
      // The one begun last: work on the others has stopped.
      .sort((a, b) => Date.parse(b.shot.begunAt as string) - Date.parse(a.shot.begunAt as string))[0];
    if (during) return placed(during, 'time');
  }
  const knows = settings.exposureS !== null || settings.fNumber !== null || settings.iso !== null;
  const alike =
    knows &&
    among.find(
      ({ shot, set }) =>
        !shot.done && set && plannedFrames(set).some((frame) => exposedAs(settings, frame.set.camera)),
    );
  return alike ? placed(alike, 'settings') : null;
}

/**
 * When a frame was taken, by the clock of the day. A camera's clock is seldom right: what came while the folder was watched tells
 * by how much it is off; what was copied from a card later is put right by that.
 * @param offMs clock of the day less that of the camera, ms; null where no frame told it
 */
export function momentOf(
  { live, arrivedAt, takenAt }: { live: boolean; arrivedAt: string; takenAt: string | null },
  offMs: number | null,
): number | null {
  if (live) return Date.parse(arrivedAt);
  return takenAt === null ? null : Date.parse(takenAt) + (offMs ?? 0);
}
