/**
 * Owen-scrambled Sobol points, two dimensions at a time, each pair with its own shuffle and scramble.
 * Deterministic in pixel, sample and seed, so that the split of work over workers changes nothing.
 * Sources: Burley 2020 (hash-based Owen scrambling); Laine and Karras 2011; Sobol 1967.
 */
export interface Sampler {
  /** Starts the sequence of one sample of one pixel. */
  start(pixel: number, sample: number): void;
  /** Moves to the next pair of dimensions; read `u` and `v` after it. */
  next(): void;
  /** Two numbers from 0 up to but not including 1. */
  readonly uv: Float64Array;
}

const reversedBytes = new Uint32Array(256);
const sobolBytes = [0, 1, 2, 3].map(() => new Uint32Array(256));
fillTables();

export function createSampler(seed: number): Sampler {
  const uv = new Float64Array(2);
  // state: 0 hash of pixel and seed, 1 reversed sample index, 2 dimension pair
  const state = new Int32Array(3);
  const start = hash(seed ^ 0x51633e2d);

  return {
    uv,
    start(pixel, sample) {
      state[0] = hash(start ^ pixel);
      state[1] = reverse(sample);
      state[2] = 0;
    },
    next() {
      const dimension = (state[2] as number) + 1;
      state[2] = dimension;
      const key = hash((state[0] as number) ^ Math.imul(dimension, 0x9e3779b9));
      const shuffled = reverse(scramble(state[1] as number, key));
      const first = reverse(scramble(shuffled, hash(key ^ 0x68bc21eb)));
      const second = reverse(scramble(reverse(sobolSecond(shuffled)), hash(key ^ 0x02e5be93)));
      uv[0] = (first >>> 0) * 2.3283064365386963e-10;
      uv[1] = (second >>> 0) * 2.3283064365386963e-10;
    },
  };
}

/** 32-bit mixing function with low bias (Wellons' search). */
function hash(x: number): number {
  let h = x ^ (x >>> 16);
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  return h ^ (h >>> 16);
}

/** Laine-Karras permutation: Owen scrambling of bit-reversed numbers. */
function scramble(x: number, key: number): number {
  let v = (x + key) | 0;
  v ^= Math.imul(v, 0x6c50b47c);
  v ^= Math.imul(v, 0xb82f1e52);
  v ^= Math.imul(v, 0xc7afe638);
  v ^= Math.imul(v, 0x8d22f6e6);
  return v;
}

function reverse(x: number): number {
  return (
    ((reversedBytes[x & 255] as number) << 24) |
    ((reversedBytes[(x >>> 8) & 255] as number) << 16) |
    ((reversedBytes[(x >>> 16) & 255] as number) << 8) |
    (reversedBytes[x >>> 24] as number)
  );
}

/** Second Sobol dimension of an index. */
function sobolSecond(index: number): number {
  const [a, b, c, d] = sobolBytes as [Uint32Array, Uint32Array, Uint32Array, Uint32Array];
  return (
    (a[index & 255] as number) ^
    (b[(index >>> 8) & 255] as number) ^
    (c[(index >>> 16) & 255] as number) ^
    (d[index >>> 24] as number)
  );
}

function fillTables(): void {
  let direction = 0x80000000;
  const directions: number[] = [];
  for (let bit = 0; bit < 32; bit++) {
    directions.push(direction >>> 0);
    direction = (direction ^ (direction >>> 1)) >>> 0;
  }
  for (let byte = 0; byte < 256; byte++) {
    for (let bit = 0; bit < 8; bit++) {
      if (!((byte >> bit) & 1)) continue;
      reversedBytes[byte] = (reversedBytes[byte] as number) | (128 >> bit);
      sobolBytes.forEach((table, place) => {
        table[byte] = ((table[byte] as number) ^ (directions[place * 8 + bit] as number)) >>> 0;
      });
    }
  }
}
