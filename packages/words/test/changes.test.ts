import type { SetDocument, Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { matte, overheadSoftbox, testCamera, testSet } from '../../core/test/sets.js';
import { changeWords, describeChange } from '../src/index.js';

const panel = {
  kind: 'panel' as const,
  widthM: 1,
  heightM: 1,
  centreM: [0, 0.6, 0.5] as Vector,
  turnDeg: 0,
  material: matte(0.8),
};
const bench = { widthM: 1.2, depthM: 0.9, material: matte(0.3) };
const room = {
  widthM: 4,
  depthM: 4,
  heightM: 2.6,
  markFromLeftM: 2,
  markFromFrontM: 2,
  walls: matte(0.8),
  ceiling: matte(0.8),
  floor: matte(0.3),
};
const card = {
  kind: 'card' as const,
  tag: '1',
  name: 'Card',
  positionM: [-0.4, 0, 0.2] as Vector,
  aimM: [0, 0, 0.1] as Vector,
  widthM: 0.2,
  heightM: 0.3,
  front: matte(0.8),
  back: matte(0.04),
};
const set = testSet({
  backdrop: panel,
  bench,
  room,
  lights: [overheadSoftbox(0, { positionM: [0.5, -0.3, 0.6], aimM: [0, 0, 0.1] })],
  sheets: [card],
  camera: testCamera(),
});

/** The words of one change. */
const words = (changes: Partial<SetDocument>) => describeChange(set, { ...set, ...changes });

describe('what the set stands on, before and in', () => {
  test.each<[string, object, string]>([
    ['moved back', { centreM: [0, 0.8, 0.5] }, 'the background 20 cm further back'],
    ['moved nearer', { centreM: [0, 0.5, 0.5] }, 'the background 10 cm nearer'],
    ['of another material', { material: matte(0.05) }, 'the background of another material'],
    ['wider', { widthM: 1.8 }, 'the background now 180 cm by 100 cm'],
    ['turned', { turnDeg: 20 }, 'the background turned 20°'],
    [
      'all at once',
      { centreM: [0, 0.8, 0.5], turnDeg: -15, material: matte(0.05) },
      'the background 20 cm further back and turned -15° and of another material',
    ],
    ['moved to the side only', { centreM: [0.2, 0.6, 0.5] }, 'the background changed'],
  ])('a background %s', (_name, changes, told) => {
    expect(words({ backdrop: { ...panel, ...changes } as never })).toEqual([told]);
  });

  test('another kind of background, one put there and one taken away', () => {
    const sweep = {
      kind: 'sweep' as const,
      widthM: 1,
      frontM: -0.4,
      backM: 0.6,
      radiusM: 0.2,
      heightM: 1,
      material: matte(0.8),
    };
    expect(words({ backdrop: sweep })).toEqual(['the background bent up behind']);
    expect(words({ backdrop: { ...sweep, material: matte(0.1) } })).toEqual([
      'the background bent up behind and of another material',
    ]);
    const { backdrop: _gone, ...without } = set;
    expect(describeChange(set, without)).toEqual(['without the background']);
    expect(describeChange(without, set)).toEqual(['with the background']);
  });

  test('the table: moved, of another size, material and height', () => {
    const own = set.bench;
    if (!own) throw new Error('there is a table');
    expect(words({ bench: { ...own, centreM: [0.1, 0] } })).toEqual(['the table moved']);
    expect(words({ bench: { ...own, centreM: [0.001, 0] } })).toEqual(['the table changed']);
    expect(words({ bench: { ...own, depthM: 0.6, material: matte(0.05) } })).toEqual([
      'the table now 120 cm by 60 cm and of another material',
    ]);
    expect(words({ mark: { heightAboveFloorM: 0.9 } })).toEqual(['table top 90 cm above the floor']);
  });

  test('the room: its measures and each of its surfaces', () => {
    const own = set.room;
    if (!own) throw new Error('there is a room');
    expect(words({ room: { ...own, walls: { kind: 'matte', reflectance: 0.05 } } })).toEqual([
      'the room with other walls',
    ]);
    expect(
      words({
        room: { ...own, widthM: 5, ceiling: { kind: 'matte', reflectance: 0.1 }, floor: own.walls },
      }),
    ).toEqual(['the room of other measures and with another ceiling and with another floor']);
    const { room: _gone, ...without } = set;
    expect(describeChange(set, without)).toEqual(['without the room']);
  });
});

describe('turning', () => {
  const light = (changes: object) =>
    words({ lights: set.lights.map((own) => ({ ...own, ...changes })) as never });
  const sheet = (changes: object) =>
    words({ sheets: set.sheets.map((own) => ({ ...own, ...changes })) as never });
  const camera = (changes: object) => words({ camera: { ...set.camera, ...changes } });

  test('a thing that is aimed elsewhere is turned', () => {
    expect(light({ aimM: [0.3, 0.2, 0.1] })).toEqual(['A turned']);
    expect(sheet({ aimM: [0, 0.4, 0.1] })).toEqual(['card 1 turned']);
    expect(camera({ aimM: [0.4, 0, 0.1] })).toEqual(['camera turned']);
  });

  test('one that is moved and goes on facing its point, or in its direction, is not', () => {
    expect(sheet({ positionM: [-0.5, 0, 0.2] })).toEqual(['card 1 10 cm farther']);
    expect(sheet({ positionM: [-0.5, 0, 0.2], aimM: [-0.1, 0, 0.1] })).toEqual(['card 1 10 cm farther']);
  });

  test('one that is moved and aimed elsewhere is told to be both', () => {
    expect(sheet({ positionM: [-0.5, 0, 0.2], aimM: [0, 0.4, 0.1] })).toEqual([
      'card 1 10 cm farther and turned',
    ]);
    const [x, y, z] = set.camera.positionM;
    const [told] = camera({ positionM: [x, y, z + 0.2], aimM: [0.4, 0, 0.1] });
    expect(told).toMatch(/^camera .*20 cm higher and turned$/);
  });

  test('a hair is not told as a turn', () => {
    expect(sheet({ aimM: [0, 0.002, 0.1] })).toEqual(['card 1 changed']);
  });
});

test('of every demo set: nothing changed is told as nothing, and a long list is cut', () => {
  for (const name of demoNames) {
    const own = demoSet(name);
    expect(describeChange(own, own)).toEqual([]);
    expect(changeWords(own, own)).toBe('nothing changed');
  }
  const all = {
    ...set,
    lights: [],
    sheets: [],
    mark: { heightAboveFloorM: 0.9 },
    camera: { ...set.camera, fNumber: 4, iso: 400 },
  };
  expect(changeWords(set, all, 2)).toMatch(/^without A, without card 1 and 3 more$/);
});
