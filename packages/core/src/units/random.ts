/** Repeatable numbers from 0 up to 1, for strewing things; not for sampling light. Source: Steele 2014 (mix). */
export function createRandom(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x9e3779b9) | 0;
    let h = state ^ (state >>> 16);
    h = Math.imul(h, 0x21f0aaad);
    h ^= h >>> 15;
    h = Math.imul(h, 0x735a2d97);
    return ((h ^ (h >>> 15)) >>> 0) / 4294967296;
  };
}
