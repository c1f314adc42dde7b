import { WEDGE_GREYS } from '@fendrix/core';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, test } from 'vitest';
import { wedgePdf } from '../src/index.js';
import { runsOf } from './printed.js';

describe.each(['A4', 'Letter'] as const)('the wedge on %s', (paper) => {
  test('each grey is printed twice, in rows that run against each other, with its number below', async () => {
    const bytes = await wedgePdf(paper);
    const { pages, runs } = await runsOf(bytes);
    expect(pages).toBe(1);
    const numbers = runs.filter(({ text }) => WEDGE_GREYS.some((grey) => String(grey) === text));
    const [top] = numbers;
    const upper = numbers.filter(({ y }) => Math.abs(y - (top?.y ?? 0)) < 1).sort((a, b) => a.x - b.x);
    const lower = numbers.filter(({ y }) => y < (top?.y ?? 0) - 50).sort((a, b) => a.x - b.x);
    expect(upper.map(({ text }) => Number(text))).toEqual([...WEDGE_GREYS]);
    expect(lower.map(({ text }) => Number(text))).toEqual([...WEDGE_GREYS].reverse());
    const page = await (await getDocument({ data: Uint8Array.from(bytes), verbosity: 0 }).promise).getPage(1);
    const { fnArray, argsArray } = await page.getOperatorList();
    const fills = fnArray.flatMap((fn, i) =>
      fn === OPS.setFillRGBColor ? [Number.parseInt(String(argsArray[i]?.[0]).slice(1, 3), 16)] : [],
    );
    for (const grey of WEDGE_GREYS.slice(1))
      expect(
        fills.filter((own) => own === grey),
        String(grey),
      ).toHaveLength(2);
  });

  test('a ruler tells whether it was printed at its size', async () => {
    const { runs } = await runsOf(await wedgePdf(paper));
    const [from, to] = ['0 cm', '5 cm'].map((text) => runs.find((run) => run.text === text));
    expect(((to?.x ?? 0) - (from?.x ?? 0)) / (72 / 25.4)).toBeCloseTo(50, 0);
  });
});
