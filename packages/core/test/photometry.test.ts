import type { Vector } from '@fendrix/contract';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  DomainError,
  discOnAxisLx,
  polygonIlluminanceLx,
  rectangleCorners,
  rectangleOnAxisLx,
} from '../src/index.js';

const up: Vector = [0, 0, 1];

/** A rectangle over the receiver at the origin, facing down: counter-clockwise seen from below. */
const overhead = (width: number, height: number, distance: number) =>
  rectangleCorners([0, 0, distance], [-1, 0, 0], [0, 1, 0], width, height);

describe('closed forms of illuminance', () => {
  test.each([
    [0.3, 1995.1],
    [0.5, 1237.6],
    [1, 453.05],
    [2, 128.75],
  ])('0.6 x 0.9 m, 1000 cd/m2 at %f m', (distance, lux) => {
    expect(rectangleOnAxisLx(0.6, 0.9, distance, 1000) / lux).toBeCloseTo(1, 4);
    expect(polygonIlluminanceLx(overhead(0.6, 0.9, distance), [0, 0, 0], up, 1000) / lux).toBeCloseTo(1, 4);
  });

  test('point-source arithmetic is 0.80 stop too bright at 0.5 m', () => {
    const asPoint = (1000 * 0.6 * 0.9) / 0.5 ** 2;
    expect(Math.log2(asPoint / rectangleOnAxisLx(0.6, 0.9, 0.5, 1000))).toBeCloseTo(0.8, 2);
  });

  test('a disc, and a polygon of 256 corners that comes near it', () => {
    expect(discOnAxisLx(0.3, 1, 1000)).toBeCloseTo(259.4, 1);
    const round = Array.from({ length: 256 }, (_, i): Vector => {
      const angle = (-2 * Math.PI * i) / 256;
      return [0.3 * Math.cos(angle), 0.3 * Math.sin(angle), 1];
    });
    expect(polygonIlluminanceLx(round, [0, 0, 0], up, 1000)).toBeCloseTo(259.4, 0);
  });

  test('a polygon half below the horizon counts with its upper half, one wholly below not at all', () => {
    const wall = (low: number, high: number): Vector[] => [
      [-0.5, 1, low],
      [0.5, 1, low],
      [0.5, 1, high],
      [-0.5, 1, high],
    ];
    const whole = polygonIlluminanceLx(wall(-1, 1), [0, 0, 0], up, 1000);
    expect(whole).toBeCloseTo(polygonIlluminanceLx(wall(0, 1), [0, 0, 0], up, 1000), 6);
    expect(whole).toBeGreaterThan(0);
    expect(polygonIlluminanceLx(wall(-1, -0.2), [0, 0, 0], up, 1000)).toBe(0);
  });

  test('two halves give what the whole gives', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.9, max: 0.9, noNaN: true }), (cut) => {
        const piece = (x0: number, x1: number): Vector[] => [
          [x0, 0.4, 1],
          [x1, 0.4, 1],
          [x1, -0.4, 1],
          [x0, -0.4, 1],
        ];
        const light = (polygon: Vector[]) => polygonIlluminanceLx(polygon, [0.2, 0, 0], up, 100);
        expect(light(piece(-1, 1))).toBeGreaterThan(50);
        expect(light(piece(-1, cut)) + light(piece(cut, 1))).toBeCloseTo(light(piece(-1, 1)), 6);
      }),
    );
  });

  test('what cannot be is refused', () => {
    expect(() => polygonIlluminanceLx(overhead(1, 1, 1).slice(2), [0, 0, 0], up, 1)).toThrow(DomainError);
    expect(() => rectangleOnAxisLx(1, 1, 0, 1)).toThrow(DomainError);
    expect(() => discOnAxisLx(1, 1, Number.NaN)).toThrow(DomainError);
  });
});
