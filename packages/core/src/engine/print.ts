import {
  ACROSS,
  BASE_COLOUR,
  GRADIENT_END,
  GRADIENT_FIRST,
  GRADIENT_GAMMA,
  GRADIENT_SECOND,
  GRADIENT_START,
  NO_TONE,
  RASTER,
  SURFACE_STRIDE,
  TONE,
  TONE_HEIGHT,
  TONE_OFFSET,
  TONE_WIDTH,
  UP,
} from './layouts.js';
import { patternCoordinates } from './normals.js';
import { floor32, type i32, real, whole32 } from './portable.js';
import type { SceneTables } from './tables.js';

const coordinates = new Float64Array(2);

/** Colour of the base of a surface at a point on it. @param out 0-2 red, green, blue */
export function surfaceColour(
  out: Float64Array,
  tables: SceneTables,
  surface: i32,
  primitive: i32,
  point: Float64Array,
): void {
  const s = tables.surfaces;
  const o = surface * SURFACE_STRIDE;
  const tone = whole32(s[o + TONE]);
  if (tone === NO_TONE) {
    for (let c = 0; c < 3; c++) out[c] = s[o + BASE_COLOUR + c];
    return;
  }
  patternCoordinates(coordinates, tables, primitive, point);
  const at = whole32(s[o + TONE_OFFSET]);
  if (tone === RASTER) {
    const width = whole32(s[o + TONE_WIDTH]);
    const height = whole32(s[o + TONE_HEIGHT]);
    rasterColour(out, tables.tones, at, width, height);
    return;
  }
  gradientColour(out, tables.tones, at, tone);
}

function gradientColour(out: Float64Array, tones: Float32Array, at: i32, kind: i32): void {
  const a = coordinates[0];
  const b = coordinates[1];
  let way = a;
  if (kind === UP) way = b;
  else if (kind !== ACROSS) way = Math.min(1, 2 * Math.sqrt((a - 0.5) * (a - 0.5) + (b - 0.5) * (b - 0.5)));
  const start = tones[at + GRADIENT_START];
  const part = (way - start) / (tones[at + GRADIENT_END] - start);
  const mix: number = part > 0 ? Math.min(1, part) ** tones[at + GRADIENT_GAMMA] : 0;
  for (let c = 0; c < 3; c++) {
    const first = tones[at + GRADIENT_FIRST + c];
    out[c] = first + mix * (tones[at + GRADIENT_SECOND + c] - first);
  }
}

/** Bilinear in a picture, rows from the top. */
function rasterColour(out: Float64Array, tones: Float32Array, at: i32, width: i32, height: i32): void {
  const x = coordinates[0] * real(width) - 0.5;
  const y = (1 - coordinates[1]) * real(height) - 0.5;
  const x0 = within(floor32(x), width);
  const y0 = within(floor32(y), height);
  const x1 = within(x0 + 1, width);
  const y1 = within(y0 + 1, height);
  const fx = Math.max(0, Math.min(1, x - real(x0)));
  const fy = Math.max(0, Math.min(1, y - real(y0)));
  for (let c = 0; c < 3; c++) {
    const a = tones[at + 3 * (y0 * width + x0) + c];
    const b = tones[at + 3 * (y0 * width + x1) + c];
    const d = tones[at + 3 * (y1 * width + x0) + c];
    const e = tones[at + 3 * (y1 * width + x1) + c];
    out[c] = (a * (1 - fx) + b * fx) * (1 - fy) + (d * (1 - fx) + e * fx) * fy;
  }
}

function within(i: i32, count: i32): i32 {
  return i < 0 ? 0 : i >= count ? count - 1 : i;
}
