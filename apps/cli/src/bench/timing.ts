const RUNS = 5;

/** Middle of the times of some runs after one for warming up, s. */
export function medianSeconds(work: () => unknown, runs = RUNS): number {
  work();
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
