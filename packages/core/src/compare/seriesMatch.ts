import type { FrameFigures } from '@fendrix/contract';
import { deltaE2000, labOf } from '../colour/deltaE.js';
import { miredOf } from '../colour/whitePoint.js';

/** What two pictures of a series are held together by. */
export type SeriesCode =
  | 'size'
  | 'base-line'
  | 'place'
  | 'lean'
  | 'ground-tone'
  | 'label-tone'
  | 'white'
  | 'colour'
  | 'shadow-direction'
  | 'shadow-softness'
  | 'highlight';

/** What is seen where pictures stand side by side: off by more they are unlike. */
export const SERIES_LIMITS: Readonly<Record<SeriesCode, number>> = {
  /** Part. */
  size: 0.04,
  /** Parts of the frame. */
  'base-line': 0.01,
  place: 0.015,
  /** Degrees. */
  lean: 0.7,
  /** Stops. */
  'ground-tone': 0.2,
  'label-tone': 0.2,
  /** Mired. */
  white: 8,
  /** CIEDE2000. */
  colour: 3,
  /** Degrees. */
  'shadow-direction': 15,
  /** Parts of the shadow. */
  'shadow-softness': 0.15,
  /** Parts of the visible width. */
  highlight: 0.03,
};

/** One figure of a picture against that of the picture it is to be like; null where one of the two does not tell it. */
export interface SeriesFigure {
  code: SeriesCode;
  here: number | null;
  there: number | null;
  /** Here less there; of colour their difference. Null with either of them. */
  off: number | null;
  isOff: boolean;
  /** What would bring it there, in the unit of what is changed; null where it is not off. */
  change: SeriesChange | null;
}

/** What is changed at the set or the camera. */
export type SeriesChange =
  | { code: 'camera-nearer'; byM: number }
  | { code: 'raise'; byM: number }
  | { code: 'push-right'; byM: number }
  | { code: 'lean-right'; byDeg: number }
  | { code: 'more-light'; byStops: number }
  | { code: 'white-balance'; toK: number }
  | { code: 'turn-main-light'; byDeg: number }
  | { code: 'harder' }
  | { code: 'softer' }
  | { code: 'move-image'; tag: string; name: string; byPart: number };

/** At this lightness colours are compared alone. */
const GREY = 0.28;

/**
 * A picture against another that it is to stand beside. Of size two schools count, the same scale or the same height, whichever it is
 * nearer to; of what was found in one of the two only nothing is said.
 */
export function seriesMatch(here: FrameFigures, there: FrameFigures): SeriesFigure[] {
  const figure = (
    code: SeriesCode,
    own: number | null | undefined,
    other: number | null | undefined,
    change: (off: number) => SeriesChange | null,
    apart: (a: number, b: number) => number = (a, b) => a - b,
  ): SeriesFigure => {
    const [a, b] = [own ?? null, other ?? null];
    const off = a === null || b === null ? null : apart(a, b);
    const isOff = off !== null && Math.abs(off) > SERIES_LIMITS[code];
    return { code, here: a, there: b, off, isOff, change: isOff ? change(off) : null };
  };
  const [mine, wanted] = [here.outline, there.outline];
  const colours =
    here.groundRgb && there.groundRgb ? [here.groundRgb, there.groundRgb].map(mired(here)) : null;
  const image = worstImage(here, there);
  return [
    sizeFigure(here, there),
    figure('base-line', mine?.bottom, wanted?.bottom, (off) => ({
      code: 'raise',
      byM: off * here.frameHeightM,
    })),
    figure('place', mine && centre(mine), wanted && centre(wanted), (off) => ({
      code: 'push-right',
      byM: -off * here.frameWidthM,
    })),
    figure('lean', here.leanDeg, there.leanDeg, (off) => ({ code: 'lean-right', byDeg: -off })),
    figure('ground-tone', here.groundStops, there.groundStops, (off) => ({
      code: 'more-light',
      byStops: -off,
    })),
    figure('label-tone', here.labelStops, there.labelStops, (off) => ({ code: 'more-light', byStops: -off })),
    figure('white', colours?.[0], colours?.[1], (off) => ({
      code: 'white-balance',
      toK: 1e6 / (1e6 / here.whiteBalanceK + off),
    })),
    colourFigure(here, there),
    figure(
      'shadow-direction',
      here.shadow?.towardsDeg,
      there.shadow?.towardsDeg,
      // Down is on: a light that is turned clockwise, seen from above, turns its shadow so.
      (off) => ({ code: 'turn-main-light', byDeg: -off }),
      (a, b) => ((((a - b + 180) % 360) + 360) % 360) - 180,
    ),
    figure('shadow-softness', here.shadow?.softPart, there.shadow?.softPart, (off) => ({
      code: off > 0 ? 'harder' : 'softer',
    })),
    figure('highlight', image && middleOf(image.own), image && middleOf(image.other), (off) => ({
      code: 'move-image',
      tag: image?.own.tag ?? '',
      name: image?.own.name ?? '',
      byPart: -off,
    })),
  ];
}

const untold = (code: SeriesCode): SeriesFigure => ({
  code,
  here: null,
  there: null,
  off: null,
  isOff: false,
  change: null,
});

type Outline = NonNullable<FrameFigures['outline']>;
const tall = ({ top, bottom }: Outline): number => bottom - top;
const centre = ({ left, right }: Outline): number => (left + right) / 2;

function sizeFigure(here: FrameFigures, there: FrameFigures): SeriesFigure {
  if (!here.outline || !there.outline) return untold('size');
  const own = tall(here.outline);
  const fill = Math.log(own / tall(there.outline));
  const scaled = fill - Math.log(here.heightM / there.heightM);
  const off = Math.abs(fill) <= Math.abs(scaled) ? fill : scaled;
  const isOff = Math.abs(off) > SERIES_LIMITS.size;
  return {
    code: 'size',
    here: own,
    there: own / Math.exp(off),
    off,
    isOff,
    change: isOff ? { code: 'camera-nearer', byM: -here.depthM * Math.expm1(off) } : null,
  };
}

type Image = FrameFigures['highlights'][number];
const middleOf = ({ from, to }: Image): number => (from + to) / 2;
/** Images whose middles lie farther apart are not one and the same, parts of the visible width. */
const SAME_IMAGE = 0.2;

/** The image that lies farthest from where there is one in the other picture; null where none is in both. */
function worstImage(here: FrameFigures, there: FrameFigures): { own: Image; other: Image } | null {
  const apart = (a: Image, b: Image) => Math.abs(middleOf(a) - middleOf(b));
  const pairs = there.highlights.flatMap((other) => {
    const [own] = [...here.highlights].sort((a, b) => apart(a, other) - apart(b, other));
    return own && apart(own, other) <= SAME_IMAGE ? [{ own, other }] : [];
  });
  return pairs.sort((a, b) => apart(b.own, b.other) - apart(a.own, a.other))[0] ?? null;
}

const mired =
  ({ whiteBalanceK }: FrameFigures) =>
  ([red, , blue]: [number, number, number]) =>
    miredOf(Math.log2(Math.max(1e-4, red) / Math.max(1e-4, blue)), whiteBalanceK);

/** A difference of colour has two sides of its own: it is told as what lies between them. */
function colourFigure(here: FrameFigures, there: FrameFigures): SeriesFigure {
  if (!here.groundRgb || !there.groundRgb) return untold('colour');
  const lab = (rgb: readonly number[]) => labOf(rgb.map((value) => GREY * value) as [number, number, number]);
  const off = deltaE2000(lab(here.groundRgb), lab(there.groundRgb));
  return { ...untold('colour'), here: off, there: 0, off, isOff: off > SERIES_LIMITS.colour };
}
