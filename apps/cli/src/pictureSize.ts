import type { SetDocument } from '@fendrix/contract';
import { InputError } from './input.js';

/** Widest and highest picture, px. */
const MOST_PIXELS_A_SIDE = 8192;
const USUAL_WIDTH = 960;

/** Width and height of a picture as typed, px; of the sensor's shape where nothing is said. */
export function pictureSize(text: string | undefined, set: SetDocument): [number, number] {
  if (text === undefined) {
    const { sensorWidthM, sensorHeightM } = set.camera.body;
    return [USUAL_WIDTH, Math.max(1, Math.round((USUAL_WIDTH * sensorHeightM) / sensorWidthM))];
  }
  const match = /^(\d{1,4})x(\d{1,4})$/.exec(text);
  const width = Number(match?.[1]);
  const height = Number(match?.[2]);
  const fits = (side: number) => side >= 1 && side <= MOST_PIXELS_A_SIDE;
  if (!fits(width) || !fits(height)) {
    throw new InputError(
      `--size: give width x height in pixels up to ${MOST_PIXELS_A_SIDE}, such as 960x640`,
    );
  }
  return [width, height];
}
