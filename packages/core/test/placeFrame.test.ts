import { describe, expect, test } from 'vitest';
import { exposedAs, momentOf, type PlacedAmong, placeFrame } from '../src/index.js';

const at = (minutes: number) => new Date(Date.UTC(2026, 10, 30, 9, minutes)).toISOString();
const time = (minutes: number) => Date.parse(at(minutes));
const camera = (fNumber: number, shutterS: number, iso = 100) => ({ fNumber, shutterS, iso });
const among: PlacedAmong[] = [
  { shot: { id: 'done', done: true, begunAt: at(0), takenAt: at(30) }, camera: camera(8, 1 / 125) },
  { shot: { id: 'now', done: false, begunAt: at(32) }, camera: camera(11, 1 / 125) },
  { shot: { id: 'next', done: false }, camera: camera(5.6, 1 / 60) },
  { shot: { id: 'later', done: false }, camera: null },
];
const nothing = { exposureS: null, fNumber: null, iso: null };

describe('which picture a frame is of', () => {
  test('the one that was being taken at its time, whatever the settings', () => {
    expect(placeFrame(time(20), nothing, among)).toEqual({ shot: 'done', by: 'time' });
    expect(placeFrame(time(31), nothing, among)).toEqual({ shot: 'done', by: 'time' });
    expect(placeFrame(time(33), { exposureS: 1 / 60, fNumber: 5.6, iso: 100 }, among)).toEqual({
      shot: 'now',
      by: 'time',
    });
  });

  test('otherwise the first that is not taken and is exposed so', () => {
    const card = { exposureS: 1 / 60, fNumber: 5.6, iso: 100 };
    expect(placeFrame(null, card, among)).toEqual({ shot: 'next', by: 'settings' });
    expect(placeFrame(time(-60), card, among)).toEqual({ shot: 'next', by: 'settings' });
    // Exposed as one that is taken already: of no picture that is known.
    expect(placeFrame(null, { exposureS: 1 / 125, fNumber: 8, iso: 100 }, among)).toBeNull();
  });

  test('nothing where nothing tells it', () => {
    expect(placeFrame(null, nothing, among)).toBeNull();
    expect(placeFrame(time(20), nothing, [])).toBeNull();
  });

  test('rounded figures are the same, a third of a stop is not, a figure left out says nothing', () => {
    expect(exposedAs({ exposureS: 0.0125, fNumber: 11.3, iso: 100 }, camera(11, 1 / 80))).toBe(true);
    expect(exposedAs({ exposureS: 1 / 100, fNumber: 11, iso: 100 }, camera(11, 1 / 80))).toBe(false);
    expect(exposedAs({ exposureS: null, fNumber: 11, iso: null }, camera(11, 1 / 80))).toBe(true);
    expect(exposedAs({ exposureS: null, fNumber: 8, iso: null }, camera(11, 1 / 80))).toBe(false);
  });
});

describe('when a frame was taken', () => {
  test('what came while the folder was watched, when it came; what was copied later, by the camera put right', () => {
    expect(momentOf({ live: true, arrivedAt: at(10), takenAt: at(-170) }, null)).toBe(time(10));
    const off = time(10) - time(-170);
    expect(momentOf({ live: false, arrivedAt: at(300), takenAt: at(-160) }, off)).toBe(time(20));
    expect(momentOf({ live: false, arrivedAt: at(300), takenAt: at(20) }, null)).toBe(time(20));
    expect(momentOf({ live: false, arrivedAt: at(300), takenAt: null }, off)).toBeNull();
  });
});
