import type { SetDocument, Vector } from '@fendrix/contract';
import { bareSet } from '../geometry/bareSet.js';
import { productBounds } from '../geometry/shape.js';
import { type BandLength, mirrorBand } from '../mirror/mirrorBand.js';
import { type MirrorRays, mirrorRays, rayOf } from '../mirror/mirrorRays.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { comesIntoFrame } from './comesIntoFrame.js';
import {
  aloneInTheDark,
  type Movable,
  type MovableRef,
  movableOf,
  standsInRoom,
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
/** Close enough, parts of the width. */
const CLOSE = 1e-3;
const TURNS = 8;
const STEPS = 18;

/**
 * Moves or resizes a light or sheet so that its image takes the wanted length of the band: it is turned round the
 * product until the middle fits, and brought nearer or farther (or made wider) until the width fits, facing its aim
 * point as before. Solved on the mirrored rays of the product with the thing alone, then measured in the whole set.
 * Limits: what covers the image in the whole set is not moved away; the height is only changed where the rays would
 * pass over or under the thing.
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

  /** The farther, the narrower: halves the range of distances until the width fits. */
  byDistance(thing: Movable, nearest: number): Found {
    const here = Math.max(nearest, this.distanceOf(thing));
    const at = (distance: number) => this.turnedTo(thing, distance);
    let near = nearest;
    let far = FARTHEST_M;
    const atNearest = at(near);
    if (!atNearest) return { thing: at(here)?.thing ?? thing, limited: 'height' };
    if (atNearest.width <= this.width) return { thing: atNearest.thing, limited: 'nearest' };
    let best = atNearest;
    for (let i = 0; i < STEPS; i++) {
      // The first guess is where it stands: mostly little has to change.
      const distance = i === 0 ? Math.min(far, Math.max(near, here)) : Math.sqrt(near * far);
      const tried = at(distance);
      if (tried && Math.abs(tried.width - this.width) < Math.abs(best.width - this.width)) best = tried;
      if (tried && Math.abs(tried.width - this.width) < CLOSE) break;
      if (tried && tried.width > this.width) near = distance;
      else far = distance;
      if (far / near < 1.001) break;
    }
    if (standsInRoom(this.set, best.thing.positionM)) {
      const short = best.width - this.width > 10 * CLOSE;
      return { thing: best.thing, limited: short ? 'farthest' : null };
    }
    return { thing: this.withinRoom(thing, best.thing, nearest), limited: 'room' };
  }

  bySize(thing: Movable): Found {
    const centred = this.turnedTo(thing, this.distanceOf(thing));
    if (!centred) return { thing, limited: 'height' };
    let small = 0.05;
    let large = 12;
    let best = centred;
    for (let i = 0; i < STEPS; i++) {
      const factor = Math.sqrt(small * large);
      const sized = widened(thing, factor);
      if (!sized) break;
      const tried = this.turnedTo(sized, this.distanceOf(thing));
      if (tried && Math.abs(tried.width - this.width) < Math.abs(best.width - this.width)) best = tried;
      if (tried && tried.width > this.width) large = factor;
      else small = factor;
    }
    const missed = Math.abs(best.width - this.width) > 10 * CLOSE;
    return { thing: best.thing, limited: missed ? 'nearest' : null };
  }

  /** The thing at a distance from the product's axis, turned round it until the middle of its image fits. */
  private turnedTo(thing: Movable, distance: number): { thing: Movable; width: number } | null {
    const guess = this.bearingSeen(distance);
    if (guess === null) return null;
    let heightM = thing.positionM[2];
    let image = this.image(this.placed(thing, guess.angle, distance, heightM));
    if (!image) {
      heightM = guess.heightM;
      image = this.image(this.placed(thing, guess.angle, distance, heightM));
    }
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
      const tried = this.turnedTo(start, (near + far) / 2);
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
function imageRuns({ kernel }: Tracing, rays: MirrorRays): { from: number; to: number }[] {
  const { part, point, way } = rays;
  const edge = (i: number, j: number) => ((part[i] as number) + (part[j] as number)) / 2;
  const runs: { from: number; to: number }[] = [];
  let start = -1;
  for (let i = 0; i <= part.length; i++) {
    let meets = false;
    if (i < part.length) {
      setRay(kernel.ray, point.subarray(3 * i, 3 * i + 3), way.subarray(3 * i, 3 * i + 3));
      meets = kernel.closestHit() >= 0;
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
  const own = (band?.lengths ?? []).filter(({ kind, what }) => kind === wish.kind && what === wish.key);
  const image = joined(own).sort((a, b) => fitOf(b, wish) - fitOf(a, wish))[0];
  return {
    change: changeBetween(set, changed),
    reached: image ? { from: image.from, to: image.to } : null,
    widthM: widthOf(thing),
    limited,
    inFrame: comesIntoFrame(tracing, wish) && !comesIntoFrame(prepareTracing(set), wish),
  };
}

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
