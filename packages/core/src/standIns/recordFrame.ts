import { encodeSrgb } from '../exposure/display.js';
import { MID_TONE } from '../exposure/exposure.js';
import {
  cornerDistance2,
  type LensLosses,
  PLAIN_RESPONSE,
  type Response,
  recordedStops,
  vignetting,
} from '../exposure/response.js';
import { createNormal } from './asItStands.js';

/** A camera as it records: what its sensor holds and adds, how its files answer to light, and what its lens does. */
export interface Recorder extends LensLosses {
  /** Electrons of one pixel of the file at paper white and ISO 100. */
  fullWell: number;
  /** Electrons that reading adds, one deviation. */
  readNoise: number;
  response: Response;
}

/** A 24 megapixel body of 36 x 24 mm with a short telephoto lens: usual figures. */
export const USUAL_RECORDER: Recorder = {
  fullWell: 50_000,
  readNoise: 3,
  cornerStops: 0.35,
  veilPart: 0,
  response: PLAIN_RESPONSE,
};

/** The 8-bit sRGB value, 0 to 1 before rounding, that a camera writes for a linear value. */
export function recordedValue(linear: number, { slope, bend }: Response): number {
  if (!(linear > 0)) return 0;
  const stops = Math.log2(linear / MID_TONE);
  return encodeSrgb(Math.min(1, MID_TONE * 2 ** recordedStops(stops, { slope, bend })));
}

/**
 * The file that a camera makes of light: its veil, darker corners, true ISO, photon and read noise, clipping at paper white, its curve.
 * @param linear red, green, blue, 3 a pixel, paper white at 1  @returns 8-bit red, green, blue
 */
export function recordFrame(
  linear: Float32Array,
  width: number,
  height: number,
  iso: number,
  seed: number,
  { fullWell, readNoise, cornerStops, veilPart, response }: Recorder = USUAL_RECORDER,
): Uint8Array {
  const normal = createNormal(seed);
  const electrons = (fullWell * 100) / iso;
  const out = new Uint8Array(width * height * 3);
  const gain = 2 ** response.isoStops;
  const veil =
    veilPart === 0 ? 0 : (veilPart * linear.reduce((sum, value) => sum + value, 0)) / linear.length;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const passes = vignetting(cornerStops, cornerDistance2(x, y, width, height));
      for (let c = 0; c < 3; c++) {
        const at = 3 * (y * width + x) + c;
        const signal = Math.max(0, gain * (passes * (linear[at] as number) + veil)) * electrons;
        const read = signal + Math.sqrt(signal + readNoise * readNoise) * normal();
        out[at] = Math.round(255 * recordedValue(read / electrons, response));
      }
    }
  }
  return out;
}
