/** A point of a drawing: right and down. */
export type Flat = [number, number];

/** Outline of the convex hull of points, counter-clockwise (Andrew's monotone chain). */
export function hull(points: readonly Flat[]): Flat[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly Flat[]) => {
    const chain: Flat[] = [];
    for (const point of list) {
      while (chain.length > 1 && turn(chain.at(-2) as Flat, chain.at(-1) as Flat, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}

const turn = (a: Flat, b: Flat, c: Flat) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
