import { demoSet } from '@fendrix/demo';
import { changeWords, describeChange } from '@fendrix/words';
import { describe, expect, test } from 'vitest';
import {
  castDeltaE,
  chanceOfMoment,
  deltaE2000,
  equivalents,
  fallSpeedMS,
  fieldFigures,
  fieldStops,
  firstBelow,
  flashDurationS,
  freezingTimeS,
  halfDurationS,
  keyToFill,
  labOf,
  lightCasts,
  motionBlur,
  nearestGels,
  parsePower,
  placementStands,
  placementSteps,
  placementWay,
  powerWords,
  prepareTracing,
  targetVerdicts,
  traceField,
  triesFor,
  veiledStops,
  withPlacement,
} from '../src/index.js';
import { matte, overheadSoftbox, surroundLight, testCamera, testSet } from './sets.js';

describe('colour difference', () => {
  // Sharma, Wu, Dalal 2005, table 1.
  test.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
    [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ] as const)('%j and %j: %f', (one, other, difference) => {
    expect(deltaE2000(one, other)).toBeCloseTo(difference, 4);
    expect(deltaE2000(other, one)).toBeCloseTo(difference, 4);
  });

  test('white and grey are neutral, a lamp at the balance has no cast', () => {
    expect(labOf([1, 1, 1])[0]).toBeCloseTo(100, 3);
    expect(castDeltaE([0.3, 0.3, 0.3])).toBeCloseTo(0, 6);
    const lamp = (temperatureK: number) => overheadSoftbox(1, { colour: { temperatureK } });
    const [even] = lightCasts(testSet({ lights: [lamp(5500)] }));
    expect(even?.deltaE).toBeCloseTo(0, 2);
    const [warm] = lightCasts(testSet({ lights: [lamp(3000)] }));
    expect(warm?.deltaE).toBeGreaterThan(15);
    expect(warm?.gelMired).toBeCloseTo(-151.5, 0);
    expect(nearestGels(-151.5).map(({ name }) => name)).toContain('Full blue');
    expect(nearestGels(1)).toEqual([]);
    // 5600 to 3200 K is one full orange; twice as far takes two, of one colour.
    const names = (mired: number) => nearestGels(mired).map(({ name }) => name);
    expect(names(1e6 / 3200 - 1e6 / 5600)).toEqual(['Full orange']);
    expect(names(300)).toEqual(['Full orange', 'Full orange']);
    expect(names(120)).toEqual(['Half orange', 'Quarter orange']);
    for (let mired = -320; mired <= 320; mired += 7) {
      const shifts = nearestGels(mired).map(({ miredShift }) => Math.sign(miredShift));
      expect(new Set(shifts).size).toBeLessThan(2);
    }
  });
});

describe('movement', () => {
  test('a fall of 10 cm: 1.40 m/s, 7.0 mm in 1/200 s, 1.4 in 1/1000, 0.18 in 1/8000', () => {
    const speed = fallSpeedMS(0.1);
    expect(speed).toBeCloseTo(1.4, 2);
    const blur = (t: number) => motionBlur(testCamera(), speed, t).blurM * 1000;
    expect(blur(1 / 200)).toBeCloseTo(7, 1);
    expect(blur(1 / 1000)).toBeCloseTo(1.4, 1);
    expect(blur(1 / 8000)).toBeCloseTo(0.18, 2);
  });

  test('the freezing time freezes, to the pixel', () => {
    const t = freezingTimeS(testCamera(), 1.4, 2);
    expect(motionBlur(testCamera(), 1.4, t).pixels).toBeCloseTo(2, 9);
  });

  test('durations follow the kind of flash, never assumed', () => {
    const head = (stopsPerStop: number) =>
      testSet({
        lights: [
          overheadSoftbox(1, {
            output: { kind: 'flash-energy', energyJ: 200 },
            duration: { fullS: 1 / 800, stopsPerStop },
          }),
        ],
      }).lights[0];
    const [early, voltage] = [head(0.7), head(-0.2)];
    if (!early || !voltage) throw new Error('no head');
    expect(flashDurationS(early, -4)).toBeLessThan(1 / 800);
    expect(flashDurationS(voltage, -4)).toBeGreaterThan(1 / 800);
    const unknown = testSet({ lights: [overheadSoftbox(1)] }).lights[0];
    expect(unknown && flashDurationS(unknown)).toBeNull();
    expect(1 / halfDurationS(1)).toBeCloseTo(3.32, 2);
  });

  test('tries: a chance of 0.2 wants 11 for 90 %; more frames, a better chance', () => {
    expect(triesFor(0.2, 0.9)).toBe(11);
    expect(triesFor(1, 0.99)).toBe(1);
    expect(chanceOfMoment(1, 0.1, 1)).toBeCloseTo(0.1, 9);
    expect(chanceOfMoment(1, 0.1, 5)).toBeCloseTo(1 - 0.9 ** 5, 9);
    expect(() => triesFor(0, 0.9)).toThrow('chance');
    expect(() => fallSpeedMS(-1)).toThrow('not negative');
  });
});

describe('dials', () => {
  const [head] = testSet({
    lights: [overheadSoftbox(1, { output: { kind: 'flash-energy', energyJ: 400 } })],
  }).lights;
  if (!head) throw new Error('no head');
  test('watt-seconds, fractions and tenths say the same', () => {
    expect(powerWords(head, -2)).toEqual({ fraction: '1/4', wattSeconds: 100, numbered: '8.0' });
    for (const text of ['1/4', '100 Ws', '100 J', '8.0', '-2'])
      expect(parsePower(text, head)).toBeCloseTo(-2, 9);
    expect(parsePower('1/4 −0.3', head)).toBeCloseTo(-2.3, 9);
    expect(parsePower('800 Ws', head)).toBeNull();
    expect(parsePower('much', head)).toBeNull();
  });

  test('equivalent exposures are equivalent, and end where the dial ends', () => {
    const camera = { ...testCamera(), fNumber: 8, shutterS: 1 / 128, iso: 100 };
    const list = equivalents(camera, { by: 'shutter', circleM: 3e-5, handHeldS: 1 / 125 });
    for (const { fNumber, shutter } of list) {
      expect(Math.log2(fNumber.value ** 2 / shutter.value)).toBeCloseTo(Math.log2(64 * 128), 1);
    }
    expect(list.map(({ fNumber }) => fNumber.printed)).toContain('16');
    const depths = list.map(({ depthM }) => depthM);
    expect(depths).toEqual([...depths].sort((a, b) => a - b));
    expect(list.find(({ fNumber }) => fNumber.printed === '16')?.shakeStops).toBeCloseTo(2, 1);
  });
});

describe('fields, targets and ratios', () => {
  const white = testSet({
    lights: [surroundLight],
    backdrop: { kind: 'panel', widthM: 4, heightM: 4, centreM: [0, 0.5, 0], material: matte(0.5) },
  });
  test('an evenly lit wall reads its own luminance, even everywhere', () => {
    const field = traceField(
      prepareTracing(white),
      { left: 0, top: 0, right: 1, bottom: 1 },
      { across: 6, down: 4, samples: 64 },
    );
    const stops = fieldStops(white, field);
    const figures = fieldFigures(field, stops, ['backdrop']);
    expect(figures?.places).toBe(24);
    // 0.5 cd/m2 for 1/125 s at f/8, ISO 100, the close-focus loss of 1 m with 100 mm taken off.
    const mid = (12.5 * (8 * (1 + 1 / 9)) ** 2) / 100;
    expect(figures?.meanStops).toBeCloseTo(Math.log2(0.5 / 125 / mid), 1);
    expect(figures?.rangeStops).toBeLessThan(0.1);
    expect(fieldFigures(field, stops, ['product'])).toBeNull();
  });

  test('noise of single places does not widen the range that is told', () => {
    const [across, down] = [18, 12];
    let state = 7;
    const stops = Float64Array.from({ length: across * down }, () => {
      state = (state * 16807) % 2147483647;
      return 0.6 * (state / 2147483647 - 0.5);
    });
    const thing = new Int32Array(across * down);
    const things = [{ kind: 'backdrop' as const, key: 'backdrop', name: 'backdrop' }];
    const rect = { left: 0, top: 0, right: 1, bottom: 1 };
    const field = { rect, across, down, thing, things, unit: new Float32Array(0), samples: 1 };
    const range = fieldFigures(field, stops)?.rangeStops ?? 1;
    expect(range).toBeLessThan(0.4);
    expect(Math.max(...stops) - Math.min(...stops)).toBeGreaterThan(0.55);
    // A true fall across the field is told all the same.
    const slope = stops.map((noise, place) => noise + (2 * (place % across)) / across);
    expect(fieldFigures(field, slope)?.rangeStops).toBeGreaterThan(1.4);
  });

  test('veil lifts the black to what it spreads', () => {
    expect(veiledStops(-Infinity, 2, 0.01)).toBeCloseTo(Math.log2(0.04), 9);
    expect(veiledStops(0, -9, 0.01)).toBeCloseTo(0, 3);
  });

  test('targets say what is missing, against mid-tone or another spot', () => {
    const spot = (name: string, target?: object) => ({
      name,
      pointM: [0, 0, 0] as [number, number, number],
      normal: [0, 0, 1] as [number, number, number],
      ...(target ? { target } : {}),
    });
    const spots = [
      spot('label', { from: 0.2, to: 0.4 }),
      spot('ground', { from: 0.5, to: 1, against: 'label' }),
      spot('edge'),
    ];
    const readings = [
      { name: 'label', stopsFromMidTone: 0.1 },
      { name: 'ground', stopsFromMidTone: 1.6 },
    ];
    const [label, ground] = targetVerdicts(spots as never, readings);
    expect(label?.missing).toBeCloseTo(0.1, 9);
    expect(ground?.stops).toBeCloseTo(1.5, 9);
    expect(ground?.missing).toBeCloseTo(-0.5, 9);
    expect(targetVerdicts(spots as never, [])[0]?.stops).toBeNull();
    // Told in tenths: 0.44 is +0.4, and met; 0.46 is not.
    const at = (stops: number) =>
      targetVerdicts(spots as never, [{ name: 'label', stopsFromMidTone: stops }])[0]?.missing;
    expect([at(0.16), at(0.3), at(0.44)]).toEqual([0, 0, 0]);
    expect(at(0.46)).toBeCloseTo(-0.06, 9);
  });

  test('key to fill: 3 of 4 parts are 4 : 1, two stops', () => {
    const light = (tag: string, reading: number) => ({
      tag,
      on: true,
      time: 'flash' as const,
      reading,
      stopsFromMidTone: 0,
    });
    const ratio = keyToFill({ lights: [light('A', 3), light('B', 1)] } as never, 'A');
    expect(ratio).toEqual({ ratio: 4, stops: 2 });
  });

  test('placements move one thing, and a falling curve is read where it passes', () => {
    const lit = testSet({
      lights: [overheadSoftbox(0, { positionM: [-1, 0, 0.5], aimM: [0, 0, 0.5] })],
      backdrop: white.backdrop,
    });
    const turned = withPlacement(lit, { vary: 'light-bearing', light: 'A' }, 90)?.lights[0];
    expect(turned && 'positionM' in turned && turned.positionM.map((v) => Math.round(100 * v) || 0)).toEqual([
      0, -100, 50,
    ]);
    const back = withPlacement(lit, { vary: 'backdrop-distance' }, 0.4)?.backdrop;
    expect(back?.kind === 'panel' && back.centreM[1]).toBeCloseTo(0.9, 9);
    expect(withPlacement(lit, { vary: 'light-height', light: 'Z' }, 1)).toBeNull();
    expect(
      firstBelow(
        [
          [0, 0],
          [1, -4],
          [2, -8],
        ],
        -6,
      ),
    ).toBeCloseTo(1.5, 9);
    expect(firstBelow([[0, 0]], -6)).toBeNull();
  });

  test('a placement is tried over its range, inside the room, and says which way it goes', () => {
    const lit = testSet({
      lights: [overheadSoftbox(0, { positionM: [-1, 0, 0.5], aimM: [0, 0, 0.5] })],
      backdrop: white.backdrop,
      room: {
        widthM: 3,
        depthM: 4,
        heightM: 2.6,
        markFromLeftM: 1.2,
        markFromFrontM: 2,
        walls: matte(0.8),
        ceiling: matte(0.8),
        floor: matte(0.3),
      },
    });
    const nearer = { vary: 'light-distance', light: 'A' } as const;
    expect(placementSteps(lit, nearer).at(0)).toBeCloseTo(0.5, 9);
    expect(placementSteps(lit, nearer).at(-1)).toBeCloseTo(2, 9);
    expect(placementSteps(lit, { vary: 'light-distance', light: 'Z' })).toEqual([]);
    const at = (distanceM: number) => withPlacement(lit, nearer, distanceM) as typeof lit;
    expect(placementStands(at(0.9), nearer)).toBe(true);
    expect(placementStands(at(1.5), nearer)).toBe(false);
    const steps = placementSteps(lit, { vary: 'backdrop-distance' });
    const farthest = withPlacement(lit, { vary: 'backdrop-distance' }, steps.at(-1) as number)?.backdrop;
    expect(farthest?.kind === 'panel' && farthest.centreM[1]).toBeLessThan(2);

    expect(placementWay(lit, nearer, 0.8)).toEqual({ code: 'from-aim', distanceM: 0.8 });
    expect(placementWay(lit, { vary: 'light-height', light: 'A' }, 0)).toEqual({ code: 'as-it-is' });
    const round = { vary: 'light-bearing', light: 'A' } as const;
    expect(placementWay(lit, round, 45)).toMatchObject({ code: 'round', deg: 45, side: 'right' });
    expect(placementWay(lit, round, -90)).toMatchObject({ side: 'right' });
  });
});

describe('what changed, in words', () => {
  const mill = demoSet('mill');
  test('moves, power, switches and what is new or gone', () => {
    const [light] = mill.lights;
    const [sheet] = mill.sheets;
    if (!light || !sheet || light.kind === 'surround') throw new Error('the mill has changed');
    const closer = {
      ...sheet,
      positionM: [sheet.positionM[0] * 0.5, sheet.positionM[1] * 0.5, sheet.positionM[2]],
    };
    const after = {
      ...mill,
      lights: [{ ...light, powerStops: light.powerStops - 0.7 }],
      sheets: [closer, ...mill.sheets.slice(2)],
      camera: { ...mill.camera, fNumber: 22.6 },
    } as typeof mill;
    const words = describeChange(mill, after);
    expect(words.join('; ')).toMatch(/^A −0\.7 \(.*\); card 1 .* closer; without card 2; f\/22$/);
    expect(describeChange(after, mill).join('; ')).toContain('with card 2');
    expect(describeChange(mill, structuredClone(mill))).toEqual([]);
    expect(changeWords(mill, mill)).toBe('nothing changed');
    expect(changeWords(mill, after, 2)).toMatch(/ and 2 more$/);
  });
});
