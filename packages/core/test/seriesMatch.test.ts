import type { FrameFigures } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { type SeriesCode, seriesMatch } from '../src/index.js';

const FIGURES: FrameFigures = {
  product: 'Bottle',
  heightM: 0.2,
  outline: { left: 0.4, top: 0.2, right: 0.6, bottom: 0.8 },
  leanDeg: 0,
  groundStops: 1,
  labelStops: 0.5,
  groundRgb: [1, 1, 1],
  shadow: { towardsDeg: 20, depthStops: 1, softPart: 0.4 },
  highlights: [
    { kind: 'sheet', tag: '1', name: 'White card', from: 0.1, to: 0.3 },
    { kind: 'light', tag: 'A', name: 'Softbox', from: 0.8, to: 0.9 },
  ],
  frameWidthM: 0.5,
  frameHeightM: 0.33,
  depthM: 1.2,
  whiteBalanceK: 5500,
};
const against = (changes: Partial<FrameFigures>, there: Partial<FrameFigures> = {}) => {
  const all = seriesMatch({ ...FIGURES, ...changes }, { ...FIGURES, ...there });
  return (code: SeriesCode) => {
    const found = all.find((own) => own.code === code);
    if (!found) throw new Error(`no ${code}`);
    return found;
  };
};

describe('a picture against another', () => {
  test('itself is alike in everything', () => {
    for (const { off, isOff, code } of seriesMatch(FIGURES, FIGURES)) {
      expect(off, code).toBeCloseTo(0, 9);
      expect(isOff, code).toBe(false);
    }
  });

  test('larger: the camera goes back by as much as makes it as tall', () => {
    const size = against({ outline: { left: 0.38, top: 0.14, right: 0.62, bottom: 0.8 } })('size');
    expect(size.off).toBeCloseTo(Math.log(1.1), 9);
    expect(size.change).toEqual({ code: 'camera-nearer', byM: expect.closeTo(-0.12, 9) });
  });

  test('a smaller product at the same scale is alike, and so is one shown as tall', () => {
    const small = { heightM: 0.1, outline: { left: 0.45, top: 0.5, right: 0.55, bottom: 0.8 } };
    expect(against(small)('size').isOff).toBe(false);
    expect(against({ ...small, outline: FIGURES.outline })('size').isOff).toBe(false);
    // In between it is neither.
    const between = { ...small, outline: { left: 0.42, top: 0.36, right: 0.58, bottom: 0.8 } };
    expect(against(between)('size').isOff).toBe(true);
  });

  test('lower and aside: raised and pushed by as much, in metres at the product', () => {
    const at = against({ outline: { left: 0.43, top: 0.22, right: 0.63, bottom: 0.82 } });
    expect(at('base-line').change).toEqual({ code: 'raise', byM: expect.closeTo(0.02 * 0.33, 9) });
    expect(at('place').change).toEqual({ code: 'push-right', byM: expect.closeTo(-0.03 * 0.5, 9) });
  });

  test('darker, leaning, warmer, with what brings it back', () => {
    const at = against({ groundStops: 0.6, leanDeg: -1.5, groundRgb: [1.2, 0.99, 0.7] });
    expect(at('ground-tone').change).toEqual({ code: 'more-light', byStops: expect.closeTo(0.4, 9) });
    expect(at('label-tone').isOff).toBe(false);
    expect(at('lean').change).toEqual({ code: 'lean-right', byDeg: 1.5 });
    const white = at('white');
    expect(white.off).toBeGreaterThan(20);
    // Warmer is met by a camera that is balanced for warmer light.
    expect(white.change?.code === 'white-balance' && white.change.toK).toBeLessThan(5000);
    expect(at('colour').off).toBeGreaterThan(5);
    expect(at('colour').change).toBeNull();
  });

  test('the shadow counts round the circle, and softness both ways', () => {
    const at = against(
      { shadow: { towardsDeg: -175, depthStops: 1, softPart: 0.7 } },
      { shadow: { towardsDeg: 178, depthStops: 1, softPart: 0.4 } },
    );
    expect(at('shadow-direction').off).toBeCloseTo(7, 9);
    expect(at('shadow-direction').isOff).toBe(false);
    expect(at('shadow-softness').change).toEqual({ code: 'harder' });
    const harder = against({ shadow: { towardsDeg: 20, depthStops: 1, softPart: 0.1 } });
    expect(harder('shadow-softness').change).toEqual({ code: 'softer' });
  });

  test('of several highlights the one that lies farthest off is told, by its name', () => {
    const [card, box] = FIGURES.highlights;
    if (!card || !box) throw new Error('no highlights');
    const moved = { ...box, from: 0.74, to: 0.84 };
    const highlight = against({ highlights: [card, moved] })('highlight');
    expect(highlight.change).toEqual({
      code: 'move-image',
      tag: 'A',
      name: 'Softbox',
      byPart: expect.closeTo(0.06, 9),
    });
    // One that is nowhere near is another one.
    expect(against({ highlights: [{ ...card, from: 0.5, to: 0.7 }] })('highlight').off).toBeNull();
  });

  test('what one of the two does not tell is not told of both', () => {
    const at = against({
      outline: null,
      leanDeg: null,
      groundStops: null,
      groundRgb: null,
      shadow: null,
      highlights: [],
    });
    for (const { code, off, isOff, change } of seriesMatch({ ...FIGURES, outline: null }, FIGURES))
      if (code === 'size' || code === 'place' || code === 'base-line')
        expect({ off, isOff, change }).toEqual({ off: null, isOff: false, change: null });
    for (const code of ['lean', 'ground-tone', 'white', 'colour', 'shadow-direction', 'highlight'] as const)
      expect(at(code).off).toBeNull();
    expect(at('label-tone').off).toBeCloseTo(0, 9);
  });
});
