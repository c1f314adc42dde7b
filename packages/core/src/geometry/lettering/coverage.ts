/**
 * How much of each pixel lies inside closed outlines, exactly, by the signed area that each of their lines leaves to its right:
 * a pixel's own part and what it hands on to the rest of its row. Outlines one way round are ink, the other way round holes;
 * where outlines overlap it stays ink.
 */
export class Coverage {
  private readonly areas: Float32Array;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.areas = new Float32Array(width * height + 1);
  }

  /** One piece of an outline, px from the top left. What lies beyond the left or right edge counts at the edge. */
  line(fromX: number, fromY: number, toX: number, toY: number): void {
    if (fromY === toY) return;
    const sign = fromY < toY ? 1 : -1;
    const [topX, topY, endX, endY] = sign > 0 ? [fromX, fromY, toX, toY] : [toX, toY, fromX, fromY];
    const slope = (endX - topX) / (endY - topY);
    const first = Math.max(0, Math.floor(topY));
    const last = Math.min(this.height - 1, Math.ceil(endY) - 1);
    for (let row = first; row <= last; row++) {
      const [y0, y1] = [Math.max(row, topY), Math.min(row + 1, endY)];
      if (y1 <= y0) continue;
      const [a, b] = [topX + (y0 - topY) * slope, topX + (y1 - topY) * slope].map((x) =>
        Math.max(0, Math.min(this.width, x)),
      ) as [number, number];
      this.alongRow(row * this.width, sign * (y1 - y0), Math.min(a, b), Math.max(a, b));
    }
  }

  /** Part of a line within one row. @param tall how much of the row it crosses, signed */
  private alongRow(start: number, tall: number, left: number, right: number): void {
    const { areas, width } = this;
    const firstColumn = Math.min(width - 1, Math.floor(left));
    const lastColumn = Math.min(width - 1, Math.max(firstColumn, Math.ceil(right) - 1));
    const across = right - left;
    for (let column = firstColumn; column <= lastColumn; column++) {
      const [x0, x1] = [Math.max(left, column), Math.min(right, column + 1)];
      const own = across > 1e-9 ? (tall * Math.max(0, x1 - x0)) / across : tall;
      // What lies right of the line within this pixel; the rest of the row is wholly right of it.
      const inside = own * (column + 1 - (x0 + x1) / 2);
      const at = start + column;
      areas[at] = (areas[at] as number) + inside;
      if (column + 1 < width) areas[at + 1] = (areas[at + 1] as number) + own - inside;
    }
  }

  /** Part of each pixel that is inside, 255 for all of it, row by row from the top left. */
  ink(): Uint8Array {
    const ink = new Uint8Array(this.width * this.height);
    for (let row = 0; row < this.height; row++) {
      let sum = 0;
      for (let x = 0; x < this.width; x++) {
        sum += this.areas[row * this.width + x] as number;
        ink[row * this.width + x] = Math.round(255 * Math.min(1, Math.abs(sum)));
      }
    }
    return ink;
  }
}
