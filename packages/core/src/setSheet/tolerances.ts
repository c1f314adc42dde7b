import type { SetDocument } from '@fendrix/contract';
import { mean, standardError } from '../judge/illuminance.js';
import { type SpotTrace, spotReading } from '../judge/readSpot.js';
import type { BandLength, MirrorBand } from '../mirror/mirrorBand.js';
import { type Nudge, nudgeStep } from './nudges.js';

/** What is allowed to change: a tenth of a stop at a spot, one percent of the width of a product where an image ends. */
export const ALLOWED = { stops: 0.1, bandPart: 0.01 } as const;
/** Figures that may be off by more than this are of no account, m and degrees: so far out the slope at the plan says nothing. */
export const NO_ACCOUNT = { m: 0.2, deg: 20 } as const;

/** What is read of a set: its pinned spots, traced with one seed in all sets that are compared, and its mirror bands. */
export interface SheetFigures {
  spots: readonly SpotTrace[];
  bands: readonly MirrorBand[];
}

/** How far one figure of a set may be off before something changes by more than is allowed. */
export interface Tolerance extends Nudge {
  /** m, or degrees; null where it is of no account. */
  most: number | null;
  /** Whether it is at least that, and perhaps more: the light at the spot was not traced finely enough to say. */
  isBound: boolean;
  /** What changes first: the tone of a spot, or where an image ends on a product. */
  limit: { kind: 'spot'; name: string } | { kind: 'band'; product: string } | null;
}

interface Slope {
  limit: NonNullable<Tolerance['limit']>;
  /** Of what is allowed, for 1 m or 1 degree, with one deviation. */
  value: number;
  error: number;
}

/**
 * How far a figure may be off, by what the set reads as with that figure a step less and a step more. Limits: the change is taken to
 * grow evenly with the figure, which `heldTo` checks; what is not pinned and not mirrored is not looked at.
 * @param set as planned  @param less, more of the set nudged by `nudgeStep` either way
 */
export function toleranceOf(
  set: SetDocument,
  nudge: Nudge,
  less: SheetFigures,
  more: SheetFigures,
): Tolerance {
  const span = 2 * nudgeStep(nudge.way);
  const slopes = [...spotSlopes(set, less, more, span), ...bandSlopes(less.bands, more.bands, span)];
  const steepest = slopes.sort((a, b) => surely(b) - surely(a))[0];
  const most = nudge.way === 'turn' || nudge.way === 'tilt' ? NO_ACCOUNT.deg : NO_ACCOUNT.m;
  if (!steepest || surely(steepest) * most < 1) return { ...nudge, most: null, isBound: false, limit: null };
  const isBound = isUnsure(steepest);
  return {
    ...nudge,
    most: 1 / (isBound ? surely(steepest) : steepest.value),
    isBound,
    limit: steepest.limit,
  };
}

const isUnsure = ({ value, error }: Slope): boolean => value < 3 * error;
/** What a slope surely is not above. */
const surely = (slope: Slope): number => slope.value + (isUnsure(slope) ? 2 * slope.error : 0);

/** How much two readings of a set differ, the most of any spot or image. */
export interface ReadChange {
  /** Of what is allowed. */
  part: number;
  limit: NonNullable<Tolerance['limit']>;
}

/** What changed most from one reading to another, less what may be chance; null where both show nothing. */
export function mostChanged(set: SetDocument, from: SheetFigures, to: SheetFigures): ReadChange | null {
  const all = [...spotSlopes(set, from, to, 1), ...bandSlopes(from.bands, to.bands, 1)].map(
    ({ limit, value, error }) => ({ limit, part: Math.max(0, value - error) }),
  );
  return all.sort((a, b) => b.part - a.part)[0] ?? null;
}

/** So much of what is allowed may change where a figure is off by what it may be: the rest is for curves and chance. */
const HELD = 1.25;

/**
 * A tolerance held against what the set reads as with the figure off by that much, either way: as it is, or narrowed, to be held
 * against it again.
 * @param changes to the readings at that much less and more
 */
export function heldTo(tolerance: Tolerance, changes: readonly (ReadChange | null)[]): Tolerance {
  const worst = changes.flatMap((change) => change ?? []).sort((a, b) => b.part - a.part)[0];
  if (!worst || worst.part <= HELD || tolerance.most === null) return tolerance;
  return { ...tolerance, most: tolerance.most / Math.min(2, worst.part), limit: worst.limit };
}

/** Tones at the spots. The seed is the same on both sides: most of what is random is, too. */
function spotSlopes(set: SetDocument, less: SheetFigures, more: SheetFigures, span: number): Slope[] {
  return less.spots.flatMap((trace): Slope[] => {
    const other = more.spots.find(({ name }) => name === trace.name);
    const [a, b] = [tonesOf(set, trace), other ? tonesOf(set, other) : []];
    if (a.length === 0 || b.length !== a.length) return [];
    const middle = mean([...a, ...b]);
    if (!(middle > 0)) return [];
    const changes = a.map((tone, i) => ((b[i] as number) - tone) / (middle * Math.LN2));
    const whole = ALLOWED.stops * span;
    return [
      {
        limit: { kind: 'spot', name: trace.name },
        value: Math.abs(mean(changes)) / whole,
        error: standardError(changes) / whole,
      },
    ];
  });
}

/** What is recorded of a spot by each part of its samples; none where the lens does not see it. */
function tonesOf(set: SetDocument, trace: SpotTrace): number[] {
  return trace.seenParts.map((seen) => {
    const { stopsFromMidTone } = spotReading(set, { ...trace, seen, seenParts: [seen, seen] });
    return stopsFromMidTone === null ? 0 : 2 ** stopsFromMidTone;
  });
}

/** An end of an image that goes further than this, parts of the width, is another one. */
const FURTHEST = 0.1;

/** The ends of images of lights and sheets on the products. */
function bandSlopes(less: readonly MirrorBand[], more: readonly MirrorBand[], span: number): Slope[] {
  return less.flatMap((band): Slope[] => {
    const other = more.find(({ product }) => product === band.product);
    if (!other) return [];
    const shifts = edgesOf(band).flatMap((edge) => {
      const again = edgesOf(other)
        .filter(({ pair }) => pair === edge.pair)
        .map(({ at }) => Math.abs(at - edge.at));
      const shift = Math.min(...again);
      return shift < FURTHEST ? [shift] : [];
    });
    if (shifts.length === 0) return [];
    const value = Math.max(...shifts) / (ALLOWED.bandPart * span);
    return [{ limit: { kind: 'band', product: band.product }, value, error: 0 }];
  });
}

function edgesOf({ lengths }: MirrorBand): { at: number; pair: string }[] {
  const sideOf = ({ kind, what, front }: BandLength) => `${kind} ${what} ${front}`;
  const isImage = ({ kind }: BandLength) => kind === 'light' || kind === 'sheet';
  return lengths.slice(1).flatMap((right, i) => {
    const left = lengths[i] as BandLength;
    return isImage(left) || isImage(right)
      ? [{ at: right.from, pair: `${sideOf(left)} | ${sideOf(right)}` }]
      : [];
  });
}

/** What has to be held closest first: lengths in metres count as much as angles in steps of `nudgeStep`. */
export const worstFirst = (tolerances: readonly Tolerance[]): Tolerance[] => {
  const steps = ({ most, way }: Tolerance) =>
    most === null ? Number.POSITIVE_INFINITY : most / nudgeStep(way);
  return [...tolerances].sort((a, b) => steps(a) - steps(b));
};
