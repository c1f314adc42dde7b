import type { SetDocument, Vector } from '@fendrix/contract';
import { bareSet } from '../geometry/bareSet.js';
import { standsInRoom } from '../geometry/roomBounds.js';
import { productBounds } from '../geometry/shape.js';
import { type BandLength, type MirrorBand, mirrorBand } from '../mirror/mirrorBand.js';
import { type MirrorRays, mirrorRays, rayOf } from '../mirror/mirrorRays.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { comesIntoFrame } from './comesIntoFrame.js';
import {
  aloneInTheDark,
  type Movable,
  type MovableRef,
  movableOf,
  widened,
  widthOf,
  withMovable,
} from './movables.js';
import { changeBetween, type SetChange } from './setChange.js';

/** Where the image of a light or sheet should lie in the mirror band of a product. */
export interface BandWish extends MovableRef {
  product: string;
  heightM: number;
  /** Ends in parts of the visible width. */
  from: number;
  to: number;
  /** move: round the product, nearer or farther; size: as wide as it takes, at its distance. */
  by: 'move' | 'size';
}

export interface BandAnswer {
  change: SetChange;
  /** Ends that the traced band of the changed set has; null where the image is covered or not there. */
  reached: { from: number; to: number } | null;
  /** Across after the change, m; null for a thing without a width of its own. */
  widthM: number | null;
  /** Why the wish is not met to the end: it stands as near or as far as it can. */
  limited: 'nearest' | 'farthest' | 'room' | 'height' | null;
  /** Whether the lens sees it itself now, and did not before. */
  inFrame: boolean;
}

/** Columns whose rays are asked: edges are found to a thousandth of the width, then measured by the traced band. */
const COLUMNS = 1024;
const NEAREST_CLEAR_M = 0.04;
const FARTHEST_M = 4;
/** From one distance tried to the next. */
const STRIDE = 1.25;
/** Parts of its height over the rays that a thing keeps, tried in this order: lowered or lifted no more than it takes. */
const KEPT_HEIGHTS: readonly number[] = [1, 0.75, 0.5, 0.25, 0];
/** Close enough, parts of the width. */
const CLOSE = 1e-3;
const TURNS = 8;
const STEPS = 18;

/**
 * Moves or resizes a light or sheet so that its image takes the wanted length of the band: it is turned round the
 * product until the middle fits, and brought nearer or farther (or made wider) until the width fits, facing its aim
 * point as before. Solved on the mirrored rays of the product with the thing alone, then measured in the whole set.
 * Limits: what covers the image in the whole set is not moved away; the height is only changed where it
 * cannot be met at that it has, as where the rays pass over or under the thing.
 * @returns null where the product has no band at this height, or the thing is not there
 */
export function placeForBand(set: SetDocument, wish: BandWish): BandAnswer | null {
  const thing = movableOf(set, wish);
  const product = set.products.find(({ id }) => id === wish.product);
  if (!thing || !product) return null;
  const rays = mirrorRays(
    prepareTracing(bareSet(set, { products: [product] })),
    product,
    COLUMNS,
    wish.heightM,
  );
  if (!rays || rays.part.length === 0) return null;
  const { low, high } = productBounds(product);
  const axis: Vector = [product.positionM[0], product.positionM[1], 0];
  const nearest = Math.max(high[0] - low[0], high[1] - low[1]) / 2 + NEAREST_CLEAR_M;
  const solver = new Solver(set, wish, rays, axis);
  const found = wish.by === 'move' ? solver.byDistance(thing, nearest) : solver.bySize(thing);
  return measured(set, wish, found);
}

/** A thing turned to where its image is wanted, and how wide the image is there, parts of the visible width. */
interface Placed {
  thing: Movable;
  width: number;
}

interface Found {
  thing: Movable;
  limited: BandAnswer['limited'];
}

class Solver {
  private readonly middle: number;
  private readonly width: number;

  constructor(
    private readonly set: SetDocument,
    private readonly wish: BandWish,
    private readonly rays: MirrorRays,
    private readonly axis: Vector,
  ) {
    this.middle = (wish.from + wish.to) / 2;
    this.width = wish.to - wish.from;
  }

  /** Where it stands its image is too wide or too narrow: it goes farther or nearer. It leaves its height no more than it takes. */
  byDistance(thing: Movable, nearest: number): Found {
    let best: Placed | null = null;
    for (const kept of KEPT_HEIGHTS) {
      best = this.closer(best, this.walked(thing, nearest, kept));
      if (best && this.meets(best)) break;
    }
    if (!best) return { thing, limited: 'height' };
    if (!standsInRoom(this.set, best.thing.positionM))
      return { thing: this.withinRoom(thing, best.thing, nearest), limited: 'room' };
    if (this.meets(best)) return { thing: best.thing, limited: null };
    return { thing: best.thing, limited: best.width < this.width ? 'nearest' : 'farthest' };
  }

  /** In strides until the wanted width lies between two of them, then halved; on where the image jumps past it. */
  private walked(thing: Movable, nearest: number, kept: number): Placed | null {
    const here = Math.min(FARTHEST_M, Math.max(nearest, this.distanceOf(thing)));
    const start = this.turnedTo(thing, here, kept);
    let best = start;
    const ways = start ? [start.width > this.width ? STRIDE : 1 / STRIDE] : [1 / STRIDE, STRIDE];
    for (const way of ways) {
      const end = way > 1 ? FARTHEST_M : nearest;
      let [from, seen] = [here, start];
      while (from !== end && !(best && this.meets(best))) {
        const to = way > 1 ? Math.min(end, from * way) : Math.max(end, from * way);
        const tried = this.turnedTo(thing, to, kept);
        best = this.closer(best, tried);
        if (seen && tried && seen.width > this.width !== tried.width > this.width)
          best = this.closer(best, this.halved(thing, [from, to], seen.width > this.width, kept));
        [from, seen] = [to, tried];
      }
    }
    return best;
  }

  private halved(
    thing: Movable,
    [from, to]: readonly [number, number],
    wideAtFrom: boolean,
    kept: number,
  ): Placed | null {
    let best: Placed | null = null;
    for (let i = 0; i < STEPS && Math.abs(Math.log(to / from)) > 1e-3; i++) {
      const distance = Math.sqrt(from * to);
      const tried = this.turnedTo(thing, distance, kept);
      best = this.closer(best, tried);
      if (tried && Math.abs(tried.width - this.width) < CLOSE) break;
      // Where it is not seen it is as narrow as can be.
      if ((tried?.width ?? 0) > this.width === wideAtFrom) from = distance;
      else to = distance;
    }
    return best;
  }

  private closer(a: Placed | null, b: Placed | null): Placed | null {
    if (!a || !b) return a ?? b;
    return Math.abs(b.width - this.width) < Math.abs(a.width - this.width) ? b : a;
  }

  private meets({ width }: Placed): boolean {
    return Math.abs(width - this.width) <= 10 * CLOSE;
  }

  bySize(thing: Movable): Found {
    const kept = KEPT_HEIGHTS.find((part) => this.turnedTo(thing, this.distanceOf(thing), part)) ?? 1;
    const centred = this.turnedTo(thing, this.distanceOf(thing), kept);
    if (!centred) return { thing, limited: 'height' };
    let small = 0.05;
    let large = 12;
    let best = centred;
    for (let i = 0; i < STEPS; i++) {
      const factor = Math.sqrt(small * large);
      const sized = widened(thing, factor);
      if (!sized) break;
      const tried = this.turnedTo(sized, this.distanceOf(thing), kept);
      best = this.closer(best, tried) ?? best;
      if (tried && tried.width > this.width) large = factor;
      else small = factor;
    }
    return { thing: best.thing, limited: this.meets(best) ? null : 'nearest' };
  }

  /**
   * The thing at a distance from the product's axis, turned round it until the middle of its image fits.
   * @param kept part of its height over the middle ray that it keeps
   */
  private turnedTo(thing: Movable, distance: number, kept: number): Placed | null {
    const guess = this.bearingSeen(distance);
    if (guess === null) return null;
    const heightM = guess.heightM + kept * (thing.positionM[2] - guess.heightM);
    let image = this.image(this.placed(thing, guess.angle, distance, heightM));
    if (!image) return null;
    let angle = guess.angle;
    let slope = -0.4;
    let best = { angle, image };
    for (let turn = 0; turn < TURNS; turn++) {
      const miss = image.middle - this.middle;
      if (Math.abs(miss) < Math.abs(best.image.middle - this.middle)) best = { angle, image };
      if (Math.abs(miss) < CLOSE / 2) break;
      const step = Math.max(-0.3, Math.min(0.3, miss / slope));
      const next = this.image(this.placed(thing, angle - step, distance, heightM));
      if (!next) break;
      const found = (next.middle - image.middle) / -step;
      if (Math.abs(found) > 0.02) slope = found;
      angle -= step;
      image = next;
    }
    return { thing: this.placed(thing, best.angle, distance, heightM), width: best.image.width };
  }

  /** Where the ray of the middle column stands, this far from the axis: its angle and its height. */
  private bearingSeen(distance: number): { angle: number; heightM: number } | null {
    const column = nearestColumn(this.rays, this.middle);
    const { point, way } = rayOf(this.rays, column);
    const [px, py] = [point[0] - this.axis[0], point[1] - this.axis[1]];
    const a = way[0] ** 2 + way[1] ** 2;
    const b = px * way[0] + py * way[1];
    const c = px ** 2 + py ** 2 - distance ** 2;
    const root = b * b - a * c;
    if (!(a > 1e-9 && root >= 0)) return null;
    const t = (-b + Math.sqrt(root)) / a;
    return {
      angle: Math.atan2(py + t * way[1], px + t * way[0]),
      heightM: point[2] + t * way[2],
    };
  }

  private placed(thing: Movable, angle: number, distance: number, heightM: number): Movable {
    const positionM: Vector = [
      this.axis[0] + distance * Math.cos(angle),
      this.axis[1] + distance * Math.sin(angle),
      heightM,
    ];
    return { ...thing, positionM: positionM.map((v) => Math.round(v * 1e4) / 1e4) as Vector };
  }

  private distanceOf({ positionM }: Movable): number {
    return Math.hypot(positionM[0] - this.axis[0], positionM[1] - this.axis[1]);
  }

  /** The run of columns that see the thing and lies nearest to the wish. */
  private image(thing: Movable): { middle: number; width: number } | null {
    const tracing = aloneInTheDark(this.set, this.wish, thing);
    const runs = imageRuns(tracing, this.rays);
    const best = runs.sort((a, b) => this.fit(b) - this.fit(a))[0];
    return best ? { middle: (best.from + best.to) / 2, width: best.to - best.from } : null;
  }

  private fit(run: { from: number; to: number }): number {
    return fitOf(run, this.wish);
  }

  private withinRoom(start: Movable, wanted: Movable, nearest: number): Movable {
    let near = nearest;
    let far = this.distanceOf(wanted);
    let best = start;
    for (let i = 0; i < 10; i++) {
      const tried = this.turnedTo(wanted, (near + far) / 2, 1);
      if (tried && standsInRoom(this.set, tried.thing.positionM)) {
        best = tried.thing;
        near = (near + far) / 2;
      } else far = (near + far) / 2;
    }
    return best;
  }
}

/** Overlap with the wish, less the distance where there is none. */
function fitOf(run: { from: number; to: number }, wish: { from: number; to: number }): number {
  return Math.min(run.to, wish.to) - Math.max(run.from, wish.from);
}

function nearestColumn({ part }: MirrorRays, wanted: number): number {
  let best = 0;
  part.forEach((value, i) => {
    if (Math.abs(value - wanted) < Math.abs((part[best] as number) - wanted)) best = i;
  });
  return best;
}

/** Lengths of the band in which the rays meet anything of a scene. */
function imageRuns({ engine }: Tracing, rays: MirrorRays): { from: number; to: number }[] {
  const { part, point, way } = rays;
  const edge = (i: number, j: number) => ((part[i] as number) + (part[j] as number)) / 2;
  const runs: { from: number; to: number }[] = [];
  let start = -1;
  for (let i = 0; i <= part.length; i++) {
    let meets = false;
    if (i < part.length) {
      setRay(engine.ray, point.subarray(3 * i, 3 * i + 3), way.subarray(3 * i, 3 * i + 3));
      meets = engine.closestHit() >= 0;
    }
    if (meets && start < 0) start = i;
    if (meets || start < 0) continue;
    runs.push({
      from: start === 0 ? 0 : edge(start - 1, start),
      to: i === part.length ? 1 : edge(i - 1, i),
    });
    start = -1;
  }
  return runs;
}

function measured(set: SetDocument, wish: BandWish, { thing, limited }: Found): BandAnswer {
  const changed = withMovable(set, wish, thing);
  const tracing = prepareTracing(changed);
  const product = changed.products.find(({ id }) => id === wish.product);
  const band = product ? mirrorBand(tracing, product, wish.heightM) : null;
  const own = band ? imagesIn(band, wish) : [];
  const image = own.sort((a, b) => fitOf(b, wish) - fitOf(a, wish))[0];
  return {
    change: changeBetween(set, changed),
    reached: image ? { from: image.from, to: image.to } : null,
    widthM: widthOf(thing),
    limited,
    inFrame: comesIntoFrame(tracing, changed, wish) && !comesIntoFrame(prepareTracing(set), set, wish),
  };
}

/** The images of a light or sheet in a band, from camera left. */
export const imagesIn = (
  { lengths }: MirrorBand,
  { kind, key }: MovableRef,
): { from: number; to: number }[] =>
  joined(lengths.filter((length) => length.kind === kind && length.what === key));

/** Front and back of one thing side by side are one image. */
function joined(lengths: readonly BandLength[]): { from: number; to: number }[] {
  const runs: { from: number; to: number }[] = [];
  for (const { from, to } of lengths) {
    const last = runs.at(-1);
    if (last && from - last.to < 1e-6) last.to = to;
    else runs.push({ from, to });
  }
  return runs;
}
