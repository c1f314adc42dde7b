import { type SetDocument, setDocument } from '@fendrix/contract';
import { setOfTake, standingOf } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { changeLight, moveThing } from '../src/features/bench/state/edits';
import { changeTake, freeTake, keepTake, removeTake, restoreTake } from '../src/features/bench/state/takes';

const start = demoSet('cordial');
const dimmed = changeLight('A', (light) => ({ ...light, powerStops: light.powerStops - 1 }));
const kept = (set: SetDocument) => keepTake(freeTake(set.takes))(set);
const valid = (set: SetDocument) => setDocument.safeParse(set).success;
const power = (set: Pick<SetDocument, 'lights'>) => set.lights[0]?.powerStops;

describe('takes', () => {
  test('a take keeps what stands, and later changes leave it alone', () => {
    const one = kept(start);
    const two = dimmed(one);
    expect(two.takes[0]?.set.lights).toEqual(start.lights);
    expect(power(two)).not.toBe(power(start));
    expect(valid(two)).toBe(true);
  });

  test('going back brings all of it, and what is kept from there branches', () => {
    const one = kept(start);
    const two = kept(dimmed(one));
    const back = restoreTake('take-1')(two);
    expect(standingOf(back)).toEqual(standingOf(start));
    expect(back.takes).toHaveLength(2);
    const branch = kept(moveThing({ kind: 'sheet', key: '1' }, [0.5, 0, 0.3])(back));
    expect(branch.takes.map(({ from }) => from)).toEqual([undefined, 'take-1', 'take-1']);
    expect(valid(branch)).toBe(true);
  });

  test('what a take has not got is gone after going back to it', () => {
    const one = kept({ ...start, backdrop: undefined, room: undefined });
    const back = restoreTake('take-1')({ ...one, backdrop: start.backdrop, room: start.room });
    expect(back.backdrop).toBeUndefined();
    expect(back.room).toBeUndefined();
  });

  test('one taken out of the middle leaves the others in line', () => {
    const three = kept(dimmed(kept(dimmed(kept(start)))));
    const without = removeTake('take-2')(three);
    expect(without.takes.map(({ id, from }) => [id, from])).toEqual([
      ['take-1', undefined],
      ['take-3', 'take-1'],
    ]);
    expect(valid(without)).toBe(true);
    const last = removeTake('take-3')(without);
    expect(last.takeId).toBe('take-1');
    expect(removeTake('take-1')(last).takeId).toBeUndefined();
    expect(removeTake('nothing')(last)).toBe(last);
  });

  test('names are changed, free names are free, a take is a set of its own', () => {
    const named = changeTake('take-1', { name: 'flat light', pinned: true })(kept(start));
    expect(named.takes[0]).toMatchObject({ name: 'flat light', pinned: true });
    expect(freeTake(named.takes).name).toBe('Take 2');
    const take = named.takes[0];
    expect(take && setDocument.safeParse(setOfTake(take)).success).toBe(true);
  });
});

test('each demo set that shows a way can be opened at every step, and says what to look for', () => {
  for (const name of ['mill', 'bottle', 'pepper', 'vinegar', 'perry'] as const) {
    const set = demoSet(name);
    expect(set.takes.length).toBeGreaterThanOrEqual(5);
    for (const take of set.takes) {
      expect(take.note.length).toBeGreaterThan(40);
      expect(setDocument.safeParse(setOfTake(take)).success).toBe(true);
    }
    expect(standingOf(set)).toEqual(set.takes.at(-1)?.set);
  }
});
