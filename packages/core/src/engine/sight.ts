import { fresnelMean } from './fresnel.js';
import type { Kernel } from './kernel.js';
import { absorbOver, indexIn, mediaBeyond } from './media.js';
import { highestBit, type i32, real } from './portable.js';
import { netOpenness } from './print.js';
import { lobeFresnel } from './scatter.js';
import { SurfaceHit } from './surfaceHit.js';
import { COAT_INDEX, DIELECTRIC, LOBE, NET, type SceneTables, STRAIGHT } from './tables.js';
import { CALL_PIXELS, viewRay } from './tile.js';
import { copy3, fill3, mirrorDirection, refractDirection } from './vectors.js';

/** Numbers of an answer, and what stands where. */
export const SIGHT = 36;
/** Primitive met first (-1: nothing), 1 from its front, point, shading normal towards the viewer, surface (-1: a light). */
export const SEEN = 0;
export const SEEN_FRONT = 1;
export const SEEN_POINT = 2;
export const SEEN_NORMAL = 5;
export const SEEN_SURFACE = 8;
/** Primitive mirrored (-1: nothing, -2: no mirror), 1 from its front, weight of red green blue, direction, point. */
export const MIRRORED = 9;
export const MIRRORED_FRONT = 10;
export const MIRRORED_WEIGHT = 11;
export const MIRRORED_WAY = 14;
export const MIRRORED_POINT = 17;
/** The same of what is seen through glass, nets and frost; where its last stretch starts. */
export const THROUGH = 20;
export const THROUGH_FRONT = 21;
export const THROUGH_WEIGHT = 22;
export const THROUGH_WAY = 25;
export const THROUGH_POINT = 28;
export const THROUGH_FROM = 31;

/**
 * Numbers kept of each pixel of a row: primitive seen, mirrored, 1 from its front, weight, point mirrored, primitive
 * seen through, weight; then of what is seen: surface, shading normal.
 */
export const ROW_NUMBERS = 13;
export const ROW_SURFACE = 9;
export const ROW_NORMAL = 10;

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
  answer: Float64Array = new Float64Array(SIGHT);
  row: Float64Array = new Float64Array(CALL_PIXELS * ROW_NUMBERS);
  private t: SceneTables;
  private kernel: Kernel;
  private first: SurfaceHit = new SurfaceHit();
  private hit: SurfaceHit = new SurfaceHit();
  private origin: Float64Array = new Float64Array(3);
  private way: Float64Array = new Float64Array(3);
  private weight: Float64Array = new Float64Array(3);
  private from: Float64Array = new Float64Array(3);
  private towards: Float64Array = new Float64Array(3);

  constructor(t: SceneTables, kernel: Kernel) {
    this.t = t;
    this.kernel = kernel;
  }

  cast(origin: Float64Array, direction: Float64Array): void {
    const answer = this.answer;
    const first = this.first;
    answer.fill(0);
    answer[SEEN] = NOTHING_THERE;
    answer[SEEN_SURFACE] = -1;
    answer[MIRRORED] = NO_SUCH_PART;
    answer[THROUGH] = NO_SUCH_PART;
    copy3(this.origin, origin);
    copy3(this.way, direction);
    const primitive = this.meet(first);
    if (primitive < 0) return;
    answer[SEEN] = real(primitive);
    answer[SEEN_FRONT] = first.fromFront ? 1 : 0;
    this.write(SEEN_POINT, first.point);
    this.write(SEEN_NORMAL, first.normal);
    if (first.fromFront && (this.t.emitterOf[primitive] as i32) >= 0) return;
    answer[SEEN_SURFACE] = real(first.surface);
    this.lookInMirror(direction);
    if (this.showsThrough(first)) this.lookThrough(primitive, origin, direction);
  }

  /** Looks through the middles of some pixels of a row, by a camera in the layout of `VIEW`; answers go to `row`. */
  castRow(view: Float64Array, px: i32, py: i32, count: i32, width: i32, height: i32): void {
    const answer = this.answer;
    const row = this.row;
    copy3(this.from, view);
    for (let i = 0; i < count; i++) {
      const across = (real(px + i) + 0.5) / real(width);
      viewRay(this.towards, view, across, (real(py) + 0.5) / real(height));
      this.cast(this.from, this.towards);
      const o = i * ROW_NUMBERS;
      row[o] = answer[SEEN] as number;
      row[o + 1] = answer[MIRRORED] as number;
      row[o + 2] = answer[MIRRORED_FRONT] as number;
      row[o + 3] = this.luminance(MIRRORED_WEIGHT);
      for (let a = 0; a < 3; a++) row[o + 4 + a] = answer[MIRRORED_POINT + a] as number;
      row[o + 7] = answer[THROUGH] as number;
      row[o + 8] = this.luminance(THROUGH_WEIGHT);
      row[o + ROW_SURFACE] = answer[SEEN_SURFACE] as number;
      for (let a = 0; a < 3; a++) row[o + ROW_NORMAL + a] = answer[SEEN_NORMAL + a] as number;
    }
  }

  private luminance(at: i32): number {
    const s = this.answer;
    return 0.2126 * (s[at] as number) + 0.7152 * (s[at + 1] as number) + 0.0722 * (s[at + 2] as number);
  }

  /** Nearest surface from `origin` along `way`; its primitive, -1 for none. */
  private meet(hit: SurfaceHit): i32 {
    const kernel = this.kernel;
    kernel.setRay(this.origin, this.way, Infinity);
    const primitive: i32 = kernel.closestHit();
    if (primitive < 0) return -1;
    const distance = kernel.ray[7] as number;
    for (let a = 0; a < 3; a++) {
      hit.point[a] = (this.origin[a] as number) + distance * (this.way[a] as number);
    }
    hit.meet(this.t, primitive, this.way);
    return primitive;
  }

  private write(at: i32, triple: Float64Array): void {
    for (let a = 0; a < 3; a++) this.answer[at + a] = triple[a] as number;
  }

  private lookInMirror(direction: Float64Array): void {
    const first = this.first;
    if (!this.mirrorWeight(first)) return;
    this.write(MIRRORED_WEIGHT, this.weight);
    copy3(this.origin, first.point);
    mirrorDirection(this.way, direction, first.normal, first.flat);
    this.write(MIRRORED_WAY, this.way);
    const primitive = this.meet(this.hit);
    this.answer[MIRRORED] = real(primitive < 0 ? NOTHING_THERE : primitive);
    if (primitive < 0) return;
    this.answer[MIRRORED_FRONT] = this.hit.fromFront ? 1 : 0;
    this.write(MIRRORED_POINT, this.hit.point);
  }

  /** Part that a surface mirrors at its cosine, in `weight`; false where it has no mirror part. */
  private mirrorWeight(hit: SurfaceHit): boolean {
    const s = this.t.surfaces;
    const coat = s[hit.place + COAT_INDEX] as number;
    if (coat !== 0) fill3(this.weight, fresnelMean(hit.cosOut, coat));
    else if (hit.kind === DIELECTRIC)
      fill3(this.weight, fresnelMean(hit.cosOut, indexIn(this.t, mediaBeyond(this.t, hit, 0))));
    else if ((s[hit.place + LOBE] as number) > 0) {
      for (let c = 0; c < 3; c++) this.weight[c] = lobeFresnel(this.t, hit.place, c, hit.cosOut);
    } else return false;
    return true;
  }

  private showsThrough(hit: SurfaceHit): boolean {
    return (
      hit.kind === DIELECTRIC || hit.kind === NET || (this.t.surfaces[hit.place + STRAIGHT] as number) > 0
    );
  }

  /** @param seen the primitive met first, known to show through */
  private lookThrough(seen: i32, origin: Float64Array, direction: Float64Array): void {
    const t = this.t;
    const weight = this.weight;
    let hit = this.first;
    let primitive = seen;
    let inside: i32 = 0;
    fill3(weight, 1);
    copy3(this.origin, origin);
    copy3(this.way, direction);
    for (let i = 0; i < MOST_BOUNDARIES; i++) {
      if (i > 0) {
        hit = this.hit;
        primitive = this.meet(hit);
      }
      const lit = primitive >= 0 && hit.fromFront && (t.emitterOf[primitive] as i32) >= 0;
      if (primitive < 0 || lit || !this.showsThrough(hit)) {
        this.end(primitive);
        return;
      }
      if (inside !== 0) absorbOver(weight, t, inside, this.kernel.ray[7] as number);
      if (hit.kind === DIELECTRIC) inside = this.crossBoundary(hit, inside);
      else this.passSheet(hit);
      copy3(this.origin, hit.point);
      if (!(Math.max(weight[0] as number, Math.max(weight[1] as number, weight[2] as number)) > LEAST_WEIGHT))
        return;
    }
  }

  /** Goes on beyond a boundary of glass; media inside of after it. */
  private crossBoundary(hit: SurfaceHit, inside: i32): i32 {
    const t = this.t;
    const beyond = mediaBeyond(t, hit, inside);
    if (highestBit(inside) === highestBit(beyond)) return beyond;
    const ratio = indexIn(t, beyond) / indexIn(t, inside);
    const reflected = fresnelMean(hit.cosOut, ratio);
    if (reflected >= 1) {
      mirrorDirection(this.way, this.way, hit.normal, hit.flat);
      return inside;
    }
    for (let c = 0; c < 3; c++) {
      this.weight[c] = ((this.weight[c] as number) * (1 - reflected)) / (ratio * ratio);
    }
    refractDirection(this.way, hit.normal, hit.flat, hit.cosOut, 1 / ratio);
    return beyond;
  }

  private passSheet(hit: SurfaceHit): void {
    const net = hit.kind === NET;
    const open: number = net ? netOpenness(this.t, hit.surface, hit.primitive, hit.point) : 0;
    for (let c = 0; c < 3; c++) {
      const part = net ? open : (this.t.surfaces[hit.place + STRAIGHT + c] as number);
      this.weight[c] = (this.weight[c] as number) * part;
    }
  }

  private end(primitive: i32): void {
    this.answer[THROUGH] = real(primitive < 0 ? NOTHING_THERE : primitive);
    this.write(THROUGH_WEIGHT, this.weight);
    this.write(THROUGH_WAY, this.way);
    this.write(THROUGH_FROM, this.origin);
    if (primitive < 0) return;
    this.answer[THROUGH_FRONT] = this.hit.fromFront ? 1 : 0;
    this.write(THROUGH_POINT, this.hit.point);
  }
}
