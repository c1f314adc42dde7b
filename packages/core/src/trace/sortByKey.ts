/** Runs of so many are sorted by putting each in its place, then merged. */
const SHORT_RUN = 8;

/**
 * Sorts the first so many indices by their keys, equal ones left in their order: as `sort` with a comparison, which calls back
 * and takes twice as long.
 * @param keys by index  @param spare as long as `indices`; what is in it is lost
 */
export function sortByKey(indices: Int32Array, count: number, keys: Float64Array, spare: Int32Array): void {
  for (let start = 0; start < count; start += SHORT_RUN) {
    const end = Math.min(count, start + SHORT_RUN);
    for (let i = start + 1; i < end; i++) {
      const one = indices[i] as number;
      const key = keys[one] as number;
      let to = i;
      for (; to > start && (keys[indices[to - 1] as number] as number) > key; to--) {
        indices[to] = indices[to - 1] as number;
      }
      indices[to] = one;
    }
  }
  for (let width = SHORT_RUN; width < count; width *= 2) {
    for (let start = 0; start + width < count; start += 2 * width) {
      mergeRuns(indices, start, start + width, Math.min(count, start + 2 * width), keys, spare);
    }
  }
}

/** Merges two neighbouring runs. */
function mergeRuns(
  indices: Int32Array,
  start: number,
  middle: number,
  end: number,
  keys: Float64Array,
  spare: Int32Array,
): void {
  for (let i = start; i < middle; i++) spare[i] = indices[i] as number;
  let [left, right, to] = [start, middle, start];
  while (left < middle && right < end) {
    const [a, b] = [spare[left] as number, indices[right] as number];
    const takesRight = (keys[b] as number) < (keys[a] as number);
    indices[to++] = takesRight ? b : a;
    if (takesRight) right++;
    else left++;
  }
  while (left < middle) indices[to++] = spare[left++] as number;
}
