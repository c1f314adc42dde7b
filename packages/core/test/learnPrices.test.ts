import { describe, expect, test } from 'vitest';
import {
  type BuiltSet,
  type ChangeStep,
  createNormal,
  createRandom,
  learnPrices,
  USUAL_PRICES,
} from '../src/index.js';

const STEPS = Object.keys(USUAL_PRICES) as ChangeStep[];
/** Days of a studio whose prices are these, each building of a few steps by seeds. */
function days(true_: Record<ChangeStep, number>, count: number, seed: number, scatter = 2): BuiltSet[] {
  const random = createRandom(seed);
  const normal = createNormal(seed + 1);
  return Array.from({ length: count }, () => {
    const steps = Array.from(
      { length: 2 + Math.floor(5 * random()) },
      () => STEPS[Math.floor(random() * STEPS.length)] as ChangeStep,
    );
    const minutes = steps.reduce((sum, step) => sum + true_[step], 0) + scatter * normal();
    return { steps, minutes: Math.max(0.2, minutes) };
  });
}
const slow = Object.fromEntries(
  STEPS.map((step, i) => [step, USUAL_PRICES[step] * (i % 2 ? 1.6 : 0.7)]),
) as Record<ChangeStep, number>;

describe('change prices learned from days', () => {
  test('nothing was built: nothing is learned', () => {
    expect(learnPrices([])).toEqual([]);
    expect(learnPrices([{ steps: [], minutes: 10 }])).toEqual([]);
  });

  test('one building moves prices a little, and only those of its steps', () => {
    const [light] = learnPrices([{ steps: ['light-added', 'light-added'], minutes: 16 }]);
    expect(light).toMatchObject({ step: 'light-added', times: 2, usual: 5 });
    expect(light?.learned).toBeGreaterThan(5);
    expect(light?.learned).toBeLessThan(8);
    expect(learnPrices([{ steps: ['light-added'], minutes: 5 }])).toHaveLength(1);
  });

  test.each([1, 2, 3, 4])(
    'after 150 buildings of seed %s the prices are those of the studio, within their errors',
    (seed) => {
      const learned = learnPrices(days(slow, 150, seed));
      expect(learned.length).toBe(STEPS.length);
      const within = learned.filter(
        ({ step, learned: price, error }) => Math.abs(price - slow[step as ChangeStep]) < 2 * error,
      );
      expect(within.length / learned.length).toBeGreaterThanOrEqual(0.85);
      // Nearer than the usual ones in all, by far.
      const off = (of: (one: (typeof learned)[number]) => number) =>
        learned.reduce((sum, one) => sum + (of(one) - slow[one.step as ChangeStep]) ** 2, 0);
      expect(off(({ learned: price }) => price)).toBeLessThan(0.25 * off(({ usual }) => usual));
    },
  );

  test('more days, surer', () => {
    const error = (count: number) => learnPrices(days(slow, count, 9))[0]?.error ?? Number.NaN;
    expect(error(200)).toBeLessThan(0.5 * error(10));
  });

  test('a building that was interrupted tells nothing', () => {
    const built = days(slow, 40, 5);
    const lunch: BuiltSet = { steps: ['sheet-moved', 'power-changed'], minutes: 75 };
    expect(learnPrices([...built, lunch])).toEqual(learnPrices(built));
  });

  test('steps that were ticked one after the other at the end tell nothing', () => {
    const built = days(slow, 40, 5);
    const ticked: BuiltSet = { steps: ['light-added', 'light-added', 'backdrop-changed'], minutes: 0.3 };
    expect(learnPrices([...built, ticked])).toEqual(learnPrices(built));
  });

  test('no price falls to nothing', () => {
    const quick = Array.from(
      { length: 60 },
      (): BuiltSet => ({ steps: ['backdrop-changed', 'light-added'], minutes: 2.7 }),
    );
    for (const { learned, usual } of learnPrices(quick)) expect(learned).toBeGreaterThanOrEqual(0.1 * usual);
  });
});
