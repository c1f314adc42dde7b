// @vitest-environment jsdom
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { planFile } from '../src/features/bench/plan/planFile';
import { readSetFile } from '../src/features/sets/readSetFile';
import { fileName } from '../src/shared/saveFile';

const file = (content: string, name = 'set.json') => new File([content], name);

describe('a set from a file', () => {
  test.each(demoNames)('%s is read as it was written', async (name) => {
    expect(await readSetFile(file(JSON.stringify(demoSet(name))))).toEqual({ set: demoSet(name) });
  });

  test.each([
    ['no JSON', '{"format":', /“set.json” was not read: it is no JSON/],
    ['another document', '{"format":"fendrix-job"}', /it is no set/],
    ['a list', '[]', /it is no set/],
    ['nothing', 'null', /it is no set/],
  ])('%s is refused in words', async (_name, content, words) => {
    expect(await readSetFile(file(content))).toEqual({ refused: expect.stringMatching(words) });
  });

  test('what cannot be is named by its label, not by its path', async () => {
    const set = demoSet('cordial');
    const wrong = { ...set, camera: { ...set.camera, fNumber: -4 } };
    const read = await readSetFile(file(JSON.stringify(wrong)));
    expect(read).toEqual({ refused: expect.stringMatching(/must be at least/) });
    expect(JSON.stringify(read)).not.toMatch(/fNumber|camera\./);
  });

  test('one that is too large is not even read', async () => {
    const large = file('x');
    Object.defineProperty(large, 'size', { value: 25e6 });
    expect(await readSetFile(large)).toEqual({ refused: expect.stringContaining('at most 24 MB') });
  });
});

describe('a plan as a file', () => {
  const drawn = (pxPerM: number) => {
    document.body.innerHTML = `<svg width="400" height="300" role="group" aria-label="plan" data-px-per-m="${pxPerM}" style="x">
      <g tabindex="0" role="button" data-thing="light:A" style="outline: none"><path d="M0 0" stroke="#fff"></path>
      <path d="M1 1" stroke="transparent"></path></g></svg>`;
    return document.querySelector('svg') as SVGSVGElement;
  };

  test('is to scale, the largest that fits on A4, and says so', () => {
    const { svg, scale } = planFile(drawn(100), 'Bottle, from above', '#4a4a4a');
    // 4 m by 3 m: at 1:20 it would be 200 mm by 150 mm, at 1:10 wider than the sheet.
    expect(scale).toBe(20);
    expect(svg).toContain('width="200.00mm"');
    expect(svg).toContain('height="150.00mm"');
    expect(svg).toContain('Scale 1:20: 50 mm are 1 m');
    expect(planFile(drawn(2000), 'Ring', '#000').scale).toBe(2);
    expect(planFile(drawn(1), 'Hall', '#000').scale).toBe(200);
  });

  test('stands by itself: a background, no grips, nothing of the page; the page keeps its own', () => {
    const page = drawn(100);
    const { svg } = planFile(page, 'a <b> & c', '#4a4a4a');
    const read = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(read.querySelector('parsererror')).toBeNull();
    expect(read.querySelector('title')?.textContent).toBe('a <b> & c');
    expect(read.querySelector('rect')?.getAttribute('fill')).toBe('#4a4a4a');
    expect(svg).not.toMatch(/tabindex|data-thing|transparent|aria-label/);
    expect(page.querySelectorAll('path')).toHaveLength(2);
  });
});

test('names of files hold nothing that a file system refuses', () => {
  expect(fileName('Damson / cordial: "one"', 'png')).toBe('Damson  cordial one.png');
  expect(fileName('///', 'svg')).toBe('Fendrix.svg');
});
