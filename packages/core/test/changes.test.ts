import type { SetDocument, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  bakeLightmaps,
  channelsOf,
  createFilms,
  developFilms,
  displayWeights,
  keepFilms,
  noiseOfMean,
  prepareTracing,
  renderTile,
  sceneKey,
  seenBy,
  touchedFilms,
  traceKey,
} from '../src/index.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

const tile = { x: 0, y: 0, width: 12, height: 8 };
const job = { width: 12, height: 8, tile, firstSample: 0, samples: 8, seed: 1 };

/** A matte bench under three softboxes overhead, far above the picture. */
function threeLights(): SetDocument {
  const lamp = (tag: string, x: number) => ({
    ...overheadSoftbox(1.2, { tag, name: tag }),
    positionM: [x, 0.2, 1.2] as Vector,
    aimM: [x, 0.2, 0] as Vector,
    widthM: 0.2,
    heightM: 0.2,
  });
  return testSet({
    lights: [lamp('A', -0.6), lamp('B', 0), lamp('C', 0.6)],
    bench: { widthM: 2, depthM: 2, material: matte(0.5) },
    camera: { ...testSet({}).camera, positionM: [0, -1, 0.6], aimM: [0, 0, 0] },
  });
}

const moveLight = (set: SetDocument, tag: string, by: Vector): SetDocument => ({
  ...set,
  lights: set.lights.map((light) =>
    light.tag === tag && light.kind !== 'surround'
      ? { ...light, positionM: light.positionM.map((value, a) => value + (by[a] as number)) as Vector }
      : light,
  ),
});

/** Rays that some work costs. */
function raysOf(engine: { rays: Float64Array }, work: () => void): number {
  const before = engine.rays[0] as number;
  work();
  return (engine.rays[0] as number) - before;
}

describe('a change costs what it changes', () => {
  test('power, colour, gels, switch, shutter, ISO: no ray, and the key of the films stays', () => {
    const set = demoSet('cordial-frost');
    const tracing = prepareTracing(set);
    const films = createFilms(12, 8, channelsOf(set).length);
    addTile(films, tile, renderTile(tracing, job), 8);
    const changed: SetDocument = {
      ...set,
      lights: set.lights.map((light) => ({
        ...light,
        powerStops: -5,
        on: light.tag !== 'B',
        colour: { temperatureK: 3200, gels: [{ name: 'half', miredShift: 80, lossStops: 0.5 }] },
      })),
      camera: { ...set.camera, shutterS: 1 / 60, iso: 400, whiteBalanceK: 4000 },
    };
    expect(traceKey(changed)).toBe(traceKey(set));
    const linear = new Float32Array(12 * 8 * 3);
    expect(raysOf(tracing.engine, () => developFilms(linear, films, displayWeights(changed)))).toBe(0);
    expect(linear.some((value) => value > 0)).toBe(true);
  });

  test('one light moved where its body is not in the way: its film only, at a part of the rays', () => {
    const before = threeLights();
    const after = moveLight(before, 'A', [0.1, 0.05, 0.1]);
    expect(touchedFilms(before, after)).toEqual([0]);
    const tracing = prepareTracing(after);
    bakeLightmaps(tracing);
    const all = raysOf(tracing.engine, () => renderTile(tracing, job));
    const one = raysOf(tracing.engine, () => renderTile(tracing, { ...job, channels: [0] }));
    // Camera ray, bounce and one question instead of three.
    expect(one).toBeLessThan(0.75 * all);
  });

  test('that film is to the last bit what it is among all; the kept ones are what they were, within noise', () => {
    const before = threeLights();
    const after = moveLight(before, 'A', [0.1, 0.05, 0.1]);
    const tracing = prepareTracing(after);
    const all = renderTile(tracing, job);
    const one = renderTile(tracing, { ...job, channels: [0] });
    const size = tile.width * tile.height * 3;
    expect(one.subarray(0, size)).toEqual(all.subarray(0, size));
    expect(one.subarray(size).every((value) => value === 0)).toBe(true);

    const old = createFilms(12, 8, 3);
    addTile(old, tile, renderTile(prepareTracing(before), { ...job, samples: 64 }), 64);
    const grown = createFilms(12, 8, 3);
    addTile(grown, tile, one, 8);
    keepFilms(grown, old, [1, 2]);
    const sum = (data: Float32Array, from: number) =>
      data.subarray(from, from + size).reduce((a, b) => a + b, 0);
    for (const channel of [1, 2]) {
      expect(sum(grown.data, channel * size) / sum(all, channel * size)).toBeCloseTo(1, 1);
    }
  });

  test('kept films are known to be as noisy as they were', () => {
    const pixel = { x: 0, y: 0, width: 1, height: 1 };
    const old = createFilms(1, 1, 1);
    for (const value of [3, 7]) addTile(old, pixel, new Float32Array([value, 0, 0]), 1);
    const grown = createFilms(1, 1, 1);
    for (const samples of [1, 1, 2]) addTile(grown, pixel, new Float32Array(3), samples);
    keepFilms(grown, old, [0]);
    expect((grown.data[0] as number) / (grown.samples[0] as number)).toBeCloseTo(5, 9);
    expect(noiseOfMean(grown, 0, 0)).toBeCloseTo(noiseOfMean(old, 0, 0), 5);
    expect(noiseOfMean(old, 0, 0)).toBeCloseTo(4, 9);
  });

  test('the camera moved: scene and light of the sheets are kept, and the picture is that of a scene made anew', () => {
    const set = demoSet('cordial');
    const moved: SetDocument = { ...set, camera: { ...set.camera, positionM: [0.2, -1, 0.3] } };
    expect(sceneKey(moved)).toBe(sceneKey(set));
    expect(traceKey(moved)).not.toBe(traceKey(set));
    const tracing = prepareTracing(set);
    bakeLightmaps(tracing);
    const again = seenBy(tracing, moved.camera);
    const fresh = prepareTracing(moved);
    let kept = new Float32Array(0);
    let made = new Float32Array(0);
    const cost = raysOf(again.engine, () => {
      kept = renderTile(again, job) as Float32Array<ArrayBuffer>;
    });
    const whole = raysOf(fresh.engine, () => {
      made = renderTile(fresh, job) as Float32Array<ArrayBuffer>;
    });
    expect(kept).toEqual(made);
    // The sheets of the fresh one had to be lit first: some 48 rays and questions from each patch.
    expect(whole - cost).toBeGreaterThan(48 * tracing.lightmapLayout.patches);
  });

  test('a body that comes between, or is in the picture, touches the others too', () => {
    const before = threeLights();
    // A goes right under B.
    expect(touchedFilms(before, moveLight(before, 'A', [0.6, 0, -0.4]))).toEqual([0, 1]);
    // Into the picture.
    expect(touchedFilms(before, moveLight(before, 'A', [0.6, -0.2, -1]))).toEqual([0, 1, 2]);
  });

  test('with a filter on the lens a light takes its three films; more than lights changed: all', () => {
    const before = threeLights();
    const film: SetDocument = {
      ...before,
      lights: before.lights.map((light) =>
        light.tag === 'A' && light.kind === 'softbox'
          ? { ...light, polarised: { axisDeg: 0, lossStops: 1.4 } }
          : light,
      ),
    };
    const filtered = (set: SetDocument): SetDocument => ({
      ...set,
      camera: { ...set.camera, polariser: { axisDeg: 90, lossStops: 1.5, extinction: 0.005 } },
    });
    expect(touchedFilms(filtered(film), filtered(moveLight(film, 'A', [0.05, 0, 0])))).toEqual([0, 1, 2]);
    expect(
      touchedFilms(before, { ...before, camera: { ...before.camera, focusM: 2, depthOfField: true } }),
    ).toBeNull();
    expect(touchedFilms(before, filtered(before))).toBeNull();
    expect(touchedFilms(before, film)).toEqual([0]);
    expect(touchedFilms(before, before)).toEqual([]);
  });
});
