import { addColoured } from '../blend.js';
import { MAP_FIRST, MAP_OTHER, MAP_PATCH, MAP_STRIDE, SPREAD } from '../layouts.js';
import { type i32, whole32 } from '../portable.js';
import type { SurfaceHit } from '../surfaceHit.js';
import type { SceneTables } from '../tables.js';
import type { Films } from './films.js';
import { irradianceAt, LightmapSampler, patchAt } from './lightmaps.js';
import type { Way } from './way.js';

/** The light of lightmaps, for paths that end there and for their bright places as they are sampled. */
export class LightmapLight {
  sampler: LightmapSampler;
  /** Part of even light that the base of the lightmap sends towards the path; to be written before `add`. */
  albedo: Float64Array = new Float64Array(3);
  /** Whether ways of polarisation are told apart, and what the light of lightmaps counts for each Stokes number; to be written before `add`. */
  analysed: boolean = false;
  counts: Float64Array = new Float64Array(3);
  private t: SceneTables;
  private irradiance: Float64Array;
  private spread: Float64Array = new Float64Array(3);
  private factor: Float64Array = new Float64Array(3);

  constructor(t: SceneTables) {
    this.t = t;
    this.irradiance = new Float64Array(3 * t.channelCount);
    this.sampler = new LightmapSampler(t);
  }

  /** Takes note of lightmaps that have been put into the tables. */
  renew(): void {
    this.sampler = new LightmapSampler(this.t);
  }

  /** The lightmap of the side met, -1 for none. */
  at(hit: SurfaceHit): i32 {
    return this.t.lightmapAt[2 * hit.primitive + (hit.fromFront ? 0 : 1)];
  }

  /** Index of the patch among all. */
  patchOf(lightmap: i32, point: Float64Array): i32 {
    return whole32(this.t.lightmaps[lightmap * MAP_STRIDE + MAP_FIRST]) + patchAt(this.t, lightmap, point);
  }

  /**
   * Whether a point of it is looked at from so near that its patch is too coarse: within a patch's side, where something stands in
   * that patch.
   */
  isTooNear(lightmap: i32, point: Float64Array, distance: number): boolean {
    if (distance >= this.t.lightmaps[lightmap * MAP_STRIDE + MAP_PATCH]) return false;
    return this.t.coarse[this.patchOf(lightmap, point)] !== 0;
  }

  /** The lightmap of the far side, -1 for none. */
  otherOf(lightmap: i32): i32 {
    return whole32(this.t.lightmaps[lightmap * MAP_STRIDE + MAP_OTHER]);
  }

  /** Its light as a way meets it: without polarisation. */
  countFor(way: Way): void {
    this.analysed = way.analysed;
    if (!way.analysed) return;
    for (let k: i32 = 0; k < 3; k++) this.counts[k] = way.stokes.rows[3 * k];
  }

  /**
   * Adds what a lightmap sends on from a point of it.
   * @param row of its surface in `tables.surfaces`  @param transmits whether light of the far side comes through
   * @param throughput of the way from there  @param factor of the irradiance, 1/sr
   */
  add(
    films: Films,
    throughput: Float64Array,
    lightmap: i32,
    row: i32,
    transmits: boolean,
    point: Float64Array,
    factor: number,
  ): void {
    const t = this.t;
    irradianceAt(this.irradiance, t, lightmap, point);
    this.addIrradiance(films, throughput, this.albedo, factor);
    const other = this.otherOf(lightmap);
    if (other < 0 || !transmits) return;
    irradianceAt(this.irradiance, t, other, point);
    for (let c = 0; c < 3; c++) this.spread[c] = t.surfaces[row + SPREAD + c];
    this.addIrradiance(films, throughput, this.spread, factor);
  }

  private addIrradiance(films: Films, throughput: Float64Array, colour: Float64Array, factor: number): void {
    for (let c = 0; c < 3; c++) this.factor[c] = factor * throughput[c] * colour[c];
    if (this.analysed) this.addAnalysed(films.sums);
    else addColoured(films.sums, this.irradiance, this.factor, this.t.channelCount);
  }

  private addAnalysed(sums: Float64Array): void {
    const t = this.t;
    const counts = this.counts;
    for (let channel = 0; channel < t.channelCount; channel++) {
      const plane = t.planeChannel[channel];
      for (let c = 0; c < 3; c++) {
        const value = this.irradiance[3 * channel + c] * this.factor[c];
        sums[3 * channel + c] = sums[3 * channel + c] + value * counts[0];
        if (plane < 0) continue;
        sums[3 * plane + c] = sums[3 * plane + c] + value * counts[1];
        sums[3 * plane + 3 + c] = sums[3 * plane + 3 + c] + value * counts[2];
      }
    }
  }
}
