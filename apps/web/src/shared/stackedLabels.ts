/**
 * Heights of labels that begin at the same side: each where it belongs, or as far below as the ones before it need.
 * @param wanted top of each label, px, in the order in which they are placed
 * @param linePx height of a line
 */
export function stackedLabels(wanted: readonly number[], linePx: number): number[] {
  const placed: number[] = [];
  for (const top of wanted) {
    let free = top;
    for (const other of placed.toSorted((a, b) => a - b)) {
      if (Math.abs(free - other) < linePx) free = other + linePx;
    }
    placed.push(free);
  }
  return placed;
}
