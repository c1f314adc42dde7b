import {
  ANGLES_OFFSET,
  BEAM,
  BEAM_LOBE,
  CELLS,
  CUTOFF_TAN,
  EMITTER_KIND,
  FACE,
  FACE_FORWARD,
  FACE_RIGHT,
  FACE_UP,
  FIELD_TAN,
  FOCUS,
  GOBO_HEIGHT,
  GOBO_OFFSET,
  GOBO_WIDTH,
  HALF_HEIGHT,
  HALF_WIDTH,
  HORIZONTALS,
  HOT_CENTRE,
  INNER,
  LUMINANCE_SCALE,
  OCTAGON_FACE,
  OVERCAST,
  PLAIN_BEAM,
  PROJECTED,
  SQUARE_CELLS,
  VERTICALS,
} from './layouts.js';
import { divide32, floor32, type i32, real, whole32 } from './portable.js';
import type { SceneTables } from './tables.js';

/** Grazing angles at which a table of intensities is no longer divided by the cosine. */
const LEAST_COSINE = 0.02;
/** Ground seen through a window, over the horizon of an overcast sky: reflectance 0.2 under 7/9 of the zenith. */
const GROUND = 0.4666666666666667;

/**
 * Relative luminance of a face towards a direction; 0 outside of a round or eight-sided one.
 * Hot centre: 1 + (h - 1)(1 - u^2)(1 - v^2), round ones 1 + (h - 1)(1 - rho^2).
 * Grid of square cells: (1 - |tan a|/tan c)(1 - |tan b|/tan c), c half the cut-off angle; of round cells the
 * overlap of two discs. Beam: cos^(m - 1). Overcast: 1 + 2 sin(elevation). Projector: gobo where the ray meets
 * the plane of focus. Table: intensity over cosine.
 * @param e offset in `t.emitters`  @param x, y place on the face from its centre, m
 * @param wx, wy, wz direction in the face's frame, wz > 0
 * Source: docs/physics/lights.md
 */
export function faceLuminance(
  t: SceneTables,
  e: i32,
  x: number,
  y: number,
  wx: number,
  wy: number,
  wz: number,
): number {
  const d = t.emitters;
  const kind = whole32(d[e + EMITTER_KIND]);
  const u = x / d[e + HALF_WIDTH];
  const v = y / d[e + HALF_HEIGHT];
  let value = d[e + LUMINANCE_SCALE];
  if (kind === FACE) value *= 1 + d[e + HOT_CENTRE] * (1 - u * u) * (1 - v * v);
  else {
    const rho2 = u * u + v * v;
    const inner = d[e + INNER];
    if (kind === OCTAGON_FACE) {
      if (Math.abs(u) + Math.abs(v) > Math.SQRT2) return 0;
    } else if (rho2 > 1 || rho2 < inner * inner) return 0;
    if (rho2 < 1) value *= 1 + d[e + HOT_CENTRE] * (1 - rho2);
  }
  const cutoff = d[e + CUTOFF_TAN];
  if (cutoff > 0) {
    const square = whole32(d[e + CELLS]) === SQUARE_CELLS;
    value *= square ? squareCells(cutoff, wx, wy, wz) : roundCells(cutoff, wz);
  }
  const lobe = d[e + BEAM_LOBE];
  if (lobe > 0) value *= wz ** lobe;
  const beam = whole32(d[e + BEAM]);
  if (beam === PLAIN_BEAM) return value;
  if (beam === OVERCAST) {
    // Light that goes down comes from the sky.
    const up = wx * d[e + FACE_RIGHT + 2] + wy * d[e + FACE_UP + 2] + wz * d[e + FACE_FORWARD + 2];
    return value * overcastLuminance(-up);
  }
  if (beam === PROJECTED) {
    const focus = d[e + FOCUS];
    const reach = 1 / (focus * d[e + FIELD_TAN]);
    // Right of the beam as seen from behind the lens is right on the wall.
    const px = (x + (wx / wz) * focus) * reach;
    const py = (y + (wy / wz) * focus) * reach;
    return px * px + py * py > 1 ? 0 : value * goboAt(t, e, px, py);
  }
  return (value * intensityAt(t, e, wx, wy, wz)) / Math.max(LEAST_COSINE, wz);
}

/**
 * Luminance of an overcast sky over that of its horizon; below the horizon that of the ground.
 * @param sine of the elevation looked at
 * Source: CIE S 011 (standard overcast sky, Moon and Spencer)
 */
export function overcastLuminance(sine: number): number {
  return sine >= 0 ? 1 + 2 * sine : GROUND;
}

function squareCells(cutoff: number, wx: number, wy: number, wz: number): number {
  const along = 1 - Math.abs(wx) / (wz * cutoff);
  const across = 1 - Math.abs(wy) / (wz * cutoff);
  return along > 0 && across > 0 ? along * across : 0;
}

/** Open part of round cells, or of one tube: the overlap of two discs moved apart by tan a / tan c diameters. */
function roundCells(cutoff: number, wz: number): number {
  const q = Math.sqrt(Math.max(0, 1 - wz * wz)) / (wz * cutoff);
  return q >= 1 ? 0 : (2 / Math.PI) * (Math.acos(q) - q * Math.sqrt(1 - q * q));
}

/** Transmittance of a gobo at a place of its field, x right and y up, -1 to 1; bilinear, 0 outside. */
function goboAt(t: SceneTables, e: i32, x: number, y: number): number {
  if (!(x > -1 && x < 1 && y > -1 && y < 1)) return 0;
  const d = t.emitters;
  const at = whole32(d[e + GOBO_OFFSET]);
  const width = whole32(d[e + GOBO_WIDTH]);
  const height = whole32(d[e + GOBO_HEIGHT]);
  const u = ((x + 1) / 2) * real(width) - 0.5;
  const v = ((1 - y) / 2) * real(height) - 0.5;
  const x0 = u > 0 ? floor32(u) : 0;
  const y0 = v > 0 ? floor32(v) : 0;
  const x1 = x0 + 1 < width ? x0 + 1 : width - 1;
  const y1 = y0 + 1 < height ? y0 + 1 : height - 1;
  const fx = Math.max(0, u - real(x0));
  const fy = Math.max(0, v - real(y0));
  const r = t.rasters;
  const top = r[at + y0 * width + x0] * (1 - fx) + r[at + y0 * width + x1] * fx;
  const low = r[at + y1 * width + x0] * (1 - fx) + r[at + y1 * width + x1] * fx;
  return top * (1 - fy) + low * fy;
}

/** Bilinear in both angles; horizontal angles are mirrored where the table covers a quarter or half only. */
function intensityAt(t: SceneTables, e: i32, wx: number, wy: number, wz: number): number {
  const d = t.emitters;
  const list = t.angles;
  const at = whole32(d[e + ANGLES_OFFSET]);
  const columns = whole32(d[e + VERTICALS]);
  const rows = whole32(d[e + HORIZONTALS]);
  const vertical = Math.acos(Math.max(-1, Math.min(1, wz)));
  if (vertical > list[at + columns - 1] || vertical < list[at]) return 0;
  let horizontal = Math.atan2(wy, wx);
  if (horizontal < 0) horizontal += 2 * Math.PI;
  const most = list[at + columns + rows - 1];
  if (horizontal > most && horizontal > Math.PI) horizontal = 2 * Math.PI - horizontal;
  if (horizontal > most && horizontal > Math.PI / 2) horizontal = Math.PI - horizontal;
  const row = placeIn(list, at + columns, rows, horizontal);
  const column = placeIn(list, at, columns, vertical);
  const r0 = floor32(row);
  const c0 = floor32(column);
  const r1 = r0 + 1 < rows ? r0 + 1 : rows - 1;
  const c1 = c0 + 1 < columns ? c0 + 1 : columns - 1;
  const fr = row - real(r0);
  const fc = column - real(c0);
  const values = at + columns + rows;
  const low = (1 - fc) * list[values + r0 * columns + c0] + fc * list[values + r0 * columns + c1];
  const high = (1 - fc) * list[values + r1 * columns + c0] + fc * list[values + r1 * columns + c1];
  return (1 - fr) * low + fr * high;
}

/** Fractional index of a value in a rising part of a list, held to its ends. */
function placeIn(list: Float64Array, at: i32, count: i32, value: number): number {
  let low: i32 = 0;
  let high: i32 = count - 1;
  if (!(value > list[at])) return 0;
  if (value >= list[at + high]) return real(high);
  while (high - low > 1) {
    const middle = divide32(low + high, 2);
    if (list[at + middle] <= value) low = middle;
    else high = middle;
  }
  const from = list[at + low];
  return real(low) + (value - from) / (list[at + high] - from);
}
