import type { i32 } from '../portable.js';
import { copy3, fill3, most3, scale3 } from '../vectors.js';
import { Stokes } from './stokes.js';

/** Where one way of a path stands, and all that its next steps need to know of the ones before. */
export class Way {
  /** The next ray, and the part of the light it meets that arrives at the start of the path, red green blue. */
  origin: Float64Array = new Float64Array(3);
  direction: Float64Array = new Float64Array(3);
  throughput: Float64Array = new Float64Array(3);
  /** Surfaces met. */
  bounce: i32 = 0;
  /** A bit for each medium it is in, see `Media`. */
  inside: i32 = 0;
  /** The colour that it follows alone since it was split, 0 to 2; -1 while it follows all. */
  colour: i32 = -1;
  /** Whether it was scattered last in something cloudy, with none but clear boundaries since. */
  fromCloud: boolean = false;
  /** Whether what lamps send by way of clear things to where it was scattered last has been counted there, see `Caustics`. */
  causticsCounted: boolean = false;
  /** The clear boundary, mirror or clear coat that it met last since then, but for nets; -1 for none. */
  lastSharp: i32 = -1;
  /** Whether it tells ways of polarisation apart, and how; see `Stokes`. */
  analysed: boolean = false;
  stokes: Stokes = new Stokes();
  /** While all it met were mirrors and glass. */
  sharp: boolean = true;
  /** While no lobe had a part in what it met: it is a specular path. */
  specular: boolean = true;
  /** Largest throughput it set out with. */
  setOutWith: number = 1;

  // How its direction was chosen, for what it meets to be weighed against the lights sampled there.
  chosenAt: Float64Array = new Float64Array(3);
  /** Density per sr; 0 where light sampling had no part. */
  pdf: number = 0;
  /** How many ways led on, and how often each light counts as sampled (it may have been more or less often, see `packLightSamples`). */
  ways: i32 = 1;
  lightSamples: i32 = 1;
  /** Whether bright lightmaps were sampled. */
  lightmapsSampled: boolean = false;
  /** Whether lights were sampled by way of flat mirrors, and it has since gone by such a mirror. */
  mirrorsSampled: boolean = false;
  wentByMirror: boolean = false;

  /** @param scattered starts on a matte surface */
  begin(origin: Float64Array, direction: Float64Array, scattered: boolean): void {
    copy3(this.origin, origin);
    copy3(this.direction, direction);
    fill3(this.throughput, 1);
    this.bounce = scattered ? 1 : 0;
    this.inside = 0;
    this.colour = -1;
    this.fromCloud = false;
    this.causticsCounted = false;
    this.lastSharp = -1;
    this.analysed = false;
    this.sharp = !scattered;
    this.specular = !scattered;
    this.setOutWith = 1;
    this.pdf = 0;
    this.lightmapsSampled = false;
    this.sampleOnce();
  }

  /** Scattered so that nothing is left of its polarisation. */
  depolarise(): void {
    if (this.analysed) this.stokes.depolarise();
  }

  /** One way leads on, and each light is sampled once. */
  sampleOnce(): void {
    this.ways = 1;
    this.lightSamples = 1;
  }

  /** Of what it meets nothing was found by sampling, but for the lights themselves where `pdf` says so. */
  forgetSampled(): void {
    this.lightmapsSampled = false;
    this.mirrorsSampled = false;
    this.wentByMirror = false;
  }

  /** Takes up the state of another. */
  copy(from: Way): void {
    copy3(this.origin, from.origin);
    copy3(this.direction, from.direction);
    copy3(this.throughput, from.throughput);
    copy3(this.chosenAt, from.chosenAt);
    this.bounce = from.bounce;
    this.inside = from.inside;
    this.colour = from.colour;
    this.fromCloud = from.fromCloud;
    this.causticsCounted = from.causticsCounted;
    this.lastSharp = from.lastSharp;
    this.analysed = from.analysed;
    if (from.analysed) this.stokes.copy(from.stokes);
    this.sharp = from.sharp;
    this.specular = from.specular;
    this.setOutWith = from.setOutWith;
    this.pdf = from.pdf;
    this.ways = from.ways;
    this.lightSamples = from.lightSamples;
    this.lightmapsSampled = from.lightmapsSampled;
    this.mirrorsSampled = from.mirrorsSampled;
    this.wentByMirror = from.wentByMirror;
  }

  /** Follows one colour alone from here. @param gain of what is left */
  follow(colour: i32, gain: number): void {
    for (let c: i32 = 0; c < 3; c++) this.throughput[c] = c === colour ? gain * this.throughput[c] : 0;
    this.colour = colour;
  }

  /** Sets out from where another has met a surface. @param part of its throughput */
  setOutFrom(point: Float64Array, part: number): void {
    copy3(this.origin, point);
    copy3(this.chosenAt, point);
    scale3(this.throughput, part);
    this.setOutWith = most3(this.throughput);
    this.bounce = this.bounce + 1;
    this.fromCloud = false;
    this.wentByMirror = false;
  }

  distanceFromChoice(point: Float64Array): number {
    let squared: number = 0;
    for (let a = 0; a < 3; a++) {
      const d = point[a] - this.chosenAt[a];
      squared += d * d;
    }
    return Math.sqrt(squared);
  }
}
