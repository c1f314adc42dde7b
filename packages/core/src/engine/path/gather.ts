import { sampleEmitter } from '../emitters.js';
import type { Kernel } from '../kernel.js';
import {
  EMITTER_CHANNEL,
  EMITTER_STRIDE,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  MAP_ACROSS,
  MAP_FIRST,
  MAP_PATCH,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  MAP_UP,
  NORMALS,
} from '../layouts.js';
import { isOnPrimitive, normalsAt, pointOnPrimitive } from '../normals.js';
import { divide32, type i32, real, whole32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { cosineAbove, dot3, frameRound, fromFrame } from '../vectors.js';
import { Passage } from './passage.js';
import { pathGuideCell } from './pathGuide.js';
import type { PathTracer } from './pathTracer.js';

/** Traces the rays of patches of lightmaps. */
export class PatchGatherer {
  /** Irradiance of the patch last gathered, from lamps and by way of things that are no lightmaps. */
  direct: Float64Array;
  /** 2 a ray: patch met, and the patch behind it where light shines through; -1 for none. */
  met: Int32Array;
  /** 6 a ray: what the irradiance of the two counts, red green blue. */
  factor: Float64Array;
  /** Cell of the direction of each ray, see `pathGuideCell`. */
  cell: Int32Array;
  /** One number: rays that have met, within the side of a patch, what keeps no light itself. */
  near: Int32Array = new Int32Array(1);
  /** 2 a lamp: irradiance by it, all colours together, and the mean square of what single samples gave. */
  told: Float64Array;
  private t: SceneTables;
  private kernel: Kernel;
  private tracer: PathTracer;
  private sampler: Sampler;
  private passage: Passage;
  private rays: i32;
  private point: Float64Array = new Float64Array(3);
  private normals: Float64Array = new Float64Array(NORMALS);
  private normal: Float64Array = new Float64Array(3);
  private frame: Float64Array = new Float64Array(6);
  private local: Float64Array = new Float64Array(3);
  private direction: Float64Array = new Float64Array(3);
  private light: Float64Array = new Float64Array(6);

  constructor(
    t: SceneTables,
    kernel: Kernel,
    tracer: PathTracer,
    sampler: Sampler,
    models: SurfaceModels,
    rays: i32,
  ) {
    this.t = t;
    this.kernel = kernel;
    this.tracer = tracer;
    this.sampler = sampler;
    this.rays = rays;
    this.passage = new Passage(t, kernel, models);
    this.direct = new Float64Array(t.channelCount * 3);
    this.met = new Int32Array(rays * 2);
    this.factor = new Float64Array(rays * 6);
    this.cell = new Int32Array(rays);
    this.told = new Float64Array(2 * t.emitterCount);
  }

  /**
   * One patch of a lightmap: each ray starts at its own place of it, samples every lamp, and goes on by the cosine law
   * until it meets a lightmap.
   */
  gather(lightmap: i32, cell: i32): void {
    const t = this.t;
    const p = t.lightmaps;
    const o = lightmap * MAP_STRIDE;
    const primitive = whole32(p[o + MAP_PRIMITIVE]);
    const across = whole32(p[o + MAP_ACROSS]);
    const up = whole32(p[o + MAP_UP]);
    const patch = whole32(p[o + MAP_FIRST]) + cell;
    const sign: number = p[o + MAP_SIDE] > 0 ? -1 : 1;
    const row = divide32(cell, across);
    const column = cell - row * across;
    const sampler = this.sampler;
    const tracer = this.tracer;
    const films = tracer.films.sums;
    films.fill(0);
    this.direct.fill(0);
    this.met.fill(-1);
    this.factor.fill(0);
    this.told.fill(0);
    this.near[0] = 0;
    const side = p[o + MAP_PATCH];
    let taken: number = 0;
    for (let ray = 0; ray < this.rays; ray++) {
      sampler.start(patch, ray);
      sampler.next();
      const a = (real(column) + sampler.uv[0]) / real(across);
      const b = (real(row) + sampler.uv[1]) / real(up);
      if (!isOnPrimitive(t, primitive, a, b)) continue;
      taken += 1;
      pointOnPrimitive(this.point, t, primitive, a, b);
      normalsAt(this.normals, t, primitive, this.point);
      for (let k = 0; k < 3; k++) this.normal[k] = sign * this.normals[k];
      frameRound(this.frame, this.normal);
      this.sampleLamps();
      sampler.next();
      cosineAbove(this.local, sampler.uv);
      this.cell[ray] = pathGuideCell(this.local);
      fromFrame(this.direction, this.local, this.frame, this.normal);
      this.lookNear(side);
      this.meetSurround();
      tracer.emission.metPatch = -1;
      tracer.emission.metOther = -1;
      tracer.trace(this.point, this.direction, true);
      this.met[2 * ray] = tracer.emission.metPatch;
      this.met[2 * ray + 1] = tracer.emission.metOther;
      if (tracer.emission.metPatch < 0) continue;
      for (let k = 0; k < 6; k++) this.factor[6 * ray + k] = Math.PI * tracer.emission.metFactor[k];
    }
    if (taken === 0) return;
    for (let c = 0; c < films.length; c++) {
      this.direct[c] = (this.direct[c] + Math.PI * films[c]) / taken;
    }
    for (let k = 0; k < this.factor.length; k++) this.factor[k] = this.factor[k] / taken;
    for (let k = 0; k < this.told.length; k++) this.told[k] = this.told[k] / taken;
  }

  /** Whether something that keeps no light itself stands within a patch's side. */
  private lookNear(side: number): void {
    this.kernel.setRay(this.point, this.direction, side);
    const primitive = this.kernel.closestHit();
    if (primitive < 0) return;
    const maps = this.t.lightmapAt;
    if (maps[2 * primitive] < 0 && maps[2 * primitive + 1] < 0) this.near[0] = this.near[0] + 1;
  }

  /** Light from beyond everything, where the ray meets nothing: paths leave out what they meet at once. */
  private meetSurround(): void {
    const surrounds = this.t.surrounds;
    if (surrounds.length === 0) return;
    this.kernel.setRay(this.point, this.direction, Infinity);
    if (this.kernel.anyHit()) return;
    for (let i = 0; i < surrounds.length; i++) {
      for (let c = 0; c < 3; c++) {
        const k = 3 * surrounds[i] + c;
        this.direct[k] = this.direct[k] + Math.PI;
      }
    }
  }

  private sampleLamps(): void {
    const t = this.t;
    const light = this.light;
    for (let index = 0; index < t.emitterCount; index++) {
      const e = index * EMITTER_STRIDE;
      this.sampler.next();
      if (!sampleEmitter(light, t, e, this.point, this.sampler.uv)) continue;
      const cosine = dot3(light, this.normal);
      if (!(cosine > 0 && light[LIGHT_LUMINANCE] > 0)) continue;
      if (!this.passage.between(this.point, light, light[LIGHT_DISTANCE])) continue;
      const value = (light[LIGHT_LUMINANCE] * cosine) / light[LIGHT_DENSITY];
      const channel = whole32(t.emitters[e + EMITTER_CHANNEL]);
      let all: number = 0;
      for (let c = 0; c < 3; c++) {
        const k = 3 * channel + c;
        const one = value * this.passage.passed[c];
        this.direct[k] = this.direct[k] + one;
        all += one;
      }
      this.told[2 * index] = this.told[2 * index] + all;
      this.told[2 * index + 1] = this.told[2 * index + 1] + all * all;
    }
  }
}
