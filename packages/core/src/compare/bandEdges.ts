import type { SetDocument } from '@fendrix/contract';
import { turnBetween } from '../geometry/products/partAt.js';
import type { BandLength, MirrorBand } from '../mirror/mirrorBand.js';
import { degrees, radians } from '../units/angle.js';
import { subtract } from '../units/vector.js';

/** Heights at which bands are held against a frame, parts of the height at which the bench shows the band. */
export const BAND_HEIGHTS: readonly number[] = Array.from({ length: 15 }, (_, i) => 0.5 + i / 14);

/** A picture in one grey, linear, paper white at 1. */
export interface GreyPicture {
  width: number;
  height: number;
  grey: Float32Array;
}

/** Where one length of a band ends and the next begins, in the plan and in a frame. */
export interface MeasuredEdge {
  product: string;
  heightM: number;
  /** What is mirrored camera left and right of it; null for the outline of the product. */
  left: EdgeSide | null;
  right: EdgeSide | null;
  /** Fractions of the product's visible width in the plan, 0 camera left. */
  plan: number;
  /** How much further right it is in the frame, the same fractions: what moved all of it included. */
  by: number;
}

export type EdgeSide = Pick<BandLength, 'kind' | 'what' | 'front'>;

/** Half of what is looked at round an edge, part of the visible width; never less than these pixels. */
const AROUND = 0.06;
const LEAST_AROUND_PX = 3;
const SAMPLES = 25;
/** An edge is sought this far to either side, part of the visible width, in steps of these pixels. */
const SOUGHT = 0.12;
const STEP_PX = 0.05;
/** An edge with less than this, stops (root mean square), is not told from noise. */
const LEAST_CONTRAST_STOPS = 0.35;
/** Less alike than this it is another edge that was found. */
const LEAST_ALIKE = 0.96;
const [DARKEST, BRIGHTEST] = [0.002, 0.97];

/**
 * Finds the edges of mirror bands in a frame: round each edge of the plan the place of the frame that is most like it
 * (normalised cross-correlation of stops along the row). Edges without contrast, or that are not found again, are left out.
 * @param plan with its lights as strong as the frame says  @param frame of the same size
 */
export function measureEdges(
  plan: GreyPicture,
  frame: GreyPicture,
  bands: readonly MirrorBand[],
): MeasuredEdge[] {
  return bands.flatMap((band) => {
    const wide = (band.right - band.left) * plan.width;
    const rows = [plan, frame].map((picture) => rowOf(picture, band.down * picture.height)) as [Row, Row];
    return edgesOf(band).flatMap((edge): MeasuredEdge[] => {
      const at = (band.left + edge.plan * (band.right - band.left)) * plan.width;
      const found = seek(rows, at, wide, AROUND);
      return found === null ? [] : [{ ...edge, by: found / wide }];
    });
  });
}

/** A picture on its side: its columns as rows, so that edges that lie level are found as upright ones are. */
export function onItsSide({ width, height, grey }: GreyPicture): GreyPicture {
  const turned = new Float32Array(grey.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + y] = grey[y * width + x] as number;
  return { width: height, height: width, grey: turned };
}

/**
 * How many pixels further right a frame has the edge that its plan has at a place.
 * @param down row of it, px  @param at its place, px  @param wide what it belongs to, px: sought to an eighth of that
 * @returns null where it is not found
 */
export function edgeMoved(
  plan: GreyPicture,
  frame: GreyPicture,
  down: number,
  at: number,
  wide: number,
): number | null {
  return seek([rowOf(plan, down), rowOf(frame, down)], at, wide, AROUND);
}

/** The print in the middle of a label, at one height of its product. */
export interface MeasuredPrint {
  product: string;
  /** Angle from the line of sight to the middle of the label, degrees, towards camera right. */
  angleDeg: number;
  /** How much further right the print is in the frame, part of the visible width. */
  by: number;
}

/** Half of the print that is looked at, part of the visible width: a few letters. */
const PRINT_AROUND = 0.18;
/** A label that is seen more from the side tells little, degrees. */
const MOST_ASIDE_DEG = 50;

/** Finds the print of labels in a frame, at the heights of bands that lie within them; as `measureEdges` does edges. */
export function measurePrints(
  plan: GreyPicture,
  frame: GreyPicture,
  bands: readonly MirrorBand[],
  { products, camera }: Pick<SetDocument, 'products' | 'camera'>,
): MeasuredPrint[] {
  return bands.flatMap(({ product: id, heightM, left, right, down }): MeasuredPrint[] => {
    const product = products.find((own) => own.id === id);
    if (product?.kind !== 'turned') return [];
    const label = product.labels.find(({ fromM, toM }) => heightM > fromM && heightM < toM);
    if (!label) return [];
    const [x, y] = subtract(camera.positionM, product.positionM);
    const sight = degrees(Math.atan2(x, -y));
    const angleDeg = turnBetween(sight, label.centreBearingDeg + product.turnDeg);
    if (Math.abs(angleDeg) > MOST_ASIDE_DEG) return [];
    const wide = (right - left) * plan.width;
    const rows = [plan, frame].map((picture) => rowOf(picture, down * picture.height)) as [Row, Row];
    const at = (left + (0.5 + 0.5 * Math.sin(radians(angleDeg))) * (right - left)) * plan.width;
    const found = seek(rows, at, wide, PRINT_AROUND);
    return found === null ? [] : [{ product: id, angleDeg, by: found / wide }];
  });
}

function edgesOf({ product, heightM, lengths }: MirrorBand): Omit<MeasuredEdge, 'by'>[] {
  const side = ({ kind, what, front }: BandLength): EdgeSide => ({ kind, what, front });
  const edge = (plan: number, left: EdgeSide | null, right: EdgeSide | null) => ({
    product,
    heightM,
    plan,
    left,
    right,
  });
  const inner = lengths.slice(1).map((own, i) => edge(own.from, side(lengths[i] as BandLength), side(own)));
  return [edge(0, null, null), ...inner, edge(1, null, null)];
}

/** Stops along a row, by the place across, px. */
type Row = (across: number) => number;

/** The mean of three lines: edges are upright there, and a line is noisy. */
function rowOf({ width, height, grey }: GreyPicture, down: number): Row {
  const middle = Math.floor(down);
  const lines = [-1, 0, 1].map((by) => Math.max(0, Math.min(height - 1, middle + by)) * width);
  const stops = Float32Array.from({ length: width }, (_, x) => {
    const mean = lines.reduce((sum, line) => sum + (grey[line + x] as number), 0) / lines.length;
    return Math.log2(Math.max(DARKEST, Math.min(BRIGHTEST, mean)));
  });
  return (across) => {
    const place = Math.max(0, Math.min(width - 1.001, across - 0.5));
    const left = Math.floor(place);
    const part = place - left;
    return (1 - part) * (stops[left] as number) + part * (stops[left + 1] as number);
  };
}

/** @param part of the visible width that is looked at to either side  @returns how many pixels further right the frame has what the plan has round a place; null where it is not found */
function seek([plan, frame]: [Row, Row], at: number, wide: number, part: number): number | null {
  const around = Math.max(LEAST_AROUND_PX, part * wide);
  const own = new Float64Array(SAMPLES);
  const other = new Float64Array(SAMPLES);
  const read = (into: Float64Array, row: Row, middle: number) => {
    let sum = 0;
    for (let i = 0; i < SAMPLES; i++) {
      const value = row(middle - around + (2 * around * i) / (SAMPLES - 1));
      into[i] = value;
      sum += value;
    }
    for (let i = 0; i < SAMPLES; i++) into[i] = (into[i] as number) - sum / SAMPLES;
  };
  const product = (a: Float64Array, b: Float64Array) =>
    a.reduce((sum, value, i) => sum + value * (b[i] as number), 0);
  read(own, plan, at);
  const power = product(own, own);
  if (Math.sqrt(power / SAMPLES) < LEAST_CONTRAST_STOPS) return null;
  let best = { by: 0, alike: -1 };
  for (let by = -SOUGHT * wide; by <= SOUGHT * wide; by += STEP_PX) {
    read(other, frame, at + by);
    const alike = product(own, other) / Math.sqrt(power * product(other, other) + 1e-12);
    if (alike > best.alike) best = { by, alike };
  }
  return best.alike < LEAST_ALIKE || Math.abs(best.by) > SOUGHT * wide - 2 * STEP_PX ? null : best.by;
}
