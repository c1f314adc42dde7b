import { fresnelMean } from './fresnel.js';
import type { Kernel } from './kernel.js';
import { RAY_TO } from './layouts.js';
import { Media } from './path/media.js';
import { type i32, NO_NUMBER, real } from './portable.js';
import { SurfaceHit } from './surfaceHit.js';
import { REFRACTS } from './surfaces/surfaceModel.js';
import type { SurfaceModels } from './surfaces/surfaceModels.js';
import type { SceneTables } from './tables.js';
import { BLOCK, openBlock, viewRay } from './tile.js';
import { copy3, fill3, mirrorDirection, refractDirection } from './vectors.js';

// An answer. Primitive met first (-1: nothing), 1 from its front, point, shading normal towards the viewer, surface
// (-1: a light).
export const SEEN: i32 = 0;
export const SEEN_FRONT: i32 = SEEN + 1;
export const SEEN_POINT: i32 = SEEN_FRONT + 1;
export const SEEN_NORMAL: i32 = SEEN_POINT + 3;
export const SEEN_SURFACE: i32 = SEEN_NORMAL + 3;
// Primitive mirrored (-1: nothing, -2: no mirror), 1 from its front, weight of red green blue, direction, point.
export const MIRRORED: i32 = SEEN_SURFACE + 1;
export const MIRRORED_FRONT: i32 = MIRRORED + 1;
export const MIRRORED_WEIGHT: i32 = MIRRORED_FRONT + 1;
export const MIRRORED_WAY: i32 = MIRRORED_WEIGHT + 3;
export const MIRRORED_POINT: i32 = MIRRORED_WAY + 3;
// The same of what is seen through glass, nets and frost; where its last stretch starts.
export const THROUGH: i32 = MIRRORED_POINT + 3;
export const THROUGH_FRONT: i32 = THROUGH + 1;
export const THROUGH_WEIGHT: i32 = THROUGH_FRONT + 1;
export const THROUGH_WAY: i32 = THROUGH_WEIGHT + 3;
export const THROUGH_POINT: i32 = THROUGH_WAY + 3;
export const THROUGH_FROM: i32 = THROUGH_POINT + 3;
const SIGHT_STRIDE: i32 = THROUGH_FROM + 3;

/** Pixels of a tile that is looked through in one call. */
export const TILE_PIXELS = 4096;
/**
 * What is kept of each pixel of a tile, whole numbers plane by plane: thing seen (-1: nothing), surface seen (-1: none, or a light), thing
 * mirrored (-1: the dark, -2: no mirror), thing seen through (-2: nothing is).
 */
export const TILE_SEEN = 0;
export const TILE_SURFACE: i32 = TILE_PIXELS;
export const TILE_MIRRORED: i32 = 2 * TILE_PIXELS;
export const TILE_THROUGH: i32 = 3 * TILE_PIXELS;
export const TILE_WHOLES: i32 = 4 * TILE_PIXELS;
/** Numbers: weights as luminance, point mirrored (no number where there is none), shading normal of what is seen. */
export const TILE_MIRRORED_WEIGHT = 0;
export const TILE_THROUGH_WEIGHT: i32 = TILE_PIXELS;
export const TILE_MIRRORED_POINT: i32 = 2 * TILE_PIXELS;
export const TILE_NORMAL: i32 = 5 * TILE_PIXELS;
export const TILE_NUMBERS: i32 = 8 * TILE_PIXELS;

export const NOTHING_THERE: i32 = -1;
export const NO_SUCH_PART: i32 = -2;

/** Boundaries of glass that a look through it crosses at most, and what must be left of it. */
const MOST_BOUNDARIES = 32;
const LEAST_WEIGHT = 1e-4;

/**
 * What a ray from the lens meets first, what that mirrors, and what it shows through: one ray each, no chance in it.
 * A rough mirror is taken at the middle of its lobe. In the mirror one bounce: a mirror seen in a mirror is named
 * itself. Through glass the way of what is not mirrored, by Snell, Fresnel and Beer-Lambert; where all is mirrored
 * inside, on in the mirror direction.
 */
export class Sight {
  answer: Float64Array = new Float64Array(SIGHT_STRIDE);
  /** Answers of `castTile`. */
  tileWholes: Int32Array = new Int32Array(TILE_WHOLES);
  tileNumbers: Float32Array = new Float32Array(TILE_NUMBERS);
  private t: SceneTables;
  private kernel: Kernel;
  private media: Media;
  private eye: Float64Array = new Float64Array(3);
  private towards: Float64Array = new Float64Array(3);
  /** What was found last: primitives as in an answer, and their surfaces where they were met. */
  private seen: i32 = NOTHING_THERE;
  private mirrored: i32 = NO_SUCH_PART;
  private through: i32 = NO_SUCH_PART;
  private first: SurfaceHit;
  private inMirror: SurfaceHit;
  private hit: SurfaceHit;
  /** The way in the mirror and what of its light is mirrored; the same of what is seen through, and where it starts. */
  private mirrorWay: Float64Array = new Float64Array(3);
  private mirrorPart: Float64Array = new Float64Array(3);
  private way: Float64Array = new Float64Array(3);
  private part: Float64Array = new Float64Array(3);
  private from: Float64Array = new Float64Array(3);
  private straight: Float64Array = new Float64Array(3);

  constructor(t: SceneTables, kernel: Kernel, models: SurfaceModels) {
    this.t = t;
    this.kernel = kernel;
    this.media = new Media(t);
    this.first = new SurfaceHit(t, models);
    this.inMirror = new SurfaceHit(t, models);
    this.hit = new SurfaceHit(t, models);
  }

  /** Looks along one ray; the answer goes to `answer`. */
  cast(origin: Float64Array, direction: Float64Array): void {
    this.look(origin, direction, false);
    const answer = this.answer;
    answer.fill(0);
    answer[SEEN] = real(this.seen);
    answer[SEEN_SURFACE] = -1;
    answer[MIRRORED] = real(this.mirrored);
    answer[THROUGH] = real(this.through);
    if (this.seen < 0) return;
    answer[SEEN_FRONT] = this.first.fromFront ? 1 : 0;
    answer[SEEN_SURFACE] = real(this.seenSurface());
    this.write(SEEN_POINT, this.first.point);
    this.write(SEEN_NORMAL, this.first.normal);
    if (this.mirrored !== NO_SUCH_PART) {
      this.write(MIRRORED_WEIGHT, this.mirrorPart);
      this.write(MIRRORED_WAY, this.mirrorWay);
    }
    if (this.mirrored >= 0) {
      answer[MIRRORED_FRONT] = this.inMirror.fromFront ? 1 : 0;
      this.write(MIRRORED_POINT, this.inMirror.point);
    }
    if (this.through !== NO_SUCH_PART) {
      this.write(THROUGH_WEIGHT, this.part);
      this.write(THROUGH_WAY, this.way);
      this.write(THROUGH_FROM, this.from);
    }
    if (this.through >= 0) {
      answer[THROUGH_FRONT] = this.hit.fromFront ? 1 : 0;
      this.write(THROUGH_POINT, this.hit.point);
    }
  }

  /**
   * Looks through the middles of the pixels of a tile of up to `TILE_PIXELS`, by a camera see `VIEW_ORIGIN` and those below it;
   * answers go to `tileWholes` and `tileNumbers`, row after row.
   */
  castTile(view: Float64Array, px: i32, py: i32, columns: i32, rows: i32, width: i32, height: i32): void {
    copy3(this.eye, view);
    for (let y: i32 = 0; y < rows; y += BLOCK) {
      const end: i32 = y + BLOCK < rows ? y + BLOCK : rows;
      for (let x: i32 = 0; x < columns; x += BLOCK) {
        const last: i32 = x + BLOCK < columns ? x + BLOCK : columns;
        openBlock(this.kernel, view, px + x, py + y, last - x, end - y, width, height);
        for (let row = y; row < end; row++) {
          const down = (real(py + row) + 0.5) / real(height);
          for (let column = x; column < last; column++) {
            const across = (real(px + column) + 0.5) / real(width);
            viewRay(this.towards, view, across, down);
            this.look(this.eye, this.towards, true);
            this.writeDown(row * columns + column);
          }
        }
      }
    }
  }

  private writeDown(pixel: i32): void {
    const wholes = this.tileWholes;
    const numbers = this.tileNumbers;
    const isThere = this.seen >= 0;
    const isMirror = this.mirrored !== NO_SUCH_PART;
    const isMirrored = this.mirrored >= 0;
    wholes[TILE_SEEN + pixel] = this.thingOf(this.seen);
    wholes[TILE_SURFACE + pixel] = this.seenSurface();
    wholes[TILE_MIRRORED + pixel] = this.thingOf(this.mirrored);
    wholes[TILE_THROUGH + pixel] = this.thingOf(this.through);
    numbers[TILE_MIRRORED_WEIGHT + pixel] = isMirror ? luminance(this.mirrorPart) : 0;
    numbers[TILE_THROUGH_WEIGHT + pixel] = this.through !== NO_SUCH_PART ? luminance(this.part) : 0;
    const at = 3 * pixel;
    const point = this.inMirror.point;
    const normal = this.first.normal;
    for (let a = 0; a < 3; a++) {
      numbers[TILE_MIRRORED_POINT + at + a] = isMirrored ? point[a] : NO_NUMBER;
      numbers[TILE_NORMAL + at + a] = isThere ? normal[a] : 0;
    }
  }

  private thingOf(primitive: i32): i32 {
    return primitive < 0 ? primitive : this.t.thing[primitive];
  }

  /** The surface seen; -1 where there is none, or a light. */
  private seenSurface(): i32 {
    return this.seen < 0 || this.isLight(this.seen, this.first) ? -1 : this.first.surface;
  }

  private isLight(primitive: i32, hit: SurfaceHit): boolean {
    return hit.fromFront && this.t.emitterOf[primitive] >= 0;
  }

  /** @param inView the ray is one of the camera through the block taken up last */
  private look(origin: Float64Array, direction: Float64Array, inView: boolean): void {
    const first = this.first;
    this.mirrored = NO_SUCH_PART;
    this.through = NO_SUCH_PART;
    const seen = this.reach(first, origin, direction, inView);
    this.seen = seen < 0 ? NOTHING_THERE : seen;
    if (seen < 0) return;
    first.meet(seen, direction);
    if (this.isLight(seen, first)) return;
    this.lookInMirror(direction);
    if (this.showsThrough(first)) this.lookThrough(direction);
  }

  /** Nearest surface, its place written to `hit`; its primitive, negative for none. */
  private reach(hit: SurfaceHit, origin: Float64Array, way: Float64Array, inView: boolean): i32 {
    const kernel = this.kernel;
    kernel.setRay(origin, way, Infinity);
    const primitive: i32 = inView ? kernel.closestInView() : kernel.closestHit();
    const distance = kernel.ray[RAY_TO];
    const point = hit.point;
    point[0] = origin[0] + distance * way[0];
    point[1] = origin[1] + distance * way[1];
    point[2] = origin[2] + distance * way[2];
    return primitive;
  }

  private write(at: i32, triple: Float64Array): void {
    for (let a = 0; a < 3; a++) this.answer[at + a] = triple[a];
  }

  private lookInMirror(direction: Float64Array): void {
    const first = this.first;
    if (!this.setMirrorPart(first)) return;
    mirrorDirection(this.mirrorWay, direction, first.normal, first.flat);
    const primitive = this.reach(this.inMirror, first.point, this.mirrorWay, false);
    this.mirrored = primitive < 0 ? NOTHING_THERE : primitive;
    if (primitive >= 0) this.inMirror.meetSide(primitive, this.mirrorWay);
  }

  /** Part that a surface mirrors at its cosine; false where it has no mirror part. */
  private setMirrorPart(hit: SurfaceHit): boolean {
    if (hit.model.interaction !== REFRACTS)
      return hit.model.reflectance(this.mirrorPart, hit.row, hit.cosOut);
    fill3(this.mirrorPart, fresnelMean(hit.cosOut, this.media.index(this.media.beyond(hit, 0))));
    return true;
  }

  private showsThrough(hit: SurfaceHit): boolean {
    return hit.model.interaction === REFRACTS || hit.model.letsStraight(hit.row);
  }

  /** Goes on beyond the surface met first, which is known to show through. */
  private lookThrough(direction: Float64Array): void {
    const part = this.part;
    const hit = this.hit;
    let inside: i32 = 0;
    fill3(part, 1);
    copy3(this.way, direction);
    inside = this.pass(this.first, inside);
    for (let i = 1; i < MOST_BOUNDARIES; i++) {
      if (!(Math.max(part[0], Math.max(part[1], part[2])) > LEAST_WEIGHT)) return;
      const primitive = this.reach(hit, this.from, this.way, false);
      if (primitive >= 0 && inside !== 0) this.media.dim(part, inside, this.kernel.ray[RAY_TO]);
      if (primitive >= 0) hit.meet(primitive, this.way);
      if (primitive < 0 || this.isLight(primitive, hit) || !this.showsThrough(hit)) {
        this.through = primitive < 0 ? NOTHING_THERE : primitive;
        return;
      }
      inside = this.pass(hit, inside);
    }
  }

  /** Goes through a surface or is mirrored inside; media inside of after it. */
  private pass(hit: SurfaceHit, inside: i32): i32 {
    copy3(this.from, hit.point);
    if (hit.model.interaction === REFRACTS) return this.crossBoundary(hit, inside);
    this.passSheet(hit);
    return inside;
  }

  /** Goes on beyond a boundary of glass; media inside of after it. */
  private crossBoundary(hit: SurfaceHit, inside: i32): i32 {
    const media = this.media;
    const beyond = media.beyond(hit, inside);
    if (media.isSame(inside, beyond)) return beyond;
    const ratio = media.index(beyond) / media.index(inside);
    const reflected = fresnelMean(hit.cosOut, ratio);
    if (reflected >= 1) {
      mirrorDirection(this.way, this.way, hit.normal, hit.flat);
      return inside;
    }
    for (let c = 0; c < 3; c++) {
      this.part[c] = (this.part[c] * (1 - reflected)) / (ratio * ratio);
    }
    refractDirection(this.way, hit.normal, hit.flat, hit.cosOut, 1 / ratio);
    return beyond;
  }

  private passSheet(hit: SurfaceHit): void {
    hit.model.straight(this.straight, hit.row, hit.primitive, hit.point);
    for (let c = 0; c < 3; c++) this.part[c] = this.part[c] * this.straight[c];
  }
}

function luminance(rgb: Float64Array): number {
  return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
}
