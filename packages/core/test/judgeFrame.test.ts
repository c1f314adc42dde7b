import type { FrameAgainstPlan, SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  asItStands,
  bakeLightmaps,
  decodeSrgb,
  evidenceOf,
  evidenceOfFrame,
  type FrameTones,
  fieldStops,
  isOpen,
  judgeSet,
  prepareTracing,
  recordFrame,
  setOfFrame,
  type TracedView,
  traceView,
} from '../src/index.js';

/** Cells of the frame for each place of the view, each way. */
const FINER = 2;

function viewed(set: SetDocument): TracedView {
  const tracing = prepareTracing(set);
  bakeLightmaps(tracing, { rays: 16, photons: 8000 });
  return traceView(tracing, set, { samples: 3 });
}

/** A frame of a set by its view: each place is some cells that a camera recorded. */
function frameOf(real: SetDocument, view: TracedView, seed: number): FrameTones {
  const { across, down } = view.whole;
  const [width, height] = [FINER * across, FINER * down];
  const stops = fieldStops(real, view.whole);
  const linear = Float32Array.from({ length: 3 * width * height }, (_, i) => {
    const pixel = Math.floor(i / 3);
    const place =
      Math.floor(Math.floor(pixel / width) / FINER) * across + Math.floor((pixel % width) / FINER);
    return 0.18 * 2 ** (stops[place] as number);
  });
  const rgb = recordFrame(linear, width, height, 100, seed);
  const luminance = Float32Array.from({ length: width * height }, (_, i) =>
    decodeSrgb((rgb[3 * i + 1] as number) / 255),
  );
  return { width, height, luminance, shift: null };
}

const told = (stops: number, error: number): FrameAgainstPlan['lights'][number] => ({
  tag: 'A',
  name: 'Key',
  stops,
  error,
  isOff: false,
});
const figure = (value: number, error: number) => ({ value, error });

describe('the set as a frame tells it', () => {
  const set = demoSet('cordial');
  const [product] = set.products;
  const own = product as SetDocument['products'][number];
  const light = (of: SetDocument) => of.lights.find(({ tag }) => tag === 'A')?.powerStops ?? Number.NaN;

  test('has what is sure taken over, and the rest as planned', () => {
    const found = setOfFrame(set, {
      lights: [told(-0.8, 0.1)],
      shift: null,
      products: [{ id: own.id, right: figure(0.004, 0.0005), turnDeg: figure(5, 4) }],
    });
    expect(light(found)).toBeCloseTo(light(set) - 0.8, 9);
    expect(found.products[0]?.positionM[0]).toBeCloseTo(own.positionM[0] + 0.004, 9);
    expect(found.products[0]?.turnDeg).toBe(own.turnDeg);
    const vague = {
      lights: [told(0.2, 0.3)],
      shift: null,
      products: [{ id: 'gone', right: null, turnDeg: null }],
    };
    expect(setOfFrame(set, vague)).toEqual(set);
  });

  test('a product that moved with all of the picture stays: the frame is read that much aside', () => {
    const moved = (right: number) =>
      setOfFrame(set, {
        lights: [],
        shift: { rightM: figure(0.004, 0.0005), downM: figure(0, 0.0005) },
        products: [{ id: own.id, right: figure(right, 0.0005), turnDeg: null }],
      }).products[0]?.positionM[0] ?? Number.NaN;
    expect(moved(0.004)).toBe(own.positionM[0]);
    expect(moved(0.01)).toBeCloseTo(own.positionM[0] + 0.006, 9);
  });
});

describe('verdicts on a frame', () => {
  test('are those of the set as it stood, by the tones of the frame alone', () => {
    const set = demoSet('pepper');
    const planned = viewed(set);
    let many = 0;
    for (const [seed, stops] of [
      [3, -1.5],
      [4, 1.5],
    ] as const) {
      const real = asItStands(set, seed, { powerStops: { A: stops } });
      const view = viewed(real);
      const truth = judgeSet(evidenceOf(real, view)).filter(isOpen);
      // As planned in all but the tones: no power is told, and the view is that of the plan.
      const found = judgeSet(evidenceOfFrame(evidenceOf(set, planned), frameOf(real, view, seed))).filter(
        isOpen,
      );
      const ids = (all: typeof truth) => all.map(({ id }) => id);
      const tones = ['burnt', 'tone-missed', 'ground-not-black', 'product-dark', 'lost-in-black'];
      const ofTones = (all: typeof truth) => ids(all.filter(({ code }) => tones.includes(code))).sort();
      many += ofTones(truth).length;
      expect(ofTones(found)).toEqual(ofTones(truth));
      expect(ids(judgeSet(evidenceOf(set, planned)).filter(isOpen)).sort()).not.toEqual(ids(found).sort());
    }
    expect(many).toBeGreaterThan(0);
  }, 60_000);

  test('what is clipped is over white by what the view says, never by nothing', () => {
    const set = demoSet('cordial');
    const evidence = evidenceOf(set, viewed(set));
    const { across, down } = evidence;
    const white = {
      width: across,
      height: down,
      luminance: new Float32Array(across * down).fill(1),
      shift: null,
    };
    const found = evidenceOfFrame(evidence, white);
    found.stops.forEach((stops, place) => {
      expect(stops).toBeGreaterThan(2.5);
      expect(stops).toBeGreaterThanOrEqual(evidence.stops[place] as number);
    });
    const black = evidenceOfFrame(evidence, { ...white, luminance: new Float32Array(across * down) });
    for (const stops of black.stops) expect(stops).toBe(-9);
    // The evidence itself is as it was.
    expect(evidence.stops).toEqual(evidenceOf(set, evidence.view).stops);
  });

  test('a frame that is read a little aside makes figures at edges unsure, and even ones not', () => {
    const set = demoSet('cordial');
    const evidence = evidenceOf(set, viewed(set));
    const { across, down } = evidence;
    const half = (of: (x: number) => number) => ({
      width: 4 * across,
      height: 4 * down,
      luminance: Float32Array.from({ length: 16 * across * down }, (_, i) =>
        of((i % (4 * across)) / (4 * across)),
      ),
      shift: { right: figure(0, 0.01), down: figure(0, 0.01) },
    });
    const spread = ({ batchStops }: typeof evidence, place: number) => {
      const own = batchStops.map((batch) => batch[place] as number);
      return Math.max(...own) - Math.min(...own);
    };
    const edge = evidenceOfFrame(
      evidence,
      half((x) => (x < 0.5 ? 0.1 : 0.4)),
    );
    const middle = Math.floor(down / 2) * across + across / 2;
    expect(spread(edge, middle)).toBeGreaterThan(0.5);
    expect(spread(edge, middle + across / 4)).toBe(0);
  });

  test('a frame that stands further right is read further right', () => {
    const set = demoSet('cordial');
    const evidence = evidenceOf(set, viewed(set));
    const { across, down } = evidence;
    const [width, height] = [across * 4, down * 4];
    const luminance = Float32Array.from(
      { length: width * height },
      (_, i) => 0.05 + (0.5 * (i % width)) / width,
    );
    const read = (right: number) =>
      evidenceOfFrame(evidence, {
        width,
        height,
        luminance,
        shift: { right: figure(right, 0.001), down: figure(0, 0.001) },
      }).stops;
    const place = Math.floor(down / 2) * across + Math.floor(across / 2);
    expect(read(2 / across)[place]).toBeCloseTo(read(0)[place + 2] as number, 6);
  });
});
