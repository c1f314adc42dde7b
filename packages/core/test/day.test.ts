import { demoJob, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  bestOrder,
  changeMinutes,
  clockMinutes,
  clockOf,
  type DayPlan,
  dayOfJob,
  endOf,
  ownOrder,
  priceOfChange,
  pricesWith,
  timesOf,
  USUAL_PRICES,
} from '../src/index.js';
import { createRandom } from '../src/units/random.js';

/** Where the sets of the demo job are stored. */
const SETS = {
  cordial: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11',
  mill: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b12',
  tart: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b13',
  tent: '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b14',
} as const;

/** A day of so many pictures with prices, times and pairs by a seed. */
function dayOf(count: number, seed: number, bound = 0.3): DayPlan {
  const random = createRandom(seed);
  const whole = (most: number) => Math.floor(random() * most);
  const pictures = Array.from({ length: count }, (_, i) => ({
    id: `p${i}`,
    minutes: 5 + whole(40),
    ...(random() < bound ? { notBefore: whole(120) } : {}),
    ...(random() < bound / 2 ? { endedBy: 60 + whole(40 * count) } : {}),
  }));
  const change = Array.from({ length: count + 1 }, () => Array.from({ length: count }, () => whole(30)));
  const before = Array.from({ length: count >> 2 }, () => {
    const a = whole(count - 1);
    return [a, a + 1 + whole(count - a - 1)] as const;
  });
  return { pictures, change, before };
}

/** The soonest end of all orders, each weighed. */
function bruteForce(plan: DayPlan): number {
  let best = Number.POSITIVE_INFINITY;
  const go = (done: number[], left: number[]) => {
    if (left.length === 0) best = Math.min(best, endOf(plan, done));
    for (const next of left)
      go(
        [...done, next],
        left.filter((other) => other !== next),
      );
  };
  go([], [...plan.pictures.keys()]);
  return best;
}

describe('the order of a day', () => {
  test('is the best of all orders, for 60 days of up to seven pictures', () => {
    for (let seed = 0; seed < 60; seed++) {
      const plan = dayOf(1 + (seed % 7), seed);
      const best = bruteForce(plan);
      const found = bestOrder(plan);
      if (best === Number.POSITIVE_INFINITY) expect(found, `seed ${seed}`).toBeNull();
      else expect(found?.endsAt, `seed ${seed}`).toBe(best);
    }
  });

  test('is the best of all with a pause too; no picture runs into it and none is set up in it', () => {
    for (let seed = 0; seed < 40; seed++) {
      const pause = { from: 20 + 7 * (seed % 9), minutes: 30 };
      const plan: DayPlan = { ...dayOf(1 + (seed % 6), seed), pause };
      const best = bruteForce(plan);
      const found = bestOrder(plan);
      if (best === Number.POSITIVE_INFINITY) expect(found, `seed ${seed}`).toBeNull();
      else expect(found?.endsAt, `seed ${seed}`).toBe(best);
      for (const { startsAt, endsAt } of timesOf(plan, found?.order ?? []))
        expect(endsAt <= pause.from || startsAt >= pause.from + pause.minutes).toBe(true);
    }
    // Set up for 20 minutes from ten before the pause: ten before it, ten after.
    const one = {
      pictures: [{ id: 'a', minutes: 10 }],
      change: [[0], [20]],
      before: [],
      pause: { from: 10, minutes: 30 },
    };
    expect(timesOf(one, [0])[0]).toMatchObject({ startsAt: 50, endsAt: 60, waits: 0 });
  });

  test('beyond sixteen the bound holds with a pause', () => {
    const found = bestOrder({ ...dayOf(20, 4, 0), pause: { from: 100, minutes: 45 } });
    const without = bestOrder(dayOf(20, 4, 0));
    expect(found?.bound).toBe((without?.bound ?? 0) + 45);
    expect(found?.endsAt).toBeGreaterThanOrEqual(found?.bound ?? 0);
  });

  test('is proved for eight and for sixteen', () => {
    expect(bestOrder(dayOf(8, 5, 0.1))?.endsAt).toBe(bruteForce(dayOf(8, 5, 0.1)));
    const sixteen = bestOrder(dayOf(16, 3, 0));
    expect(sixteen?.order).toHaveLength(16);
    expect(sixteen?.bound).toBe(sixteen?.endsAt);
  });

  test('beyond sixteen keeps all times and pairs, and is no worse than a tenth over what is exact', () => {
    const plan = dayOf(16, 9, 0);
    const exact = bestOrder(plan);
    // One more picture that costs nothing takes it over the edge of what is weighed exactly.
    const more: DayPlan = {
      pictures: [...plan.pictures, { id: 'free', minutes: 0 }],
      change: [
        ...plan.change.slice(0, 16).map((row) => [...row, 99]),
        new Array(17).fill(99),
        [...(plan.change[16] ?? []), 99],
      ],
      before: plan.before,
    };
    const found = bestOrder(more);
    if (!exact || !found) throw new Error('there is an order');
    expect(found.endsAt).toBeLessThanOrEqual(1.1 * (exact.endsAt + 99));
    expect(found.bound).toBeLessThanOrEqual(found.endsAt);
    expect(new Set(found.order).size).toBe(17);
  });

  test('sixty pictures have an order with a bound under it', () => {
    const plan = dayOf(60, 11, 0);
    const found = bestOrder(plan);
    expect(found?.order).toHaveLength(60);
    expect(found?.bound).toBeGreaterThan(0.5 * (found?.endsAt ?? 0));
    for (const [a, b] of plan.before)
      expect(found?.order.indexOf(a)).toBeLessThan(found?.order.indexOf(b) ?? -1);
  });

  test('waits for what is not ready, tells what is too late, and refuses prices that do not fit', () => {
    const plan: DayPlan = {
      pictures: [
        { id: 'a', minutes: 10, notBefore: 30 },
        { id: 'b', minutes: 20, endedBy: 25 },
      ],
      change: [
        [0, 4],
        [6, 0],
        [5, 3],
      ],
      before: [],
    };
    expect(timesOf(plan, [1, 0])).toMatchObject([
      { picture: 1, changeFrom: 0, startsAt: 3, endsAt: 23, waits: 0, late: 0 },
      { picture: 0, changeFrom: 23, startsAt: 30, endsAt: 40, waits: 1, late: 0 },
    ]);
    expect(timesOf(plan, [0, 1])[1]?.late).toBe(39);
    expect(bestOrder(plan)).toEqual({ order: [1, 0], endsAt: 40, bound: 40 });
    expect(bestOrder({ ...plan, before: [[0, 1]] })).toBeNull();
    expect(() => bestOrder({ ...plan, change: [[0, 1]] })).toThrow(/price/);
    expect(bestOrder({ pictures: [], change: [[]], before: [] })).toEqual({ order: [], endsAt: 0, bound: 0 });
  });
});

describe('the day of a job', () => {
  const job = demoJob(
    (name) => (SETS as Record<string, string>)[name === 'cordial-frost' ? 'cordial' : name] ?? '',
  );
  const setOf = (id: string) => {
    const name = (Object.keys(SETS) as (keyof typeof SETS)[]).find((own) => SETS[own] === id);
    return name ? demoSet(name === 'cordial' ? 'cordial-frost' : (name as 'mill')) : undefined;
  };

  test('pictures with a set are priced against each other; the rest are told apart', () => {
    const day = dayOfJob(job, setOf);
    expect(day.shots).toHaveLength(Object.keys(SETS).length);
    expect(day.without).toEqual([]);
    expect(day.plan.change).toHaveLength(day.shots.length + 1);
    expect(day.plan.change[0]?.[0]).toBe(0);
    expect(day.plan.change[0]?.[1]).toBeGreaterThan(0);
    const none = dayOfJob(job, () => undefined);
    expect(none.shots).toEqual([]);
    expect(none.without).toHaveLength(job.shots.length);
  });

  test('what is taken is left out; two pictures on one set cost nothing between them', () => {
    const [first, second, ...rest] = job.shots;
    if (!first || !second) throw new Error('there are two');
    const shots = [
      first,
      { ...second, setId: first.setId },
      ...rest.map((shot) => ({ ...shot, done: true })),
    ];
    const day = dayOfJob({ ...job, shots }, setOf);
    expect(day.shots.map(({ id }) => id)).toEqual([first.id, second.id]);
    expect(day.plan.change[0]?.[1]).toBe(0);
  });

  test('what spills comes last, what comes after another does, and clocks count from the beginning', () => {
    const [first, second, third] = job.shots.map(({ id }) => id);
    const shots = job.shots.map((shot) => ({
      ...shot,
      last: shot.id === first,
      after: shot.id === second ? [third as string, 'gone'] : [],
      ...(shot.id === third ? { notBefore: '10:30', endedBy: '18:00' } : {}),
    }));
    const day = dayOfJob(
      { shots, day: { startsAt: '10:00', order: [], tapesFrom: ['table-front-left', 'table-front-right'] } },
      setOf,
    );
    const found = bestOrder(day.plan);
    const order = found?.order.map((at) => day.shots[at]?.id) ?? [];
    expect(order.at(-1)).toBe(first);
    expect(order.indexOf(third)).toBeLessThan(order.indexOf(second));
    expect(day.plan.pictures.find(({ id }) => id === third)).toMatchObject({ notBefore: 30, endedBy: 480 });
  });

  test('an own order leaves out what is gone and puts what is new last', () => {
    const day = dayOfJob(job, setOf);
    const [first, , third] = day.shots.map(({ id }) => id);
    const own = ownOrder(day, [third as string, 'gone', first as string, first as string]);
    expect(own.slice(0, 2)).toEqual([2, 0]);
    expect(new Set(own).size).toBe(day.shots.length);
  });

  test('clocks', () => {
    expect(clockMinutes('09:30')).toBe(570);
    expect(clockOf(570)).toBe('09:30');
    expect(clockOf(1500)).toBe('25:00');
  });
});

describe('the price of a change', () => {
  const cordial = demoSet('cordial');

  test('from nothing everything is set up; to the same set nothing is done', () => {
    const all = priceOfChange(null, cordial);
    expect(all.filter(({ step }) => step === 'light-added')).toHaveLength(cordial.lights.length);
    expect(all.filter(({ step }) => step === 'sheet-added')).toHaveLength(cordial.sheets.length);
    expect(priceOfChange(cordial, cordial)).toEqual([]);
  });

  test('a light that is moved, gelled and dialled counts each once; dearest first', () => {
    const [light] = cordial.lights;
    if (!light || !('positionM' in light)) throw new Error('there is one');
    const [x, y, z] = light.positionM;
    const other = { ...light, positionM: [x + 0.3, y, z], powerStops: light.powerStops - 1 } as typeof light;
    const steps = priceOfChange(cordial, { ...cordial, lights: [other, ...cordial.lights.slice(1)] });
    expect(steps.map(({ step }) => step)).toEqual(['light-moved', 'power-changed']);
    expect(changeMinutes(steps)).toBe(USUAL_PRICES['light-moved'] + USUAL_PRICES['power-changed']);
  });

  test('settings cost nothing, another lens does, another product is swapped once', () => {
    const set = { ...cordial, camera: { ...cordial.camera, fNumber: 16, iso: 400 } };
    expect(priceOfChange(cordial, set)).toEqual([]);
    const lens = { ...cordial.camera.lens, focalLengthM: 0.2 };
    expect(
      priceOfChange(cordial, { ...cordial, camera: { ...cordial.camera, lens } }).map(({ step }) => step),
    ).toEqual(['lens-changed']);
    const [bottle] = cordial.products;
    const swapped = {
      ...cordial,
      products: [{ ...bottle, id: 'jam', name: 'Jam' }] as typeof cordial.products,
    };
    expect(priceOfChange(cordial, swapped).map(({ step }) => step)).toEqual(['product-swapped']);
  });

  test('minutes of a studio take the place of the usual ones; a step that is not known is left out', () => {
    expect(pricesWith({})).toEqual(USUAL_PRICES);
    const own = pricesWith({ 'camera-moved': 12, 'coffee-made': 9 });
    expect(own).toEqual({ ...USUAL_PRICES, 'camera-moved': 12 });
    const [cordial, mill] = [demoSet('cordial'), demoSet('mill')];
    const more =
      changeMinutes(priceOfChange(cordial, mill, own)) - changeMinutes(priceOfChange(cordial, mill));
    expect(more).toBe(12 - USUAL_PRICES['camera-moved']);
    expect(pricesWith({ toString: 5 } as never)).toEqual(USUAL_PRICES);
  });
});
