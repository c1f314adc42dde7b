import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { SceneTables } from '../src/engine/tables.js';
import { prepareTracing, renderTile, type Tracing } from '../src/index.js';
import { gatherPatches } from '../src/render/bakeLightmaps.js';
import type { LightmapLayout } from '../src/render/lightmaps.js';
import { packLightSamples } from '../src/render/packLightSamples.js';
import { bakeLightmaps } from '../src/render/prepareTracing.js';

describe('samples from patches', () => {
  test('a lamp is asked most in half-shadow and once where it brings nothing; sheets more where they are the light', () => {
    const patches = 5;
    const layout: LightmapLayout = {
      lightmaps: [
        { primitive: 0, side: 0, across: 4, up: 1, first: 0, other: -1, areaM2: 1 },
        { primitive: 1, side: 0, across: 1, up: 1, first: 4, other: -1, areaM2: 1 },
      ],
      patches,
    };
    const tables = new SceneTables();
    tables.emitterCount = 1;
    tables.channelCount = 1;
    tables.emitters = new Float64Array(64);
    tables.irradiance = new Float64Array(3 * patches).fill(1);
    tables.brightIndex = Int32Array.of(-1, 0);
    // Of all light 3: nothing of the lamp, even light, half of the answers 3 and half 0, one answer in ten 10.
    const told = [0, 0, 3, 9, 1.5, 4.5, 1, 10, 0, 0];
    const rays = 2;
    const met = new Int32Array(2 * rays * patches).fill(-1);
    const factor = new Float32Array(6 * rays * patches);
    // The first patch has half of its light from the bright lightmap, the second half from the others.
    met[0] = 4;
    factor.fill(0.5, 0, 3);
    met[4] = 2;
    factor.fill(0.5, 12, 15);
    const gathered = {
      first: 0,
      count: patches,
      rays,
      direct: new Float32Array(3 * patches),
      met,
      factor,
      cell: new Uint8Array(rays * patches),
      near: new Int32Array(patches),
      told: Float32Array.from(told),
    };
    packLightSamples(tables, layout, [gathered]);
    const [lamps, sheets] = [0, 1].map((which) =>
      Array.from({ length: patches + 1 }, (_, row) => tables.lightSamples[2 * row + which]),
    );
    expect(lamps).toEqual([1, 1, 4, 8, 1, 4]);
    expect(sheets).toEqual([4, 2, 2, 2, 2, 2]);
  });

  test('what a lamp told of a patch is its part of the light gathered there', () => {
    const { engine, lightmapLayout: layout, tables } = prepareTracing(demoSet('tent'));
    const { direct, told } = gatherPatches(engine, layout, tables.channelCount, 0, layout.patches, {
      rays: 16,
      seed: 1,
    });
    const lamps = tables.emitterCount;
    let lit = 0;
    for (let patch = 0; patch < layout.patches; patch++) {
      let asked = 0;
      for (let lamp = 0; lamp < lamps; lamp++) {
        const [mean, square] = [
          told[2 * (patch * lamps + lamp)] as number,
          told[2 * (patch * lamps + lamp) + 1],
        ];
        expect(square).toBeGreaterThanOrEqual(mean * mean * (1 - 1e-5));
        asked += mean;
      }
      const size = 3 * tables.channelCount;
      const all = direct.subarray(patch * size, (patch + 1) * size).reduce((sum, light) => sum + light, 0);
      expect(asked).toBeLessThanOrEqual(all * (1 + 1e-5));
      if (asked > 0) lit++;
    }
    expect(lit).toBeGreaterThan(100);
  });

  for (const [name, tags] of [
    ['tart', ['more']],
    ['cordial', ['more']],
  ] as const)
    test(`${name}: more samples leave the mean and take noise away`, { tags: [...tags] }, () => {
      const asked = lit(name);
      const reference = picture(asked, 768, 9);
      const few = lit(name);
      few.tables.lightSamples = new Int32Array(0);
      few.engine.renewLightmaps();
      const [many, single] = [asked, few].map((tracing) =>
        [1, 2, 3].map((seed) => picture(tracing, 8, seed)),
      ) as [Float64Array[], Float64Array[]];
      const error = (pictures: Float64Array[]) =>
        pictures.reduce(
          (sum, own) => sum + own.reduce((all, v, i) => all + Math.abs(v - (reference[i] ?? 0)), 0),
          0,
        );
      const light = (own: Float64Array) => own.reduce((all, v) => all + v, 0);
      expect(error(many)).toBeLessThan(0.9 * error(single));
      expect(Math.abs(light(picture(few, 768, 9)) / light(reference) - 1)).toBeLessThan(0.004);
    });
});

function lit(name: 'tart' | 'cordial'): Tracing {
  const tracing = prepareTracing(demoSet(name));
  bakeLightmaps(tracing);
  return tracing;
}

/** All films of a small picture. */
function picture(tracing: Tracing, samples: number, seed: number): Float64Array {
  const tile = { x: 0, y: 0, width: 24, height: 16 };
  const sums = renderTile(tracing, { width: 24, height: 16, tile, firstSample: 0, samples, seed });
  return Float64Array.from(sums, (value) => value / samples);
}
