import type { SetDocumentInput, Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { emitterPdf, sampleEmitter } from '../src/engine/emitters.js';
import { EMITTER_STRIDE, LIGHT_DENSITY, LIGHT_DISTANCE, RAY_TO } from '../src/engine/layouts.js';
import { pointOnPrimitive } from '../src/engine/normals.js';
import { LightmapSampler } from '../src/engine/path/lightmaps.js';
import { Sampler } from '../src/engine/sampler.js';
import { bakeLightmaps, prepareTracing, setRay, sheetShape, type Tracing } from '../src/index.js';
import { seededRandom } from './random.js';
import { matte, testSet } from './sets.js';

type SheetInput = NonNullable<SetDocumentInput['sheets']>[number];

const common = {
  tag: '1',
  name: 'sheet',
  positionM: [0, 0, 0] as Vector,
  aimM: [0, -1, 0] as Vector,
  front: matte(0.8),
  back: matte(0.04),
};

/** Area of a sheet as seen along y, by rays through a square of 2 m. */
function areaAlongY(sheet: SheetInput, side: 1 | -1 = 1): number {
  const tracing = prepareTracing(testSet({ sheets: [sheet] }));
  const steps = 300;
  let hits = 0;
  for (let i = 0; i < steps; i++) {
    for (let j = 0; j < steps; j++) {
      const origin = [2 * ((i + 0.5) / steps) - 1, -3 * side, 2 * ((j + 0.5) / steps) - 1];
      setRay(tracing.engine.ray, origin, [0, side, 0]);
      if (tracing.engine.closestHit() >= 0) hits++;
    }
  }
  return (4 * hits) / steps ** 2;
}

describe('sheets cover what they say', () => {
  const rad = (deg: number) => (deg * Math.PI) / 180;
  test.each<[string, SheetInput, number]>([
    ['card', { ...common, kind: 'card', widthM: 0.5, heightM: 0.8 }, 0.4],
    [
      'card with a hole',
      { ...common, kind: 'card', widthM: 0.5, heightM: 0.8, holeDiameterM: 0.3 },
      0.4 - Math.PI * 0.15 ** 2,
    ],
    ['disc', { ...common, kind: 'disc', diameterM: 0.8 }, Math.PI * 0.4 ** 2],
    [
      'ring-like disc',
      { ...common, kind: 'disc', diameterM: 0.8, holeDiameterM: 0.4 },
      Math.PI * (0.4 ** 2 - 0.2 ** 2),
    ],
    [
      'V of 90 degrees',
      { ...common, kind: 'fold', widthM: 0.5, heightM: 0.8, openingDeg: 90 },
      2 * 0.5 * Math.sin(rad(45)) * 0.8,
    ],
    [
      'cut-out: a rectangle, a slope, and a point',
      {
        ...common,
        kind: 'cut-out',
        outline: [
          { halfWidthM: 0.3, heightM: 0 },
          { halfWidthM: 0.3, heightM: 0.4 },
          { halfWidthM: 0.1, heightM: 0.6 },
          { halfWidthM: 0, heightM: 0.8 },
        ],
      },
      0.6 * 0.4 + 0.4 * 0.2 + 0.1 * 0.2,
    ],
    [
      'sheet bent by 120 degrees',
      { ...common, kind: 'curve', widthM: 0.6, heightM: 0.5, bendDeg: 120 },
      2 * (0.6 / rad(120)) * Math.sin(rad(60)) * 0.5,
    ],
    [
      'cone seen from its end',
      { ...common, kind: 'cone', diameterM: 0.2, farDiameterM: 0.6, lengthM: 0.4 },
      Math.PI * (0.3 ** 2 - 0.1 ** 2),
    ],
  ])('%s', (_name, sheet, area) => {
    expect(areaAlongY(sheet) / area).toBeCloseTo(1, 1);
    expect(Math.abs(areaAlongY(sheet) / area - 1)).toBeLessThan(0.03);
  });

  test('a box tent has a slot of its size in front and none behind', () => {
    const tent: SheetInput = {
      ...common,
      kind: 'tent',
      positionM: [0, 0, -0.3],
      form: 'box',
      widthM: 0.6,
      depthM: 0.5,
      heightM: 0.6,
      opening: { widthM: 0.2, heightM: 0.3 },
    };
    const through = (side: 1 | -1) => {
      const tracing = prepareTracing(testSet({ sheets: [tent] }));
      let first = 0;
      const steps = 200;
      for (let i = 0; i < steps; i++) {
        for (let j = 0; j < steps; j++) {
          setRay(
            tracing.engine.ray,
            [0.6 * ((i + 0.5) / steps) - 0.3, -2 * side, 0.6 * ((j + 0.5) / steps) - 0.3],
            [0, side, 0],
          );
          if (tracing.engine.closestHit() >= 0 && (tracing.engine.ray[RAY_TO] as number) < 2) first++;
        }
      }
      return (0.36 * first) / steps ** 2;
    };
    expect(through(1)).toBeCloseTo(0.36 - 0.06, 2);
    expect(through(-1)).toBeCloseTo(0.36, 2);
  });

  test('leaves leave gaps, more leaves fewer of them; another seed is another branch', () => {
    const branch = (count: number, seed: number): SheetInput => ({
      ...common,
      kind: 'leaves',
      widthM: 0.8,
      heightM: 0.8,
      count,
      leafM: 0.1,
      seed,
    });
    const few = areaAlongY(branch(20, 1));
    const many = areaAlongY(branch(120, 1));
    expect(few).toBeGreaterThan(0.02);
    expect(many).toBeGreaterThan(few);
    expect(many).toBeLessThan(0.64);
    expect(JSON.stringify(shapeOf(branch(20, 2)))).not.toBe(JSON.stringify(shapeOf(branch(20, 1))));
  });

  const shapeOf = (sheet: SheetInput) => {
    const [made] = testSet({ sheets: [sheet] }).sheets;
    if (!made) throw new Error('a sheet was made');
    return sheetShape(made);
  };
});

describe('bright places of lightmaps', () => {
  const places: [string, Vector][] = [
    ['cordial-frost', [0.02, -0.04, 0.12]],
    ['tent', [0, -0.1, 0.05]],
  ];

  function ready(
    name: 'cordial-frost' | 'tent',
    point: Vector,
  ): { tracing: Tracing; sampler: LightmapSampler; at: Float64Array } {
    const tracing = prepareTracing(demoSet(name), 'plain');
    bakeLightmaps(tracing, { rays: 8, photons: 5000 });
    const sampler = new LightmapSampler(tracing.tables);
    const at = Float64Array.from(point);
    expect(sampler.look(at)).toBe(true);
    return { tracing, sampler, at };
  }

  test.each(places)('%s: the density reported is that of the sample', (name, point) => {
    const { tracing, sampler, at } = ready(name as 'tent', point);
    const random = seededRandom(2);
    const out = new Float64Array(5);
    let taken = 0;
    for (let i = 0; i < 2000; i++) {
      const lightmap = sampler.sample(out, Float64Array.of(random(), random()));
      if (lightmap < 0) continue;
      taken++;
      const target = Float64Array.from(sampler.target);
      const again = sampler.pdf(lightmap, target, out.slice(0, 3), out[LIGHT_DISTANCE] as number);
      expect(again / (out[LIGHT_DENSITY] as number)).toBeCloseTo(1, 6);
      target.forEach((value, a) => {
        expect(value).toBeCloseTo(
          (at[a] as number) + (out[a] as number) * (out[LIGHT_DISTANCE] as number),
          9,
        );
      });
    }
    expect(taken).toBeGreaterThan(500);
    expect(tracing.tables.brightLightmap.length).toBeGreaterThan(0);
  });

  test.each(places)(
    '%s: samples over their density add up to the solid angle of what they can hit',
    (name, point) => {
      const { tracing, sampler, at } = ready(name as 'tent', point);
      const { tables, lightmapLayout: layout } = tracing;
      const random = seededRandom(3);
      const out = new Float64Array(5);
      const tries = 60_000;
      let sampled = 0;
      for (let i = 0; i < tries; i++) {
        if (sampler.sample(out, Float64Array.of(random(), random())) >= 0) {
          sampled += 1 / ((out[LIGHT_DENSITY] as number) * tries);
        }
      }
      // The same by small patches of each bright lightmap that has any density.
      let whole = 0;
      const place = new Float64Array(3);
      const steps = 60;
      for (const index of tables.brightLightmap) {
        const lightmap = layout.lightmaps[index];
        if (!lightmap) continue;
        for (let i = 0; i < steps * steps; i++) {
          pointOnPrimitive(
            place,
            tables,
            lightmap.primitive,
            ((i % steps) + 0.5) / steps,
            (Math.floor(i / steps) + 0.5) / steps,
          );
          const way = place.map((value, a) => value - (at[a] as number));
          const distance = Math.hypot(...way);
          const density = sampler.pdf(
            index,
            place,
            way.map((value) => value / distance),
            distance,
          );
          if (density > 0) whole += (lightmap.areaM2 * sampler.cosine) / (steps ** 2 * distance ** 2);
        }
      }
      expect(Math.abs(sampled / whole - 1)).toBeLessThan(0.05);
    },
  );
});

test('each light of the demo sets: what is sampled has the density that a ray to it is told', () => {
  const sampler = new Sampler(4);
  const out = new Float64Array(6);
  for (const name of ['mill', 'cordial-frost', 'tart', 'tent'] as const) {
    const { tables } = prepareTracing(demoSet(name), 'plain');
    const from = Float64Array.of(0.05, -0.05, 0.1);
    for (let index = 0; index < tables.emitterCount; index++) {
      for (let i = 0; i < 200; i++) {
        sampler.start(index, i);
        sampler.next();
        if (!sampleEmitter(out, tables, index * EMITTER_STRIDE, from, sampler.uv)) continue;
        const told = emitterPdf(
          tables,
          index * EMITTER_STRIDE,
          from,
          out.slice(0, 3),
          out[LIGHT_DISTANCE] as number,
        );
        expect(told / (out[LIGHT_DENSITY] as number)).toBeCloseTo(1, 5);
      }
    }
  }
});
