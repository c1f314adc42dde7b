import { defaultKit } from '@fendrix/catalogue';
import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { giveMaterial, moveThing, positionOf, removeThing } from '../src/features/bench/state/edits';
import {
  addBench,
  addRoom,
  changeBackdrop,
  changeBench,
  changeRoom,
  moveAlong,
  setBackdrop,
} from '../src/features/bench/state/surroundings';
import { starterSet } from '../src/features/sets/starterSet';

const start = starterSet([]);
const BACKDROP = { kind: 'backdrop', key: '' } as const;
const BENCH = { kind: 'bench', key: '' } as const;
const ROOM = { kind: 'room', key: '' } as const;
const velvet = { kind: 'matte', reflectance: 0.004 } as const;
const { studio } = defaultKit();
if (!studio) throw new Error('the kit has a studio');

const isSound = (set: SetDocument) => setDocument.safeParse(set).error?.issues ?? [];

describe('background', () => {
  test.each(['sweep', 'panel', 'boards'] as const)(
    'of every demo set it becomes a %s, and none, and all are sound',
    (kind) => {
      for (const name of demoNames) {
        const changed = setBackdrop(kind)(demoSet(name));
        expect(changed.backdrop?.kind).toBe(kind);
        expect(isSound(changed)).toEqual([]);
        const gone = removeThing(BACKDROP)(changed);
        expect('backdrop' in gone).toBe(false);
        expect(isSound(gone)).toEqual([]);
        expect(positionOf(gone, BACKDROP)).toBeNull();
      }
    },
  );

  test('another kind stands in its place, as wide and of the same material', () => {
    const dark = giveMaterial(BACKDROP, velvet)(start);
    const panel = setBackdrop('panel')(dark).backdrop;
    expect(panel).toMatchObject({ widthM: 1.1, centreM: [0, 0.55, 0.45], material: velvet });
    expect(setBackdrop('sweep')(setBackdrop('panel')(dark)).backdrop).toMatchObject({
      backM: 0.55,
      heightM: 0.9,
      material: velvet,
    });
  });

  test('a sweep moves nearer and farther with its front edge, and not to the side', () => {
    const moved = moveThing(BACKDROP, [0.4, 0.75, 0.3])(start);
    expect(moved.backdrop).toMatchObject({ backM: 0.75, frontM: expect.closeTo(-0.25, 9) });
    expect(positionOf(moved, BACKDROP)).toEqual([0, 0.75, 0]);
    const panel = moveThing(BACKDROP, [0.4, 0.75, 0.5])(setBackdrop('panel')(start));
    expect(panel.backdrop).toMatchObject({ centreM: [0.4, 0.75, 0.5] });
  });

  test('boards in an L are each of their own material, lie where the sweep lay, and become a sweep again', () => {
    const boards = setBackdrop('boards')(start);
    expect(boards.backdrop).toMatchObject({ backM: 0.55, heightM: 0.9, material: start.backdrop?.material });
    const two = changeBackdrop({ lyingMaterial: velvet })(boards);
    expect(two.backdrop?.material).not.toEqual(velvet);
    expect(positionOf(moveThing(BACKDROP, [0, 0.75, 0])(two), BACKDROP)).toEqual([0, 0.75, 0]);
    const back = setBackdrop('sweep')(two).backdrop;
    expect(back).toMatchObject({ kind: 'sweep', backM: 0.55, material: start.backdrop?.material });
    expect(back).not.toHaveProperty('lyingMaterial');
  });

  test('a sweep has room for its bend also where the boards stood close', () => {
    const close = changeBackdrop({ frontM: 0.4, backM: 0.5 })(setBackdrop('boards')(start));
    expect(isSound(close)).toEqual([]);
    expect(isSound(setBackdrop('sweep')(close))).toEqual([]);
    const crossed = changeBackdrop({ frontM: 0.6 })(close);
    expect(isSound(crossed)[0]?.message).toContain('leaves no lying board');
  });

  test('what there is none of is not changed', () => {
    const bare = removeThing(BACKDROP)(start);
    expect(changeBackdrop({ widthM: 2 })(bare)).toBe(bare);
    expect(moveThing(BACKDROP, [0, 1, 0])(bare)).toBe(bare);
    expect(changeRoom({ widthM: 2 })(bare)).toBe(bare);
  });
});

test('the table is moved along the floor, changed, taken off and put back', () => {
  const moved = moveThing(BENCH, [0.1, 0.2, 0.9])(start);
  expect(moved.bench?.centreM).toEqual([0.1, 0.2]);
  expect(giveMaterial(BENCH, velvet)(start).bench?.material).toBe(velvet);
  expect(changeBench({ widthM: 2 })(start).bench?.widthM).toBe(2);
  const gone = removeThing(BENCH)(start);
  expect('bench' in gone).toBe(false);
  const back = addBench(studio)(gone);
  expect(back.bench).toEqual(studio.bench);
  expect(back.mark.heightAboveFloorM).toBe(studio.benchHeightM);
  expect(isSound(back)).toEqual([]);
});

test('the room of the studio is put round the set, changed for it alone, and taken off', () => {
  const inRoom = addRoom(studio)(start);
  expect(inRoom.room).toEqual(studio.room);
  expect(isSound(inRoom)).toEqual([]);
  const dark = changeRoom({ walls: velvet })(inRoom);
  expect(dark.room?.walls).toBe(velvet);
  expect(studio.room.walls).not.toBe(velvet);
  expect('room' in removeThing(ROOM)(dark)).toBe(false);
  expect(positionOf(dark, ROOM)).toBeNull();
});

test('table and background move along one axis after the other, whatever the panel showed meanwhile', () => {
  const table = moveAlong('bench', 1, 0.2)(moveAlong('bench', 0, 0.1)(start));
  expect(table.bench?.centreM).toEqual([0.1, 0.2]);
  const panel = setBackdrop('panel')(start);
  const moved = [moveAlong('backdrop', 0, 0.3), moveAlong('backdrop', 2, 0.7)].reduce(
    (set, step) => step(set),
    panel,
  );
  expect(moved.backdrop).toMatchObject({ centreM: [0.3, 0.55, 0.7] });
  expect(moveAlong('room', 0, 1)(start)).toBe(start);
});
