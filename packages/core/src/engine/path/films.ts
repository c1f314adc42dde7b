import { EMITTER_CHANNEL } from '../layouts.js';
import { type i32, whole32 } from '../portable.js';
import { BASE_PART } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import type { Scattering } from './scattering.js';
import { Stokes } from './stokes.js';
import type { Way } from './way.js';

/**
 * What a path has found, for each film at unit luminance. Where a filter is on the lens each light has two films more, for how
 * the light that came was polarised: level less upright, and the one slant less the other.
 */
export class Films {
  /** [channel * 3 + colour] */
  sums: Float64Array;
  /** 1 for each film whose lights are sampled, 0 for one that is not wanted. */
  wanted: Float64Array;
  /** Whether ways of polarisation are told apart. */
  analyses: boolean = false;
  private t: SceneTables;
  private stokes: Stokes = new Stokes();
  /** What the base and the mirror lobe of a surface count, or all that is met, for each Stokes number. */
  private counts: Float64Array = new Float64Array(3);

  constructor(t: SceneTables) {
    this.t = t;
    this.sums = new Float64Array(3 * t.channelCount);
    this.wanted = new Float64Array(t.channelCount);
    for (let channel = 0; channel < t.channelCount; channel++) {
      this.wanted[channel] = 1;
      if (t.planeChannel[channel] >= 0) this.analyses = true;
    }
    for (let i = 0; i < t.filmAxis.length; i++) if (t.filmAxis[i] !== 0) this.analyses = true;
  }

  /** Film that an emitter adds to. */
  channelOf(emitter: i32): i32 {
    return whole32(this.t.emitters[emitter + EMITTER_CHANNEL]);
  }

  isWanted(emitter: i32): boolean {
    return this.wanted[this.channelOf(emitter)] > 0;
  }

  /** Adds light that a way has met. @param light its place among the emitters, -1 for what has no film before it */
  add(way: Way, channel: i32, share: number, light: i32): void {
    if (way.analysed) {
      way.stokes.count(this.counts, way.direction, this.t.filmAxis, 3 * light);
      for (let c = 0; c < 3; c++) this.addCounted(channel, c, share * way.throughput[c]);
      return;
    }
    const sums = this.sums;
    for (let a = 0; a < 3; a++) {
      const i = 3 * channel + a;
      sums[i] = sums[i] + share * way.throughput[a];
    }
  }

  /** Adds light that was sampled where nothing is left of its polarisation. @param passed part that gets through, red green blue */
  addPassed(way: Way, channel: i32, passed: Float64Array, value: number): void {
    for (let c = 0; c < 3; c++) this.addEven(way, channel, c, way.throughput[c] * passed[c] * value);
  }

  /**
   * Adds what is scattered of a light that was sampled, as `scattering` was evaluated last.
   * @param joined whether the mirror lobe scatters too  @param light see `add`  @param towards it
   */
  addScattered(
    way: Way,
    channel: i32,
    scattering: Scattering,
    passed: Float64Array,
    value: number,
    joined: boolean,
    light: i32,
    towards: Float64Array,
  ): void {
    const sums = this.sums;
    const scattered = scattering.value;
    if (!way.analysed) {
      for (let c = 0; c < 3; c++) {
        const i = 3 * channel + c;
        sums[i] = sums[i] + way.throughput[c] * passed[c] * value * scattered[c];
      }
      return;
    }
    this.countEven(way.stokes);
    for (let c = 0; c < 3; c++) {
      const base: number = joined ? scattered[BASE_PART + c] : scattered[c];
      this.addCounted(channel, c, way.throughput[c] * passed[c] * value * base);
    }
    if (!joined || !(scattering.mirrorPart() > 0)) return;
    this.stokes.copy(way.stokes);
    scattering.mirrorPolarised(this.stokes, way.direction, 1);
    this.stokes.count(this.counts, towards, this.t.filmAxis, 3 * light);
    for (let c = 0; c < 3; c++) {
      const mirrored = scattered[c] - scattered[BASE_PART + c];
      this.addCounted(channel, c, way.throughput[c] * passed[c] * value * mirrored);
    }
  }

  /** Adds light without polarisation that a way meets. */
  addEven(way: Way, channel: i32, colour: i32, value: number): void {
    if (way.analysed) {
      this.countEven(way.stokes);
      this.addCounted(channel, colour, value);
      return;
    }
    const i = 3 * channel + colour;
    this.sums[i] = this.sums[i] + value;
  }

  /** What even light, scattered at a surface towards a way, counts for each Stokes number. */
  countScattered(out: Float64Array, way: Way, scattering: Scattering): void {
    this.stokes.copy(way.stokes);
    scattering.mirrorPolarised(this.stokes, way.direction, scattering.mirrorPart());
    for (let k: i32 = 0; k < 3; k++) out[k] = this.stokes.rows[3 * k];
  }

  private countEven(stokes: Stokes): void {
    for (let k: i32 = 0; k < 3; k++) this.counts[k] = stokes.rows[3 * k];
  }

  private addCounted(channel: i32, colour: i32, value: number): void {
    const sums = this.sums;
    const counts = this.counts;
    const plane = this.t.planeChannel[channel];
    const i = 3 * channel + colour;
    sums[i] = sums[i] + value * counts[0];
    if (plane < 0) return;
    const p = 3 * plane + colour;
    sums[p] = sums[p] + value * counts[1];
    sums[p + 3] = sums[p + 3] + value * counts[2];
  }
}
