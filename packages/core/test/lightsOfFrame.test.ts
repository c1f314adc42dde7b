import type { SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  asItStands,
  BUILT_TO,
  channelsOf,
  createFilms,
  createNormal,
  decodeSrgb,
  developFilms,
  displayWeights,
  isOff,
  lightsOfFrame,
  prepareTracing,
  recordFrame,
  renderTile,
  viewOf,
} from '../src/index.js';

const [WIDTH, HEIGHT] = [60, 40];

/** What a light gives from one side, red, green, blue. */
const lit = (of: (u: number, v: number) => number): Float32Array =>
  Float32Array.from({ length: WIDTH * HEIGHT * 3 }, (_, i) => {
    const pixel = Math.floor(i / 3);
    return of((pixel % WIDTH) / WIDTH, Math.floor(pixel / WIDTH) / HEIGHT);
  });
const LEFT = lit((u, v) => 0.25 * Math.exp(-3 * u) * (0.6 + 0.4 * v));
const RIGHT = lit((u, v) => 0.2 * Math.exp(-4 * (1 - u)) * (1 - 0.5 * v));
const BEHIND = lit((u, v) => (v < 0.4 ? 0.3 + 0.05 * u : 0.01));

/** A frame of lights at factors, as a camera records it. */
function frameOf(factors: readonly number[], seed = 1, more?: (frame: Float32Array) => void): Float32Array {
  const sum = new Float32Array(WIDTH * HEIGHT * 3);
  [LEFT, RIGHT, BEHIND].forEach((light, i) => {
    for (let k = 0; k < sum.length; k++)
      sum[k] = (sum[k] as number) + (factors[i] as number) * (light[k] as number);
  });
  more?.(sum);
  return Float32Array.from(recordFrame(sum, WIDTH, HEIGHT, 100, seed), (value) => decodeSrgb(value / 255));
}
const fit = (frame: Float32Array, lights = [LEFT, RIGHT, BEHIND]) =>
  lightsOfFrame({ width: WIDTH, height: HEIGHT, frame, lights });

describe('what a frame says of its lights', () => {
  test('each by how much more it gives, whatever the others do, with dark corners and noise', () => {
    const found = fit(frameOf([2 ** -0.6, 1, 2 ** 0.4]));
    for (const [i, stops] of [-0.6, 0, 0.4].entries())
      expect(Math.abs((found?.[i]?.stops ?? 9) - stops), `light ${i}`).toBeLessThan(0.07);
    expect(found?.map(isOff)).toEqual([true, false, true]);
  });

  test('none is off where the frame is as planned, over many seeds', () => {
    for (let seed = 1; seed <= 12; seed++) expect(fit(frameOf([1, 1, 1], seed))?.some(isOff)).toBe(false);
  });

  test('a card that shows elsewhere and a burnt highlight are not laid on a light', () => {
    const found = fit(
      frameOf([1, 1, 1], 3, (frame) => {
        for (let y = 10; y < 30; y++)
          for (let x = 20; x < 26; x++)
            for (let c = 0; c < 3; c++) frame[3 * (y * WIDTH + x) + c] = x < 23 ? 3 : 0.6;
      }),
    );
    expect(found?.some(isOff)).toBe(false);
    for (const { stops } of found ?? []) expect(Math.abs(stops)).toBeLessThan(0.15);
  });

  test('two lights that look alike are not told apart, and it says so; one that is off has no figure', () => {
    const alike = RIGHT.map((value, i) => value * (1 + 1e-4 * Math.sin(i)));
    const found = lightsOfFrame({
      width: WIDTH,
      height: HEIGHT,
      frame: frameOf([1, 2 ** -0.6, 1]),
      lights: [LEFT, RIGHT, alike, new Float32Array(LEFT.length)],
    });
    for (const one of found?.filter(({ light }) => light === 1 || light === 2) ?? []) {
      expect(one.error).toBeGreaterThan(0.3);
      expect(isOff(one)).toBe(false);
    }
    expect(found?.some(({ light }) => light === 3)).toBe(false);
  });

  test('nothing of a frame that is white or black all over', () => {
    expect(fit(lit(() => 1))).toBeNull();
    expect(fit(frameOf([1, 1, 1]), [new Float32Array(LEFT.length)])).toBeNull();
  });

  test('a demo set, built by hand with one power wrong: the right light is named, within 0.15 stop or what it says', () => {
    const set = demoSet('tent');
    const plan = filmsOf(set, 1, 16);
    const lights = set.lights.map((_, light) => lightOf(set, plan, light));
    for (const [seed, wrong] of [
      [1, null],
      [2, -0.7],
      [3, 0.6],
    ] as const) {
      const real = asItStands(set, seed, wrong === null ? {} : { powerStops: { B: wrong } });
      const rgb = recordFrame(lightOf(real, filmsOf(real, 50 + seed, 8), null), WIDTH, HEIGHT, 100, seed);
      const frame = Float32Array.from(rgb, (value) => decodeSrgb(value / 255));
      const found = fit(frame, lights) ?? [];
      const off = found.filter(isOff).map(({ light }) => set.lights[light]?.tag);
      expect(off).toEqual(wrong === null ? [] : ['B']);
      const truth = (real.lights[1]?.powerStops ?? 0) - (set.lights[1]?.powerStops ?? 0);
      const own = found.find(({ light }) => light === 1);
      expect(Math.abs((own?.stops ?? 9) - truth)).toBeLessThan(Math.max(0.15, 2 * (own?.error ?? 0)));
    }
  }, 60_000);
});

function filmsOf(set: SetDocument, seed: number, samples: number) {
  const films = createFilms(WIDTH, HEIGHT, channelsOf(set).length);
  const tile = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  const sums = renderTile(prepareTracing(set), {
    width: WIDTH,
    height: HEIGHT,
    tile,
    samples,
    seed,
  } as never);
  addTile(films, tile, sums as never, samples);
  return films;
}

function lightOf(set: SetDocument, films: ReturnType<typeof filmsOf>, light: number | null): Float32Array {
  const channels = channelsOf(set);
  const weights = displayWeights(set).map((weight, i) =>
    light === null || channels[Math.floor(i / 3)]?.light === light ? weight : 0,
  );
  const out = new Float32Array(WIDTH * HEIGHT * 3);
  developFilms(out, films, weights);
  return out;
}

describe('a set as it stands', () => {
  const set = demoSet('cordial');

  test('is the same for a seed, a little off everywhere, and valid', () => {
    expect(asItStands(set, 4)).toEqual(asItStands(set, 4));
    expect(asItStands(set, 4)).not.toEqual(asItStands(set, 5));
    const offs = Array.from({ length: 60 }, (_, seed) => asItStands(set, seed)).map(
      ({ lights }) => (lights[0]?.powerStops ?? 0) - (set.lights[0]?.powerStops ?? 0),
    );
    const spread = Math.sqrt(offs.reduce((sum, off) => sum + off * off, 0) / offs.length);
    expect(spread).toBeGreaterThan(0.6 * BUILT_TO.powerStops);
    expect(spread).toBeLessThan(1.5 * BUILT_TO.powerStops);
  });

  test('what faces straight down stands aside without being turned', () => {
    const tart = demoSet('tart');
    const { right } = viewOf(tart.camera);
    for (let seed = 1; seed <= 20; seed++) {
      const real = asItStands(tart, seed).camera;
      expect(real.positionM).not.toEqual(tart.camera.positionM);
      const own = viewOf(real).right;
      expect(own[0] * right[0] + own[1] * right[1] + own[2] * right[2], `seed ${seed}`).toBeGreaterThan(
        0.9999,
      );
    }
  });

  test('noise has the deviation that photons and reading have', () => {
    const normal = createNormal(7);
    const values = Array.from({ length: 4000 }, normal);
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length;
    expect(Math.abs(mean)).toBeLessThan(0.06);
    expect(variance).toBeGreaterThan(0.92);
    expect(variance).toBeLessThan(1.08);
  });
});
