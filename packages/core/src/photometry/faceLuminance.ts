import {
  BEAM,
  CELLS,
  CUTOFF_TAN,
  type Emitter,
  FACE,
  FIELD_TAN,
  FOCUS,
  HALF_HEIGHT,
  HALF_WIDTH,
  HOT,
  INNER,
  type IntensityTable,
  LOBE,
  OCTAGON_FACE,
  OVERCAST,
  overcastLuminance,
  PROJECTED,
  SCALE,
  SQUARE_CELLS,
  TABLE,
} from './emitter.js';
import { goboAt } from './gobo.js';

/** Grazing angles at which a table of intensities is no longer divided by the cosine. */
const LEAST_COSINE = 0.02;

/**
 * Relative luminance of a face towards a direction; 0 outside of a round or eight-sided one.
 * Hot centre: 1 + (h - 1)(1 - u^2)(1 - v^2), round ones 1 + (h - 1)(1 - rho^2).
 * Grid of square cells: (1 - |tan a|/tan c)(1 - |tan b|/tan c), c half the cut-off angle; of round cells the
 * overlap of two discs. Beam: cos^(m - 1). Overcast: 1 + 2 sin(elevation). Projector: gobo where the ray meets
 * the plane of focus. Table: intensity over cosine.
 * @param x, y place on the face from its centre, m  @param wx, wy, wz direction in the face's frame, wz > 0
 * Source: docs/physics/lights.md
 */
export function faceLuminance(
  { kind, data, gobo, table }: Emitter,
  x: number,
  y: number,
  wx: number,
  wy: number,
  wz: number,
): number {
  const u = x / (data[HALF_WIDTH] as number);
  const v = y / (data[HALF_HEIGHT] as number);
  let value = data[SCALE] as number;
  if (kind === FACE) value *= 1 + (data[HOT] as number) * (1 - u * u) * (1 - v * v);
  else {
    const rho2 = u * u + v * v;
    if (kind === OCTAGON_FACE) {
      if (Math.abs(u) + Math.abs(v) > Math.SQRT2) return 0;
    } else if (rho2 > 1 || rho2 < (data[INNER] as number) ** 2) return 0;
    if (rho2 < 1) value *= 1 + (data[HOT] as number) * (1 - rho2);
  }
  const cutoff = data[CUTOFF_TAN] as number;
  if (cutoff > 0) {
    value *= data[CELLS] === SQUARE_CELLS ? squareCells(cutoff, wx, wy, wz) : roundCells(cutoff, wz);
  }
  const lobe = data[LOBE] as number;
  if (lobe > 0) value *= wz ** lobe;
  const beam = data[BEAM];
  if (beam === 0) return value;
  if (beam === OVERCAST) {
    const down = -(wx * (data[5] as number) + wy * (data[8] as number) + wz * (data[11] as number));
    // Light that goes down comes from the sky.
    return value * overcastLuminance(down);
  }
  if (beam === PROJECTED && gobo !== null) {
    const focus = data[FOCUS] as number;
    const reach = 1 / (focus * (data[FIELD_TAN] as number));
    // Right of the beam as seen from behind the lens is right on the wall.
    const px = (x + (wx / wz) * focus) * reach;
    const py = (y + (wy / wz) * focus) * reach;
    return px * px + py * py > 1 ? 0 : value * goboAt(gobo, px, py);
  }
  if (beam === TABLE && table !== null) {
    return (value * intensityAt(table, wx, wy, wz)) / Math.max(LEAST_COSINE, wz);
  }
  return value;
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

/** Bilinear in both angles; horizontal angles are mirrored where the table covers a quarter or half only. */
function intensityAt(table: IntensityTable, wx: number, wy: number, wz: number): number {
  const { verticalRad, horizontalRad, value } = table;
  const vertical = Math.acos(Math.max(-1, Math.min(1, wz)));
  const columns = verticalRad.length;
  if (vertical > (verticalRad[columns - 1] as number) || vertical < (verticalRad[0] as number)) return 0;
  let horizontal = Math.atan2(wy, wx);
  if (horizontal < 0) horizontal += 2 * Math.PI;
  const most = horizontalRad[horizontalRad.length - 1] as number;
  if (horizontal > most && horizontal > Math.PI) horizontal = 2 * Math.PI - horizontal;
  if (horizontal > most && horizontal > Math.PI / 2) horizontal = Math.PI - horizontal;
  const row = placeIn(horizontalRad, horizontal);
  const column = placeIn(verticalRad, vertical);
  const r0 = Math.floor(row);
  const c0 = Math.floor(column);
  const r1 = Math.min(horizontalRad.length - 1, r0 + 1);
  const c1 = Math.min(columns - 1, c0 + 1);
  const fr = row - r0;
  const fc = column - c0;
  const at = (r: number, c: number) => value[r * columns + c] as number;
  return (
    (1 - fr) * ((1 - fc) * at(r0, c0) + fc * at(r0, c1)) + fr * ((1 - fc) * at(r1, c0) + fc * at(r1, c1))
  );
}

/** Fractional place of a value in a rising list, held to its ends. */
function placeIn(list: Float64Array, value: number): number {
  let low = 0;
  let high = list.length - 1;
  if (!(value > (list[0] as number))) return 0;
  if (value >= (list[high] as number)) return high;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((list[middle] as number) <= value) low = middle;
    else high = middle;
  }
  return low + (value - (list[low] as number)) / ((list[high] as number) - (list[low] as number));
}
