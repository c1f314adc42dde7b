import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type LabelledMark, type LabelPlace, labelPlaces } from '../src/features/bench/lens/labelPlaces';

fc.configureGlobal({ seed: 20261126 });

const WIDTH = 600;
const HEIGHT = 400;
const place = (...marks: LabelledMark[]) => labelPlaces(marks, WIDTH, HEIGHT);

describe('places of the labels of spots', () => {
  test('alone it stands to the right of its mark, at the right edge to the left', () => {
    expect(place({ x: 100, y: 200, text: 'label +1.0' })).toEqual([{ dx: 9, dy: 4, anchor: 'start' }]);
    expect(place({ x: 580, y: 200, text: 'label +1.0' })).toEqual([{ dx: -9, dy: 4, anchor: 'end' }]);
  });

  test('of two close by none covers the other or its mark', () => {
    const [upper, lower] = place(
      { x: 300, y: 200, text: 'body centre 0.0' },
      { x: 310, y: 204, text: 'body right −1.2' },
    );
    // The first would cover the second's mark on its right.
    expect(upper?.anchor).toBe('end');
    expect(lower?.anchor).toBe('start');
  });

  test('of three in a column each has its own line', () => {
    const marks = [0, 5, 10].map((step) => ({ x: 300, y: 200 + step, text: 'spot on the rim' }));
    const places = place(...marks);
    const lines = marks.map(({ y }, i) => `${places[i]?.anchor} ${Math.round(y + (places[i]?.dy ?? 0))}`);
    expect(new Set(lines).size).toBe(3);
  });

  test('in the corner it stays within the picture', () => {
    const [corner] = place({ x: 598, y: 1, text: 'a' });
    expect(corner?.anchor).toBe('end');
    expect(corner?.dy).toBeGreaterThan(9);
  });

  test('up to five anywhere in the picture lie within it, and none over another where lines are free', () => {
    const mark = fc.record({
      x: fc.integer({ min: 0, max: WIDTH }),
      y: fc.integer({ min: 0, max: HEIGHT }),
      text: fc.constantFrom('rim', 'label +1.3', 'shoulder left −0.3'),
    });
    fc.assert(
      fc.property(fc.array(mark, { minLength: 1, maxLength: 5 }), (marks) => {
        const places = place(...marks);
        const boxes = marks.map(({ x, y, text }, i) => {
          const { dx, dy, anchor } = places[i] as LabelPlace;
          const left = anchor === 'start' ? x + dx : x + dx - 6.3 * text.length;
          return { left, right: left + 6.3 * text.length, middle: y + dy - 4 };
        });
        for (const { left, right, middle } of boxes) {
          expect(left).toBeGreaterThanOrEqual(0);
          expect(right).toBeLessThanOrEqual(WIDTH);
          expect(middle).toBeGreaterThan(0);
          expect(middle).toBeLessThan(HEIGHT);
        }
        const covered = boxes.filter((a, i) =>
          boxes.some(
            (b, j) => i < j && a.left < b.right && b.left < a.right && Math.abs(a.middle - b.middle) < 12.9,
          ),
        );
        // Five marks in one spot can take all ten places between their own marks.
        const spread = marks.every((a, i) =>
          marks.every((b, j) => i === j || Math.hypot(a.x - b.x, a.y - b.y) > 40),
        );
        if (spread) expect(covered).toEqual([]);
      }),
    );
  });

  test('where there is no room at all there is still a label', () => {
    expect(labelPlaces([{ x: 10, y: 5, text: 'longer than the picture' }], 40, 10)).toHaveLength(1);
  });
});
