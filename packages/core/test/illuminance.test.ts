import type { Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  illuminanceByLight,
  joinedTrace,
  lightLuminance,
  polygonIlluminanceLx,
  prepareTracing,
  rectangleOnAxisLx,
  spotReading,
  traceSpot,
  vector,
} from '../src/index.js';
import { faceCornersOf } from './faces.js';
import { matte, overheadSoftbox, surroundLight, testSet } from './sets.js';

const up: Vector = [0, 0, 1];
const direct = { samples: 16_384, seed: 1, directOnly: true };

describe('illuminance of an unhidden light', () => {
  test.each([0.3, 0.5, 1, 2])('softbox on its axis at %f m is the closed form within 0.1 %%', (distance) => {
    const set = testSet({ lights: [overheadSoftbox(distance)] });
    const [share] = illuminanceByLight(prepareTracing(set), [0, 0, 0], up, direct);
    const expected = rectangleOnAxisLx(0.6, 0.9, distance, 1);
    expect(Math.abs((share?.direct ?? 0) / expected - 1)).toBeLessThan(1e-3);
    expect(share?.indirect).toBe(0);
  });

  test('a tilted softbox on a tilted receiver, partly below its horizon, is the edge sum', () => {
    const light = {
      ...overheadSoftbox(1),
      positionM: [-0.5, -0.2, 0.3] as Vector,
      aimM: [0.1, 0, 0.1] as Vector,
      rollDeg: 20,
    };
    const set = testSet({ lights: [light] });
    for (const normal of [up, vector.normalise([0.2, -1, 0.3]), vector.normalise([-1, 0, -0.4])]) {
      const point: Vector = [0.05, 0.02, 0.1];
      const expected = polygonIlluminanceLx(faceCornersOf(set, 'A'), point, normal, 1);
      const [share] = illuminanceByLight(prepareTracing(set), point, normal, direct);
      expect(expected).toBeGreaterThan(0.01);
      expect(Math.abs((share?.direct ?? 0) / expected - 1)).toBeLessThan(2e-3);
    }
  });

  test('a bare lamp is pi L (R/d)^2, near and far', () => {
    for (const distance of [0.1, 1, 4]) {
      const set = testSet({
        lights: [
          {
            kind: 'bare-lamp',
            tag: 'A',
            name: 'Lamp',
            positionM: [0, 0, distance],
            radiusM: 0.03,
            output: { kind: 'lumens', lumens: 1000 },
          },
        ],
      });
      const [light] = set.lights;
      if (!light) throw new Error('the lamp was made');
      const [share] = illuminanceByLight(prepareTracing(set), [0, 0, 0], up, direct);
      const lux = (share?.direct ?? 0) * lightLuminance(light).luminance;
      expect(lux / (1000 / (4 * Math.PI * distance ** 2))).toBeCloseTo(1, 3);
    }
  });

  test('a flag hides the half of a light that it covers', () => {
    const flag = {
      kind: 'flag' as const,
      tag: '1',
      name: 'Flag',
      positionM: [0.25, 0, 0.5] as Vector,
      aimM: [0.25, 0, 0] as Vector,
      widthM: 0.5,
      heightM: 2,
      front: matte(0.04),
      back: matte(0.04),
    };
    const open = testSet({ lights: [overheadSoftbox(1)] });
    const cut = testSet({ lights: [overheadSoftbox(1)], sheets: [flag] });
    const of = (set: typeof open) =>
      illuminanceByLight(prepareTracing(set), [0, 0, 0], up, direct)[0]?.direct ?? 0;
    expect(of(cut) / of(open)).toBeCloseTo(0.5, 3);
  });

  test('an even surround gives pi L to a free plane', () => {
    const [share] = illuminanceByLight(
      prepareTracing(testSet({ lights: [surroundLight] })),
      [0, 0, 0],
      up,
      direct,
    );
    expect(share?.direct).toBeCloseTo(Math.PI, 6);
  });
});

describe('outputs of a light', () => {
  const luminance = (output: object, more: object = {}) => {
    const set = testSet({ lights: [overheadSoftbox(1, { output, ...more })] });
    return lightLuminance(set.lights[0] as (typeof set.lights)[number]);
  };
  const axisLux = (output: object, more: object = {}) => {
    const set = testSet({ lights: [overheadSoftbox(1, { output, ...more })] });
    const [share] = illuminanceByLight(prepareTracing(set), [0, 0, 0], up, direct);
    return (share?.direct ?? 0) * lightLuminance(set.lights[0] as (typeof set.lights)[number]).luminance;
  };

  test('flash energy: flux over pi times the face', () => {
    const { time, luminance: value } = luminance({
      kind: 'flash-energy',
      energyJ: 400,
      efficacyLmSPerJ: 35,
      modifierEfficiency: 0.5,
    });
    expect(time).toBe('flash');
    expect(value).toBeCloseTo(7000 / (Math.PI * 0.54), 6);
  });

  test('guide number: far-field intensity over the face', () => {
    expect(luminance({ kind: 'guide-number', guideNumberM: 40 }).luminance).toBeCloseTo(4000 / 0.54, 6);
  });

  test('power in stops', () => {
    const output = { kind: 'lumens', lumens: 1000 };
    expect(luminance(output, { powerStops: -2 }).luminance * 4).toBeCloseTo(luminance(output).luminance, 9);
  });

  test.each([
    ['even', {}],
    ['hot centre', { hotCentre: 2.2 }],
    ['grid', { grid: { cutoffDeg: 40, lossStops: 0.7 } }],
  ])('lux at 1 m is what a meter reads there: %s', (_name, more) => {
    expect(axisLux({ kind: 'illuminance', luxAt1M: 800 }, more) / 800).toBeCloseTo(1, 3);
    expect(axisLux({ kind: 'flash-exposure', luxSecondsAt1M: 90 }, more) / 90).toBeCloseTo(1, 3);
  });

  test('a grid costs its loss straight ahead and everything beyond its cut-off', () => {
    const output = { kind: 'lumens', lumens: 1000 };
    const grid = { cutoffDeg: 30, lossStops: 1 };
    expect(luminance(output, { grid }).luminance * 2).toBeCloseTo(luminance(output).luminance, 9);
    const set = testSet({ lights: [overheadSoftbox(1, { grid })] });
    const beyond = 0.3 + 1 * Math.tan((15 * Math.PI) / 180) + 0.01;
    const [share] = illuminanceByLight(prepareTracing(set), [beyond, 0, 0], up, direct);
    expect(share?.direct).toBe(0);
  });

  test('a hot centre keeps the flux: mean luminance is that of an even face', () => {
    const far = testSet({ lights: [overheadSoftbox(20, { hotCentre: 2 })] });
    const [share] = illuminanceByLight(prepareTracing(far), [0, 0, 0], up, direct);
    expect((share?.direct ?? 0) / rectangleOnAxisLx(0.6, 0.9, 20, 1)).toBeCloseTo(1, 2);
  });
});

describe('indirect light', () => {
  test('a white wall beside gives what its own picture and form factor say', () => {
    // A small receiver facing a large matte wall lit evenly by the surround: E = pi (unhidden part + rho hidden part).
    const wall = {
      kind: 'panel' as const,
      widthM: 90,
      heightM: 90,
      centreM: [0, 1, 0] as Vector,
      material: matte(0.5),
    };
    const set = testSet({ lights: [surroundLight], backdrop: wall });
    const options = { samples: 65_536, seed: 2, directOnly: false };
    const [share] = illuminanceByLight(prepareTracing(set), [0, 0, 0], [0, 1, 0], options);
    expect(share?.direct).toBeLessThan(0.01);
    expect((share?.indirect ?? 0) / (0.5 * Math.PI)).toBeCloseTo(1, 2);
  });

  test('direct and indirect are told apart and their error is small', () => {
    const set = testSet({
      lights: [overheadSoftbox(1)],
      bench: { widthM: 2, depthM: 2, material: matte(0.8) },
      backdrop: { kind: 'panel', widthM: 2, heightM: 1, centreM: [0, 0.3, 0.5], material: matte(0.8) },
    });
    const options = { samples: 16_384, seed: 1, directOnly: false };
    const [share] = illuminanceByLight(prepareTracing(set), [0, 0, 0], up, options);
    expect(share?.indirect).toBeGreaterThan(0.01);
    expect((share?.standardError ?? 1) / ((share?.direct ?? 0) + (share?.indirect ?? 0))).toBeLessThan(0.005);
  });
});

describe('readings of a pinned spot', () => {
  const set = testSet({
    lights: [
      overheadSoftbox(1, { output: { kind: 'illuminance', luxAt1M: 20_000 }, widthM: 0.2, heightM: 0.2 }),
    ],
    bench: { widthM: 2, depthM: 2, material: matte(0.18) },
    spots: [
      { name: 'grey', pointM: [0, 0, 0.002], normal: [0, 0, 2] },
      { name: 'under', pointM: [0, 0, -0.03], normal: [0, 0, -1] },
    ],
    camera: { ...testSet({}).camera, focusM: 100, positionM: [0, -1, 1], aimM: [0, 0, 0] },
  });
  const tracing = prepareTracing(set);
  const [grey, under] = set.spots.map((spot) => spotReading(set, traceSpot(tracing, spot, 4096, 1)));

  test('correct incident exposure reads 0; a grey card records near mid-tone', () => {
    expect(grey?.illuminanceLx).toBeCloseTo(20_000, -2);
    expect(grey?.incidentStops).toBeCloseTo(0, 2);
    // C = 250 and K = 12.5: a surface of reflectance pi K / C = 0.157 is mid-tone.
    expect(grey?.stopsFromMidTone).toBeCloseTo(Math.log2(0.18 / ((Math.PI * 12.5) / 250)), 1);
    expect(grey?.pointM[2]).toBeCloseTo(0, 9);
  });

  test('the standard error tells how far tones of other samples lie, and shrinks as traces are joined', () => {
    const shaded = {
      ...set,
      lights: set.lights.map((light) => ({ ...light, positionM: [0.9, 0, 0.05] as Vector })),
    };
    const ready = prepareTracing(shaded);
    const [spot] = shaded.spots;
    if (!spot) throw new Error('the spot was made');
    const read = (seed: number, samples: number) => traceSpot(ready, spot, samples, seed);
    const tones = Array.from({ length: 40 }, (_, i) => spotReading(shaded, read(i + 1, 64)));
    const stops = tones.map((tone) => tone.stopsFromMidTone ?? Number.NaN);
    const middle = stops.reduce((sum, value) => sum + value, 0) / stops.length;
    const spread = Math.sqrt(stops.reduce((sum, value) => sum + (value - middle) ** 2, 0) / stops.length);
    const told = tones.reduce((sum, tone) => sum + (tone.standardErrorStops ?? 0), 0) / tones.length;
    expect(told).toBeGreaterThan(0.5 * spread);
    expect(told).toBeLessThan(2 * spread);
    const joined = [2, 3, 4, 5, 6, 7, 8, 9].reduce(
      (whole, seed) => joinedTrace(whole, read(seed, 64)),
      read(1, 64),
    );
    expect(joined.samples).toBe(9 * 64);
    expect(spotReading(shaded, joined).standardErrorStops).toBeLessThan(0.6 * told);
    expect(Math.abs((spotReading(shaded, joined).stopsFromMidTone ?? 9) - middle)).toBeLessThan(spread);
    const parts = joined.seenParts.map((part) => part[0]?.[1] ?? 0);
    expect(joined.seen?.[0]?.[1]).toBeCloseTo(
      parts.reduce((sum, value) => sum + value, 0) / parts.length,
      12,
    );
  });

  test('a spot that the lens does not see has no tone, and the dark has no stops', () => {
    expect(under?.stopsFromMidTone).toBeNull();
    expect(under?.standardErrorStops).toBeNull();
    expect(under?.incidentStops).toBeNull();
  });

  test('a switched-off light reads as if on but adds nothing', () => {
    const off = { ...set, lights: set.lights.map((light) => ({ ...light, on: false })) };
    const [spot] = off.spots;
    if (!spot) throw new Error('the spot was made');
    const reading = spotReading(off, traceSpot(tracing, spot, 1024, 1));
    expect(reading.lights[0]?.reading).toBeGreaterThan(19_000);
    expect(reading.illuminanceLx).toBe(0);
    expect(reading.stopsFromMidTone).toBeNull();
  });
});
