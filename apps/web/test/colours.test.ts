import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';

const SOURCE = join(import.meta.dirname, '../src');
/** The theme itself, the tones of the mirror map, and what stands in where a page has no theme. */
const PALETTES = ['shared/theme.ts', 'shared/chartTheme.ts', 'features/bench/lens/hatch.ts'];
const COLOUR = /['"`](#[0-9a-f]{3,8}|rgba?\([\d., %]+\)|\d+px solid #)/i;

test('colours stand in the theme, nowhere else', () => {
  const sources = readdirSync(SOURCE, { recursive: true, encoding: 'utf8' }).filter((file) =>
    /\.tsx?$/.test(file),
  );
  expect(sources.length).toBeGreaterThan(100);
  const stray = sources
    .filter((file) => !PALETTES.includes(file))
    .filter((file) => COLOUR.test(readFileSync(join(SOURCE, file), 'utf8')));
  expect(stray).toEqual([]);
  expect(COLOUR.test("color: '#1c1c1c'") && COLOUR.test("bgcolor: 'rgba(0,0,0,0.5)'")).toBe(true);
});
