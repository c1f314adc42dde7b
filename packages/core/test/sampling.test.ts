import { describe, expect, test } from 'vitest';
import { emittedLuminance, emitterPdf, sampleEmitter } from '../src/engine/emitters.js';
import { EMITTER_KIND } from '../src/engine/layouts.js';
import { Sampler } from '../src/engine/sampler.js';
import { sampleCoat } from '../src/engine/surfaces/coat.js';
import { SceneTables } from '../src/engine/tables.js';
import { ambientByLight, prepareTracing, renderTile, setRay } from '../src/index.js';
import { makeCoat } from '../src/optics/coat.js';
import { type Emitter, emittersOf } from '../src/photometry/emitter.js';
import { packEmitters } from '../src/photometry/packEmitters.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, testSet } from './sets.js';
import { oneSurface } from './surfaces.js';

describe('Owen-scrambled Sobol', () => {
  test('every power of two of samples puts one point in each elementary interval', () => {
    const sampler = new Sampler(7);
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

  test.each([2, 4, 8])('%i questions a sample lie together as evenly as one of as many samples', (parts) => {
    const sampler = new Sampler(11);
    const strata = new Set<number>();
    const next: number[] = [];
    for (let i = 0; i < 16; i++) {
      sampler.start(4, i);
      for (let part = 0; part < parts; part++) {
        if (part > 0) sampler.back(1);
        sampler.nextPart(part, parts);
        strata.add(Math.floor(16 * parts * (sampler.uv[0] as number)));
      }
      sampler.nextPart(0, 1);
      next.push(sampler.uv[0] as number);
    }
    expect(strata.size).toBe(16 * parts);
    // What comes after them is another dimension, as evenly spread.
    expect(new Set(next.map((u) => Math.floor(16 * u))).size).toBe(16);
  });

  test('is the same for the same pixel, sample and seed, and other otherwise', () => {
    const first = (seed: number, pixel: number, sample: number) => {
      const sampler = new Sampler(seed);
      sampler.start(pixel, sample);
      sampler.next();
      return [...sampler.uv].join();
    };
    expect(first(1, 5, 9)).toBe(first(1, 5, 9));
    expect(new Set([first(1, 5, 9), first(2, 5, 9), first(1, 6, 9), first(1, 5, 10)]).size).toBe(4);
  });

  test('neighbouring pixels are not alike', () => {
    const sampler = new Sampler(1);
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

/** Tables that hold one emitter. */
function alone(emitter: Emitter): SceneTables {
  const tables = new SceneTables();
  packEmitters(tables, [emitter]);
  return tables;
}

describe('light sampling', () => {
  const place = {
    tag: 'A',
    name: 'Light',
    positionM: [0.1, -0.2, 0.5],
    aimM: [0, 0, 0],
    rollDeg: 15,
  } as const;
  const output = { kind: 'lumens' as const, lumens: 1 };
  const make = (more: object): Emitter[] => {
    const [light] = testSet({ lights: [{ ...place, output, ...more } as never] }).lights;
    if (light === undefined || light.kind === 'surround') throw new Error('a light was made');
    return emittersOf(light, 0, 0);
  };
  const first = (more: object) => make(more)[0] as Emitter;
  const softbox = first({ kind: 'softbox', widthM: 0.6, heightM: 0.9 });
  const { aimM: _aim, rollDeg: _roll, ...free } = place;
  const lampSet = testSet({ lights: [{ ...free, kind: 'bare-lamp', radiusM: 0.05, output } as never] });
  const [bare] = lampSet.lights;
  if (bare?.kind !== 'bare-lamp') throw new Error('a lamp was made');
  const [lamp] = emittersOf(bare, 0, 0) as [Emitter];
  const sunny = make({
    kind: 'window',
    widthM: 2,
    heightM: 2,
    sun: { towards: [-0.1, 0.2, -1], illuminanceLx: 50000 },
  });

  test.each<[string, Emitter, number]>([
    ['near softbox', softbox, 1],
    ['far softbox', softbox, 40],
    ['octa', first({ kind: 'octa', diameterM: 0.9, hotCentre: 2 }), 1],
    ['ring', first({ kind: 'ring', outerDiameterM: 0.3, innerDiameterM: 0.2 }), 1],
    ['tube', first({ kind: 'tube', lengthM: 0.6, diameterM: 0.04 }), 1],
    ['lamp', lamp, 1],
    ['sun', sunny[1] as Emitter, 1],
  ])('%s: the density reported is that of the sample, and lands on the light', (_name, emitter, away) => {
    const random = seededRandom(5);
    const out = new Float64Array(6);
    const point = new Float64Array([0.05 * away, -0.1 * away, -0.3 * away]);
    for (let i = 0; i < 500; i++) {
      const uv = new Float64Array([random(), random()]);
      expect(sampleEmitter(out, alone(emitter), 0, point, uv)).toBe(true);
      const direction = out.slice(0, 3);
      const distance = out[3] as number;
      expect(Math.hypot(...direction)).toBeCloseTo(1, 9);
      expect(emitterPdf(alone(emitter), 0, point, direction, distance) / (out[4] as number)).toBeCloseTo(
        1,
        5,
      );
      const on = direction.map((value, a) => (point[a] as number) + value * distance);
      expect(emittedLuminance(alone(emitter), 0, on, direction)).toBeCloseTo(out[5] as number, 6);
    }
  });

  test.each<[string, Emitter]>([
    ['octa', first({ kind: 'octa', diameterM: 0.9 })],
    ['ring', first({ kind: 'ring', outerDiameterM: 0.3, innerDiameterM: 0.2 })],
    ['tube', first({ kind: 'tube', lengthM: 0.6, diameterM: 0.04 })],
    ['lamp', lamp],
  ])('%s: samples add up to the solid angle that rays find', (_name, emitter) => {
    const random = seededRandom(8);
    const point = new Float64Array([0.05, -0.1, 0]);
    const out = new Float64Array(6);
    const tables = alone(emitter);
    let sampled = 0;
    const steps = 20_000;
    for (let i = 0; i < steps; i++) {
      if (sampleEmitter(out, tables, 0, point, new Float64Array([random(), random()]))) {
        sampled += 1 / ((out[4] as number) * steps);
      }
    }
    const { engine, scene } = prepareTracing(emitter === lamp ? lampSet : setOf(emitter));
    let found = 0;
    const rays = 400_000;
    for (let i = 0; i < rays; i++) {
      const z = random();
      const phi = 2 * Math.PI * random();
      const flat = Math.sqrt(1 - z * z);
      setRay(engine.ray, point, [flat * Math.cos(phi), flat * Math.sin(phi), z]);
      const hit = engine.closestHit();
      if (hit >= 0 && (scene.table.emitter[hit] as number) >= 0) found += (2 * Math.PI) / rays;
    }
    expect(sampled / found).toBeGreaterThan(0.97);
    expect(sampled / found).toBeLessThan(1.03);
  });

  function setOf(emitter: Emitter) {
    const kinds = [
      { kind: 'octa', diameterM: 0.9 },
      { kind: 'ring', outerDiameterM: 0.3, innerDiameterM: 0.2 },
      { kind: 'tube', lengthM: 0.6, diameterM: 0.04 },
    ];
    const more = kinds.find((kind) => first(kind).data[EMITTER_KIND] === emitter.data[EMITTER_KIND]);
    return testSet({ lights: [{ ...place, output, ...more } as never] });
  }

  test('nothing comes from behind a softbox or inside a lamp', () => {
    const out = new Float64Array(6);
    const uv = new Float64Array([0.3, 0.6]);
    const above = new Float64Array([0, 0, 3]);
    expect(sampleEmitter(out, alone(softbox), 0, above, uv)).toBe(false);
    expect(emitterPdf(alone(softbox), 0, above, new Float64Array([0, 0, -1]), 2)).toBe(0);
    expect(sampleEmitter(out, alone(lamp), 0, new Float64Array(bare.positionM), uv)).toBe(false);
  });
});

describe('scattering', () => {
  const { tables, model, albedo } = oneSurface({
    kind: 'coated',
    reflectance: 0.5,
    coatIndex: 1.5,
    roughness: 0.3,
  });
  const coat = makeCoat(1.5, 0.3);
  const out = new Float64Array([Math.sin(0.9), 0, Math.cos(0.9)]);

  test('the density reported, summed over the hemisphere, is the part of samples that leave the surface', () => {
    const random = seededRandom(9);
    const value = new Float64Array(7);
    const into = new Float64Array(3);
    let sum = 0;
    let left = 0;
    const steps = 40_000;
    for (let i = 0; i < steps; i++) {
      const z = random();
      const phi = 2 * Math.PI * random();
      const flat = Math.sqrt(1 - z * z);
      model.evaluate(
        value,
        0,
        albedo,
        0.6,
        out,
        new Float64Array([flat * Math.cos(phi), flat * Math.sin(phi), z]),
        1,
      );
      sum += ((value[3] as number) * 2 * Math.PI) / steps;
      const uv = new Float64Array([random(), random()]);
      if (model.sample(into, 0, albedo, 0.6, out, random(), uv)) left += 1 / steps;
    }
    expect(left).toBeLessThan(1);
    expect(Math.abs(sum / left - 1)).toBeLessThan(0.02);
  });

  test('sampling gives the albedo that summing over directions gives', () => {
    const random = seededRandom(11);
    const into = new Float64Array(3);
    const value = new Float64Array(7);
    let sampled = 0;
    let summed = 0;
    const steps = 40_000;
    for (let i = 0; i < steps; i++) {
      const uv = new Float64Array([random(), random()]);
      if (model.sample(into, 0, albedo, 0.5, out, random(), uv)) {
        model.evaluate(value, 0, albedo, 0.5, out, into, 1);
        sampled += ((value[0] as number) * (into[2] as number)) / ((value[3] as number) * steps);
      }
      const z = random();
      const flat = Math.sqrt(1 - z * z);
      const phi = 2 * Math.PI * random();
      model.evaluate(
        value,
        0,
        albedo,
        0.5,
        out,
        new Float64Array([flat * Math.cos(phi), flat * Math.sin(phi), z]),
        1,
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
      sum += sampleCoat(into, tables, 0, out, new Float64Array([random(), random()]));
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
    const before = tracing.engine.rays[0] as number;
    const sums = renderTile(tracing, job);
    const rays = ((tracing.engine.rays[0] as number) - before) / (24 * 16 * samples);
    return { level: sums.reduce((sum, value) => sum + value, 0) / (sums.length * samples), rays };
  };

  test('is near the whole picture in tone, at a part of its rays', () => {
    const whole = mean(undefined, 128);
    const quick = mean(ambientByLight(tracing, 1), 32);
    expect(Math.abs(quick.level / whole.level - 1)).toBeLessThan(0.1);
    expect(quick.rays).toBeLessThan(0.6 * whole.rays);
  });

  test('without bounced light it is darker: the direct part alone', () => {
    expect(mean([0], 32).level).toBeLessThan(0.97 * mean(undefined, 128).level);
  });
});
