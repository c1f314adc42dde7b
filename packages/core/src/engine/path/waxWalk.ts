import type { Kernel } from '../kernel.js';
import { COAT_INSIDE, NORMALS, RAY_TO, SCATTER_PER_M, SHADING_NORMAL, SINGLE_ALBEDO } from '../layouts.js';
import { normalsAt } from '../normals.js';
import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import type { SurfaceHit } from '../surfaceHit.js';
import type { SceneTables } from '../tables.js';
import { copy3, cosineAbove, dot3, everyWay, frameRound, fromFrame, most3, scale3 } from '../vectors.js';

/** Walks of which one is kept. */
const WALKS = 2;
/** Steps after which a walk ends at random. */
const FREE_STEPS = 16;
/** A walk that has not come out by then has lost its way: less than one in a thousand at a reflectance of 0.98. */
const MOST_STEPS = 65536;

/**
 * A random walk inside a body that scatters light evenly to all sides, from a point on it inwards.
 * At the boundary light is mirrored back with the coat's mean reflectance from inside, or leaves.
 * Limits: one mean free path for all colours; the boundary mirrors evenly, not by angle.
 * Source: Monte Carlo random walk, Jensen et al. 2001 sec. 2; docs/physics/surfaces.md
 */
export class WaxWalk {
  private tables: SceneTables;
  private kernel: Kernel;
  private at: Float64Array = new Float64Array(3);
  private going: Float64Array = new Float64Array(3);
  private inwards: Float64Array = new Float64Array(3);
  private local: Float64Array = new Float64Array(3);
  private normals: Float64Array = new Float64Array(NORMALS);
  private own: Float64Array = new Float64Array(3);
  private before: Float64Array = new Float64Array(3);
  private start: Float64Array = new Float64Array(3);
  private startFlat: Float64Array = new Float64Array(3);
  private exit: Float64Array = new Float64Array(3);
  private exitFlat: Float64Array = new Float64Array(3);
  private exitNormal: Float64Array = new Float64Array(3);

  constructor(tables: SceneTables, kernel: Kernel) {
    this.tables = tables;
    this.kernel = kernel;
  }

  /**
   * Starts at `hit.point`; on return `point`, `flat`, `normal` and `frame` are those of the place where light leaves.
   * Of several walks one is kept, by chance in proportion to what it carries, and carries the mean of all
   * (resampled importance sampling, Talbot et al. 2005): less noise for the same light to sample outside.
   * @param weight throughput, lowered on the way
   * @returns false where it does not leave
   */
  walk(hit: SurfaceHit, weight: Float64Array, sampler: Sampler): boolean {
    const own = this.own;
    copy3(this.start, hit.point);
    copy3(this.startFlat, hit.flat);
    copy3(this.before, weight);
    let sum: number = 0;
    let chosen: number = 0;
    for (let i = 0; i < WALKS; i++) {
      copy3(hit.point, this.start);
      copy3(hit.flat, this.startFlat);
      copy3(own, this.before);
      if (!this.walkOnce(hit, own, sampler)) continue;
      const carried = own[0] + own[1] + own[2];
      sum += carried;
      sampler.next();
      if (!(sampler.uv[0] * sum < carried)) continue;
      chosen = carried;
      copy3(weight, own);
      copy3(this.exit, hit.point);
      copy3(this.exitFlat, hit.flat);
      copy3(this.exitNormal, hit.normal);
    }
    if (!(chosen > 0)) return false;
    scale3(weight, sum / (chosen * WALKS));
    copy3(hit.point, this.exit);
    copy3(hit.flat, this.exitFlat);
    copy3(hit.normal, this.exitNormal);
    frameRound(hit.frame, hit.normal);
    return true;
  }

  private walkOnce(hit: SurfaceHit, weight: Float64Array, sampler: Sampler): boolean {
    const t = this.tables;
    const s = t.surfaces;
    const kernel = this.kernel;
    const at = this.at;
    const going = this.going;
    const normals = this.normals;
    const surface = hit.surface;
    const o = hit.row;
    const inside = s[o + COAT_INSIDE];
    const perM = s[o + SCATTER_PER_M];
    copy3(at, hit.point);
    for (let a = 0; a < 3; a++) this.inwards[a] = -hit.flat[a];
    this.startInwards(hit, sampler);
    for (let step = 0; step < MOST_STEPS; step++) {
      sampler.next();
      const reach = -Math.log(1 - sampler.uv[0]) / perM;
      const mirrorChoice = sampler.uv[1];
      kernel.setRay(at, going, reach);
      const primitive: i32 = kernel.closestHit();
      if (primitive >= 0) {
        const distance = kernel.ray[RAY_TO];
        for (let a = 0; a < 3; a++) at[a] = at[a] + distance * going[a];
        normalsAt(normals, t, primitive, at);
        const along = dot3(normals, going);
        // Something stuck on the body from outside, or another body in it: light ends there.
        if (t.front[primitive] !== surface || along < 0) return false;
        if (mirrorChoice >= inside) {
          copy3(hit.point, at);
          copy3(hit.flat, normals);
          for (let a = 0; a < 3; a++) hit.normal[a] = normals[SHADING_NORMAL + a];
          return true;
        }
        for (let a = 0; a < 3; a++) this.inwards[a] = -normals[a];
        this.startInwards(hit, sampler);
        continue;
      }
      for (let a = 0; a < 3; a++) {
        at[a] = at[a] + reach * going[a];
        weight[a] = weight[a] * s[o + SINGLE_ALBEDO + a];
      }
      if (step > FREE_STEPS && !survives(weight, sampler)) return false;
      sampler.next();
      everyWay(going, sampler.uv);
    }
    return false;
  }

  private startInwards(hit: SurfaceHit, sampler: Sampler): void {
    frameRound(hit.frame, this.inwards);
    sampler.next();
    cosineAbove(this.local, sampler.uv);
    fromFrame(this.going, this.local, hit.frame, this.inwards);
  }
}

function survives(weight: Float64Array, sampler: Sampler): boolean {
  // Nearly always 1: white bodies send most of their light back after very many scatterings.
  const chance = Math.min(0.9999, most3(weight));
  sampler.next();
  if (!(sampler.uv[0] < chance)) return false;
  scale3(weight, 1 / chance);
  return true;
}
