import { defaultKit } from '@fendrix/catalogue';
import { setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  asMetered,
  atMoment,
  daylight,
  followDaylight,
  placeOf,
  stretches,
  studioWindows,
  sunPosition,
  throughWindow,
  type WindowLight,
  windowDay,
} from '../src/index.js';

const { studio } = defaultKit();
if (!studio) throw new Error('the kit has a studio');
const GREENWICH = { latitudeDeg: 51.4779, longitudeDeg: 0 };

describe('the sun', () => {
  test('stands where the reference algorithm puts it', () => {
    // Reda and Andreas 2004, the worked example: zenith 50.11162, azimuth 194.34024 degrees.
    const at = Date.UTC(2003, 9, 17, 19, 30, 30);
    const { elevationDeg, bearingDeg } = sunPosition(at, { latitudeDeg: 39.742476, longitudeDeg: -105.1786 });
    expect(Math.abs(elevationDeg - (90 - 50.11162))).toBeLessThan(0.02);
    expect(Math.abs(bearingDeg - 194.34024)).toBeLessThan(0.02);
  });

  test('is highest in the south at noon in midsummer, low in midwinter, under the horizon at night', () => {
    const summer = sunPosition(Date.UTC(2026, 5, 21, 12), GREENWICH);
    expect(summer.elevationDeg).toBeCloseTo(90 - 51.4779 + 23.436, 0);
    expect(Math.abs(summer.bearingDeg - 180)).toBeLessThan(2);
    expect(sunPosition(Date.UTC(2026, 11, 21, 12), GREENWICH).elevationDeg).toBeCloseTo(15.1, 0);
    expect(sunPosition(Date.UTC(2026, 11, 21, 0), GREENWICH).elevationDeg).toBeLessThan(-50);
    // South of the equator it stands in the north.
    const south = sunPosition(Date.UTC(2026, 5, 21, 12), { latitudeDeg: -35, longitudeDeg: 0 });
    expect(Math.min(south.bearingDeg, 360 - south.bearingDeg)).toBeLessThan(3);
  });

  test('rises in the east and sets in the west', () => {
    const morning = sunPosition(Date.UTC(2026, 2, 20, 7), GREENWICH);
    const evening = sunPosition(Date.UTC(2026, 2, 20, 17), GREENWICH);
    expect(Math.abs(morning.bearingDeg - 90)).toBeLessThan(15);
    expect(Math.abs(evening.bearingDeg - 270)).toBeLessThan(15);
  });
});

describe('daylight', () => {
  test('a high clear sun gives about a hundred thousand lux, an overcast sky a fifth of that, night none', () => {
    const clear = daylight(60, 'clear', 172);
    expect(clear.sunLx).toBeGreaterThan(90_000);
    expect(clear.sunLx).toBeLessThan(105_000);
    expect(clear.skyLx).toBeGreaterThan(12_000);
    expect(clear.skyLx).toBeLessThan(17_000);
    expect(daylight(60, 'overcast', 172)).toEqual({ skyLx: 300 + 21_000 * Math.sin(Math.PI / 3), sunLx: 0 });
    expect(daylight(-1, 'clear', 172)).toEqual({ skyLx: 0, sunLx: 0 });
    expect(daylight(3, 'clear', 1).sunLx).toBeLessThan(daylight(30, 'clear', 1).sunLx / 3);
  });
});

describe('a window', () => {
  const morning = Date.UTC(2026, 2, 20, 9);
  test('to the east has the morning sun from the side it stands at; to the north none; none under clouds', () => {
    const east = throughWindow(90, morning, GREENWICH, 'clear');
    expect(east.sun?.lx).toBeGreaterThan(30_000);
    expect(east.sun?.asideDeg).toBeGreaterThan(20);
    expect(throughWindow(0, morning, GREENWICH, 'clear').sun).toBeNull();
    expect(throughWindow(90, morning, GREENWICH, 'overcast').sun).toBeNull();
    // Around north the bearing goes through 360.
    expect(throughWindow(350, Date.UTC(2026, 5, 21, 4, 30), GREENWICH, 'clear').sun?.asideDeg).toBeCloseTo(
      64,
      -1,
    );
  });

  test('over a day: a south window has sun about noon, its sky is brightest then', () => {
    const { minutes, skyCdM2, hasSun } = windowDay(180, Date.UTC(2026, 2, 20), GREENWICH, 'clear');
    const sun = stretches(minutes, hasSun);
    expect(sun).toHaveLength(1);
    const [[from, to]] = sun as [[number, number]];
    expect(from).toBeGreaterThan(6 * 60);
    expect(to).toBeLessThan(18.5 * 60);
    expect(Math.abs((from + to) / 2 - 727)).toBeLessThan(20);
    const brightest = minutes[skyCdM2.indexOf(Math.max(...skyCdM2))] as number;
    expect(Math.abs(brightest - 727)).toBeLessThan(20);
    expect(skyCdM2[0]).toBe(0);
  });

  test('stretches join what holds side by side', () => {
    expect(stretches([0, 10, 20, 30, 40], [false, true, true, false, true])).toEqual([
      [10, 20],
      [40, 40],
    ]);
    expect(stretches([0, 10], [false, false])).toEqual([]);
  });
});

describe('a window of the studio at a moment', () => {
  const window = (facing: 'left' | 'back') => {
    const [own] = studioWindows(
      {
        ...studio,
        windows: [
          { name: 'W', wall: facing, fromLeftM: 1, sillM: 0.9, widthM: 1, heightM: 1.2, facesDeg: 90 },
        ],
      },
      ['A'],
    );
    return own as WindowLight;
  };
  const at = (hour: number) => Date.UTC(2026, 2, 20, hour);

  test('has the sun of the morning come in downwards, from the south of a window to the east', () => {
    const lit = atMoment(window('left'), 90, at(9), GREENWICH, 'clear');
    const [x, y, z] = lit.sun?.towards ?? [0, 0, 0];
    // The left wall: light goes to the right, and down.
    expect(x).toBeGreaterThan(0);
    expect(z).toBeLessThan(0);
    // South of east is clockwise of it: on the left wall, which faces left, that is towards the back.
    expect(y).toBeLessThan(0);
    expect(lit.sky).toBe('even');
    expect(setDocument.safeParse({ ...demoSet('mill'), lights: [lit] }).success).toBe(true);
  });

  test('grows in the morning and fades in the evening, has no sun under clouds, and is valid at night', () => {
    const drift = (hour: number) =>
      atMoment(window('back'), 90, at(hour), GREENWICH, 'overcast').driftStopsPerHour;
    expect(drift(8)).toBeGreaterThan(0);
    expect(drift(17)).toBeLessThan(0);
    const night = atMoment(window('back'), 90, at(1), GREENWICH, 'overcast');
    expect(night.sun).toBeUndefined();
    expect(setDocument.safeParse({ ...demoSet('mill'), lights: [night] }).success).toBe(true);
  });

  test('is as a meter found it: sky and sun stronger by so many stops', () => {
    const lit = atMoment(window('left'), 90, at(9), GREENWICH, 'clear');
    const metered = asMetered(lit, -1);
    const nits = ({ output }: WindowLight) => (output.kind === 'luminance' ? output.luminanceCdM2 : 0);
    expect(nits(metered)).toBeCloseTo(nits(lit) / 2, 6);
    expect(metered.sun?.illuminanceLx).toBeCloseTo((lit.sun?.illuminanceLx ?? 0) / 2, 6);
    expect(asMetered(lit, 0)).toEqual(lit);
  });

  test('is followed from a reading: what the sky differed by then lasts, between the times of the day too', () => {
    const day = windowDay(180, Date.UTC(2026, 2, 20), GREENWICH, 'overcast');
    const follows = followDaylight(day, { minute: 605, stops: 0.5 });
    const of = (minute: number) => follows?.[day.minutes.indexOf(minute)] as number;
    expect((of(600) + of(610)) / 2).toBeCloseTo(0.5, 2);
    const sky = (minute: number) => day.skyCdM2[day.minutes.indexOf(minute)] as number;
    expect(of(900) - of(720)).toBeCloseTo(Math.log2(sky(900) / sky(720)), 9);
    expect(of(0)).toBeNull();
    expect(followDaylight(day, { minute: 60, stops: 0 })).toBeNull();
  });

  test('is nowhere while it is not said where the studio is', () => {
    expect(placeOf({})).toBeNull();
    expect(placeOf({ latitudeDeg: 0, longitudeDeg: 0 })).toEqual({ latitudeDeg: 0, longitudeDeg: 0 });
  });
});
