import { sampleEmitter } from '../emitters.js';
import type { Kernel } from '../kernel.js';
import {
  EMITTER_STRIDE,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  LIGHT_PASSED,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  SURFACE_STRIDE,
} from '../layouts.js';
import { divide32, floor32, type i32, real, whole32 } from '../portable.js';
import { surfaceColour } from '../print.js';
import type { Sampler } from '../sampler.js';
import { PDF } from '../surfaces/surfaceModel.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { dot3 } from '../vectors.js';
import type { Films } from './films.js';
import { ONE_LIGHT_FROM, powerShare } from './heuristics.js';
import type { LightmapLight } from './lightmapLight.js';
import type { MirrorLights } from './mirrorLights.js';
import type { Passage } from './passage.js';
import type { Scattering } from './scattering.js';
import type { TraceMode } from './traceMode.js';
import type { Way } from './way.js';

/**
 * Light sampling (next-event estimation) where a way is scattered: lamps, lamps by way of flat mirrors, and bright
 * places of lightmaps.
 */
export class LightSampling {
  private t: SceneTables;
  private mode: TraceMode;
  private kernel: Kernel;
  private sampler: Sampler;
  private models: SurfaceModels;
  private films: Films;
  private passage: Passage;
  private lightmaps: LightmapLight;
  private mirrors: MirrorLights;
  private scattering: Scattering;
  /** Patch of a lightmap that was met, -1 for none. */
  private patch: i32 = -1;
  private light: Float64Array = new Float64Array(LIGHT_PASSED);
  private printed: Float64Array = new Float64Array(3);
  private carried: Float64Array = new Float64Array(3);

  constructor(
    t: SceneTables,
    mode: TraceMode,
    kernel: Kernel,
    sampler: Sampler,
    models: SurfaceModels,
    films: Films,
    passage: Passage,
    lightmaps: LightmapLight,
    mirrors: MirrorLights,
    scattering: Scattering,
  ) {
    this.t = t;
    this.mode = mode;
    this.kernel = kernel;
    this.sampler = sampler;
    this.models = models;
    this.films = films;
    this.passage = passage;
    this.lightmaps = lightmaps;
    this.mirrors = mirrors;
    this.scattering = scattering;
  }

  /** Finds the patch met, of a lightmap whose light is known. @returns its index, -1 for none */
  findPatch(): i32 {
    const hit = this.scattering.hit;
    const known = this.mode.useLightmaps && !this.mode.recording && this.t.pathGuide.length > 0;
    const lightmap: i32 = known ? this.lightmaps.at(hit) : -1;
    this.patch = lightmap < 0 ? -1 : this.lightmaps.patchOf(lightmap, hit.point);
    return this.patch;
  }

  /**
   * Samples lamps. @param share of the mirror lobe in what scatters
   * @param joined with scattering by the power heuristic; otherwise the base alone, by light sampling alone
   */
  sampleLights(way: Way, share: number, joined: boolean): void {
    const t = this.t;
    const scattering = this.scattering;
    const hit = scattering.hit;
    const light = this.light;
    const among = this.shared(way);
    const first = this.firstLight(way);
    const last = this.endOfLights(way, first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER_STRIDE;
      const times = this.samplesOf(way, index, way.lightSamples);
      for (let part = 0; part < times; part++) {
        if (part > 0) this.sampler.back(1);
        this.sampler.nextPart(part, times);
        if (!this.films.isWanted(e)) continue;
        if (!sampleEmitter(light, t, e, hit.point, this.sampler.uv)) continue;
        if (!(light[LIGHT_LUMINANCE] > 0 && scattering.canSee(light))) continue;
        if (joined) scattering.evaluate(share);
        else hit.model.evaluateBase(scattering.value, hit.row, hit.albedo, scattering.out, scattering.into);
        if (!this.passage.between(hit.point, light, light[LIGHT_DISTANCE])) continue;
        const rival: number = joined ? scattering.value[PDF] * way.ways : 0;
        const density = light[LIGHT_DENSITY] / among;
        // Weighed as in `Emission.meetLight`, which does not know how often it was sampled.
        const likely = powerShare(density * way.lightSamples, rival);
        const cosine = Math.abs(scattering.into[2]);
        const value = (light[LIGHT_LUMINANCE] * cosine * likely) / (density * times);
        const channel = this.films.channelOf(e);
        this.films.addScattered(way, channel, scattering, this.passage.passed, value, joined, index, light);
      }
    }
  }

  /** Samples lamps where light comes out of something: from under a skin, or out of what is cloudy. */
  sampleLightsAtExit(way: Way): void {
    const t = this.t;
    const hit = this.scattering.hit;
    const light = this.light;
    const among = this.shared(way);
    const first = this.firstLight(way);
    const last = this.endOfLights(way, first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER_STRIDE;
      this.sampler.next();
      if (!this.films.isWanted(e)) continue;
      if (!sampleEmitter(light, t, e, hit.point, this.sampler.uv)) continue;
      const luminance = light[LIGHT_LUMINANCE];
      const cosIn = dot3(light, hit.normal);
      if (!(luminance > 0 && cosIn > 0 && dot3(light, hit.flat) > 0)) continue;
      if (!this.passage.between(hit.point, light, light[LIGHT_DISTANCE])) continue;
      const density = light[LIGHT_DENSITY] / among;
      const even = cosIn / Math.PI;
      const exit = hit.model.exitShare(hit.row, cosIn);
      const value = (luminance * even * exit * powerShare(density, even)) / density;
      this.films.addPassed(way, this.films.channelOf(e), this.passage.passed, value);
    }
  }

  /** Samples lamps by way of the flat mirrors, from the first surfaces. */
  sampleByMirrors(way: Way, share: number): void {
    const t = this.t;
    const scattering = this.scattering;
    const hit = scattering.hit;
    const light = this.light;
    const mirrors = this.mirrors;
    const passed = this.passage.passed;
    way.wentByMirror = false;
    way.mirrorsSampled = mirrors.count > 0 && way.bounce < ONE_LIGHT_FROM;
    if (!way.mirrorsSampled) return;
    for (let m = 0; m < mirrors.count; m++) {
      const primitive = mirrors.primitiveOf(m);
      if (primitive === hit.primitive || !mirrors.look(m, hit.point)) continue;
      for (let index = 0; index < t.emitterCount; index++) {
        const e = index * EMITTER_STRIDE;
        this.sampler.next();
        if (!this.films.isWanted(e)) continue;
        if (!sampleEmitter(light, t, e, mirrors.image, this.sampler.uv)) continue;
        if (!(light[LIGHT_LUMINANCE] > 0 && mirrors.turn(light) && scattering.canSee(light))) continue;
        // As often as it mirrors: a weak mirror is worth few rays.
        const chance = Math.min(1, mirrors.mirrored[1]);
        this.sampler.next();
        if (this.sampler.uv[0] >= chance) continue;
        this.kernel.setRay(hit.point, light, Infinity);
        if (this.kernel.closestHit() !== primitive) continue;
        if (!this.passage.between(mirrors.crossing, mirrors.beyond, mirrors.after)) continue;
        for (let c = 0; c < 3; c++) passed[c] = passed[c] * mirrors.mirrored[c];
        scattering.evaluate(share);
        const density = light[LIGHT_DENSITY];
        const rival = scattering.value[PDF] * way.ways * mirrors.mirrored[1];
        const cosine = Math.abs(scattering.into[2]);
        const value = (light[LIGHT_LUMINANCE] * cosine * powerShare(density, rival)) / density;
        // What the mirror itself does to polarisation is left out.
        const channel = this.films.channelOf(e);
        this.films.addScattered(way, channel, scattering, passed, value / chance, true, -1, light);
      }
    }
  }

  /** Samples bright places of lightmaps, joined with scattering by the balance heuristic. */
  sampleLightmaps(way: Way, share: number): void {
    way.lightmapsSampled = false;
    if (!this.mode.useLightmaps || this.mode.recording || this.t.brightLightmap.length === 0) return;
    if (this.scattering.isSharp()) return;
    if (!this.lightmaps.sampler.look(this.scattering.hit.point)) return;
    way.lightmapsSampled = true;
    const times = this.samplesOf(way, this.t.emitterCount, way.ways);
    for (let part = 0; part < times; part++) {
      if (part > 0) this.sampler.back(1);
      this.sampler.nextPart(part, times);
      this.sampleLightmap(way, share, times);
    }
  }

  private sampleLightmap(way: Way, share: number, times: i32): void {
    const t = this.t;
    const scattering = this.scattering;
    const light = this.light;
    const bright = this.lightmaps.sampler;
    const lightmap = bright.sample(light, this.sampler.uv);
    if (lightmap < 0 || !scattering.canSee(light)) return;
    if (this.lightmaps.isTooNear(lightmap, bright.target, light[LIGHT_DISTANCE])) return;
    if (!this.passage.between(scattering.hit.point, light, light[LIGHT_DISTANCE])) return;
    scattering.evaluate(share);
    const density = light[LIGHT_DENSITY];
    const cosIn = Math.abs(scattering.into[2]);
    const value = cosIn / (times * (density + scattering.value[PDF]));
    const primitive = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_PRIMITIVE]);
    const side = t.lightmaps[lightmap * MAP_STRIDE + MAP_SIDE] > 0 ? t.back : t.front;
    const surface = side[primitive];
    const model = this.models.ofSurface(surface);
    surfaceColour(this.printed, t, surface, primitive, bright.target);
    for (let c = 0; c < 3; c++) {
      const passed = scattering.value[c] * this.passage.passed[c];
      this.carried[c] = way.throughput[c] * passed * value;
    }
    const row = surface * SURFACE_STRIDE;
    model.sentByBase(this.lightmaps.albedo, row, this.printed, bright.cosine);
    const factor = 1 / Math.PI;
    this.lightmaps.analysed = way.analysed;
    if (way.analysed) this.films.countScattered(this.lightmaps.counts, way, scattering);
    this.lightmaps.add(this.films, this.carried, lightmap, row, model.transmits, bright.target, factor);
  }

  /** First of the lights sampled here; the last is this or, for the first surfaces, the end of the list. */
  private firstLight(way: Way): i32 {
    const count = this.t.emitterCount;
    if (way.bounce < ONE_LIGHT_FROM || count < 2) return 0;
    this.sampler.next();
    const first = floor32(this.sampler.uv[0] * real(count));
    return first < count ? first : count - 1;
  }

  private endOfLights(way: Way, first: i32): i32 {
    const count = this.t.emitterCount;
    return way.bounce < ONE_LIGHT_FROM || count < 2 ? count : first + 1;
  }

  /** Over how many lights one sample is shared. */
  private shared(way: Way): number {
    return way.bounce < ONE_LIGHT_FROM ? 1 : real(this.t.emitterCount);
  }

  /**
   * How often a lamp, or at the end of the list the bright lightmaps, are sampled here. What is rough finds them by
   * its mirror lobe.
   */
  private samplesOf(way: Way, which: i32, usual: i32): i32 {
    const samples = this.t.lightSamples;
    if (way.ways === 1 || !this.mode.useLightmaps || this.scattering.hit.model.isRough) return usual;
    if (samples.length === 0) return usual;
    const each = this.t.emitterCount + 1;
    const row: i32 = this.patch < 0 ? divide32(samples.length, each) - 1 : this.patch;
    return samples[row * each + which];
  }
}
