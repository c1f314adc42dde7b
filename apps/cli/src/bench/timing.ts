const RUNS = 9;
/** Code is compiled for good while it runs: for so long at least it is run before, s. */
const WARMING = 0.5;

/** Middle of the times of some runs of work that has been running for a while, s. */
export function medianSeconds(work: () => unknown, runs = RUNS): number {
  const warm = performance.now() + 1000 * WARMING;
  do work();
  while (performance.now() < warm);
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return (performance.now() - start) / 1000;
  });
  return times.sort((a, b) => a - b)[runs >> 1] as number;
}

/** Numbers that are the same in every run. */
export function repeatableNumbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) | 0;
    return (state >>> 0) / 4294967296;
  };
}
