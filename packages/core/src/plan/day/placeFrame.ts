import type { Camera, FrameSettings, Shot } from '@fendrix/contract';

/** Frames that come a moment after a picture was ticked as taken still are of it, ms. */
const AFTER_TAKEN_MS = 90_000;
/** Settings that differ by more than this are others, stops: cameras write rounded figures. */
const SAME_STOPS = 1 / 4;

/** What tells which picture a frame is of. */
export interface PlacedAmong {
  shot: Pick<Shot, 'id' | 'done' | 'begunAt' | 'takenAt'>;
  /** Settings of its set; null where it has none. */
  camera: Pick<Camera, 'fNumber' | 'shutterS' | 'iso'> | null;
}

/** Stops between two figures that light goes with; none where one is not known. */
const apart = (a: number | null, b: number): number =>
  a === null || !(a > 0) ? 0 : Math.abs(Math.log2(a / b));

/** Whether a frame was exposed as a set says: what the camera did not write says nothing against it. */
export function exposedAs(
  settings: Pick<FrameSettings, 'exposureS' | 'fNumber' | 'iso'>,
  camera: NonNullable<PlacedAmong['camera']>,
): boolean {
  return (
    apart(settings.exposureS, camera.shutterS) <= SAME_STOPS &&
    2 * apart(settings.fNumber, camera.fNumber) <= SAME_STOPS &&
    apart(settings.iso, camera.iso) <= SAME_STOPS
  );
}

/**
 * The picture that a frame is of: the one that was being taken at its time; otherwise the first that is not taken yet and is
 * exposed as the frame is.
 * @param at when it was taken, by the clock of the day, ms since 1970; null where that is not known
 * @param among pictures in the order of the day
 */
export function placeFrame(
  at: number | null,
  settings: Pick<FrameSettings, 'exposureS' | 'fNumber' | 'iso'>,
  among: readonly PlacedAmong[],
): { shot: string; by: 'time' | 'settings' } | null {
  if (at !== null) {
    const during = among
      .filter(({ shot: { begunAt, takenAt } }) => {
        if (begunAt === undefined || Date.parse(begunAt) > at) return false;
        return takenAt === undefined || at <= Date.parse(takenAt) + AFTER_TAKEN_MS;
      })
      // The one begun last: work on the others has stopped.
      .sort((a, b) => Date.parse(b.shot.begunAt as string) - Date.parse(a.shot.begunAt as string))[0];
    if (during) return { shot: during.shot.id, by: 'time' };
  }
  const knows = settings.exposureS !== null || settings.fNumber !== null || settings.iso !== null;
  const alike =
    knows && among.find(({ shot, camera }) => !shot.done && camera && exposedAs(settings, camera));
  return alike ? { shot: alike.shot.id, by: 'settings' } : null;
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
