/** Outlines of one typeface, in thousandths of its size. */
export interface Face {
  capHeight: number;
  /** How far letters reach under their line. */
  descent: number;
  /** Width and outline of each letter: moves, lines, quadratic and cubic curves, heights up from its line. */
  glyphs: Readonly<Record<string, readonly [advance: number, path: string]>>;
  /** What pairs of letters are set wider, or closer below 0. */
  kern: Readonly<Record<string, number>>;
}

export const PER_EM = 1000;

/** Straight pieces of a curve: at the size of a label their corners are under a twentieth of a pixel. */
const PIECES = 8;

/**
 * Takes the outline of a letter piece by piece, each curve as straight pieces. Points in units of `Face`.
 * @param line called for each piece, closed outlines: from one point to the next
 */
export function alongOutline(
  path: string,
  line: (fromX: number, fromY: number, toX: number, toY: number) => void,
): void {
  let [x, y, startX, startY] = [0, 0, 0, 0];
  const to = (nextX: number, nextY: number) => {
    line(x, y, nextX, nextY);
    [x, y] = [nextX, nextY];
  };
  for (const [, sign, words = ''] of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = words === '' ? [] : words.split(' ').map(Number);
    const at = (i: number) => n[i] as number;
    if (sign === 'M') {
      [x, y, startX, startY] = [at(0), at(1), at(0), at(1)];
    } else if (sign === 'L') {
      to(at(0), at(1));
    } else if (sign === 'Z') {
      to(startX, startY);
    } else {
      // A quadratic curve is a cubic one whose middle points lie two thirds of the way to its own.
      const [fromX, fromY] = [x, y];
      const third = (from: number, own: number) => from + (2 / 3) * (own - from);
      const [ax, ay, bx, by, endX, endY] =
        sign === 'C'
          ? [at(0), at(1), at(2), at(3), at(4), at(5)]
          : [
              third(fromX, at(0)),
              third(fromY, at(1)),
              third(at(2), at(0)),
              third(at(3), at(1)),
              at(2),
              at(3),
            ];
      for (let i = 1; i <= PIECES; i++) {
        const t = i / PIECES;
        const [p, q, r, s] = [(1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t ** 2, t ** 3];
        to(p * fromX + q * ax + r * bx + s * endX, p * fromY + q * ay + r * by + s * endY);
      }
    }
  }
}
