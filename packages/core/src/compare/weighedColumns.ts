/** Something that changes the picture, stops for one of it, and how much of it is likely, one deviation. */
export interface Column {
  stops: Float64Array;
  deviation: number;
}

/** Columns of a fit, side by side, and sums of their products. Plain data: a frame is fitted on other threads. */
export interface WeighedColumns {
  count: number;
  /** Stops of all columns at the first value of the picture, then at the next. */
  stops: Float64Array;
  deviations: Float64Array;
  /** How each value weighs in the sums. */
  weights: Float64Array;
  /** Sums over all values of weight times column times column: the lower half, row by row. */
  products: Float64Array;
}

export function weighedColumns(columns: readonly Column[], weights: Float64Array): WeighedColumns {
  const count = columns.length;
  const stops = new Float64Array(count * weights.length);
  columns.forEach((own, a) => {
    for (let k = 0; k < weights.length; k++) stops[k * count + a] = own.stops[k] as number;
  });
  const sums: WeighedColumns = {
    count,
    stops,
    deviations: Float64Array.from(columns, ({ deviation }) => deviation),
    weights: new Float64Array(weights.length),
    products: new Float64Array((count * (count + 1)) / 2),
  };
  weights.forEach((weight, k) => {
    weigh(sums, k, weight);
  });
  return sums;
}

/** Another weight for a value: of the sums only what that changes is worked out. */
export function weigh({ count, stops, weights, products }: WeighedColumns, k: number, weight: number): void {
  const more = weight - (weights[k] as number);
  if (more === 0) return;
  weights[k] = weight;
  const first = k * count;
  let at = 0;
  for (let a = 0; a < count; a++) {
    const own = more * (stops[first + a] as number);
    for (let b = 0; b <= a; b++, at++)
      products[at] = (products[at] as number) + own * (stops[first + b] as number);
  }
}

/** The sum of products of two columns. */
export function productOf({ products }: WeighedColumns, a: number, b: number): number {
  const [row, column] = a >= b ? [a, b] : [b, a];
  return products[(row * (row + 1)) / 2 + column] as number;
}

/** Sums over all values of weight times column times a value. */
export function productsWith({ count, stops, weights }: WeighedColumns, values: Float64Array): Float64Array {
  const sums = new Float64Array(count);
  for (let k = 0, at = 0; k < values.length; k++) {
    const value = (weights[k] as number) * (values[k] as number);
    for (let a = 0; a < count; a++, at++) sums[a] = (sums[a] as number) + value * (stops[at] as number);
  }
  return sums;
}

/** Values less so much of each column. @param into may be the values */
export function takenOff(
  { count, stops }: WeighedColumns,
  values: Float64Array,
  parts: readonly number[],
  into: Float64Array,
): void {
  const times = Float64Array.from(parts);
  for (let k = 0, at = 0; k < values.length; k++) {
    let value = values[k] as number;
    for (let a = 0; a < count; a++, at++) value -= (times[a] as number) * (stops[at] as number);
    into[k] = value;
  }
}
