/**
 * Solves linear equations by Gaussian elimination with pivots; the rows are used up.
 * @param rows of the matrix, each with its right side last
 * @returns the unknowns; all 0 where they are not told apart
 */
export function solveLinear(rows: Float64Array[]): number[] {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let j = i + 1; j < n; j++) {
      if (Math.abs(rows[j]?.[i] as number) > Math.abs(rows[pivot]?.[i] as number)) pivot = j;
    }
    [rows[i], rows[pivot]] = [rows[pivot] as Float64Array, rows[i] as Float64Array];
    const own = rows[i] as Float64Array;
    if (Math.abs(own[i] as number) < 1e-300) return new Array(n).fill(0);
    for (let j = 0; j < n; j++) {
      if (j === i) continue;
      const line = rows[j] as Float64Array;
      const factor = (line[i] as number) / (own[i] as number);
      for (let k = i; k <= n; k++) line[k] = (line[k] as number) - factor * (own[k] as number);
    }
  }
  return rows.map((row, i) => (row[n] as number) / (row[i] as number));
}
