import { expect, test } from 'vitest';
import { drawGobo } from '../src/photometry/gobo.js';
import { strewLeaves } from '../src/photometry/leaves.js';

for (const [seed, tags] of [
  [1, []],
  [2, ['more']],
  [3, ['more']],
] as const)
  test(`leaves are shut where a point lies in any of them, seed ${seed}`, { tags: [...tags] }, () => {
    const gobo = { kind: 'leaves' as const, count: 9, sizePart: 0.22, seed };
    const { widthPx, heightPx, value } = drawGobo(gobo);
    const leaves = strewLeaves(9, 0.44, 2, 2, seed);
    const isOpen = (x: number, y: number) =>
      !leaves.some((leaf) => {
        const [dx, dy] = [x - leaf.x, y - leaf.y];
        const along = Math.cos(leaf.angleRad) * dx + Math.sin(leaf.angleRad) * dy;
        const across = Math.cos(leaf.angleRad) * dy - Math.sin(leaf.angleRad) * dx;
        return Math.hypot((2 * along) / leaf.lengthM, (2 * across) / leaf.widthM) <= 1;
      });
    let open = 0;
    for (let row = 0; row < heightPx; row++) {
      for (let column = 0; column < widthPx; column++) {
        const parts = [0.25, 0.75].flatMap((down) =>
          [0.25, 0.75].map((across): number =>
            isOpen((2 * (column + across)) / widthPx - 1, 1 - (2 * (row + down)) / heightPx) ? 0.25 : 0,
          ),
        );
        const wanted = parts.reduce((sum, part) => sum + part, 0);
        // Of a point on the very edge of a leaf either may be said.
        if (Math.abs((value[row * widthPx + column] as number) - wanted) > 0.25)
          throw new Error(`column ${column}, row ${row}`);
        open += wanted;
      }
    }
    const all = value.reduce((sum, own) => sum + own, 0);
    expect(Math.abs(all - open)).toBeLessThanOrEqual(2);
    expect(all / (widthPx * heightPx)).toBeGreaterThan(0.2);
    expect(all / (widthPx * heightPx)).toBeLessThan(0.9);
  });
