import type { PrintedWedge } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  fitPrinter,
  greyToPrint,
  ownPrinter,
  ownRecorder,
  ownWedge,
  type PrinterFit,
  printedReflectance,
  WEDGE_GREYS,
} from '../src/index.js';

const fitted = (wedge: PrintedWedge, seed: number) =>
  fitPrinter(wedge, ownRecorder(seed).response) as PrinterFit;

describe('a printer by its wedge', () => {
  test('of ten printers each tone is found within twice its error in nine of ten, and none is far off', () => {
    let within = 0;
    let all = 0;
    for (let seed = 1; seed <= 10; seed++) {
      const printed = ownPrinter(seed);
      for (const { grey, reflectance, error } of fitted(ownWedge(seed, 1, 0.18), seed).tones) {
        all++;
        // The card is read once: it moves all tones together by what it is read to.
        const cardError = 0.006 * reflectance;
        if (Math.abs(reflectance - printed(grey)) <= 2 * Math.hypot(error, cardError)) within++;
        expect(Math.abs(Math.log2(reflectance / printed(grey))), `${seed}, ${grey}`).toBeLessThan(0.08);
      }
    }
    expect(all).toBe(10 * WEDGE_GREYS.length);
    expect(within / all).toBeGreaterThanOrEqual(0.9);
  });

  test('a value printed for a reflectance sends back that, where the usual curve is off by a third of a stop', () => {
    let usualOff = 0;
    for (let seed = 1; seed <= 10; seed++) {
      const printed = ownPrinter(seed);
      const { tones } = fitted(ownWedge(seed, 2, 0.18), seed);
      const usual = WEDGE_GREYS.map((grey) => ({ grey, reflectance: ownPrinter(0)(grey), error: 0 }));
      for (const wanted of [0.08, 0.15, 0.3, 0.5, 0.7]) {
        const grey = greyToPrint(tones, wanted) as number;
        expect(Math.abs(Math.log2(printed(grey) / wanted)), `${seed}, ${wanted}`).toBeLessThan(0.1);
        const without = greyToPrint(usual, wanted);
        if (without !== null) usualOff = Math.max(usualOff, Math.abs(Math.log2(printed(without) / wanted)));
      }
    }
    expect(usualOff).toBeGreaterThan(0.33);
  });

  test('light that falls off across the sheet is found and taken out', () => {
    const plain = { slope: 1, bend: 0 };
    const value = (linear: number) => 255 * (1.055 * linear ** (1 / 2.4) - 0.055);
    const printed = (grey: number) => 0.04 + (0.78 * grey) / 255;
    const last = WEDGE_GREYS.length - 1;
    const lit = (right: number, upper: number) => 0.8 * 2 ** (0.4 * right + 0.2 * upper);
    const wedge: PrintedWedge = {
      cardReflectance: 0.18,
      card: value(0.18 * lit(0, 0)),
      patches: WEDGE_GREYS.map((grey, i) => {
        const right = i / last - 0.5;
        return {
          grey,
          upper: value(printed(grey) * lit(right, 0.5)),
          lower: value(printed(grey) * lit(-right, -0.5)),
        };
      }),
    };
    const found = fitPrinter(wedge, plain) as PrinterFit;
    expect(found.rightStops).toBeCloseTo(0.4, 6);
    expect(found.upperStops).toBeCloseTo(0.2, 6);
    for (const { grey, reflectance } of found.tones) expect(reflectance).toBeCloseTo(printed(grey), 9);
    expect(Math.max(...found.residualStops.map(Math.abs))).toBeLessThan(1e-9);
  });

  test('the curve never falls; what was misread is taken together with its neighbour and shows in what is left', () => {
    const wedge = ownWedge(3, 1, 0.18);
    const swapped = wedge.patches.map((patch, i) => ({
      ...patch,
      upper: wedge.patches[i === 4 ? 5 : i === 5 ? 4 : i]?.upper as number,
      lower: wedge.patches[i === 4 ? 5 : i === 5 ? 4 : i]?.lower as number,
    }));
    const { tones, residualStops } = fitted({ ...wedge, patches: swapped }, 3);
    for (let i = 1; i < tones.length; i++)
      expect(tones[i]?.reflectance).toBeGreaterThanOrEqual(tones[i - 1]?.reflectance as number);
    expect(Math.abs(residualStops[4] as number)).toBeGreaterThan(0.1);
    expect(tones[4]?.reflectance).toBe(tones[5]?.reflectance);
  });

  test('too little that was read says nothing', () => {
    const wedge = ownWedge(1, 1, 0.18);
    expect(fitPrinter({ ...wedge, patches: wedge.patches.slice(0, 2) })).toBeNull();
    expect(fitPrinter({ ...wedge, card: 0 })).toBeNull();
    expect(fitPrinter({ ...wedge, patches: wedge.patches.map((one) => ({ ...one, upper: 0 })) })).toBeNull();
  });

  test('between the patches it runs on; beyond ink and paper nothing can be printed', () => {
    const tones = [
      { grey: 0, reflectance: 0.04, error: 0 },
      { grey: 128, reflectance: 0.2, error: 0 },
      { grey: 255, reflectance: 0.82, error: 0 },
    ];
    expect(printedReflectance(tones, 128)).toBeCloseTo(0.2, 9);
    expect(printedReflectance(tones, 300)).toBeCloseTo(0.82, 9);
    for (const grey of [10, 90, 140, 250])
      expect(greyToPrint(tones, printedReflectance(tones, grey))).toBeCloseTo(grey, 6);
    expect(greyToPrint(tones, 0.03)).toBeNull();
    expect(greyToPrint(tones, 0.9)).toBeNull();
  });
});
