import type { Sheet, Vector } from '@fendrix/contract';
import { lightShape } from '../../geometry/shape.js';
import { aimFrame } from '../../units/frame.js';
import { add, dot, scale, subtract, toTenthMm } from '../../units/vector.js';
import { BLACK_CARD } from '../cardMaterials.js';
import { freeSheetTag } from '../movables.js';
import {
  type Asked,
  type CardAnswer,
  canStand,
  cutSize,
  fittingSheet,
  measuredAnswer,
} from './cardAnswer.js';
import type { RegionPoint } from './region.js';

/** Parts of the way from the light to the region at which a flag is tried: nearer to the region it is smaller and sharper. */
export const FLAG_PARTS: readonly number[] = [0.35, 0.5, 0.65, 0.8];
/** Turns about the beam that are tried: the edge of a flag follows the edge of what is kept, degrees. */
const ROLLS = [0, 15, 30, 45, -15, -30];
const MARGIN_M = 0.005;
/** What is to be left as it is may lose a tenth of a stop: this part of the light. */
const SPARED = 1 - 2 ** -0.1;
/** A flag that leaves more than this of the light on the region is none. */
const COVERS = 0.9;

/** A rectangle in the plane of a flag, m from its middle line. */
interface Rect {
  left: number;
  right: number;
  low: number;
  high: number;
}

type Crossing = readonly [number, number];

/**
 * The smallest flags that keep a light off a region and spare another, one for each place on the way that works: every line
 * from the face of the light to the region crosses it, lines to what is spared pass beside it but for a tenth of a stop. Where
 * both cannot be had it is cut back as far as the spared part needs. From the kit where it has one, or with the size to cut.
 * Limits: the face by its outline; light that other things throw there stays.
 */
export function keepLightOff(asked: Asked, part: number): CardAnswer[] {
  const { set, region, spare } = asked;
  const light = set.lights.find(({ tag }) => tag === asked.light);
  const tag = freeSheetTag(set);
  if (!light || light.kind === 'surround' || region.length === 0 || tag === null) return [];
  const face = facePoints(lightShape(light).flat(), light.positionM);
  const middle = meanOf(region.map(({ pointM }) => pointM));
  const centre = add(light.positionM, scale(subtract(middle, light.positionM), part));
  const tries = ROLLS.flatMap((rollDeg) => {
    const frame = aimFrame(centre, middle, rollDeg);
    const crossings = (points: readonly RegionPoint[]) =>
      points.flatMap(({ pointM }) =>
        face.flatMap((from) => {
          const at = crossing(from, pointM, centre, frame);
          return at ? [at] : [];
        }),
      );
    const kept = crossings(region);
    const beside = crossings(spare);
    if (kept.length === 0) return [];
    const rect = cutBack(boundsOf(kept), kept, beside);
    return rect
      ? [{ rollDeg, rect, beside, frame, area: (rect.right - rect.left) * (rect.high - rect.low) }]
      : [];
  });
  const best = tries.sort((a, b) => a.area - b.area)[0];
  if (!best) return [];
  const { rect, rollDeg, frame, beside } = best;
  const [widthM, heightM] = [rect.right - rect.left, rect.high - rect.low];
  const flag = (wide: number, high: number, at: Rect): Sheet => {
    const across = (at.left + at.right) / 2;
    const up = (at.low + at.high) / 2;
    const positionM = toTenthMm(add(centre, add(scale(frame.right, across), scale(frame.up, up))));
    return {
      kind: 'flag',
      tag,
      name: 'Black flag',
      positionM,
      aimM: toTenthMm(add(positionM, scale(frame.forward, 0.2))),
      rollDeg,
      widthM: wide,
      heightM: high,
      front: BLACK_CARD,
      back: BLACK_CARD,
      stand: false,
    };
  };
  const [wide, high] = [cutSize(widthM), cutSize(heightM)];
  const own = fittingSheet(asked, isBlack, widthM, heightM);
  const anchored = own && anchor(rect, own.widthM, own.heightM, beside);
  const sheets = [
    ...(own && anchored
      ? [
          {
            sheet: { ...flag(own.widthM, own.heightM, anchored), name: own.entry.name },
            from: own.entry.name,
          },
        ]
      : []),
    { sheet: flag(wide, high, rect), from: null },
  ];
  return sheets
    .filter(({ sheet }) => canStand(set, sheet))
    .map(({ sheet, from }) => measuredAnswer(asked, sheet, from));
}

const isBlack = ({ front }: Sheet): boolean =>
  'reflectance' in front &&
  typeof front.reflectance === 'number' &&
  front.reflectance < 0.1 &&
  front.kind !== 'net';

/** Points over the face of a light: its outline and its middle. */
function facePoints(outline: readonly Vector[], middle: Vector): Vector[] {
  if (outline.length === 0) return [middle];
  const step = Math.max(1, Math.floor(outline.length / 12));
  return [middle, ...outline.filter((_, i) => i % step === 0)];
}

/** Where a line from the light to a point crosses the plane of a flag, across and up, m; null where it does not. */
function crossing(
  from: Vector,
  to: Vector,
  centre: Vector,
  { right, up, forward }: ReturnType<typeof aimFrame>,
): Crossing | null {
  const way = subtract(to, from);
  const along = dot(way, forward);
  if (Math.abs(along) < 1e-9) return null;
  const t = dot(subtract(centre, from), forward) / along;
  if (t <= 0 || t >= 1) return null;
  const at = subtract(add(from, scale(way, t)), centre);
  return [dot(at, right), dot(at, up)];
}

function boundsOf(crossings: readonly Crossing[]): Rect {
  const [x, y] = [crossings.map(([across]) => across), crossings.map(([, up]) => up)];
  return {
    left: Math.min(...x) - MARGIN_M,
    right: Math.max(...x) + MARGIN_M,
    low: Math.min(...y) - MARGIN_M,
    high: Math.max(...y) + MARGIN_M,
  };
}

const inside = ({ left, right, low, high }: Rect, [x, y]: Crossing): boolean =>
  x >= left && x <= right && y >= low && y <= high;

const partInside = (rect: Rect, crossings: readonly Crossing[]): number =>
  crossings.length === 0 ? 0 : crossings.filter((at) => inside(rect, at)).length / crossings.length;

/** Steps in which a side is cut back. */
const CUTS = 24;

/** Of the light on what is spared, so much weighs as much as the same part on what is covered. */
const SPARE_WEIGHT = 2;

/**
 * The rectangle, cut back from one side until what is spared keeps its light; where a large face makes that impossible, as far
 * back as does most good for least harm. Null where that is none.
 */
function cutBack(rect: Rect, kept: readonly Crossing[], beside: readonly Crossing[]): Rect | null {
  if (partInside(rect, beside) <= SPARED) return rect;
  const [wide, high] = [rect.right - rect.left, rect.high - rect.low];
  const sides = [
    (part: number): Rect => ({ ...rect, left: rect.left + part * wide }),
    (part: number): Rect => ({ ...rect, right: rect.right - part * wide }),
    (part: number): Rect => ({ ...rect, low: rect.low + part * high }),
    (part: number): Rect => ({ ...rect, high: rect.high - part * high }),
  ];
  const cut = sides.flatMap((side) =>
    Array.from({ length: CUTS - 1 }, (_, i) => {
      const smaller = side((i + 1) / CUTS);
      return { smaller, covers: partInside(smaller, kept), takes: partInside(smaller, beside) };
    }),
  );
  const clean = cut.filter(({ takes, covers }) => takes <= SPARED && covers >= COVERS);
  const best = (clean.length > 0 ? clean : cut).sort(
    (a, b) => b.covers - SPARE_WEIGHT * b.takes - (a.covers - SPARE_WEIGHT * a.takes),
  )[0];
  return best && best.covers - SPARE_WEIGHT * best.takes > 0.1 ? best.smaller : null;
}

/** A larger flag of the kit laid so that it spares what the cut one would spare; null where it cannot. */
function anchor(rect: Rect, wide: number, high: number, beside: readonly Crossing[]): Rect | null {
  const across = [
    [rect.left, rect.left + wide],
    [rect.right - wide, rect.right],
    [(rect.left + rect.right - wide) / 2, (rect.left + rect.right + wide) / 2],
  ] as const;
  const up = [
    [rect.low, rect.low + high],
    [rect.high - high, rect.high],
    [(rect.low + rect.high - high) / 2, (rect.low + rect.high + high) / 2],
  ] as const;
  for (const [left, right] of across)
    for (const [low, top] of up) {
      const laid = { left, right, low, high: top };
      if (partInside(laid, beside) <= SPARED) return laid;
    }
  return null;
}

const meanOf = (points: readonly Vector[]): Vector =>
  scale(points.reduce(add, [0, 0, 0] as Vector), 1 / Math.max(1, points.length));
