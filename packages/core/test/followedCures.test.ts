import { defaultKit } from '@fendrix/catalogue';
import { type Product, type SetDocument, startWishes } from '@fendrix/contract';
import { demoJob } from '@fendrix/demo';
import { brokenSets } from '@fendrix/demo/broken';
import { describe, expect, test } from 'vitest';
import {
  applyChange,
  evidenceOf,
  forPurpose,
  type JudgedBy,
  judgeSet,
  prepareTracing,
  stageSet,
  THRESHOLDS,
  traceView,
  tryCures,
} from '../src/index.js';

const job = demoJob(() => '6f1cbb57-8f5d-4c52-9a7e-0f2b8f1d9b11');
const kit = defaultKit();
const by: JudgedBy = { limits: THRESHOLDS, kit };
const trace = (set: SetDocument) => traceView(prepareTracing(set), set, { samples: 3 });
const judged = (set: SetDocument) => evidenceOf(set, trace(set), by);
const SLOW = 240_000;

/** A first set for a product of the kit, as a picture of a job is set up. */
function newSet(name: string, purpose: string): SetDocument {
  const body = kit.entries.flatMap((entry) =>
    entry.what === 'product' && entry.name === name ? [entry.thing] : [],
  )[0] as Product;
  const shot = job.shots.find(({ id }) => id === 'mill');
  const [first] = job.products;
  if (!shot?.framing || !first) throw new Error('the demo job has them');
  const lights = kit.entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));
  const { set } = stageSet(
    { ...job, brief: { ...job.brief, mood: '' }, products: [{ ...first, id: 'it', name, body }] },
    { ...shot, name, look: purpose, products: ['it'] },
    shot.framing,
    kit.studio,
    lights,
  );
  return { ...set, wishes: forPurpose({ ...set, wishes: startWishes(set, set.wishes.mood) }, purpose) };
}

describe('first cures followed without looking, from a new set', () => {
  for (const [name, purpose, first, tags] of [
    ['Signet ring', 'plain', 'edge-lost', ['more']],
    ['Box with label', 'dark and moody', 'ground-off-grey', []],
    ['Polished cylinder', 'for the shop, bright', 'ground-not-white', ['more']],
  ] as const)
    test(`${name}, ${purpose}: nothing is left after a few`, { tags: [...tags], timeout: SLOW }, () => {
      let set = newSet(name, purpose);
      const begun = judgeSet(judged(set));
      expect(begun.map(({ code }) => code)).toContain(first);
      for (let step = 0; step < 5; step++) {
        const evidence = judged(set);
        const [verdict] = judgeSet(evidence);
        if (!verdict) break;
        const [cure] = tryCures(evidence, verdict, trace);
        expect(cure, `${verdict.id} has a cure`).toBeDefined();
        expect(cure?.onBalance).toBeLessThan(0);
        set = (cure && applyChange(set, cure.change)) ?? set;
      }
      expect(judgeSet(judged(set)).map(({ id }) => id)).toEqual([]);
    });
});

test('a cure that harms more elsewhere than it helps says so, and comes last', () => {
  const set = newSet('Folded linen', 'for the shop, bright');
  const evidence = judged({ ...set, camera: { ...set.camera, fNumber: 20 } });
  const verdicts = judgeSet(evidence);
  const white = verdicts.find(({ code }) => code === 'ground-not-white');
  if (!white) throw new Error('the ground is not white');
  const cures = tryCures(evidence, white, trace);
  const harm = (of: SetDocument) => judgeSet(judged(of)).reduce((sum, verdict) => sum + verdict.harm, 0);
  const before = verdicts.reduce((sum, verdict) => sum + verdict.harm, 0);
  expect(cures.length).toBeGreaterThan(1);
  for (const { change, onBalance } of cures) {
    const after = applyChange(evidence.set, change);
    expect(onBalance).toBeCloseTo(harm(after as SetDocument) - before, 1);
  }
  expect(cures.some(({ onBalance }) => onBalance > 0)).toBe(true);
  expect(cures.at(-1)?.onBalance).toBe(Math.max(...cures.map(({ onBalance }) => onBalance)));
});

describe('what is no fault', () => {
  test('an outline of one tone is seen by its colour; in black it is not', () => {
    const lost = brokenSets().find(({ name }) => name.startsWith('a jar of the tone of its ground'));
    if (!lost) throw new Error('there is one');
    const codes = (scale: number, rgb: number[], iso = lost.set.camera.iso) => {
      const [jar] = lost.set.products as [Product];
      const material = { kind: 'matte' as const, reflectance: rgb.map((value) => value * scale) };
      const tinted = { ...lost.set, products: [{ ...jar, material }], camera: { ...lost.set.camera, iso } };
      return judgeSet(judged(tinted as SetDocument)).map(({ code }) => code);
    };
    const own = (lost.set.products[0] as { material: { reflectance: number | number[] } }).material
      .reflectance;
    const grey = Array.isArray(own) ? (own[1] as number) : own;
    expect(codes(grey, [1, 1, 1])).toContain('edge-lost');
    // Of the same luminance, with hardly any blue.
    expect(codes(grey, [1.2, 1.03, 0.1])).not.toContain('edge-lost');
    expect(codes(grey, [1.2, 1.03, 0.1], 0.5)).toContain('edge-lost');
  });

  test('water that lies there needs no edge, no sharpness to its end and no dark base', () => {
    const water = newSet('Tray of water', 'plain');
    expect(water.wishes.edges).toBe('open');
    const wished = { ...water, wishes: { ...water.wishes, edges: 'dark-line' as const } };
    expect(judgeSet(judged(wished)).map(({ code }) => code)).toEqual([]);
  });

  test('a ground is not too white over products that have no white of their own', () => {
    const berries = newSet('Scattered berries', 'for the shop, bright');
    expect(judgeSet(judged(berries)).map(({ code }) => code)).not.toContain('ground-too-white');
  });

  test('a base on the sweep that is the ground shows the same paper', () => {
    const jar = newSet('Jar with lid', 'plain');
    expect(judgeSet(judged(jar)).map(({ code }) => code)).not.toContain('glass-base');
  });
});

test('a product is held against its own material in full light; a dark picture allows a stop more', () => {
  const fault = brokenSets().find(({ code }) => code === 'product-dark');
  if (!fault) throw new Error('there is one');
  const dark = (set: SetDocument) => judgeSet(judged(set)).find(({ code }) => code === 'product-dark');
  const found = dark(fault.set);
  expect(found?.figure.value).toBeLessThan(-3);
  expect(dark({ ...fault.set, wishes: { ...fault.set.wishes, mood: 'dark' } })?.figure.limit).toBe(
    (found?.figure.limit ?? 0) - 1,
  );
  // Twice the light is one stop less under.
  const brighter = { ...fault.set, camera: { ...fault.set.camera, iso: 2 * fault.set.camera.iso } };
  expect(dark(brighter)?.figure.value).toBeCloseTo((found?.figure.value ?? 0) + 1, 6);
});

test('a set that is to be dark starts with a dark ground', () => {
  const { wishes } = newSet('Box with label', 'dark and moody');
  expect(wishes).toMatchObject({ mood: 'dark', ground: 'grey', greyStops: -3 });
});

describe('tones that one product is to hold', () => {
  const dark = brokenSets().find(({ code }) => code === 'lost-in-black') as { set: SetDocument };
  const [product] = dark.set.products;
  const codes = (wishes: Partial<SetDocument['wishes']>) =>
    judgeSet(judged({ ...dark.set, wishes: { ...dark.set.wishes, ...wishes } })).map(({ code }) => code);

  test('count in place of those of all products', () => {
    expect(codes({})).toContain('lost-in-black');
    expect(codes({ held: [{ product: product?.id ?? '', darkestStops: -12 }] })).not.toContain(
      'lost-in-black',
    );
    expect(codes({ held: [{ product: 'another', darkestStops: -12 }] })).toContain('lost-in-black');
    expect(codes({ held: [{ product: product?.id ?? '', brightestStops: 2 }] })).toContain('lost-in-black');
  });
});

test('how far a white ground may be over the products is wished', () => {
  const set = newSet('Box with label', 'for the shop, bright');
  const limit = (overWhiteStops?: number) =>
    judgeSet(judged({ ...set, wishes: { ...set.wishes, overWhiteStops } })).find(
      ({ code }) => code === 'ground-too-white',
    )?.figure.limit;
  expect([limit(), limit(0.5), limit(3)]).toEqual([1, 0.5, undefined]);
});
