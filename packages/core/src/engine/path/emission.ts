import { emittedLuminance, emitterPdf } from '../emitters.js';
import { EMITTER_KIND, EMITTER_STRIDE, SPREAD, SUN } from '../layouts.js';
import { type i32, real, whole32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import type { SceneTables } from '../tables.js';
import { scale3 } from '../vectors.js';
import type { Caustics } from './caustics.js';
import type { Films } from './films.js';
import { ONE_LIGHT_FROM, powerShare } from './heuristics.js';
import type { LightmapLight } from './lightmapLight.js';
import type { Scattering } from './scattering.js';
import type { TraceMode } from './traceMode.js';
import type { Way } from './way.js';

/** Light that ways meet by chance: lamps, lightmaps, the surround. */
export class Emission {
  /** While recording: patches of both sides of the lightmap met (-1 for none), and what their irradiance counts. */
  metPatch: i32 = -1;
  metOther: i32 = -1;
  /** Red green blue of the one, then of the other. */
  metFactor: Float64Array = new Float64Array(6);
  private t: SceneTables;
  private mode: TraceMode;
  private sampler: Sampler;
  private films: Films;
  private lightmaps: LightmapLight;
  private scattering: Scattering;
  private caustics: Caustics;

  constructor(
    t: SceneTables,
    mode: TraceMode,
    sampler: Sampler,
    films: Films,
    lightmaps: LightmapLight,
    scattering: Scattering,
    caustics: Caustics,
  ) {
    this.t = t;
    this.mode = mode;
    this.sampler = sampler;
    this.films = films;
    this.lightmaps = lightmaps;
    this.scattering = scattering;
    this.caustics = caustics;
  }

  /** Nothing was met: light from beyond everything. */
  meetSurround(way: Way): void {
    const surrounds = this.t.surrounds;
    for (let i = 0; i < surrounds.length; i++) this.films.add(way, surrounds[i], 1, -1);
  }

  /** A light was met: its share by multiple importance sampling. */
  meetLight(way: Way, emitter: i32): void {
    const t = this.t;
    const point = this.scattering.hit.point;
    const e = emitter * EMITTER_STRIDE;
    const channel = this.films.channelOf(e);
    let share: number = this.caustics.haveCounted(way) ? 0 : emittedLuminance(t, e, point, way.direction);
    if (way.pdf > 0) {
      if (share > 0) {
        const few = way.wentByMirror || way.bounce <= ONE_LIGHT_FROM;
        const among: number = few ? 1 : real(t.emitterCount);
        const rival = emitterPdf(t, e, way.chosenAt, way.direction, way.distanceFromChoice(point)) / among;
        share *= powerShare(way.pdf, way.wentByMirror ? rival : rival * way.lightSamples);
      }
      this.films.add(way, channel, share, emitter);
      return;
    }
    this.films.add(way, channel, share, emitter);
    // The sun behind a window is met by mirrors and glass alone: all else finds it by light sampling.
    if (emitter + 1 >= t.emitterCount) return;
    const sun = e + EMITTER_STRIDE;
    if (whole32(t.emitters[sun + EMITTER_KIND]) !== SUN) return;
    this.films.add(
      way,
      this.films.channelOf(sun),
      emittedLuminance(t, sun, point, way.direction),
      emitter + 1,
    );
  }

  /**
   * Ends a scattered way on a lightmap, or writes it down. Under a coat the lightmap knows of the base alone: by
   * chance the way goes on in the coat instead. So does a way that comes straight from so near that the patches are too coarse.
   * @returns false where there is no lightmap, or the way goes on
   */
  meetLightmap(way: Way): boolean {
    const hit = this.scattering.hit;
    const model = hit.model;
    const lightmap = this.lightmaps.at(hit);
    if (lightmap < 0) return false;
    if (!this.mode.recording && way.lastSharp < 0) {
      if (this.lightmaps.isTooNear(lightmap, hit.point, way.distanceFromChoice(hit.point))) return false;
    }
    const mirrored = model.mirrorShare(hit.row, hit.albedo, hit.cosOut);
    if (mirrored > 0) {
      this.sampler.next();
      const coatAlone = this.sampler.uv[0] < mirrored;
      this.scattering.coatAlone = coatAlone;
      scale3(way.throughput, 1 / (coatAlone ? mirrored : 1 - mirrored));
      if (coatAlone) return false;
    }
    model.sentByBase(this.lightmaps.albedo, hit.row, hit.albedo, hit.cosOut);
    if (this.mode.recording) {
      this.record(way, lightmap);
      return true;
    }
    if (this.t.brightIndex[lightmap] >= 0 && this.caustics.haveCounted(way)) return true;
    let share: number = 1;
    if (way.lightmapsSampled && way.pdf > 0) {
      const distance = way.distanceFromChoice(hit.point);
      const rival = way.ways * this.lightmaps.sampler.pdf(lightmap, hit.point, way.direction, distance);
      share = way.pdf / (way.pdf + rival);
    }
    const factor = share / Math.PI;
    this.lightmaps.countFor(way);
    this.lightmaps.add(this.films, way.throughput, lightmap, hit.row, model.transmits, hit.point, factor);
    return true;
  }

  private record(way: Way, lightmap: i32): void {
    const hit = this.scattering.hit;
    const other = this.lightmaps.otherOf(lightmap);
    this.metPatch = this.lightmaps.patchOf(lightmap, hit.point);
    this.metOther = other < 0 ? -1 : this.lightmaps.patchOf(other, hit.point);
    for (let c = 0; c < 3; c++) {
      const w = way.throughput[c] / Math.PI;
      this.metFactor[c] = w * this.lightmaps.albedo[c];
      this.metFactor[3 + c] = w * this.t.surfaces[hit.row + SPREAD + c];
    }
  }
}
