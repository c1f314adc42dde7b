import type { SetDocument, TapeMark, Vector } from '@fendrix/contract';
import { requireDomain } from '../../errors.js';

/** A fixed place that a tape is laid from, plumbed to the level: m from the centre, to camera right and away from the camera. */
export interface PlacedMark {
  mark: TapeMark;
  atM: readonly [number, number];
}

/** Two tapes to one place, along the level. */
export interface TapeFix {
  firstM: number;
  secondM: number;
  /** On which side of the line between the marks: two tapes meet on either. */
  side: 'front' | 'back' | 'left' | 'right';
  /** How far off the place is for each metre that both tapes are misread: root mean square, by the angle they meet at. */
  spread: number;
}

/** Over this many times the misreading two tapes do not fix a place: they lie nearly in one line. */
export const MOST_SPREAD = 6;
/** Marks nearer to each other are no two marks, m. */
const LEAST_APART_M = 0.05;

/** The marks that a set has: its centre, the corners of its table, those of its room. */
export function marksForTapes({ bench, room }: Pick<SetDocument, 'bench' | 'room'>): PlacedMark[] {
  const corners = (of: 'table' | 'room', left: number, front: number, wide: number, deep: number) =>
    (['front', 'back'] as const).flatMap((y) =>
      (['left', 'right'] as const).map(
        (x): PlacedMark => ({
          mark: `${of}-${y}-${x}`,
          atM: [left + (x === 'right' ? wide : 0), front + (y === 'back' ? deep : 0)],
        }),
      ),
    );
  return [
    { mark: 'centre', atM: [0, 0] },
    ...(bench
      ? corners(
          'table',
          bench.centreM[0] - bench.widthM / 2,
          bench.centreM[1] - bench.depthM / 2,
          bench.widthM,
          bench.depthM,
        )
      : []),
    ...(room ? corners('room', -room.markFromLeftM, -room.markFromFrontM, room.widthM, room.depthM) : []),
  ];
}

/** Two marks of a set by what they are; null where it has not both of them, or they are one place. */
export function marksOf(
  set: Pick<SetDocument, 'bench' | 'room'>,
  [first, second]: readonly [TapeMark, TapeMark],
): [PlacedMark, PlacedMark] | null {
  const all = marksForTapes(set);
  const [one, other] = [first, second].map((mark) => all.find((own) => own.mark === mark));
  if (!one || !other) return null;
  return apart(one.atM, other.atM) < LEAST_APART_M ? null : [one, other];
}

const apart = (a: readonly [number, number], b: readonly [number, number]): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1]);

/**
 * The two tapes to a place. Heights are plumbed: both are measured along the level.
 * @throws {DomainError} marks that are one place
 */
export function tapesTo([one, other]: readonly [PlacedMark, PlacedMark], [x, y]: Vector): TapeFix {
  const [a, b] = [one.atM, other.atM];
  const base = apart(a, b);
  requireDomain(base >= LEAST_APART_M, 'two tapes begin at two places');
  const [firstM, secondM] = [apart(a, [x, y]), apart(b, [x, y])];
  // The way off the line between the marks, and to which side that is.
  const across: [number, number] = [-(b[1] - a[1]) / base, (b[0] - a[0]) / base];
  const off = (x - a[0]) * across[0] + (y - a[1]) * across[1];
  const isDeep = Math.abs(across[1]) >= Math.abs(across[0]);
  const isFar = off * (isDeep ? across[1] : across[0]) >= 0;
  // The sine of the angle at which the tapes meet: twice the area of the triangle over both lengths.
  const sine = firstM * secondM > 0 ? Math.abs(off * base) / (firstM * secondM) : 1;
  return {
    firstM,
    secondM,
    side: isDeep ? (isFar ? 'back' : 'front') : isFar ? 'right' : 'left',
    spread: Math.SQRT2 / Math.max(1e-9, sine),
  };
}

/** The place that two tapes meet at, m from the centre; null where they do not reach each other. */
export function placeByTapes(
  [one, other]: readonly [PlacedMark, PlacedMark],
  { firstM, secondM, side }: Pick<TapeFix, 'firstM' | 'secondM' | 'side'>,
): [number, number] | null {
  const [a, b] = [one.atM, other.atM];
  const base = apart(a, b);
  if (base < LEAST_APART_M) return null;
  const along = (firstM ** 2 - secondM ** 2 + base ** 2) / (2 * base);
  const squared = firstM ** 2 - along ** 2;
  if (squared < -1e-6) return null;
  const [ux, uy] = [(b[0] - a[0]) / base, (b[1] - a[1]) / base];
  const across: [number, number] = [-uy, ux];
  const far = side === 'back' || side === 'right';
  const axis = side === 'back' || side === 'front' ? across[1] : across[0];
  const off = Math.sqrt(Math.max(0, squared)) * (axis >= 0 === far ? 1 : -1);
  return [a[0] + along * ux + off * across[0], a[1] + along * uy + off * across[1]];
}
