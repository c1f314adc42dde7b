/** Strokes of each letter on a grid 4 wide and 6 high: runs of points as digit pairs x y, from the lower left. */
const STROKES: Record<string, string> = {
  A: '00 26 40|13 33',
  B: '00 06 36 45 44 33 03|33 42 41 30 00',
  C: '45 36 16 05 01 10 30 41',
  D: '00 06 26 44 42 20 00',
  E: '46 06 00 40|03 33',
  F: '46 06 00|03 33',
  G: '45 36 16 05 01 10 30 41 43 23',
  H: '00 06|40 46|03 43',
  I: '20 26',
  J: '46 41 30 10 01',
  K: '00 06|46 03 40',
  L: '06 00 40',
  M: '00 06 23 46 40',
  N: '00 06 40 46',
  O: '16 05 01 10 30 41 45 36 16',
  P: '00 06 36 45 44 33 03',
  Q: '16 05 01 10 30 41 45 36 16|22 40',
  R: '00 06 36 45 44 33 03|23 40',
  S: '45 36 16 05 04 13 33 42 41 30 10 01',
  T: '06 46|26 20',
  U: '06 01 10 30 41 46',
  V: '06 20 46',
  W: '06 10 23 30 46',
  X: '00 46|06 40',
  Y: '06 23 46|23 20',
  Z: '06 46 00 40',
  0: '16 05 01 10 30 41 45 36 16',
  1: '15 26 20|10 30',
  2: '05 16 36 45 44 00 40',
  3: '05 16 36 45 44 33 42 41 30 10 01|33 13',
  4: '30 36 02 42',
  5: '46 06 03 33 42 41 30 00',
  6: '45 36 16 05 01 10 30 41 42 33 03',
  7: '06 46 10',
  8: '13 04 05 16 36 45 44 33 13 02 01 10 30 41 42 33',
  9: '43 13 04 05 16 36 45 41 30 10 01',
  '.': '20 21',
  ',': '21 10',
  '-': '13 33',
  '+': '13 33|22 24',
  '/': '00 46',
  '&': '40 04 15 26 35 02 01 10 20 42',
};

/** Width of a letter with the space after it, and height of a line with the space under it, in grid units. */
const ADVANCE = 6;
const LINE = 9;
const HALF_STROKE = 0.45;
/** Pixels on the longer side of a lettered patch. */
const LONG_SIDE = 512;

export interface Lettering {
  widthPx: number;
  heightPx: number;
  /** Part of each pixel covered by ink, 0 to 1, row by row from the top left. */
  ink: Float32Array;
}

/** Letterings drawn before: the same label is asked for at every change of the set. */
const drawn = new Map<string, Lettering>();
const MOST_KEPT = 32;

/**
 * Lines of capitals, digits and a few signs, centred and as large as fits; other signs are left blank.
 * @param ratio width over height of the patch  @param border empty edge, part of the smaller side
 */
export function drawLettering(lines: readonly string[], ratio: number, border: number): Lettering {
  const key = JSON.stringify([lines, ratio, border]);
  const known = drawn.get(key);
  if (known) return known;
  const made = draw(lines, ratio, border);
  if (drawn.size >= MOST_KEPT) drawn.clear();
  drawn.set(key, made);
  return made;
}

function draw(lines: readonly string[], ratio: number, border: number): Lettering {
  const widthPx = Math.max(16, Math.round(ratio >= 1 ? LONG_SIDE : LONG_SIDE * ratio));
  const heightPx = Math.max(16, Math.round(ratio >= 1 ? LONG_SIDE / ratio : LONG_SIDE));
  const ink = new Float32Array(widthPx * heightPx);
  const edge = border * Math.min(widthPx, heightPx);
  const longest = Math.max(1, ...lines.map((line) => line.length));
  const unitPx = Math.min(
    (widthPx - 2 * edge) / (longest * ADVANCE - 2),
    (heightPx - 2 * edge) / (lines.length * LINE - 3),
  );
  if (!(unitPx > 0)) return { widthPx, heightPx, ink };
  const top = heightPx / 2 + (unitPx * (lines.length * LINE - 3)) / 2;
  lines.forEach((line, row) => {
    const left = (widthPx - unitPx * (line.length * ADVANCE - 2)) / 2;
    const baseline = top - unitPx * (row * LINE + 6);
    [...line.toUpperCase()].forEach((letter, column) => {
      const x = left + unitPx * ADVANCE * column;
      for (const stroke of (STROKES[letter] ?? '').split('|')) drawStroke(x, baseline, stroke);
    });
  });
  return { widthPx, heightPx, ink };

  function drawStroke(x: number, y: number, stroke: string): void {
    const points = stroke
      .split(' ')
      .filter((pair) => pair !== '')
      .map((pair) => [x + unitPx * Number(pair[0]), y + unitPx * Number(pair[1])] as const);
    for (let i = 0; i + 1 < points.length; i++) {
      drawSegment(points[i] as readonly [number, number], points[i + 1] as readonly [number, number]);
    }
  }

  /** Heights are from the bottom here, rows from the top in the picture. */
  function drawSegment(from: readonly [number, number], to: readonly [number, number]): void {
    const reach = HALF_STROKE * unitPx + 1;
    const dx = to[0] - from[0];
    const dy = to[1] - from[1];
    const squared = dx * dx + dy * dy;
    const firstX = Math.max(0, Math.floor(Math.min(from[0], to[0]) - reach));
    const lastX = Math.min(widthPx - 1, Math.ceil(Math.max(from[0], to[0]) + reach));
    const firstY = Math.max(0, Math.floor(Math.min(from[1], to[1]) - reach));
    const lastY = Math.min(heightPx - 1, Math.ceil(Math.max(from[1], to[1]) + reach));
    for (let py = firstY; py <= lastY; py++) {
      for (let px = firstX; px <= lastX; px++) {
        const ox = px + 0.5 - from[0];
        const oy = py + 0.5 - from[1];
        const t = Math.max(0, Math.min(1, (ox * dx + oy * dy) / squared));
        const away = Math.hypot(ox - t * dx, oy - t * dy);
        const cover = Math.max(0, Math.min(1, HALF_STROKE * unitPx - away + 0.5));
        const at = (heightPx - 1 - py) * widthPx + px;
        if (cover > (ink[at] as number)) ink[at] = cover;
      }
    }
  }
}
