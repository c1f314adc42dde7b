import { BUNDLED_FILM, BUNDLED_FLUX, BUNDLED_STRIDE, BUNDLED_WAY, TEXEL_KEY } from '../layouts.js';
import { divide32, floor32, type i32, mul32, real, whole32 } from '../portable.js';
import type { SurfaceHit } from '../surfaceHit.js';
import { NARROW_ALPHA, NO_MIRROR_PART } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { dot3, scale3 } from '../vectors.js';
import type { Films } from './films.js';
import type { Scattering } from './scattering.js';
import type { Way } from './way.js';

/**
 * Whether light that is bundled onto a surface is kept for it; asked where photons land and where paths are scattered.
 * @param inside media that the way is in: what lies in glass or in a liquid is left to chance
 */
export function keepsCaustics(hit: SurfaceHit, inside: i32): boolean {
  const model = hit.model;
  return (
    inside === 0 &&
    model.takesIrradiance &&
    (model.isSpecular(hit.row) || model.roughness(hit.row) >= NARROW_ALPHA)
  );
}

/** Which of the six ways along the axes a surface faces most. */
export function facingOf(x: number, y: number, z: number): i32 {
  const ax = Math.abs(x);
  const ay = Math.abs(y);
  const az = Math.abs(z);
  if (ax > ay && ax > az) return x > 0 ? 0 : 1;
  if (ay > az) return y > 0 ? 2 : 3;
  return z > 0 ? 4 : 5;
}

/** The axes along and across a texel of a surface that faces so. */
export function alongOf(facing: i32): i32 {
  return facing < 2 ? 1 : 0;
}
export function acrossOf(facing: i32): i32 {
  return facing < 4 ? 2 : 1;
}

/**
 * Slot of a texel in the table of them, or the free one where it would be.
 * @param surface thing and facing, and level, as one number  @param u, v its place in steps of its level
 */
export function texelSlot(keys: Int32Array, slots: i32, surface: i32, u: i32, v: i32): i32 {
  let slot: i32 = mul32(
    mul32(surface + 1, -1640531527) ^ mul32(u, 73856093) ^ mul32(v, 19349663),
    0x2c1b3c6d,
  );
  slot = (slot ^ (slot >>> 15)) & (slots - 1);
  let k: i32 = TEXEL_KEY * slot;
  while (keys[k] >= 0 && (keys[k] !== surface || keys[k + 1] !== u || keys[k + 2] !== v)) {
    slot = (slot + 1) & (slots - 1);
    k = TEXEL_KEY * slot;
  }
  return slot;
}

/**
 * Light that lamps send by way of what bundles it onto what scatters: kept on grids over the surfaces, fine where much of it
 * lies, coarse where it is sparse; bilinear between the texels.
 * Sources: Jensen 2001 (photon maps), with the density kept on the surface (Arvo 1986); docs/physics/render.md
 */
export class Caustics {
  private t: SceneTables;
  private scattering: Scattering;
  private films: Films;
  private towards: Float64Array = new Float64Array(3);
  private flux: Float64Array = new Float64Array(3);
  /** Whether light from different parts of the sky is scattered apart. */
  private apart: boolean = false;
  /** Of each film, from the front and from behind: flux red green blue, and the way it came, weighed by it. */
  private sums: Float64Array;

  constructor(t: SceneTables, scattering: Scattering, films: Films) {
    this.t = t;
    this.scattering = scattering;
    this.films = films;
    this.sums = new Float64Array(12 * t.channelCount);
  }

  /** Whether there are any, and the surface met keeps them. */
  isKept(way: Way): boolean {
    return this.t.texelSizes.length > 0 && keepsCaustics(this.scattering.hit, way.inside);
  }

  /** Whether light that a way meets now was counted where it was scattered last. */
  haveCounted(way: Way): boolean {
    return way.causticsCounted && way.lastSharp >= 0 && this.t.bundles[way.lastSharp] !== 0;
  }

  /** Adds what the surface met scatters of them. @param share of its mirror lobe */
  add(way: Way, share: number): void {
    const hit = this.scattering.hit;
    this.apart = !hit.model.isSpecular(hit.row) && hit.model.roughness(hit.row) < NO_MIRROR_PART;
    this.gather(way, share, hit.flat[0], hit.flat[1], hit.flat[2], 0);
    if (hit.model.transmits) this.gather(way, share, -hit.flat[0], -hit.flat[1], -hit.flat[2], 1);
    if (!this.apart) this.addGathered(way, share);
  }

  /** Irradiance on one side of the surface met. @param behind 1 for the far side */
  private gather(way: Way, share: number, x: number, y: number, z: number, behind: i32): void {
    const t = this.t;
    const hit = this.scattering.hit;
    const facing = facingOf(x, y, z);
    const axis: i32 = divide32(facing, 2);
    const surface: i32 = t.thing[hit.primitive] * 6 + facing;
    const along = hit.point[alongOf(facing)];
    const across = hit.point[acrossOf(facing)];
    const slope = Math.abs(hit.flat[axis]);
    const keys = t.texelKeys;
    const slots: i32 = t.texelStarts.length - 1;
    const levels: i32 = t.texelSizes.length;
    for (let level: i32 = 0; level < levels; level++) {
      const size = t.texelSizes[level];
      const u = along / size;
      const v = across / size;
      const u0 = floor32(u);
      const v0 = floor32(v);
      const fu = u - real(u0);
      const fv = v - real(v0);
      const scale = slope / (size * size);
      for (let k: i32 = 0; k < 4; k++) {
        const right: i32 = k & 1;
        const upper: i32 = k >> 1;
        const slot = texelSlot(keys, slots, surface * levels + level, u0 + right, v0 + upper);
        if (keys[TEXEL_KEY * slot] < 0) continue;
        const weight = scale * (right === 1 ? fu : 1 - fu) * (upper === 1 ? fv : 1 - fv);
        if (this.apart) this.addTexel(way, share, slot, weight);
        else this.gatherTexel(slot, weight, behind);
      }
    }
  }

  private gatherTexel(slot: i32, weight: number, behind: i32): void {
    const t = this.t;
    const list = t.bundled;
    const sums = this.sums;
    const end: i32 = t.texelStarts[slot + 1];
    for (let i: i32 = t.texelStarts[slot]; i < end; i++) {
      const o: i32 = i * BUNDLED_STRIDE;
      const s: i32 = 6 * (2 * whole32(list[o + BUNDLED_FILM]) + behind);
      for (let c = 0; c < 3; c++) {
        const flux: number = list[o + BUNDLED_FLUX + c];
        const way: number = list[o + BUNDLED_WAY + c];
        sums[s + c] = sums[s + c] + weight * flux;
        sums[s + 3 + c] = sums[s + 3 + c] + weight * way;
      }
    }
  }

  /** What comes from each part of the sky apart: a mirror lobe tells them from each other. */
  private addTexel(way: Way, share: number, slot: i32, weight: number): void {
    const t = this.t;
    const list = t.bundled;
    const towards = this.towards;
    const end: i32 = t.texelStarts[slot + 1];
    for (let i: i32 = t.texelStarts[slot]; i < end; i++) {
      const o: i32 = i * BUNDLED_STRIDE;
      for (let a = 0; a < 3; a++) {
        this.flux[a] = list[o + BUNDLED_FLUX + a];
        towards[a] = -list[o + BUNDLED_WAY + a];
      }
      this.addLight(way, share, whole32(list[o + BUNDLED_FILM]), weight);
    }
  }

  private addGathered(way: Way, share: number): void {
    const sums = this.sums;
    const towards = this.towards;
    const sides = 2 * this.t.channelCount;
    for (let side: i32 = 0; side < sides; side++) {
      const s: i32 = 6 * side;
      if (!(sums[s] + sums[s + 1] + sums[s + 2] > 0)) continue;
      for (let a = 0; a < 3; a++) {
        this.flux[a] = sums[s + a];
        towards[a] = -sums[s + 3 + a];
      }
      for (let k = 0; k < 6; k++) sums[s + k] = 0;
      this.addLight(way, share, divide32(side, 2), 1);
    }
  }

  /** Light of one film from where `towards` points. */
  private addLight(way: Way, share: number, film: i32, weight: number): void {
    const scattering = this.scattering;
    const towards = this.towards;
    if (!(this.films.wanted[film] > 0)) return;
    scale3(towards, 1 / Math.sqrt(dot3(towards, towards)));
    if (!scattering.canSee(towards)) return;
    scattering.evaluate(share);
    this.films.addScattered(way, film, scattering, this.flux, weight, true, -1, towards);
  }
}
