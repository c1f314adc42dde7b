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
 * Where colours go different ways between two scatterings, one colour says how far each step goes, by chance in proportion to what is left
 * of it, and all carry what they would by any of them (balance heuristic, Veach 1997).
 * Limit: the boundary mirrors evenly, not by angle.
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
  private passed: Float64Array = new Float64Array(3);
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
    const perM = o + SCATTER_PER_M;
    const isParted = s[perM] !== s[perM + 1] || s[perM] !== s[perM + 2];
    copy3(at, hit.point);
    for (let a = 0; a < 3; a++) this.inwards[a] = -hit.flat[a];
    this.startInwards(hit, sampler);
    for (let step = 0; step < MOST_STEPS; step++) {
      sampler.next();
      let colour: i32 = 0;
      let mirrorChoice = sampler.uv[1];
      if (isParted) {
        // What is left of the number once it has chosen the colour is as good as new.
        mirrorChoice = mirrorChoice * (weight[0] + weight[1] + weight[2]);
        while (colour < 2 && mirrorChoice >= weight[colour]) {
          mirrorChoice = mirrorChoice - weight[colour];
          colour++;
        }
        mirrorChoice = mirrorChoice / Math.max(1e-300, weight[colour]);
      }
      const reach = -Math.log(1 - sampler.uv[0]) / s[perM + colour];
      kernel.setRay(at, going, reach);
      const primitive: i32 = kernel.closestHit();
      if (primitive >= 0) {
        const distance = kernel.ray[RAY_TO];
        if (isParted) this.shareOut(weight, perM, distance, false);
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
      if (isParted) this.shareOut(weight, perM, reach, true);
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

  /** What each colour carries after a step whose length any of them may have chosen. @param scatters at its end; else it met a boundary */
  private shareOut(weight: Float64Array, perM: i32, distance: number, scatters: boolean): void {
    const s = this.tables.surfaces;
    const passed = this.passed;
    let all: number = 0;
    let chance: number = 0;
    for (let c = 0; c < 3; c++) {
      passed[c] = Math.exp(-s[perM + c] * distance);
      if (scatters) passed[c] = passed[c] * s[perM + c];
      all += weight[c];
      chance += weight[c] * passed[c];
    }
    const scale: number = chance > 0 ? all / chance : 0;
    for (let c = 0; c < 3; c++) weight[c] = weight[c] * passed[c] * scale;
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
