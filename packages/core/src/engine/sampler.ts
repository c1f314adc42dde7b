import { type i32, mul32, unsigned } from './portable.js';

/** Largest number the sampler gives. */
const LARGEST = 0.9999999997671694;

/** Second Sobol dimension of each byte of an index, with its bits reversed; four tables of 256. */
const sobolBytes = new Int32Array(1024);
fillTable();

/**
 * Owen-scrambled Sobol points, two dimensions at a time, each pair with its own shuffle and scramble.
 * Deterministic in pixel, sample and seed, so that the split of work over workers changes nothing.
 * Sources: Burley 2020 (hash-based Owen scrambling); Laine and Karras 2011; Sobol 1967.
 */
export class Sampler {
  /** Two numbers from 0 up to but not including 1. */
  uv: Float64Array = new Float64Array(2);
  private begin: i32 = 0;
  private pixelKey: i32 = 0;
  private index: i32 = 0;
  private dimension: i32 = 0;

  constructor(seed: i32) {
    this.reseed(seed);
  }

  reseed(seed: i32): void {
    this.begin = hash(seed ^ 0x51633e2d);
  }

  /** Starts the sequence of one sample of one pixel. */
  start(pixel: i32, sample: i32): void {
    this.pixelKey = hash(this.begin ^ pixel);
    this.index = reverse(sample);
    this.dimension = 0;
  }

  /** Moves to the next pair of dimensions; read `uv` after it. */
  next(): void {
    this.dimension = this.dimension + 1;
    this.draw(this.index);
  }

  /**
   * As `next`, for one of the `parts` (1, 2, 4 or 8) draws of a sample that share dimensions, so that all draws
   * of a pixel lie evenly together; go `back` before each but the first.
   */
  nextPart(part: i32, parts: i32): void {
    this.dimension = this.dimension + 1;
    // Bits of the index are reversed: `parts` times the index, and the part.
    const bits: i32 = parts === 1 ? 0 : parts === 2 ? 1 : parts === 4 ? 2 : 3;
    this.draw(bits === 0 ? this.index : (this.index >>> bits) | reverse(part));
  }

  /** Goes back by some pairs of dimensions. */
  back(pairs: i32): void {
    this.dimension = this.dimension - pairs;
  }

  /** Stretches the first number over its part, after it has made a choice: from 0 to a border, or from there to 1. */
  stretch(border: number, above: boolean): void {
    const u = this.uv[0];
    this.uv[0] = above ? Math.min(LARGEST, (u - border) / (1 - border)) : Math.min(LARGEST, u / border);
  }

  private draw(index: i32): void {
    const key = hash(this.pixelKey ^ mul32(this.dimension, -1640531527));
    const shuffled = reverse(scramble(index, key));
    const first = reverse(scramble(shuffled, hash(key ^ 0x68bc21eb)));
    const second = reverse(scramble(reversedSobolSecond(shuffled), hash(key ^ 0x02e5be93)));
    this.uv[0] = unsigned(first) * 2.3283064365386963e-10;
    this.uv[1] = unsigned(second) * 2.3283064365386963e-10;
  }
}

/** 32-bit mixing function with low bias (Wellons' search). */
function hash(x: i32): i32 {
  let h = x ^ (x >>> 16);
  h = mul32(h, 0x7feb352d);
  h = h ^ (h >>> 15);
  h = mul32(h, -2073254261);
  return h ^ (h >>> 16);
}

/** Laine-Karras permutation: Owen scrambling of bit-reversed numbers. */
function scramble(x: i32, key: i32): i32 {
  let v = (x + key) | 0;
  v = v ^ mul32(v, 0x6c50b47c);
  v = v ^ mul32(v, -1204871598);
  v = v ^ mul32(v, -944773576);
  v = v ^ mul32(v, -1927088410);
  return v;
}

/** The same bits from last to first. */
function reverse(x: i32): i32 {
  let v = ((x >>> 1) & 0x55555555) | ((x & 0x55555555) << 1);
  v = ((v >>> 2) & 0x33333333) | ((v & 0x33333333) << 2);
  v = ((v >>> 4) & 0x0f0f0f0f) | ((v & 0x0f0f0f0f) << 4);
  v = ((v >>> 8) & 0x00ff00ff) | ((v & 0x00ff00ff) << 8);
  return (v >>> 16) | (v << 16);
}

/** Second Sobol dimension of an index, its bits reversed. */
function reversedSobolSecond(index: i32): i32 {
  return (
    sobolBytes[index & 255] ^
    sobolBytes[256 + ((index >>> 8) & 255)] ^
    sobolBytes[512 + ((index >>> 16) & 255)] ^
    sobolBytes[768 + ((index >>> 24) & 255)]
  );
}

function fillTable(): void {
  let direction: i32 = 1 << 31;
  for (let bit = 0; bit < 32; bit++) {
    const mirrored = reverse(direction);
    const table: i32 = 256 * (bit >> 3);
    for (let byte = 0; byte < 256; byte++) {
      if (((byte >> (bit & 7)) & 1) === 0) continue;
      sobolBytes[table + byte] = sobolBytes[table + byte] ^ mirrored;
    }
    direction = direction ^ (direction >>> 1);
  }
}
