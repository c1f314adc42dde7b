import { type Job, jobDocument } from '@fendrix/contract';
import { proposedSteps } from '@fendrix/words';
import { describe, expect, test } from 'vitest';
import { adviseView, boomLoad, jobProgress, openQuestions } from '../src/index.js';

describe('the view', () => {
  const ask = { shine: 'satin', blurGround: false, others: [] } as const;

  test.each([
    ['a bottle with its label', { detail: 'side', heightM: 0.25, widthM: 0.07 }, 'eye-level'],
    ['a tart', { detail: 'top', heightM: 0.04, widthM: 0.28 }, 'straight-down'],
    ['a bowl of soup', { detail: 'both', heightM: 0.09, widthM: 0.18 }, 'three-quarter'],
  ] as const)('%s', (_name, question, expected) => {
    const [best] = adviseView({ ...ask, ...question });
    expect(best?.view).toBe(expected);
    expect(best?.reasons.length).toBeGreaterThan(0);
    expect(best?.score).toBe(best?.reasons.reduce((sum, { points }) => sum + points, 0));
  });

  test('gloss on top speaks against straight down, the series for what is there', () => {
    const score = (changes: object) =>
      adviseView({ ...ask, detail: 'top', heightM: 0.05, widthM: 0.1, ...changes }).find(
        ({ view }) => view === 'straight-down',
      )?.score as number;
    expect(score({ shine: 'mirror' })).toBe(score({}) - 1);
    expect(score({ others: ['straight-down'] })).toBe(score({}) + 1);
    expect(score({ backdropFills: { 'straight-down': false } })).toBe(score({}) - 1);
  });
});

describe('a boom', () => {
  const boom = { loadKg: 1.5, armKg: 2, armM: 1.2, behindM: 0, baseRadiusM: 0.4, standKg: 8 };

  test('moments about the tipping line: 8 x 0.4 against 1.5 x 0.8 + 2 x 0.2', () => {
    expect(boomLoad(boom, 0)).toMatchObject({ safe: true, ballastKg: 0 });
    expect(boomLoad(boom, 0).factor).toBeCloseTo(2, 9);
  });

  test('a heavy head asks for ballast, or a counterweight behind', () => {
    const heavy = { ...boom, loadKg: 4, behindM: 0.6 };
    const answer = boomLoad(heavy, 0);
    // Arm at 0.3 m holds 2 x 0.1; 4 x 0.8 = 3.2 tips; 3.4 holds; 1.5 x 3.2 - 3.4 = 1.4 over 0.4 m.
    expect(answer).toMatchObject({ safe: false });
    expect(answer.ballastKg).toBeCloseTo(3.5, 9);
    expect(answer.balanceKg).toBeCloseTo((4 * 1.2 + 2 * 0.3) / 0.6, 9);
    expect(boomLoad(heavy, answer.balanceKg).safe).toBe(true);
  });

  test('nonsense is refused', () => {
    expect(() => boomLoad({ ...boom, baseRadiusM: 0 }, 0)).toThrow(/base/);
    expect(() => boomLoad({ ...boom, loadKg: Number.NaN }, 0)).toThrow(/masses/);
  });
});

describe('a job on its way', () => {
  const format = { id: 'shop', name: 'Shop page', widthPx: 2000, heightPx: 2000 };
  const cordial = {
    id: 'cordial',
    name: 'Damson cordial',
    body: {
      kind: 'turned',
      id: 'cordial',
      name: 'Damson cordial',
      positionM: [0, 0, 0],
      material: { kind: 'dielectric', index: 1.52 },
      profile: [
        { radiusM: 0.036, heightM: 0 },
        { radiusM: 0.036, heightM: 0.2 },
      ],
    },
  };
  const shot = { id: 'front', name: 'Front', products: ['cordial'] };
  const job = (changes: object = {}): Job =>
    jobDocument.parse({ format: 'fendrix-job', version: 1, name: 'Autumn', ...changes });
  const setId = '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11';

  test.each<[string, object]>([
    ['brief', {}],
    ['products', { brief: { deliverables: [format] } }],
    ['shots', { brief: { deliverables: [format] }, products: [cordial] }],
    ['camera', { brief: { deliverables: [format] }, products: [cordial], shots: [shot] }],
    ['shooting', { brief: { deliverables: [format] }, products: [cordial], shots: [{ ...shot, setId }] }],
    [
      'delivery',
      { brief: { deliverables: [format] }, products: [cordial], shots: [{ ...shot, setId, done: true }] },
    ],
    ['delivered', { delivered: true }],
    ['archived', { archived: true }],
  ])('%s', (state, changes) => {
    expect(jobProgress(job(changes)).state).toBe(state);
  });

  test('an empty brief asks for everything, a full one for nothing', () => {
    expect(openQuestions(job()).length).toBeGreaterThanOrEqual(6);
    const full = job({
      client: 'Oddvane Larder',
      dueOn: '2026-12-04',
      brief: {
        need: 'Shop pictures',
        mood: 'Bright',
        pictures: 1,
        deliverables: [{ ...format, copySide: 'left', copyPart: 0.3 }],
        references: [{ sha256: 'a'.repeat(64), name: 'Look' }],
        supplied: [{ name: 'Cordial', count: 2, arrived: true }],
      },
      products: [cordial],
      shots: [shot],
    });
    expect(openQuestions(full)).toEqual([]);
    expect(
      openQuestions({ ...full, shots: [...full.shots, { ...full.shots[0], id: 'b' } as never] }),
    ).toHaveLength(1);
  });

  test('rows that point nowhere or share a name are named', () => {
    const broken = jobDocument.safeParse({
      format: 'fendrix-job',
      version: 1,
      name: 'Autumn',
      brief: { deliverables: [format, format] },
      shots: [{ ...shot, deliverables: ['poster'] }],
    });
    const paths = broken.error?.issues.map(({ path }) => path.join('.'));
    expect(paths).toEqual(['brief.deliverables.1.id', 'shots.0.products.0', 'shots.0.deliverables.0']);
  });
});

describe('preparation', () => {
  const goods = {
    detail: 'side',
    shine: 'satin',
    clear: 'opaque',
    fragile: '',
    spares: 0,
    usedUp: 0,
  } as const;

  test('glass wants gloves first, garments no gloves at all', () => {
    expect(proposedSteps({ ...goods, goods: 'glass' })[0]?.text).toMatch(/gloves/);
    expect(proposedSteps({ ...goods, goods: 'garment' }).some(({ text }) => /gloves/.test(text))).toBe(false);
  });

  test('what a finish, fragility and time on set ask for comes after', () => {
    const steps = proposedSteps({
      ...goods,
      goods: 'drink',
      shine: 'gloss',
      clear: 'clear',
      fragile: 'foam falls',
      minutesOnSet: 4,
      spares: 2,
    }).map(({ text }) => text);
    expect(steps.some((text) => text.includes('foam falls'))).toBe(true);
    expect(steps.some((text) => text.includes('4 minutes on set, then a spare (2 at hand)'))).toBe(true);
    expect(steps.at(-1)).toMatch(/not eaten or drunk/);
    expect(new Set(steps).size).toBe(steps.length);
  });
});
