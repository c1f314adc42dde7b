import type { Vector } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addTile,
  createFilms,
  developFilms,
  exposureWeights,
  luminanceOf,
  prepareTracing,
  renderTile,
} from '../src/index.js';
import { gatherPatches, solveLightmaps } from '../src/render/bakeLightmaps.js';
import { overheadSoftbox, testSet } from './sets.js';
import { luminanceFrom } from './tracing.js';

const WIDTH = 16;
const HEIGHT = 12;

/** Luminance of each pixel, lightmaps or whole paths. */
function picture(name: (typeof demoNames)[number], samples: number, wholePaths: boolean): Float64Array {
  const set = demoSet(name);
  const tracing = prepareTracing(set);
  const tile = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  const job = { width: WIDTH, height: HEIGHT, tile, firstSample: 0, samples, seed: 1, wholePaths };
  const films = createFilms(WIDTH, HEIGHT, tracing.scene.channelCount);
  addTile(films, tile, renderTile(tracing, job), samples);
  const linear = new Float32Array(WIDTH * HEIGHT * 3);
  developFilms(linear, films, exposureWeights(set));
  return Float64Array.from({ length: WIDTH * HEIGHT }, (_, i) =>
    luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
  );
}

const sum = (values: Float64Array) => values.reduce((all, value) => all + value, 0);

describe('lightmaps', () => {
  // The limit stated in docs/physics/render.md; whole paths are the reference.
  const always = new Set<string>(['cordial']);
  for (const name of demoNames)
    test(`${name}: the mean of the picture is that of whole paths within 1.2 %`, {
      tags: always.has(name) ? [] : ['more'],
    }, () => {
      const sheets = sum(picture(name, 512, false));
      const whole = sum(picture(name, 1024, true));
      expect(Math.abs(sheets / whole - 1)).toBeLessThan(0.012);
    });

  test.each(['tent', 'mill'] as const)('%s: what a patch receives is what its rays have met', (name) => {
    const { engine, lightmapLayout: layout, tables } = prepareTracing(demoSet(name));
    const size = 3 * tables.channelCount;
    const rays = 12;
    const gathered = gatherPatches(engine, layout, tables.channelCount, 0, layout.patches, { rays, seed: 3 });
    solveLightmaps(tables, layout, [gathered]);
    const light = tables.irradiance;
    let lit = 0;
    for (let patch = 0; patch < layout.patches; patch++) {
      for (let c = 0; c < size; c++) {
        let received = gathered.direct[patch * size + c] as number;
        for (let i = 2 * patch * rays; i < 2 * (patch + 1) * rays; i++) {
          const source = gathered.met[i] as number;
          if (source < 0) continue;
          received += (gathered.factor[3 * i + (c % 3)] as number) * (light[source * size + c] as number);
        }
        const kept = light[patch * size + c] as number;
        expect(Math.abs(kept - received)).toBeLessThan(1e-3 * received + 1e-12);
        if (kept > 0) lit++;
      }
    }
    expect(lit).toBeGreaterThan(0.5 * layout.patches * size);
  });

  test('gathered in two ranges they are the same to the last bit', () => {
    const tracing = prepareTracing(demoSet('cordial'));
    const { engine, lightmapLayout: layout, scene } = tracing;
    const options = { rays: 4, seed: 1 };
    const half = layout.patches >> 1;
    const whole = gatherPatches(engine, layout, scene.channelCount, 0, layout.patches, options);
    const later = gatherPatches(engine, layout, scene.channelCount, half, layout.patches - half, options);
    expect(later.direct).toEqual(whole.direct.slice(half * scene.channelCount * 3));
    expect(later.met).toEqual(whole.met.slice(half * 4 * 2));
  });

  const R = 0.04;
  const turned = (profile: readonly (readonly [number, number])[], heightM = 0.0005) => ({
    kind: 'turned',
    positionM: [0, 0, heightM],
    profile: profile.map(([radiusM, height]) => ({ radiusM, heightM: height })),
  });
  const STANDING = {
    'a ball': turned(
      Array.from({ length: 17 }, (_, i) => {
        const angle = (Math.PI * i) / 16;
        return [Math.max(0, R * Math.sin(angle)), R * (1 - Math.cos(angle))] as const;
      }),
    ),
    'a plate just above it': turned(
      [
        [0.1, 0],
        [0.1, 0.005],
      ],
      0.02,
    ),
    'a ring': {
      kind: 'ring',
      positionM: [0, 0, 0.0005],
      innerDiameterM: 0.06,
      bandWidthM: 0.01,
      bandThicknessM: 0.004,
    },
  };

  // A patch of the table is 9 cm wide, with light and shade of the thing in one figure.
  test.each(Object.entries(STANDING))(
    'under %s what is near its contact is as dark as by whole paths',
    (_, form) => {
      const tracing = prepareTracing(
        testSet({
          bench: { widthM: 1.2, depthM: 0.8, material: { kind: 'matte', reflectance: 0.7 } },
          lights: [overheadSoftbox(0.8)],
          products: [
            { id: 'thing', name: 'Thing', material: { kind: 'matte', reflectance: 0.6 }, ...form } as never,
          ],
        }),
      );
      for (const target of [
        [0.02, -0.02, 0],
        [0.03, -0.03, 0.012],
        [0.05, 0.01, 0],
      ] as Vector[]) {
        const from: Vector = [target[0] * 4, -0.6, 0.05];
        const [baked, whole] = [true, false].map((lightmapsToo) =>
          luminanceFrom(tracing, from, target, { samples: 20_000, lightmaps: lightmapsToo }),
        );
        expect(Math.abs(Math.log2((baked as number) / (whole as number)))).toBeLessThan(0.1);
      }
    },
  );
});
