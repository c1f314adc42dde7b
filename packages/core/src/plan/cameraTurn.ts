import type { Camera, CameraBody, Framing } from '@fendrix/contract';
import type { Format } from './frameFit.js';

/** Whether a body is held upright: its frame higher than wide. */
export const isUpright = ({ sensorWidthM, sensorHeightM }: CameraBody): boolean =>
  sensorHeightM > sensorWidthM;

/** A body held the other way: width and height of its frame change places. */
export function turnedBody(body: CameraBody): CameraBody {
  return {
    ...body,
    sensorWidthM: body.sensorHeightM,
    sensorHeightM: body.sensorWidthM,
    pixelsWide: body.pixelsHigh,
    pixelsHigh: body.pixelsWide,
  };
}

/** A camera turned a quarter about its lens, with its body as a thing of the set: the middle of the frame stays. */
export function turnedCamera(camera: Camera): Camera {
  const { rig } = camera;
  return {
    ...camera,
    body: turnedBody(camera.body),
    ...(rig ? { rig: { ...rig, bodyWidthM: rig.bodyHeightM, bodyHeightM: rig.bodyWidthM } } : {}),
  };
}

/** Whether formats want the camera upright: more of them are higher than wide than wider than high. */
export function wantsUpright(formats: readonly Pick<Format, 'widthPx' | 'heightPx'>[]): boolean {
  const upright = formats.filter(({ widthPx, heightPx }) => heightPx > widthPx).length;
  const wide = formats.filter(({ widthPx, heightPx }) => widthPx > heightPx).length;
  return upright > wide;
}

/** The body of a framing as it is held: as the user says, or else as the formats want it. */
export function bodyFor(
  { body, held }: Pick<Framing, 'body' | 'held'>,
  formats: readonly Format[],
): CameraBody {
  const upright = held === undefined ? wantsUpright(formats) : held === 'upright';
  return isUpright(body) === upright ? body : turnedBody(body);
}
