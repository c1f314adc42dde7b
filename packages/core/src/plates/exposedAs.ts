import type { Camera, FrameSettings } from '@fendrix/contract';

/** Settings that differ by more than this are others, stops: cameras write rounded figures. */
const SAME_STOPS = 1 / 4;

/** Stops between two figures that light goes with; none where one is not known. */
const apart = (a: number | null, b: number): number =>
  a === null || !(a > 0) ? 0 : Math.abs(Math.log2(a / b));

/** Whether a frame was exposed as a set says: what the camera did not write says nothing against it. */
export function exposedAs(
  settings: Pick<FrameSettings, 'exposureS' | 'fNumber' | 'iso'>,
  camera: Pick<Camera, 'fNumber' | 'shutterS' | 'iso'>,
): boolean {
  return (
    apart(settings.exposureS, camera.shutterS) <= SAME_STOPS &&
    2 * apart(settings.fNumber, camera.fNumber) <= SAME_STOPS &&
    apart(settings.iso, camera.iso) <= SAME_STOPS
  );
}
