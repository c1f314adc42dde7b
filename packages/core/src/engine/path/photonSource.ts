import { sampleEmitter } from '../emitters.js';
import {
  CARRIED_BY,
  CARRIED_LEFT,
  CARRIED_POINT,
  CARRIED_SURFACE,
  CARRIED_WAY,
  EMITTER_STRIDE,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  LIGHT_SAMPLE,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  PHOTON_FILM,
  PHOTON_FLUX,
  PHOTON_POINT,
  PHOTON_STRIDE,
  PHOTON_SURFACE,
  PHOTON_WAY,
  SURFACE_STRIDE,
} from '../layouts.js';
import { type i32, real, whole32 } from '../portable.js';
import { surfaceColour } from '../print.js';
import type { Sampler } from '../sampler.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import type { Carrier } from './carrier.js';
import type { Films } from './films.js';
import type { LightmapLight } from './lightmapLight.js';

/** Photons sent in one call. */
export const SENT_AT_ONCE = 1024;
/** In the place of a lamp: all bright lightmaps. */
export const BRIGHT_LIGHTMAPS: i32 = -1;

/**
 * Sends photons from lamps and bright lightmaps into the box round a clear thing: an even place on the outside of the box, and
 * from there a direction towards the light, sampled as lights are. Light enters a box once, so each photon stands for luminance
 * times cosine over the density of both; any light that can be sampled can be sent.
 */
export class PhotonSource {
  /** The box, see `BOX_LEAST` and below. */
  box: Float64Array = new Float64Array(6);
  /** Those that came to rest, see `PHOTON_POINT` and those below it. */
  photons: Float32Array = new Float32Array(SENT_AT_ONCE * PHOTON_STRIDE);
  private t: SceneTables;
  private sampler: Sampler;
  private models: SurfaceModels;
  private carrier: Carrier;
  private lightmaps: LightmapLight;
  private films: Films;
  private light: Float64Array = new Float64Array(LIGHT_SAMPLE);
  private entry: Float64Array = new Float64Array(3);
  private start: Float64Array = new Float64Array(3);
  private direction: Float64Array = new Float64Array(3);
  private flux: Float64Array = new Float64Array(3);
  private printed: Float64Array = new Float64Array(3);
  private one: Float64Array = new Float64Array(3);
  /** Across which axis, and on which side, the last photon entered. */
  private axis: i32 = 0;
  private side: number = 1;
  private film: i32 = 0;

  constructor(
    t: SceneTables,
    sampler: Sampler,
    models: SurfaceModels,
    carrier: Carrier,
    lightmaps: LightmapLight,
    films: Films,
  ) {
    this.t = t;
    this.sampler = sampler;
    this.models = models;
    this.carrier = carrier;
    this.lightmaps = lightmaps;
    this.films = films;
    for (let c = 0; c < 3; c++) this.one[c] = 1;
  }

  /**
   * @param lamp or `BRIGHT_LIGHTMAPS`  @param thing that the box is of  @param first of the photons  @param count of them
   * @param all of them that are sent, over all calls
   * @returns how many came to rest; they lie in `photons` from the first on
   */
  send(lamp: i32, thing: i32, first: i32, count: i32, all: i32): i32 {
    const carried = this.carrier.carried;
    const list = this.photons;
    let rested: i32 = 0;
    for (let i = first; i < first + count; i++) {
      this.sampler.start((lamp + 2) * 4096 + thing, i);
      const area = this.enter();
      const lit = lamp === BRIGHT_LIGHTMAPS ? this.sampleBright() : this.sampleLamp(lamp);
      if (!lit) continue;
      const cosine = this.side * this.light[this.axis];
      if (!(cosine > 0)) continue;
      const weight = (area * cosine) / (this.light[LIGHT_DENSITY] * real(all));
      const distance = this.light[LIGHT_DISTANCE];
      for (let a = 0; a < 3; a++) {
        this.start[a] = this.entry[a] + distance * this.light[a];
        this.direction[a] = -this.light[a];
      }
      if (!this.carrier.carry(this.start, this.direction)) continue;
      if (whole32(carried[CARRIED_BY]) !== thing) continue;
      const o = rested * PHOTON_STRIDE;
      for (let a = 0; a < 3; a++) {
        list[o + PHOTON_POINT + a] = carried[CARRIED_POINT + a];
        list[o + PHOTON_WAY + a] = carried[CARRIED_WAY + a];
        list[o + PHOTON_FLUX + a] = weight * this.flux[a] * carried[CARRIED_LEFT + a];
      }
      list[o + PHOTON_FILM] = real(this.film);
      list[o + PHOTON_SURFACE] = carried[CARRIED_SURFACE];
      rested++;
    }
    return rested;
  }

  /** An even place on the outside of the box. @returns the area of the outside, m2 */
  private enter(): number {
    const box = this.box;
    const x = box[3] - box[0];
    const y = box[4] - box[1];
    const z = box[5] - box[2];
    const area = 2 * (x * y + y * z + z * x);
    this.sampler.next();
    let left = this.sampler.uv[0] * area;
    let axis: i32 = 0;
    let face = 2 * y * z;
    if (left >= face) {
      left -= face;
      axis = 1;
      face = 2 * z * x;
      if (left >= face) {
        left -= face;
        axis = 2;
        face = 2 * x * y;
      }
    }
    // What is left of the number that chose the face is as even within it.
    const part = Math.min(0.9999999999, left / face);
    const far = part >= 0.5;
    const u = far ? 2 * part - 1 : 2 * part;
    const v = this.sampler.uv[1];
    const second: i32 = axis === 2 ? 0 : axis + 1;
    const third: i32 = second === 2 ? 0 : second + 1;
    this.entry[axis] = far ? box[3 + axis] : box[axis];
    this.entry[second] = box[second] + u * (box[3 + second] - box[second]);
    this.entry[third] = box[third] + v * (box[3 + third] - box[third]);
    this.axis = axis;
    this.side = far ? 1 : -1;
    return area;
  }

  private sampleLamp(lamp: i32): boolean {
    const e = lamp * EMITTER_STRIDE;
    this.sampler.next();
    if (!sampleEmitter(this.light, this.t, e, this.entry, this.sampler.uv)) return false;
    const luminance = this.light[LIGHT_LUMINANCE];
    for (let c = 0; c < 3; c++) this.flux[c] = luminance;
    this.film = this.films.channelOf(e);
    return luminance > 0;
  }

  /** A place of a bright lightmap, and of its films one by chance, by what they give there. */
  private sampleBright(): boolean {
    const t = this.t;
    const bright = this.lightmaps.sampler;
    const sums = this.films.sums;
    this.sampler.next();
    if (!bright.look(this.entry)) return false;
    const lightmap: i32 = bright.sample(this.light, this.sampler.uv);
    if (lightmap < 0) return false;
    const primitive = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_PRIMITIVE]);
    const side = t.lightmaps[lightmap * MAP_STRIDE + MAP_SIDE] > 0 ? t.back : t.front;
    const surface = side[primitive];
    const row = surface * SURFACE_STRIDE;
    const model = this.models.ofSurface(surface);
    surfaceColour(this.printed, t, surface, primitive, bright.target);
    model.sentByBase(this.lightmaps.albedo, row, this.printed, bright.cosine);
    sums.fill(0);
    this.lightmaps.analysed = false;
    this.lightmaps.add(this.films, this.one, lightmap, row, model.transmits, bright.target, 1 / Math.PI);
    let whole: number = 0;
    for (let k = 0; k < sums.length; k++) whole += sums[k];
    this.sampler.next();
    let left = this.sampler.uv[0] * whole;
    let film: i32 = 0;
    let part = sums[0] + sums[1] + sums[2];
    while (film < t.channelCount - 1 && left >= part) {
      left -= part;
      film++;
      part = sums[3 * film] + sums[3 * film + 1] + sums[3 * film + 2];
    }
    this.film = film;
    for (let c = 0; c < 3; c++) this.flux[c] = part > 0 ? (sums[3 * film + c] * whole) / part : 0;
    sums.fill(0);
    return part > 0;
  }
}
