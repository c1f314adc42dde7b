import type { SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { brokenSets, soundSets } from '@fendrix/demo/broken';
import { describe, expect, test } from 'vitest';
import {
  applyChange,
  BY_MAPS,
  bakeLightmaps,
  clashesOf,
  evidenceOf,
  excessOf,
  judgeOne,
  judgeSet,
  limitsWith,
  offered,
  overlaps,
  prepareTracing,
  reportFault,
  THRESHOLDS,
  traceView,
  tryCures,
  VERDICT_CODES,
  type VerdictCode,
  workedOut,
} from '../src/index.js';

const trace = (set: SetDocument) => traceView(prepareTracing(set), set, { samples: 3 });
/** A view in which no tone is sure, in a fraction of the time: where only what becomes of its figures counts. */
function glance(set: SetDocument, samples: number) {
  const tracing = prepareTracing(set);
  if (samples > 0) bakeLightmaps(tracing, { rays: 8, photons: 2000 });
  return traceView(tracing, set, { samples });
}
/** Many cures, each traced and looked at again: on a busy machine this takes minutes. */
const SLOW = 240_000;
const part = (of: readonly boolean[]) => of.filter(Boolean).length / of.length;
/** Of broken sets; those that are not so are named where it fails. */
function expectNineInTen(sets: readonly { name: string }[], isSo: readonly boolean[]): void {
  const others = sets.filter((_, i) => !isSo[i]).map(({ name }) => name);
  expect(part(isSo), others.join('; ')).toBeGreaterThanOrEqual(0.9);
}

describe('the corpus', () => {
  test('holds at least 80 broken sets and 20 sound ones, and a fault of every kind but those of a studio', () => {
    const broken = brokenSets();
    expect(broken.length).toBeGreaterThanOrEqual(80);
    expect(soundSets().length).toBeGreaterThanOrEqual(20);
    const codes = new Set(broken.map(({ code }) => code));
    // What needs a kit or goes by wishes of a few sets has tests of its own below.
    const alone = ['ground-too-white', 'liquid-uneven', 'circuit-over'];
    expect(VERDICT_CODES.filter((code) => !codes.has(code) && !alone.includes(code))).toEqual([]);
  });

  test('sound sets call for no more than one verdict each that an expert would wave off', () => {
    for (const { name, set } of soundSets().filter((_, i) => i % 4 === 0)) {
      const ids = judgeSet(evidenceOf(set, trace(set))).map(({ id }) => id);
      expect(ids.length, `${name}: ${ids.join(', ')}`).toBeLessThanOrEqual(1);
    }
  });

  for (const [shift, each, seeds, tags] of [
    [0, 8, 'seeds that limits were chosen by', ['more']],
    [7, 8, 'seeds that nothing was chosen by', ['more']],
    [7, 16, 'some seeds that nothing was chosen by', []],
  ] as const)
    test(`a known fault is told first or second with its cause in nine of ten, ${seeds}`, {
      tags: [...tags],
    }, () => {
      const some = brokenSets(shift).filter((_, i) => i % each === 0);
      const found = some.map(({ set, ...fault }) => reportFault(set, fault, { trace, check: null }).found);
      expectNineInTen(some, found);
    });

  test('a cure that is offered holds when it is looked at again with more light, in nine of ten', {
    tags: ['more'],
  }, () => {
    const check = (set: SetDocument) => traceView(prepareTracing(set), set, { samples: 8 });
    const some = brokenSets().filter((_, i) => i % 8 === 0);
    const cured = some.map(({ set, ...fault }) => reportFault(set, fault, { trace, check }).cured === true);
    expectNineInTen(some, cured);
  });
});

test('every figure of a verdict comes out of the terms that are told with it', {
  tags: ['more'],
  timeout: SLOW,
}, () => {
  const kinds = new Set<VerdictCode>();
  for (const { name, set, code } of brokenSets()) {
    if (kinds.has(code as VerdictCode)) continue;
    kinds.add(code as VerdictCode);
    const view = glance(set, BY_MAPS.has(code as VerdictCode) ? 0 : 1);
    for (const { id, figure, working } of judgeSet(evidenceOf(set, view))) {
      const terms = Object.values(working.of);
      expect(terms.length, `${name}, ${id}`).toBeGreaterThan(0);
      const value = workedOut(working);
      if (value !== null && Number.isFinite(value))
        expect(value, `${name}, ${id}`).toBeCloseTo(figure.value, 9);
    }
  }
});

describe('what only a studio can tell', () => {
  const set = demoSet('pepper');
  const view = trace(set);
  const light = { ...set.lights[0], drawW: 1500 } as SetDocument['lights'][number];
  const loaded: SetDocument = { ...set, lights: [light, ...set.lights.slice(1)] };
  const studio = { breakerA: 6, mainsV: 230 } as never;
  const limits = THRESHOLDS;

  test('more on one circuit than its breaker bears is a danger, and comes first', () => {
    const [first] = judgeSet(evidenceOf(loaded, view, { limits, kit: { entries: [], studio } }));
    expect(first).toMatchObject({ code: 'circuit-over', danger: true });
    expect(first?.figure.value).toBeCloseTo(1500 - 1104, 0);
    expect(first?.working).toMatchObject({ by: 'less', of: { draw: 1500, circuitBears: 1104 } });
  });
});

test('what needs no light is judged the same before any light is traced', () => {
  const told = (set: SetDocument, samples: number) => {
    const evidence = evidenceOf(set, glance(set, samples));
    return VERDICT_CODES.filter((code) => BY_MAPS.has(code)).flatMap((code) =>
      judgeOne(evidence, code).map(({ id, figure }) => [id, figure.value]),
    );
  };
  const some = brokenSets().filter(({ code }) => BY_MAPS.has(code as VerdictCode));
  expect(some.length).toBeGreaterThan(20);
  for (const { name, set } of some.filter((_, i) => i % 8 === 0)) {
    expect(told(set, 0), name).not.toEqual([]);
    expect(told(set, 0), name).toEqual(told(set, 1));
  }
});

test('a limit of the studio counts in place of the usual one; what is off is not told', () => {
  const set = demoSet('pepper');
  const view = trace(set);
  const codes = (own: Parameters<typeof limitsWith>[0]) =>
    judgeSet(evidenceOf(set, view, { limits: limitsWith(own), kit: null })).map(({ code }) => code);
  expect(codes({})).toContain('ground-not-black');
  expect(codes({ 'ground-not-black': { off: true } })).not.toContain('ground-not-black');
  expect(codes({ 'ground-not-black': { off: false, limit: 0 } })).not.toContain('ground-not-black');
  const table = limitsWith({ 'no-such-thing': { off: true }, burnt: { off: false, minutesNow: 9 } });
  expect(Object.keys(table)).toEqual(Object.keys(THRESHOLDS));
  expect(table.burnt.minutes).toEqual({ ...THRESHOLDS.burnt.minutes, now: 9 });
});

test('cures are followed to the end on a set of another room: one fault after the other goes', {
  tags: ['more'],
}, () => {
  const broken = brokenSets().find(({ code }) => code === 'label-turned');
  if (!broken) throw new Error('there is one');
  let set: SetDocument = {
    ...broken.set,
    camera: { ...broken.set.camera, shutterS: 1 / 1000, focusM: 1.5, fNumber: 11 },
  };
  for (let i = 0; i < 4; i++) {
    const evidence = evidenceOf(set, trace(set));
    const [verdict] = judgeSet(evidence);
    if (!verdict) break;
    const [cure] = tryCures(evidence, verdict, trace);
    set = (cure && applyChange(set, cure.change)) ?? set;
  }
  expect(judgeSet(evidenceOf(set, trace(set))).map(({ id }) => id)).toEqual([]);
});

test('a cure that makes something stand in something else says so, and comes last', () => {
  const { set } = soundSets()[0] ?? {};
  if (!set) throw new Error('there is one');
  const table = { kind: 'bench' as const, key: 'bench', name: 'Table' };
  const clash = { kind: 'sheet' as const, key: '1', other: table, wayOutM: null };
  expect(clashesOf([clash], [clash])).toEqual([]);
  expect(clashesOf([], [clash])).toEqual([clash]);
  const cure = (clashes: (typeof clash)[]) => ({
    change: [],
    left: null,
    sideEffects: [],
    onBalance: -1,
    clashes,
  });
  expect(offered([cure([clash]), cure([])]).map(({ clashes }) => clashes.length)).toEqual([0, 1]);
  expect(clashesOf(overlaps(set), overlaps(set))).toEqual([]);
});

test('how far beyond its limit a figure lies', () => {
  expect(excessOf({ value: 3, limit: 1, fault: 'above' })).toBe(2);
  expect(excessOf({ value: 3, limit: 1, fault: 'below' })).toBe(-2);
});
