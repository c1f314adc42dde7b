import { describe, expect, test } from 'vitest';
import { SurfaceList } from '../src/geometry/surface.js';
import { ambientByLight, prepareTracing, renderTile } from '../src/index.js';
import { lampEmitter, softboxEmitter } from '../src/photometry/emitter.js';
import { emittedLuminance, emitterPdf, sampleEmitter } from '../src/photometry/sampleEmitter.js';
import { createSampler } from '../src/render/sampler.js';
import { evaluateScatter, sampleCoat, sampleScatter } from '../src/render/shade.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

describe('Owen-scrambled Sobol', () => {
  test('every power of two of samples puts one point in each elementary interval', () => {
    const sampler = createSampler(7);
    for (const [columns, rows] of [
      [16, 1],
      [4, 4],
      [1, 16],
      [8, 2],
    ] as const) {
      const seen = new Set<number>();
      for (let i = 0; i < 16; i++) {
        sampler.start(3, i);
        sampler.next();
        sampler.next();
        const [u = 0, v = 0] = sampler.uv;
        seen.add(Math.floor(u * columns) * rows + Math.floor(v * rows));
      }
      expect(seen.size).toBe(16);
    }
  });

  test('is the same for the same pixel, sample and seed, and other otherwise', () => {
    const first = (seed: number, pixel: number, sample: number) => {
      const sampler = createSampler(seed);
      sampler.start(pixel, sample);
      sampler.next();
      return [...sampler.uv].join();
    };
    expect(first(1, 5, 9)).toBe(first(1, 5, 9));
    expect(new Set([first(1, 5, 9), first(2, 5, 9), first(1, 6, 9), first(1, 5, 10)]).size).toBe(4);
  });

  test('neighbouring pixels are not alike', () => {
    const sampler = createSampler(1);
    let product = 0;
    for (let pixel = 0; pixel < 4000; pixel++) {
      const read = (at: number) => {
        sampler.start(at, 0);
        sampler.next();
        return (sampler.uv[0] as number) - 0.5;
      };
      product += read(pixel) * read(pixel + 1);
    }
    expect(Math.abs(product / 4000)).toBeLessThan(0.005);
  });
});

describe('light sampling', () => {
  const light = testSet({ lights: [overheadSoftbox(0.5, { rollDeg: 15, positionM: [0.1, -0.2, 0.5] })] })
    .lights[0];
  if (light?.kind !== 'softbox') throw new Error('a softbox was made');
  const lamp = testSet({
    lights: [
      {
        kind: 'bare-lamp',
        tag: 'A',
        name: 'Lamp',
        positionM: [0.2, 0.1, 0.4],
        radiusM: 0.05,
        output: { kind: 'lumens', lumens: 1 },
      },
    ],
  }).lights[0];
  if (lamp?.kind !== 'bare-lamp') throw new Error('a lamp was made');

  test.each([
    ['near softbox', softboxEmitter(light, 0), 1],
    ['far softbox', softboxEmitter(light, 0), 40],
    ['lamp', lampEmitter(lamp, 0), 1],
  ])('%s: the density reported is that of the sample, and lands on the light', (_name, emitter, away) => {
    const random = seededRandom(5);
    const out = new Float64Array(6);
    const point = new Float64Array([0.05 * away, -0.1 * away, -0.3 * away]);
    for (let i = 0; i < 500; i++) {
      const uv = new Float64Array([random(), random()]);
      expect(sampleEmitter(out, emitter, point, uv)).toBe(true);
      const direction = out.slice(0, 3);
      expect(Math.hypot(...direction)).toBeCloseTo(1, 9);
      expect(emitterPdf(emitter, point, direction) / (out[4] as number)).toBeCloseTo(1, 6);
      const on = direction.map((value, a) => (point[a] as number) + value * (out[3] as number));
      expect(emittedLuminance(emitter, on, direction)).toBeCloseTo(out[5] as number, 6);
    }
  });

  test('nothing comes from behind a softbox or inside a lamp', () => {
    const out = new Float64Array(6);
    const uv = new Float64Array([0.3, 0.6]);
    expect(sampleEmitter(out, softboxEmitter(light, 0), new Float64Array([0, 0, 3]), uv)).toBe(false);
    expect(
      emitterPdf(softboxEmitter(light, 0), new Float64Array([0, 0, 3]), new Float64Array([0, 0, -1])),
    ).toBe(0);
    expect(sampleEmitter(out, lampEmitter(lamp, 0), new Float64Array(lamp.positionM), uv)).toBe(false);
  });
});

describe('scattering', () => {
  const list = new SurfaceList();
  const surface =
    list.surfaces[list.add({ kind: 'coated', reflectance: 0.5, coatIndex: 1.5, roughness: 0.3 })];
  if (!surface?.coat) throw new Error('a coated surface was made');
  const { coat } = surface;
  const out = new Float64Array([Math.sin(0.9), 0, Math.cos(0.9)]);

  test('the density reported, summed over the hemisphere, is the part of samples that leave the surface', () => {
    const random = seededRandom(9);
    const value = new Float64Array(4);
    const into = new Float64Array(3);
    let sum = 0;
    let left = 0;
    const steps = 40_000;
    for (let i = 0; i < steps; i++) {
      const z = random();
      const phi = 2 * Math.PI * random();
      const flat = Math.sqrt(1 - z * z);
      evaluateScatter(
        value,
        surface,
        0.6,
        out,
        new Float64Array([flat * Math.cos(phi), flat * Math.sin(phi), z]),
      );
      sum += ((value[3] as number) * 2 * Math.PI) / steps;
      const uv = new Float64Array([random(), random()]);
      if (sampleScatter(into, surface, 0.6, out, random(), uv)) left += 1 / steps;
    }
    expect(left).toBeLessThan(1);
    expect(Math.abs(sum / left - 1)).toBeLessThan(0.02);
  });

  test('sampling gives the albedo that summing over directions gives', () => {
    const random = seededRandom(11);
    const into = new Float64Array(3);
    const value = new Float64Array(4);
    let sampled = 0;
    let summed = 0;
    const steps = 40_000;
    for (let i = 0; i < steps; i++) {
      const uv = new Float64Array([random(), random()]);
      if (sampleScatter(into, surface, 0.5, out, random(), uv)) {
        evaluateScatter(value, surface, 0.5, out, into);
        sampled += ((value[0] as number) * (into[2] as number)) / ((value[3] as number) * steps);
      }
      const z = random();
      const flat = Math.sqrt(1 - z * z);
      const phi = 2 * Math.PI * random();
      evaluateScatter(
        value,
        surface,
        0.5,
        out,
        new Float64Array([flat * Math.cos(phi), flat * Math.sin(phi), z]),
      );
      summed += ((value[0] as number) * z * 2 * Math.PI) / steps;
    }
    expect(sampled / summed).toBeCloseTo(1, 1);
  });

  test('the coat alone gives back its directional albedo', () => {
    const random = seededRandom(13);
    const into = new Float64Array(3);
    let sum = 0;
    for (let i = 0; i < 20_000; i++)
      sum += sampleCoat(into, coat, out, new Float64Array([random(), random()]));
    const at = Math.sqrt(out[2] as number) * 64;
    expect(sum / 20_000 / (coat.albedo[Math.round(at)] as number)).toBeCloseTo(1, 1);
  });
});

describe('quick picture', () => {
  const set = testSet({
    lights: [overheadSoftbox(0.8)],
    bench: { widthM: 3, depthM: 3, material: matte(0.7) },
    backdrop: { kind: 'panel', widthM: 3, heightM: 1.5, centreM: [0, 0.5, 0.7], material: matte(0.7) },
    products: [
      {
        kind: 'box',
        id: 'box',
        name: 'Box',
        positionM: [0, 0, 0],
        material: { kind: 'coated', reflectance: 0.5, roughness: 0.2 },
        widthM: 0.1,
        depthM: 0.1,
        heightM: 0.1,
      },
    ],
  });
  const tracing = prepareTracing(set);
  const mean = (ambient: readonly number[] | undefined, samples: number) => {
    const tile = { x: 0, y: 0, width: 24, height: 16 };
    const job = {
      width: 24,
      height: 16,
      tile,
      firstSample: 0,
      samples,
      seed: 2,
      ...(ambient ? { ambient } : {}),
    };
    const before = tracing.kernel.rays[0] as number;
    const sums = renderTile(tracing, job);
    const rays = ((tracing.kernel.rays[0] as number) - before) / (24 * 16 * samples);
    return { level: sums.reduce((sum, value) => sum + value, 0) / (sums.length * samples), rays };
  };

  test('is near the whole picture in tone, at a part of its rays', () => {
    const whole = mean(undefined, 128);
    const quick = mean(ambientByLight(tracing, 1), 32);
    expect(Math.abs(quick.level / whole.level - 1)).toBeLessThan(0.08);
    expect(quick.rays).toBeLessThan(0.6 * whole.rays);
  });

  test('without bounced light it is darker: the direct part alone', () => {
    expect(mean([0], 32).level).toBeLessThan(0.97 * mean(undefined, 128).level);
  });
});
