import type { Camera } from '@fendrix/contract';
import {
  exposureValue,
  exposureValue100,
  incidentIlluminanceLx,
  meteredLuminanceCdM2,
} from '../exposure/exposure.js';
import { depthOfField, lensFigures } from '../optics/lens.js';

/** Sensor pixels that the default circle of confusion spans: sharp when the whole file is looked at. */
const CIRCLE_PIXELS = 2;

/** A shutter longer than this is shaken by the finger that presses the button, also on a tripod, s. Usual practice. */
const STILL_TO_S = 1 / 60;

/** Whether the way of releasing may shake the picture. What flash alone lights stays sharp all the same. */
export const shakesByHand = ({ release, shutterS }: Pick<Camera, 'release' | 'shutterS'>): boolean =>
  release === 'hand' && shutterS > STILL_TO_S;

/** All figures of a camera that follow from its settings. Lengths m, angles degrees. */
export function cameraFigures(camera: Camera) {
  const lens = lensFigures(camera);
  const circleOfConfusionM = CIRCLE_PIXELS * lens.pixelPitchM;
  const depth = depthOfField(camera, circleOfConfusionM);
  return {
    ev: exposureValue(camera),
    ev100: exposureValue100(camera),
    meteredLuminanceCdM2: meteredLuminanceCdM2(camera),
    incidentIlluminanceLx: incidentIlluminanceLx(camera),
    magnification: lens.magnification,
    angleOfViewDeg: lens.angleOfViewDeg,
    effectiveFNumber: lens.effectiveFNumber,
    bellowsStops: lens.bellowsStops,
    airyDiameterM: lens.airyDiameterM,
    circleOfConfusionM,
    circleOfConfusionBasis: `${CIRCLE_PIXELS} sensor pixels`,
    depthOfFieldM: { near: depth.nearM, far: Number.isFinite(depth.farM) ? depth.farM : null },
    shutterFasterThanSync: camera.shutterS < camera.body.syncSpeedS * 0.999,
  };
}
