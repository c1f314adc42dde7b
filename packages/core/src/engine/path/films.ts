import { EMITTER_CHANNEL } from '../layouts.js';
import { type i32, whole32 } from '../portable.js';
import { BASE_PART } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import type { Way } from './way.js';

/** What a path has found, for each film at unit luminance, apart by polarisation where a light has a film on. */
export class Films {
  /** [channel * 3 + colour] */
  sums: Float64Array;
  /** 1 for each film whose lights are sampled, 0 for one that is not wanted. */
  wanted: Float64Array;
  /** Whether any light keeps what is polarised in a film of its own. */
  splits: boolean = false;
  private t: SceneTables;

  constructor(t: SceneTables) {
    this.t = t;
    this.sums = new Float64Array(3 * t.channelCount);
    this.wanted = new Float64Array(t.channelCount);
    for (let channel = 0; channel < t.channelCount; channel++) {
      this.wanted[channel] = 1;
      if (t.keptChannel[channel] !== channel) this.splits = true;
    }
  }

  /** Film that an emitter adds to. */
  channelOf(emitter: i32): i32 {
    return whole32(this.t.emitters[emitter + EMITTER_CHANNEL]);
  }

  isWanted(emitter: i32): boolean {
    return this.wanted[this.channelOf(emitter)] > 0;
  }

  /** Adds light that a way has met. */
  add(way: Way, channel: i32, share: number): void {
    const sums = this.sums;
    const film: i32 = way.polarised ? this.t.keptChannel[channel] : channel;
    for (let a = 0; a < 3; a++) {
      const i = 3 * film + a;
      sums[i] = sums[i] + share * way.throughput[a];
    }
  }

  /** Adds light that was sampled, whatever it does to its polarisation. @param passed part that gets through, red green blue */
  addPassed(way: Way, channel: i32, passed: Float64Array, value: number): void {
    const sums = this.sums;
    for (let c = 0; c < 3; c++) {
      const i = 3 * channel + c;
      sums[i] = sums[i] + way.throughput[c] * passed[c] * value;
    }
  }

  /**
   * Adds what is scattered of a light that was sampled.
   * @param scattering see `VALUE`  @param apart whether what keeps its polarisation may have a film of its own
   */
  addScattered(
    way: Way,
    channel: i32,
    scattering: Float64Array,
    passed: Float64Array,
    value: number,
    apart: boolean,
  ): void {
    const sums = this.sums;
    const keptChannel = this.t.keptChannel[channel];
    const parts = apart && keptChannel !== channel && way.polarised;
    for (let c = 0; c < 3; c++) {
      const factor = way.throughput[c] * passed[c] * value;
      const all = scattering[c];
      const base: number = parts ? scattering[BASE_PART + c] : all;
      const i = 3 * channel + c;
      sums[i] = sums[i] + factor * base;
      if (parts) sums[3 * keptChannel + c] = sums[3 * keptChannel + c] + factor * (all - base);
    }
  }
}
