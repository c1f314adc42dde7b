import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  ambientShare,
  CLIP_STOPS,
  DomainError,
  exposureValue100,
  F_NUMBERS,
  focalPlaneExposureLxS,
  formatPower,
  guideNumberM,
  ISO_SPEEDS,
  incidentIlluminanceLx,
  intensityTimeFromGuideNumberCdS,
  METER_C_DOME,
  meteredLuminanceCdM2,
  nearestStep,
  PAPER_WHITE_STOPS,
  printedSetting,
  SATURATION_LX_S,
  SHUTTERS,
  stopsBetweenFNumbers,
} from '../src/index.js';

const sunny = { fNumber: 8, shutterS: 1 / 125, iso: 100 };

describe('exposure, ISO 2720 and ISO 12232', () => {
  test('f/8, 1/125 s, ISO 100 in all its figures', () => {
    expect(exposureValue100(sunny)).toBeCloseTo(12.97, 2);
    expect(meteredLuminanceCdM2(sunny)).toBeCloseTo(1000, 9);
    expect(incidentIlluminanceLx(sunny)).toBeCloseTo(20_000, 9);
    expect(incidentIlluminanceLx(sunny, METER_C_DOME)).toBeCloseTo(26_400, 9);
    expect(focalPlaneExposureLxS(1000 / 125, 8)).toBeCloseTo(0.081, 3);
  });

  test('the sensor clips 3.26 stops above mid-tone and 0.8 above matte white', () => {
    expect(CLIP_STOPS).toBeCloseTo(3.26, 2);
    expect(CLIP_STOPS - PAPER_WHITE_STOPS).toBeCloseTo(0.79, 2);
    const midTone = focalPlaneExposureLxS(1000 / 125, 8);
    expect(Math.log2(SATURATION_LX_S / 100 / midTone)).toBeCloseTo(CLIP_STOPS, 9);
  });

  test('true stops between f-numbers', () => {
    expect(stopsBetweenFNumbers(2.8, 14)).toBeCloseTo(4.64, 2);
    expect(stopsBetweenFNumbers(5.6, 16)).toBeCloseTo(3.03, 2);
  });

  test('settings that are not above 0 are refused', () => {
    for (const wrong of [0, -1, Number.NaN]) {
      expect(() => meteredLuminanceCdM2({ ...sunny, fNumber: wrong })).toThrow(DomainError);
      expect(() => meteredLuminanceCdM2({ ...sunny, iso: wrong })).toThrow(DomainError);
    }
  });
});

describe('dials', () => {
  test('each printed figure lies nearer to its own true third than to any other', () => {
    for (const { printed, value } of F_NUMBERS) {
      expect(Math.abs(2 * Math.log2(Number(printed) / value))).toBeLessThan(1 / 6);
    }
    for (const { printed, value } of SHUTTERS) {
      const [top, bottom = '1'] = printed.split('/');
      expect(Math.abs(Math.log2(Number(top) / Number(bottom) / value))).toBeLessThan(1 / 6 + 0.01);
    }
    for (const { printed, value } of ISO_SPEEDS) {
      expect(Math.abs(Math.log2(Number(printed) / value))).toBeLessThan(0.03);
    }
  });

  test('each step is its own nearest, and prints as engraved', () => {
    for (const dial of [F_NUMBERS, SHUTTERS, ISO_SPEEDS]) {
      dial.forEach(({ printed, value }, i) => {
        expect(nearestStep(dial, value)).toBe(i);
        expect(printedSetting(dial, value)).toBe(printed);
      });
    }
  });

  test('equivalent exposures keep the metered luminance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 24 }), fc.integer({ min: 3, max: 24 }), (stop, shift) => {
        const open = F_NUMBERS[stop];
        const fast = SHUTTERS[stop + shift];
        const closed = F_NUMBERS[stop + 3];
        const slow = SHUTTERS[stop + shift + 3];
        if (!open || !fast || !closed || !slow) return;
        const one = meteredLuminanceCdM2({ fNumber: open.value, shutterS: fast.value, iso: 100 });
        const other = meteredLuminanceCdM2({ fNumber: closed.value, shutterS: slow.value, iso: 100 });
        expect(other / one).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('flash', () => {
  test('guide number 40 is 4000 cd s and back', () => {
    expect(intensityTimeFromGuideNumberCdS(40)).toBeCloseTo(4000, 9);
    expect(guideNumberM(4000)).toBeCloseTo(40, 9);
  });

  test('a 400 J bare tube at 35 lm/W has guide number 21', () => {
    const intensity = (400 * 35) / (4 * Math.PI);
    expect(intensity).toBeCloseTo(1114, 0);
    expect(guideNumberM(intensity)).toBeCloseTo(21.1, 1);
  });

  test('ambient share in stops and as a part', () => {
    expect(ambientShare(1, 31).stops).toBeCloseTo(-4.954, 3);
    expect(ambientShare(1, 31).fraction).toBeCloseTo(1 / 32, 9);
    expect(ambientShare(0, 0).fraction).toBeNull();
  });

  test('powers as on a head', () => {
    expect(formatPower(0)).toBe('1/1');
    expect(formatPower(-2)).toBe('1/4');
    expect(formatPower(-7 / 3)).toBe('1/4 −0.3');
  });
});
