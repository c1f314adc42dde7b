import type { SetDocument, Vector } from '@fendrix/contract';
import {
  MIRRORED,
  MIRRORED_POINT,
  MIRRORED_WAY,
  MIRRORED_WEIGHT,
  NO_SUCH_PART,
  SEEN,
  SEEN_NORMAL,
  SEEN_POINT,
  SEEN_SURFACE,
} from '../../engine/sight.js';
import { luminanceOf } from '../../exposure/display.js';
import { partAt } from '../../geometry/products/partAt.js';
import type { Thing } from '../../geometry/scene.js';
import type { Tracing } from '../../render/prepareTracing.js';
import { rayThrough } from '../../render/view.js';
import { dot } from '../../units/vector.js';

/** A place of the frame, parts of it, 0 to 1 right and down. */
export interface FramePoint {
  across: number;
  down: number;
}

/** A part of what the lens sees, as it is pointed out. */
export type Region =
  /** The whole thing seen at a point. */
  | ({ by: 'thing' } & FramePoint)
  /** The label, cap or body of a product seen at a point. */
  | ({ by: 'part' } & FramePoint)
  /** What faces the same way round a point. */
  | ({ by: 'face' } & FramePoint)
  /** What was painted over, with discs of a radius in parts of the frame's width. */
  | { by: 'brush'; strokes: readonly (FramePoint & { radius: number })[] };

/** A point of a region. */
export interface RegionPoint extends FramePoint {
  thing: Thing;
  pointM: Vector;
  normal: Vector;
  /** Direction in which it mirrors the room, what it meets there, m, and what part of its light; null for a matte one. */
  mirrors: { way: Vector; metM: Vector | null; part: number } | null;
}

const ACROSS = 120;
const DOWN = 80;
/** A face goes on where it turns by less than this from place to place, and from the place that was pointed out. */
const SMOOTH = Math.cos((15 * Math.PI) / 180);
const SAME_WAY = Math.cos((40 * Math.PI) / 180);

interface Seen extends RegionPoint {
  place: number;
  surface: number;
}

/**
 * Points of a region, at most so many, spread over it. One ray each; no chance in it.
 * @returns none where nothing is seen there
 */
export function pointsOfRegion(
  tracing: Tracing,
  set: Pick<SetDocument, 'products'>,
  region: Region,
  most: number,
): RegionPoint[] {
  const all = held(tracing, set, region);
  const step = Math.max(1, all.length / most);
  const kept: RegionPoint[] = [];
  for (let i = 0; i < all.length; i += step) kept.push(all[Math.floor(i)] as Seen);
  return kept;
}

function held(tracing: Tracing, set: Pick<SetDocument, 'products'>, region: Region): Seen[] {
  const at = (place: number) =>
    lookAt(tracing, ((place % ACROSS) + 0.5) / ACROSS, (Math.floor(place / ACROSS) + 0.5) / DOWN, place);
  const everywhere = () =>
    Array.from({ length: ACROSS * DOWN }, (_, place) => at(place)).filter((seen) => seen !== null);
  if (region.by === 'brush') {
    const { view } = tracing;
    const shape = view.halfHeight / view.halfWidth;
    const painted = ({ across, down }: FramePoint) =>
      region.strokes.some(
        (stroke) =>
          Math.hypot(across - stroke.across, (down - stroke.down) * shape) <=
          Math.max(stroke.radius, 0.5 / ACROSS),
      );
    return everywhere().filter(painted);
  }
  const pointed = lookAt(tracing, region.across, region.down, -1);
  if (!pointed) return [];
  if (region.by === 'face') return faceRound(at, region, pointed);
  const own = everywhere().filter(({ thing }) => thing === pointed.thing);
  const product = set.products.find(({ id }) => pointed.thing.kind === 'product' && id === pointed.thing.key);
  if (region.by === 'thing' || !product) return own;
  const part = partAt(product, pointed.pointM);
  const same = own.filter(({ pointM }) => {
    const other = partAt(product, pointM);
    return other.kind === part.kind && other.index === part.index;
  });
  return same.length > 0 ? same : [pointed];
}

/** Spreads from place to place while the surface goes on. */
function faceRound(at: (place: number) => Seen | null, from: FramePoint, pointed: Seen): Seen[] {
  const start = Math.floor(from.down * DOWN) * ACROSS + Math.floor(from.across * ACROSS);
  const first = at(start) ?? pointed;
  const found = new Map<number, Seen>([[start, first]]);
  const open = [start];
  for (let place = open.pop(); place !== undefined; place = open.pop()) {
    const own = found.get(place) as Seen;
    for (const [dx, dy] of [
      [-1, 0],
      [1, 0],
      [0, -1],
      [0, 1],
    ] as const) {
      const [x, y] = [(place % ACROSS) + dx, Math.floor(place / ACROSS) + dy];
      const next = y * ACROSS + x;
      if (x < 0 || y < 0 || x >= ACROSS || y >= DOWN || found.has(next)) continue;
      const seen = at(next);
      if (!seen || seen.thing !== first.thing || seen.surface !== first.surface) continue;
      if (dot(seen.normal, own.normal) < SMOOTH || dot(seen.normal, first.normal) < SAME_WAY) continue;
      found.set(next, seen);
      open.push(next);
    }
  }
  return [...found.values()];
}

function lookAt({ engine, scene, view }: Tracing, across: number, down: number, place: number): Seen | null {
  const way = new Float64Array(3);
  rayThrough(way, view, across, down);
  engine.point.set(view.origin);
  engine.direction.set(way);
  engine.look();
  const s = engine.sight;
  const thing = scene.things[scene.table.thing[s[SEEN] as number] ?? -1];
  if (!thing) return null;
  const triple = (from: number) => [...s.subarray(from, from + 3)] as Vector;
  const mirrored = s[MIRRORED] as number;
  return {
    place,
    across,
    down,
    thing,
    surface: s[SEEN_SURFACE] as number,
    pointM: triple(SEEN_POINT),
    normal: triple(SEEN_NORMAL),
    mirrors:
      mirrored === NO_SUCH_PART
        ? null
        : {
            way: triple(MIRRORED_WAY),
            metM: mirrored >= 0 ? triple(MIRRORED_POINT) : null,
            part: luminanceOf(...triple(MIRRORED_WEIGHT)),
          },
  };
}
