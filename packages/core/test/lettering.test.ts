import { setDocument, typeface } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { Coverage } from '../src/geometry/lettering/coverage.js';
import { drawLettering, type Lettering, type Words } from '../src/geometry/lettering/drawLettering.js';
import { alongOutline } from '../src/geometry/lettering/face.js';
import { faceOf } from '../src/geometry/lettering/faces.js';

const words = (own: Partial<Words> & Pick<Words, 'lines'>): Words => ({
  typeface: 'sans bold',
  border: 0.1,
  ratio: 1.5,
  ...own,
});

/** Rows and columns between which there is ink, px. */
function inked({ widthPx, heightPx, ink }: Lettering) {
  const columns = Array.from({ length: widthPx }, (_, x) => x).filter((x) =>
    Array.from({ length: heightPx }, (_, y) => ink[y * widthPx + x] as number).some((value) => value > 12),
  );
  const rows = Array.from({ length: heightPx }, (_, y) => y).filter((y) =>
    ink.subarray(y * widthPx, (y + 1) * widthPx).some((value) => value > 12),
  );
  return { columns, rows };
}
/** Stretches of rows with ink: the lines, top to bottom. */
const stretches = (rows: readonly number[]): number[] =>
  rows
    .reduce<number[][]>((all, row) => {
      const last = all.at(-1);
      if (last && last.at(-1) === row - 1) last.push(row);
      else all.push([row]);
      return all;
    }, [])
    .map((own) => own.length);

describe('how much of a pixel is inside an outline', () => {
  const area = (points: readonly (readonly [number, number])[], coverage = new Coverage(6, 4)) => {
    points.forEach(([x, y], i) => {
      const [toX, toY] = points[(i + 1) % points.length] as readonly [number, number];
      coverage.line(x, y, toX, toY);
    });
    return coverage.ink();
  };

  test('is exact: a square off the grid, a triangle, a hole, an overlap, what lies beyond the edges', () => {
    const square = area([
      [1.5, 0.25],
      [3.5, 0.25],
      [3.5, 1.25],
      [1.5, 1.25],
    ]);
    expect([...square.subarray(0, 12)]).toEqual([0, 96, 191, 96, 0, 0, 0, 32, 64, 32, 0, 0]);
    const triangle = area([
      [0, 0],
      [4, 0],
      [0, 4],
    ]);
    expect(triangle.reduce((sum, value) => sum + value, 0) / 255).toBeCloseTo(8, 1);
    expect(triangle[3]).toBe(128);
    const holed = new Coverage(6, 4);
    area(
      [
        [0, 0],
        [4, 0],
        [4, 4],
        [0, 4],
      ],
      holed,
    );
    const ring = area(
      [
        [1, 1],
        [1, 3],
        [3, 3],
        [3, 1],
      ],
      holed,
    );
    expect([ring[0], ring[7], ring[8], ring[21]]).toEqual([255, 0, 0, 255]);
    const twice = new Coverage(6, 4);
    area(
      [
        [0, 0],
        [3, 0],
        [3, 2],
        [0, 2],
      ],
      twice,
    );
    expect([
      ...area(
        [
          [1, 0],
          [5, 0],
          [5, 2],
          [1, 2],
        ],
        twice,
      ).subarray(0, 6),
    ]).toEqual([255, 255, 255, 255, 255, 0]);
    const beyond = area([
      [-3, -2],
      [9, -2],
      [9, 9],
      [-3, 9],
    ]);
    expect(beyond.every((value) => value === 255)).toBe(true);
  });
});

describe('words on goods', () => {
  test('are as large as fits, within the border, in the middle', () => {
    const drawn = drawLettering(words({ lines: ['OX', 'A'] }));
    expect(drawn.widthPx / drawn.heightPx).toBeCloseTo(1.5, 1);
    const { columns, rows } = inked(drawn);
    const edge = 0.1 * drawn.heightPx;
    expect(rows[0]).toBeGreaterThanOrEqual(Math.floor(edge) - 3);
    expect(rows.at(-1)).toBeLessThanOrEqual(drawn.heightPx - edge + 3);
    expect((rows.at(-1) as number) - (rows[0] as number)).toBeGreaterThan(0.75 * drawn.heightPx);
    expect((columns[0] as number) + (columns.at(-1) as number)).toBeCloseTo(drawn.widthPx, -1.3);
    const part = drawn.ink.reduce((sum, value) => sum + value, 0) / drawn.ink.length / 255;
    expect(part).toBeGreaterThan(0.08);
    expect(part).toBeLessThan(0.5);
    expect(drawLettering(words({ lines: ['', ' '] })).ink.every((value) => value === 0)).toBe(true);
  });

  test('in a heavier typeface take more ink, in a narrow one less room', () => {
    const part = (face: Words['typeface']) => {
      const { ink } = drawLettering(
        words({ lines: ['HAMBURG', 'BERGEDORF', 'H'], typeface: face, ratio: 2.4 }),
      );
      return ink.reduce((sum, value) => sum + value, 0) / ink.length;
    };
    expect(part('sans bold')).toBeGreaterThan(1.2 * part('sans'));
    expect(part('sans black')).toBeGreaterThan(1.1 * part('sans bold'));
    const { columns } = inked(drawLettering(words({ lines: ['WATERMARK', 'A', 'A', 'A'], ratio: 4 })));
    const narrow = inked(
      drawLettering(words({ lines: ['WATERMARK', 'A', 'A', 'A'], typeface: 'narrow bold', ratio: 4 })),
    );
    expect(narrow.columns.length).toBeLessThan(0.92 * columns.length);
  });

  test('have head lines larger by their factor, and an empty line parts them from the rest', () => {
    const lines = ['HH', 'HH', 'HH'];
    const [head = 0, second = 0, third = 0] = stretches(
      inked(drawLettering(words({ lines, ratio: 0.5, head: { lines: 1, typeface: 'sans bold', size: 2 } })))
        .rows,
    );
    expect(head / second).toBeCloseTo(2, 1);
    expect(third).toBeCloseTo(second, -0.5);
    expect(stretches(inked(drawLettering(words({ lines: ['H', '', 'H'], ratio: 1 }))).rows)).toHaveLength(2);
  });

  test('are set with pairs closer, small letters under their line; what a typeface lacks is left blank', () => {
    const wide = (line: string) => {
      const { columns } = inked(drawLettering(words({ lines: [line], ratio: 8 })));
      return (columns.at(-1) as number) - (columns[0] as number);
    };
    expect(wide('AVAV')).toBeLessThan(wide('AAVV'));
    expect(inked(drawLettering(words({ lines: ['g'], ratio: 1 }))).rows.length).toBeGreaterThan(0);
    expect(drawLettering(words({ lines: ['\u4e2d'] })).ink.every((value) => value === 0)).toBe(true);
  });

  test('have every letter, figure and common sign in every typeface, each a closed outline', () => {
    for (const name of typeface.options) {
      const { glyphs } = faceOf(name);
      for (const letter of 'ABCXYZabcxyz0123456789&.,-+/%ÄÖÜßéñ') {
        const glyph = glyphs[letter];
        expect(glyph, `${letter} in ${name}`).toBeDefined();
        let [ends, pieces] = [0, 0];
        alongOutline(glyph?.[1] ?? '', (fromX, fromY, toX, toY) => {
          ends += toX - fromX + (toY - fromY);
          pieces++;
        });
        expect(pieces, `${letter} in ${name}`).toBeGreaterThan(3);
        expect(Math.abs(ends), `${letter} in ${name}`).toBeLessThan(1e-6);
      }
    }
  });

  test('of a set from before have a typeface, and no head', () => {
    const before = JSON.stringify(demoSet('tent')).replace(/"typeface":"[^"]*",|"head":\{[^}]*\},/g, '');
    const set = setDocument.parse(JSON.parse(before));
    expect(JSON.stringify(set)).toContain('"typeface":"sans bold"');
  });
});
