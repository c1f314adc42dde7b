import { encodeSrgb } from '../exposure/display.js';
import { createNormal } from './asItStands.js';

/** A camera as it records: what its sensor holds and adds, and how dark the corners of its lens are. */
export interface Recorder {
  /** Electrons of one pixel of the file at paper white and ISO 100. */
  fullWell: number;
  /** Electrons that reading adds, one deviation. */
  readNoise: number;
  /** Corners under the middle, stops. */
  cornerStops: number;
}

/** A 24 megapixel body of 36 x 24 mm with a short telephoto lens: usual figures. */
export const USUAL_RECORDER: Recorder = { fullWell: 50_000, readNoise: 3, cornerStops: 0.35 };

/** Light that is left at a place of the frame, by the square of its distance from the middle. @param r2 1 in the corners */
export const vignetting = (cornerStops: number, r2: number): number => 2 ** (-cornerStops * r2);

/** Square of the distance from the middle of a frame, 1 in its corners. */
export function cornerDistance2(x: number, y: number, width: number, height: number): number {
  const [u, v] = [(2 * (x + 0.5)) / width - 1, (2 * (y + 0.5)) / height - 1];
  const aspect = width / height;
  return (u * u * aspect * aspect + v * v) / (aspect * aspect + 1);
}

/**
 * The file that a camera makes of light: darker corners, photon and read noise by ISO, clipping at paper white, the curve of sRGB.
 * @param linear red, green, blue, 3 a pixel, paper white at 1  @returns 8-bit red, green, blue
 */
export function recordFrame(
  linear: Float32Array,
  width: number,
  height: number,
  iso: number,
  seed: number,
  { fullWell, readNoise, cornerStops }: Recorder = USUAL_RECORDER,
): Uint8Array {
  const normal = createNormal(seed);
  const electrons = (fullWell * 100) / iso;
  const out = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const passes = vignetting(cornerStops, cornerDistance2(x, y, width, height));
      for (let c = 0; c < 3; c++) {
        const at = 3 * (y * width + x) + c;
        const signal = Math.max(0, passes * (linear[at] as number)) * electrons;
        const read = signal + Math.sqrt(signal + readNoise * readNoise) * normal();
        out[at] = Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, read / electrons))));
      }
    }
  }
  return out;
}
