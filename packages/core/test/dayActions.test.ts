import { type DayAction, type Job, jobDocument } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { afterDayAction, beforeItsDay, minutesLeft, minutesTaken, stockOf } from '../src/index.js';

const SET = '00000000-0000-4000-8000-000000000001';
const job = jobDocument.parse(demoJob(() => SET));
const [first] = job.shots as [Job['shots'][number]];
const [dish] = job.products as [Job['products'][number]];
const at = (minutes: number) => new Date(Date.UTC(2026, 10, 30, 9, minutes)).toISOString();
const shotOf = (of: Job) => of.shots.find(({ id }) => id === first.id);

describe('what is done at the table', () => {
  const step = (key: string, done: boolean, minutes = 0): DayAction => ({
    kind: 'step',
    shot: first.id,
    step: key,
    done,
    at: at(minutes),
  });

  test('ticks, the first of which begins the picture; a tick taken away leaves the others', () => {
    const ticked = [step('A', true, 0), step('B', true, 4), step('A', false, 5)].reduce(afterDayAction, job);
    expect(shotOf(ticked)).toMatchObject({ built: ['B'], begunAt: at(0) });
    expect(jobDocument.safeParse(ticked).success).toBe(true);
  });

  test('a picture taken and taken back leaves no trace of having been taken', () => {
    const stood = afterDayAction(job, {
      kind: 'taken',
      shot: first.id,
      done: true,
      stands: SET,
      at: at(30),
    });
    expect(shotOf(stood)).toMatchObject({ done: true, takenAt: at(30) });
    expect(stood.day.stands).toBe(SET);
    const back = afterDayAction(stood, { kind: 'taken', shot: first.id, done: false, at: at(31) });
    expect(back).toEqual(job);
  });

  test('done twice counts once, whatever it is', () => {
    const ids = fc.constantFrom(...job.shots.map(({ id }) => id), 'gone');
    const action = fc.oneof(
      fc.record({
        kind: fc.constant('step' as const),
        shot: ids,
        step: fc.constantFrom('A', 'B', 'C'),
        done: fc.boolean(),
        at: fc.constant(at(1)),
      }),
      fc.record({ kind: fc.constant('tries' as const), shot: ids, tries: fc.nat(9), at: fc.constant(at(1)) }),
      fc.record({
        kind: fc.constant('piece' as const),
        product: fc.constantFrom(dish.id, 'gone'),
        usedUp: fc.nat(9),
        freshAt: fc.constant(at(2)),
        at: fc.constant(at(2)),
      }),
    );
    fc.assert(
      fc.property(fc.array(action, { maxLength: 12 }), (actions) => {
        const once = (actions as DayAction[]).reduce(afterDayAction, job);
        const last = actions.at(-1) as DayAction | undefined;
        expect(last ? afterDayAction(once, last) : once).toEqual(once);
        expect(jobDocument.safeParse(once).success).toBe(true);
      }),
    );
  });

  test('ticks of figures that are gone fall away before the job is too long to be kept', () => {
    const many = Array.from({ length: 400 }, (_, i) => step(`light ${i}`, true)).reduce(afterDayAction, job);
    expect(shotOf(many)?.built.at(-1)).toBe('light 399');
    expect(jobDocument.safeParse(many).success).toBe(true);
  });

  test('a job that is done again begins with nothing done', () => {
    const done = [
      step('A', true),
      { kind: 'tries', shot: first.id, tries: 4, at: at(1) },
      { kind: 'piece', product: dish.id, usedUp: 2, freshAt: at(2), at: at(2) },
      { kind: 'taken', shot: first.id, done: true, stands: SET, at: at(9) },
    ] as const;
    expect(beforeItsDay([...done].reduce(afterDayAction, job))).toEqual(beforeItsDay(job));
  });

  test('minutes of a picture go from its first step until it was taken; a clock set back tells none', () => {
    expect(minutesTaken({ begunAt: at(0), takenAt: at(34) })).toBe(34);
    expect(minutesTaken({ begunAt: at(34), takenAt: at(0) })).toBeNull();
    expect(minutesTaken({ takenAt: at(34) })).toBeNull();
  });
});

describe('stock', () => {
  const piece = { ...dish, minutesOnSet: 8, spares: 3, usedUp: 0 };
  const picture = (id: string, minutes: number) => ({ ...first, id, minutes, products: [dish.id] });
  const order = [picture('one', 15), picture('two', 20), picture('three', 8)];

  test('a piece that lasts eight minutes is replaced so often; the picture that has none left is named', () => {
    const stock = stockOf(piece, order, []);
    // 2 for 15 minutes, 3 for 20, 1 for 8, of 4 that are there.
    expect(stock).toMatchObject({ left: 4, needed: 6, perPicture: { by: 'minutes' } });
    expect(stock?.endsAt?.id).toBe('two');
    expect(stockOf({ ...piece, spares: 5 }, order, [])?.endsAt).toBeNull();
  });

  test('pictures that were taken tell more than minutes do', () => {
    const taken = [picture('a', 15), picture('b', 15)];
    const stock = stockOf({ ...piece, usedUp: 2 }, order, taken);
    expect(stock).toMatchObject({ left: 2, needed: 3, perPicture: { pieces: 1, by: 'taken' } });
    expect(stock?.endsAt?.id).toBe('three');
  });

  test('what lasts and is not used up has no stock; what nothing is known of is not counted as none', () => {
    const { minutesOnSet: _gone, ...lasting } = piece;
    expect(stockOf(lasting, order, [])).toBeNull();
    expect(stockOf({ ...lasting, usedUp: 1 }, order, [])).toMatchObject({ left: 3, needed: null });
  });

  test('a piece under lights has so many minutes left, and less than none when it is over', () => {
    const now = Date.parse(at(10));
    expect(minutesLeft({ minutesOnSet: 8, freshAt: at(4) }, now)).toBeCloseTo(2, 9);
    expect(minutesLeft({ minutesOnSet: 8, freshAt: at(0) }, now)).toBeCloseTo(-2, 9);
    expect(minutesLeft({ minutesOnSet: 8 }, now)).toBeNull();
  });
});
