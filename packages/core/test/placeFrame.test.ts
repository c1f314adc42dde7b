import type { Plate, SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  exposedAs,
  momentOf,
  type PlacedAmong,
  placeFrame,
  placePlate,
  plannedFrames,
} from '../src/index.js';
import { plateOf } from './plate.js';

const at = (minutes: number) => new Date(Date.UTC(2026, 10, 30, 9, minutes)).toISOString();
const time = (minutes: number) => Date.parse(at(minutes));
const camera = (fNumber: number, shutterS: number, iso = 100) => ({ fNumber, shutterS, iso });
const bare = { ...demoSet('perry'), plates: [] };
const exposed = (...settings: Parameters<typeof camera>): SetDocument => ({
  ...bare,
  camera: { ...bare.camera, ...camera(...settings) },
});
const among: PlacedAmong[] = [
  { shot: { id: 'done', done: true, begunAt: at(0), takenAt: at(30), built: [] }, set: exposed(8, 1 / 125) },
  { shot: { id: 'now', done: false, begunAt: at(32), built: [] }, set: exposed(11, 1 / 125) },
  { shot: { id: 'next', done: false, built: [] }, set: exposed(5.6, 1 / 60) },
  { shot: { id: 'later', done: false, built: [] }, set: null },
];
const nothing = { exposureS: null, fNumber: null, iso: null };

describe('which picture a frame is of', () => {
  test('the one that was being taken at its time, whatever the settings', () => {
    expect(placeFrame(time(20), nothing, among)).toEqual({
      shot: 'done',
      plate: null,
      take: 'liquid-plate',
      by: 'time',
    });
    expect(placeFrame(time(31), nothing, among)).toEqual({
      shot: 'done',
      plate: null,
      take: 'liquid-plate',
      by: 'time',
    });
    expect(placeFrame(time(33), { exposureS: 1 / 60, fNumber: 5.6, iso: 100 }, among)).toEqual({
      shot: 'now',
      plate: null,
      take: 'liquid-plate',
      by: 'time',
    });
  });

  test('otherwise the first that is not taken and is exposed so', () => {
    const card = { exposureS: 1 / 60, fNumber: 5.6, iso: 100 };
    expect(placeFrame(null, card, among)).toEqual({
      shot: 'next',
      plate: null,
      take: 'liquid-plate',
      by: 'settings',
    });
    expect(placeFrame(time(-60), card, among)).toEqual({
      shot: 'next',
      plate: null,
      take: 'liquid-plate',
      by: 'settings',
    });
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

describe('which plate a frame is', () => {
  const plate = (id: string, changes: Partial<Plate> = {}) => plateOf({ id, name: id, ...changes });
  const lit = { lights: [{ tag: 'D', on: true, powerStops: -3 }] };
  const set: SetDocument = {
    ...exposed(11, 1 / 125),
    plates: [plate('dim', lit), plate('slow', { shutterS: 1 / 15 }), plate('dimmer', { ...lit, iso: 100 })],
  };
  const [base, dim, slow] = plannedFrames(set).map(({ key }) => key) as [string, string, string];
  const usual = { exposureS: 1 / 125, fNumber: 11, iso: 100 };

  test('the one that alone is exposed so, whatever was ticked', () => {
    expect(placePlate({ ...usual, exposureS: 1 / 15 }, set, [])).toBe('slow');
    expect(placePlate({ ...usual, exposureS: 1 / 15 }, set, [base, dim, slow])).toBe('slow');
  });

  test('of several the one that is due by what was ticked as taken; after the last tick, the last', () => {
    expect(placePlate(usual, set, [])).toBeNull();
    expect(placePlate(usual, set, [base])).toBe('dim');
    expect(placePlate(usual, set, [base, dim, slow])).toBe('dimmer');
    expect(
      placePlate(
        usual,
        set,
        plannedFrames(set).map(({ key }) => key),
      ),
    ).toBe('dimmer');
    // The slow one is due, but this frame is none of it.
    expect(placePlate(usual, set, [base, dim])).toBeNull();
    expect(placePlate(nothing, set, [base])).toBe('dim');
  });

  test('a tick holds for a frame as it was: one that is lit otherwise since is due again', () => {
    const changed = { ...set, plates: [plate('dim', { lights: [{ tag: 'D', on: true, powerStops: -6 }] })] };
    expect(placePlate(usual, changed, [base, dim])).toBe('dim');
  });

  test('a picture whose plate alone is exposed so is found by it', () => {
    const frame = { exposureS: 1 / 15, fNumber: 11, iso: 100 };
    const pictures = [...among.slice(2), { shot: { id: 'plates', done: false, built: [] }, set }];
    expect(placeFrame(null, frame, pictures)).toEqual({
      shot: 'plates',
      plate: 'slow',
      take: 'liquid-plate',
      by: 'settings',
    });
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
