import type { FrameFigures } from '@fendrix/contract';
import { degrees } from '../units/angle.js';
import { solveLinear } from '../units/solveLinear.js';
import type { Cells } from './frameFigures.js';

interface GroundOfFrame extends Cells {
  /** Cells that show ground. */
  ground: readonly number[];
  /** Foot of the product, parts of the frame, and its height there. */
  foot: readonly [number, number];
  tall: number;
}

const DARKEST = 0.0005;
/** Less than this under the ground round it is no shadow, stops. */
const SEEN_STOPS = 0.3;
/** Fewer cells are no shadow. */
const FEWEST = 12;
/** As far from the foot as it is looked for, heights of the product. */
const REACH = 1.8;
/** What lies under the fitted ground counts this much less: it may be the shadow. */
const SHADOW_WEIGHT = 0.03;
const ROUNDS = 10;
/** Terms of a ground that brightens and darkens slowly. */
const terms = (x: number, y: number) => [1, x, y, x * x, x * y, y * y] as const;

/**
 * Where the shadow of a product falls in a frame: what lies under the ground as it would be without, which is fitted by a
 * quadratic in the picture that counts darker places little (asymmetric least squares, Eilers and Boelens 2005).
 * @returns null where none is seen
 */
export function shadowInFrame({
  width,
  height,
  grey,
  ground,
  foot,
  tall,
}: GroundOfFrame): FrameFigures['shadow'] {
  const aspect = width / height;
  const near = ground.flatMap((at) => {
    // In heights of the product from its foot, right and down.
    const right = ((((at % width) + 0.5) / width - foot[0]) * aspect) / tall;
    const down = ((Math.floor(at / width) + 0.5) / height - foot[1]) / tall;
    const stops = Math.log2(Math.max(DARKEST, grey[at] as number));
    return Math.hypot(right, down) <= REACH ? [{ right, down, stops }] : [];
  });
  if (near.length < 4 * FEWEST) return null;
  let fit: number[] = [];
  const under = (cell: (typeof near)[number]) =>
    terms(cell.right, cell.down).reduce((sum, term, i) => sum + term * (fit[i] ?? 0), 0) - cell.stops;
  for (let round = 0; round < ROUNDS; round++) {
    const rows = Array.from({ length: 6 }, () => new Float64Array(7));
    for (const cell of near) {
      const own = terms(cell.right, cell.down);
      const weight = round > 0 && under(cell) > 0 ? SHADOW_WEIGHT : 1;
      own.forEach((term, i) => {
        const row = rows[i] as Float64Array;
        own.forEach((other, j) => {
          row[j] = (row[j] as number) + weight * term * other;
        });
        row[6] = (row[6] as number) + weight * term * cell.stops;
      });
    }
    // So that a ground of few cells does not bend at will.
    rows.forEach((row, i) => {
      row[i] = (row[i] as number) + 1e-6;
    });
    fit = solveLinear(rows);
  }
  const shadow = near.map((cell) => ({ ...cell, by: under(cell) })).filter(({ by }) => by > SEEN_STOPS);
  if (shadow.length < FEWEST) return null;
  const whole = shadow.reduce((sum, { by }) => sum + by, 0);
  const along = (of: 'right' | 'down') => shadow.reduce((sum, cell) => sum + cell.by * cell[of], 0) / whole;
  const depths = shadow.map(({ by }) => by).sort((a, b) => a - b);
  const depthStops = depths[Math.floor(0.9 * depths.length)] as number;
  return {
    towardsDeg: degrees(Math.atan2(along('down'), along('right'))),
    depthStops,
    softPart: depths.filter((by) => by < depthStops / 2).length / depths.length,
  };
}
