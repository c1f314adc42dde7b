/** Below three changes in a second, which is where flashing begins to be a danger. */
export const BLINK_MS = 900;

/** Tones of the difference: a third of a stop and less is left grey, two stops and more are full. */
const FULL_STOPS = 2;
const LEAST_STOPS = 1 / 6;

/** How much of a picture is brighter or darker than another, and by how much at most, in words. @param stops a pixel */
export function differenceWords(stops: Float32Array): string {
  const sorted = Float32Array.from(stops).sort();
  const part = (count: number) => Math.round((100 * count) / stops.length);
  // The hundredth at either end is left out: specks of noise.
  const at = (place: number) => sorted[Math.floor(place * (sorted.length - 1))] as number;
  const brighter = part(stops.reduce((sum, value) => sum + Number(value > LEAST_STOPS), 0));
  const darker = part(stops.reduce((sum, value) => sum + Number(value < -LEAST_STOPS), 0));
  const most = Math.max(0, at(0.99)).toFixed(1);
  const least = Math.max(0, -at(0.01)).toFixed(1);
  return `╱ brighter ${brighter} %, ╲ darker ${darker} % of the frame; up to +${most} and −${least} stops`;
}

/** Brighter in amber, rising lines; darker in blue, falling lines; the same in grey. */
export function paintDifference(stops: Float32Array, width: number, height: number): ImageData {
  const image = new ImageData(width, height);
  for (let i = 0; i < stops.length; i++) {
    const value = stops[i] as number;
    const x = i % width;
    const y = (i - x) / width;
    const size = Math.abs(value) < LEAST_STOPS ? 0 : Math.min(1, Math.abs(value) / FULL_STOPS);
    const line = value > 0 ? (x + y) % 8 < 2 : (x - y + 8 * height) % 8 < 2;
    const shade = size > 0 && line ? 0.75 : 1;
    const to = value > 0 ? [255, 190, 70] : [90, 160, 255];
    for (let c = 0; c < 3; c++) image.data[4 * i + c] = shade * (110 + size * ((to[c] as number) - 110));
    image.data[4 * i + 3] = 255;
  }
  return image;
}
