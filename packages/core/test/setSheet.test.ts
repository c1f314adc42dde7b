import type { SetDocument, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  ALLOWED,
  facingOf,
  heldTo,
  mirrorBand,
  mostChanged,
  NUDGE_WAYS,
  nudged,
  nudgeStep,
  nudgesOf,
  planDrawing,
  prepareTracing,
  type SheetFigures,
  type Tolerance,
  toleranceOf,
  toStand,
  traceSpot,
  worstFirst,
} from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

const figuresOf = (set: SetDocument, samples = 512): SheetFigures => {
  const tracing = prepareTracing(set);
  return {
    spots: set.spots.map((spot) => traceSpot(tracing, spot, samples, 3)),
    bands: set.products.flatMap((product) => mirrorBand(tracing, product) ?? []),
  };
};

/** A small lamp over a matte table, a spot right below it. */
const lampAt = (heightM: number) =>
  testSet({
    bench: { centreM: [0, 0], widthM: 1, depthM: 1, thicknessM: 0.02, material: matte(0.5) },
    lights: [overheadSoftbox(heightM, { widthM: 0.04, heightM: 0.04 })],
    spots: [{ name: 'below', pointM: [0, 0, 0], normal: [0, 0, 1] }],
  });

describe('what is put off', () => {
  const cordial = demoSet('cordial');

  test('every light that is on, card, product and the camera, and no window', () => {
    const keys = new Set(nudgesOf(cordial).map(({ thing }) => `${thing.kind} ${thing.key}`));
    expect([...keys].sort()).toEqual(['camera ', 'light A', 'product bottle', 'sheet 1', 'sheet 2']);
    const off = { ...cordial, lights: cordial.lights.map((light) => ({ ...light, on: false })) };
    expect(nudgesOf(off).some(({ thing }) => thing.kind === 'light')).toBe(false);
  });

  test.each(NUDGE_WAYS)('%s changes that figure alone, and back again leaves nothing', (way) => {
    const thing = { kind: 'sheet', key: '1' } as const;
    const figures = (set: SetDocument) => {
      const sheet = set.sheets.find(({ tag }) => tag === '1') as { positionM: Vector; aimM: Vector };
      const stand = toStand(sheet.positionM);
      const facing = facingOf(sheet.positionM, sheet.aimM);
      return {
        out: stand.distanceM,
        aside: stand.bearingDeg,
        up: stand.heightM,
        turn: facing.bearingDeg,
        tilt: facing.tiltDeg,
      };
    };
    const step = nudgeStep(way);
    const [before, after] = [figures(cordial), figures(nudged(cordial, { thing, way }, step))];
    const changed = NUDGE_WAYS.filter((one) => Math.abs(after[one] - before[one]) > 1e-3);
    expect(changed).toContain(way);
    // What is moved stays aimed at its point, so its facing changes with its place.
    if (way === 'turn' || way === 'tilt') expect(changed).toEqual([way]);
    else expect(changed.filter((one) => one === 'out' || one === 'aside' || one === 'up')).toEqual([way]);
    const back = figures(nudged(nudged(cordial, { thing, way }, step), { thing, way }, -step));
    for (const one of NUDGE_WAYS) expect(back[one]).toBeCloseTo(before[one], way === 'aside' ? 1 : 6);
  });

  test('spots on a product go with it, others stay', () => {
    const moved = nudged(cordial, { thing: { kind: 'product', key: 'bottle' }, way: 'out' }, 0.05);
    const shifts = moved.spots.map(({ pointM }, i) =>
      Math.hypot(...pointM.map((value, a) => value - (cordial.spots[i]?.pointM[a] ?? 0))),
    );
    const byName = Object.fromEntries(cordial.spots.map(({ name }, i) => [name, shifts[i]]));
    expect(byName.label).toBeCloseTo(0.05, 9);
    expect(byName.sweep).toBe(0);
  });

  test('a thing that is not there changes nothing', () => {
    for (const kind of ['light', 'sheet', 'product'] as const)
      expect(nudged(cordial, { thing: { kind, key: 'zz' }, way: 'out' }, 0.1)).toEqual(cordial);
  });
});

describe('how far a figure may be off', () => {
  const up = { thing: { kind: 'light', key: 'A' }, way: 'up' } as const;
  const toleranceAt = (heightM: number) => {
    const set = lampAt(heightM);
    const step = nudgeStep('up');
    return toleranceOf(set, up, figuresOf(nudged(set, up, -step)), figuresOf(nudged(set, up, step)));
  };

  test.each([0.5, 1])('a small lamp %s m over its spot: by the inverse square', (heightM) => {
    // A tenth of a stop is 2 log2(d) changed by 0.1: d by 0.1 ln 2 / 2 of itself. The lamp is no point: a percent or so.
    const { most, limit, isBound } = toleranceAt(heightM);
    expect(isBound).toBe(false);
    expect(limit).toEqual({ kind: 'spot', name: 'below' });
    expect((most ?? 0) / ((heightM * ALLOWED.stops * Math.LN2) / 2)).toBeGreaterThan(0.96);
    expect((most ?? 0) / ((heightM * ALLOWED.stops * Math.LN2) / 2)).toBeLessThan(1.04);
  });

  test('what changes nothing is of no account', () => {
    const set = lampAt(1);
    const camera = { thing: { kind: 'camera', key: '' }, way: 'out' } as const;
    const figures = figuresOf(set);
    expect(toleranceOf(set, camera, figures, figures)).toMatchObject({ most: null, limit: null });
  });

  test('an image on a bottle goes as far as it is said to', () => {
    const set = demoSet('cordial');
    const nudge = { thing: { kind: 'light', key: 'A' }, way: 'aside' } as const;
    const step = nudgeStep('aside');
    const bandsOnly = (own: SetDocument) => figuresOf({ ...own, spots: [] });
    const { most, limit } = toleranceOf(
      set,
      nudge,
      bandsOnly(nudged(set, nudge, -step)),
      bandsOnly(nudged(set, nudge, step)),
    );
    expect(limit).toEqual({ kind: 'band', product: 'bottle' });
    const change = mostChanged(set, bandsOnly(set), bandsOnly(nudged(set, nudge, most ?? 0)));
    expect(change?.part).toBeGreaterThan(0.85);
    expect(change?.part).toBeLessThan(1.15);
  });

  test('held against the set, one that was told too wide is narrowed, others stay as they are', () => {
    const told: Tolerance = { ...up, most: 0.1, isBound: false, limit: { kind: 'spot', name: 'below' } };
    const change = (part: number) => ({ part, limit: { kind: 'spot' as const, name: 'below' } });
    expect(heldTo(told, [change(0.9), change(1.2)])).toBe(told);
    expect(heldTo(told, [change(0.9), change(1.6)]).most).toBeCloseTo(0.1 / 1.6, 12);
    expect(heldTo(told, [change(80), null]).most).toBeCloseTo(0.05, 12);
    expect(heldTo({ ...told, most: null }, [change(9)]).most).toBeNull();
  });

  test('the closest first, lengths against angles by their steps', () => {
    const of = (way: Tolerance['way'], most: number | null): Tolerance => ({
      thing: up.thing,
      way,
      most,
      isBound: false,
      limit: null,
    });
    const sorted = worstFirst([of('up', null), of('turn', 5), of('out', 0.02), of('tilt', 1)]);
    expect(sorted.map(({ way }) => way)).toEqual(['tilt', 'out', 'turn', 'up']);
  });
});

describe('drawings', () => {
  test.each(['cordial', 'mill', 'tart', 'tent', 'bottle'] as const)(
    '%s: all that stands there is drawn, within the corners told',
    (name) => {
      const set = demoSet(name);
      for (const kind of ['above', 'side'] as const) {
        const { outlines, tags, low, high } = planDrawing(kind, set);
        const drawn = new Set(outlines.map(({ of }) => of));
        expect(drawn.has('product')).toBe(true);
        expect(tags.map(({ text }) => text)).toEqual([
          ...set.lights.filter(({ kind: own }) => own !== 'surround').map(({ tag }) => tag),
          ...set.sheets.map(({ tag }) => tag),
        ]);
        for (const { corners } of outlines)
          for (const [right, down] of corners) {
            expect(right).toBeGreaterThanOrEqual(low[0]);
            expect(right).toBeLessThanOrEqual(high[0]);
            expect(down).toBeGreaterThanOrEqual(low[1]);
            expect(down).toBeLessThanOrEqual(high[1]);
          }
      }
    },
  );
});
