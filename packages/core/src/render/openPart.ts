import { intersectPrimitive } from '../engine/intersect.js';
import {
  FLAT,
  PHOTON_POINT,
  PHOTON_SURFACE,
  PRIMITIVE_STRIDE,
  RAY_DIRECTION,
  RAY_DISTANCE,
  RAY_FROM,
  RAY_ORIGIN,
  RAY_PRIMITIVE,
  RAY_START_M,
  RAY_STRIDE,
  RAY_TO,
} from '../engine/layouts.js';
import { acrossOf, alongOf, facingOf } from '../engine/path/caustics.js';
import { SurfaceHit } from '../engine/surfaceHit.js';
import type { SurfaceModels } from '../engine/surfaces/surfaceModels.js';
import type { SceneTables } from '../engine/tables.js';
import { FOOT_GAP_M } from '../geometry/products/addProduct.js';
import type { EngineCalls } from '../trace/engineCalls.js';

/** The box round a thing that bundles light: least and most x y z, m. */
type Box = readonly number[];

/** Places in a row of a texel's square that are looked at. */
const ROW = 6;
/** Rays start this far above the surface: within what stands on it, but for the gap under its foot. */
const ABOVE_M = 2 * FOOT_GAP_M;
/** Things are no thicker, m. */
const THICKEST_M = 1;
/** Less than this is taken for a place on the very edge. */
const LEAST = 0.02;

/** The square over which a texel's photons are shared out: a size to each side of its middle. */
interface Square {
  surface: number;
  /** The axis its surface faces along, the two across it, and the middle, m. */
  axis: number;
  along: number;
  across: number;
  middle: [along: number, across: number];
  size: number;
  depth: number;
}

/**
 * How much of what a texel's photons are shared out over light can reach: a flat surface may end within it, and the thing
 * that bundles may stand on it. Without this light is spread under the foot of a bottle and over the edge of a table, and
 * missing beside them. Curved and slanted surfaces count as open.
 */
export class OpenPart {
  private readonly hit: SurfaceHit;
  private readonly point = new Float64Array(3);
  private readonly outwards = new Float64Array(3);
  private readonly inwards = new Float64Array(3);
  private readonly ray = new Float64Array(RAY_STRIDE);
  /** The flat primitive of each surface that was met last, and that on which the photon lies. */
  private readonly known = new Map<number, number>();
  private own = -1;

  /** @param boxes of the things that bundle light */
  constructor(
    private readonly tables: SceneTables,
    private readonly engine: EngineCalls,
    models: SurfaceModels,
    private readonly boxes: readonly Box[],
  ) {
    this.hit = new SurfaceHit(tables, models);
  }

  /**
   * @param photons list and offset of one that lies in the texel  @param u, v place of the texel in steps of its size  @param size m
   * @returns part, weighed as photons are: most at the middle of the texel, nothing a size from it
   */
  of(photons: Float32Array, o: number, u: number, v: number, size: number): number {
    const surface = photons[o + PHOTON_SURFACE] as number;
    const facing = surface % 6;
    const axis = facing >> 1;
    const square: Square = {
      surface,
      axis,
      along: alongOf(facing),
      across: acrossOf(facing),
      middle: [u * size, v * size],
      size,
      depth: photons[o + PHOTON_POINT + axis] as number,
    };
    for (let a = 0; a < 3; a++) {
      this.point[a] = photons[o + PHOTON_POINT + a] as number;
      this.outwards[a] = a !== axis ? 0 : facing % 2 === 0 ? 1 : -1;
      this.inwards[a] = -(this.outwards[a] as number);
    }
    if (!this.isFlat(square)) return 1;
    const mayBeUnder = this.boxes.some((box) => standsOn(box, square));
    if (!mayBeUnder && this.ownReachesCorners(square)) return 1;
    const part = this.openPart(square, mayBeUnder);
    return part < LEAST ? 1 : part;
  }

  /** Whether the surface at `point` is flat and square to its axis; finds it. */
  private isFlat(square: Square): boolean {
    this.own = this.known.get(square.surface) ?? -1;
    if (this.own >= 0 && this.liesOnOwn()) return true;
    this.own = -1;
    this.aim(this.engine.batch, 0, this.inwards, 2 * ABOVE_M);
    this.engine.castBatch(1, false);
    if (!this.isMet(0, square)) return false;
    const { primitive, flat } = this.hit;
    const cosine = this.outwards.reduce((sum, way, a) => sum + way * (flat[a] as number), 0);
    if (this.tables.kind[primitive] !== FLAT || cosine < 1 - 1e-6) return false;
    this.own = primitive;
    this.known.set(square.surface, primitive);
    return true;
  }

  private ownReachesCorners(square: Square): boolean {
    for (let k = 0; k < 4; k++) {
      this.goTo(square, 2 * (k & 1) - 1, 2 * (k >> 1) - 1);
      if (!this.liesOnOwn()) return false;
    }
    return true;
  }

  /** Whether `point` lies on the photon's own primitive, whatever else is there. */
  private liesOnOwn(): boolean {
    const { tables, ray } = this;
    this.aim(ray, 0, this.inwards, 2 * ABOVE_M);
    return intersectPrimitive(FLAT, tables.data, this.own * PRIMITIVE_STRIDE, ray);
  }

  private openPart(square: Square, mayBeUnder: boolean): number {
    const { inwards, outwards, engine } = this;
    const { batch } = engine;
    const rays = mayBeUnder ? 2 : 1;
    const place = (i: number) => (2 * (i + 0.5)) / ROW - 1;
    const places = ROW * ROW;
    for (let k = 0; k < places; k++) {
      this.goTo(square, place(k % ROW), place(Math.floor(k / ROW)));
      this.aim(batch, rays * k, inwards, 2 * ABOVE_M);
      if (mayBeUnder) this.aim(batch, rays * k + 1, outwards, THICKEST_M);
    }
    engine.castBatch(rays * places, false);
    let open = 0;
    let all = 0;
    for (let k = 0; k < places; k++) {
      const [along, across] = [place(k % ROW), place(Math.floor(k / ROW))];
      const weight = (1 - Math.abs(along)) * (1 - Math.abs(across));
      all += weight;
      if (!this.isMet(rays * k, square)) continue;
      this.goTo(square, along, across);
      if (!mayBeUnder || !this.isWithinThing(rays * k + 1)) open += weight;
    }
    return open / all;
  }

  /** Moves `point` within the square. @param along, across from -1 to 1 */
  private goTo(square: Square, along: number, across: number): void {
    this.point[square.axis] = square.depth;
    this.point[square.along] = square.middle[0] + along * square.size;
    this.point[square.across] = square.middle[1] + across * square.size;
  }

  /** Whether a ray of the batch, from `point` outwards, starts within a thing that bundles. */
  private isWithinThing(index: number): boolean {
    const { tables, engine, hit, point, outwards } = this;
    const primitive = engine.batch[RAY_STRIDE * index + RAY_PRIMITIVE] as number;
    if (primitive < 0 || tables.bundles[primitive] === 0) return false;
    const distance = engine.batch[RAY_STRIDE * index + RAY_DISTANCE] as number;
    for (let a = 0; a < 3; a++)
      hit.point[a] = (point[a] as number) + (ABOVE_M + distance) * (outwards[a] as number);
    hit.meet(primitive, outwards);
    return !hit.fromFront;
  }

  /** Whether a ray of the batch has met the surface, thing and facing. */
  private isMet(index: number, { surface }: Square): boolean {
    const { tables, engine, hit, point, inwards } = this;
    const primitive = engine.batch[RAY_STRIDE * index + RAY_PRIMITIVE] as number;
    if (primitive < 0 || tables.thing[primitive] !== Math.floor(surface / 6)) return false;
    if (primitive === this.own) return true;
    hit.point.set(point);
    hit.meet(primitive, inwards);
    return facingOf(hit.flat[0] as number, hit.flat[1] as number, hit.flat[2] as number) === surface % 6;
  }

  /** Writes a ray from above `point` into a list of them. */
  private aim(rays: Float64Array, index: number, direction: Float64Array, length: number): void {
    const { outwards, point } = this;
    const o = RAY_STRIDE * index;
    for (let a = 0; a < 3; a++) {
      rays[o + RAY_ORIGIN + a] = (point[a] as number) + ABOVE_M * (outwards[a] as number);
      rays[o + RAY_DIRECTION + a] = direction[a] as number;
    }
    rays[o + RAY_FROM] = RAY_START_M;
    rays[o + RAY_TO] = length;
  }
}

/** Whether the box of a thing reaches down to a square, and over it. */
function standsOn(box: Box, { axis, along, across, middle, size, depth }: Square): boolean {
  const overlaps = (a: number, at: number, by: number) =>
    at + by >= (box[a] as number) && at - by <= (box[3 + a] as number);
  return (
    overlaps(axis, depth, ABOVE_M) && overlaps(along, middle[0], size) && overlaps(across, middle[1], size)
  );
}
