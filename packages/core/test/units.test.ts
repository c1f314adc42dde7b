import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  DomainError,
  formatBearing,
  formatLength,
  formatStops,
  fromStand,
  parseBearingDeg,
  parseLengthM,
  parseStops,
  parseStopsRange,
  parseTimeS,
  toStand,
} from '../src/index.js';

describe('bearing, distance, height', () => {
  test('the four sides of the centre', () => {
    expect(toStand([0, -1, 0]).bearingDeg).toBeCloseTo(0);
    expect(toStand([1, 0, 0]).bearingDeg).toBeCloseTo(90);
    expect(toStand([-1, 0, 0]).bearingDeg).toBeCloseTo(-90);
    expect(Math.abs(toStand([0, 1, 0]).bearingDeg)).toBeCloseTo(180);
  });

  test('there and back without loss', () => {
    const coordinate = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
        const back = fromStand(toStand([x, y, z]));
        expect(Math.hypot(back[0] - x, back[1] - y, back[2] - z)).toBeLessThan(1e-12);
      }),
    );
  });

  test('a negative distance or NaN is refused', () => {
    expect(() => fromStand({ bearingDeg: 0, distanceM: -1, heightM: 0 })).toThrow(DomainError);
    expect(() => fromStand({ bearingDeg: Number.NaN, distanceM: 1, heightM: 0 })).toThrow(DomainError);
  });
});

describe('numbers as people type them', () => {
  test.each([
    ['45 cm', 0.45],
    ['45', 0.45],
    ['18 in', 0.4572],
    ['1m20', 1.2],
    ['1 m 5', 1.5],
    ['-2,5cm', -0.025],
    ['5 ft 3', 1.6002],
    ['90 mm', 0.09],
  ])('length %s', (text, metres) => expect(parseLengthM(text)).toBeCloseTo(metres, 9));

  test.each([
    ['72 left', -72],
    ['30° right', 30],
    ['behind', 180],
    ['-15', -15],
  ])('bearing %s', (text, bearing) => expect(parseBearingDeg(text)).toBe(bearing));

  test.each([
    ['+1/3', 1 / 3],
    ['-2', -2],
    ['1 2/3', 5 / 3],
    ['−0.7', -0.7],
    ['12/3', 4],
  ])('stops %s', (text, stops) => expect(parseStops(text)).toBeCloseTo(stops, 9));

  test.each(['', 'wide', '4 5 6', '1/0', '12 parsecs', '+'])('"%s" is nothing', (text) => {
    expect(parseLengthM(text)).toBeNull();
    expect(parseStops(text)).toBeNull();
    expect(parseBearingDeg(text)).toBeNull();
  });

  test.each([
    [0.0045, '4.5 mm'],
    [0.45, '45 cm'],
    [3.4, '340 cm'],
    [-0.2, '-20 cm'],
    [12.5, '12.5 m'],
    [100, '100 m'],
  ])('%f m is shown as %s', (metres, text) => expect(formatLength(metres)).toBe(text));

  test('shown lengths and bearings can be typed back', () => {
    fc.assert(
      fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (metres) => {
        expect(parseLengthM(formatLength(metres))).toBeCloseTo(metres, 2);
        expect(parseBearingDeg(formatBearing(metres * 5))).toBeCloseTo(metres * 5, 0);
      }),
    );
    expect(formatStops(-0.04)).toBe('0.0');
    expect(formatStops(-1.26)).toBe('−1.3');
  });
});

describe('ranges and times as typed', () => {
  test.each([
    ['+0.5 to +1.3', { from: 0.5, to: 1.3 }],
    ['-0.7', { from: -0.7, to: -0.7 }],
    ['+1/3', { from: 1 / 3, to: 1 / 3 }],
    ['up to −5', { from: -20, to: -5 }],
    ['1 to 0.5', { from: 1, to: 0.5 }],
  ])('%s', (text, range) => {
    const read = parseStopsRange(text, -20);
    expect(read?.from).toBeCloseTo(range.from, 9);
    expect(read?.to).toBeCloseTo(range.to, 9);
  });

  test.each(['', 'white', '1 to', '1 to 2 to 3', 'to 2'])('%j is no range', (text) => {
    expect(parseStopsRange(text, -20)).toBeNull();
  });

  test.each([
    ['1/800', 1 / 800],
    ['1.25 ms', 0.00125],
    ['1250 us', 0.00125],
    ['1250 µs', 0.00125],
    ['0,5 s', 0.5],
    ['2"', 2],
    ['0', 0],
    ['1/1250 s', 0.0008],
  ])('time %s', (text, seconds) => expect(parseTimeS(text)).toBeCloseTo(seconds, 12));

  test.each(['', '1/0', '-1/8', 'fast', '1 min', '1/8/2'])('%j is no time', (text) => {
    expect(parseTimeS(text)).toBeNull();
  });
});
