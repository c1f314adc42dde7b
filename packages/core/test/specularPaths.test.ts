import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { SPECULAR_ALONE, SPECULAR_LEFT_OUT, SPECULAR_TOO } from '../src/engine/path/traceMode.js';
import { bakeLightmaps, prepareTracing, renderTile, type Tracing } from '../src/index.js';
import { borderPixels, GLINT } from '../src/render/borderPixels.js';
import { viewOfShape, writeView } from '../src/render/view.js';
import { testCamera } from './sets.js';

const width = 16;
const height = 12;
/** A ball of a material on a matte table under a softbox that the ball mirrors. */
function ballOf(material: unknown): SetDocument {
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Ball on a table',
    bench: { widthM: 1, depthM: 0.8, material: { kind: 'matte', reflectance: 0.4 } },
    products: [
      {
        kind: 'turned',
        id: 'ball',
        name: 'Ball',
        positionM: [0, 0, 0],
        material,
        profile: Array.from({ length: 13 }, (_, i) => ({
          radiusM: Math.max(0.0005, 0.06 * Math.sin((Math.PI * i) / 12)),
          heightM: 0.06 - 0.06 * Math.cos((Math.PI * i) / 12),
          smooth: true,
        })),
      },
    ],
    lights: [
      {
        kind: 'softbox',
        tag: 'A',
        name: 'Key',
        positionM: [-0.4, -0.2, 0.6],
        aimM: [0, 0, 0.05],
        widthM: 0.3,
        heightM: 0.3,
        output: { kind: 'luminance', luminanceCdM2: 10_000 },
      },
    ],
    camera: { ...testCamera(), positionM: [0, -0.8, 0.25], aimM: [0, 0, 0.06], focusM: 0.8 },
  });
}

/** Mean of the first film, green, over a picture. */
function meanOf(tracing: Tracing, specular: number, samples: number, seed: number) {
  const { engine } = tracing;
  engine.reseed(seed);
  engine.setMode({ lightmaps: true, specular });
  writeView(engine.view, viewOfShape(tracing.view, width, height));
  for (let i = 0; i < width * height; i++) engine.list[i] = i;
  engine.renderPixels(width * height, width, height, 0, samples);
  engine.setMode({});
  const size = engine.films.length;
  let sum = 0;
  for (let i = 0; i < width * height; i++) sum += engine.pixels[size * i + 1] as number;
  return sum / samples / (width * height);
}

const GLASS = { kind: 'dielectric', index: 1.5 };
const materials: [string, object][] = [
  ['glass', GLASS],
  ['glass that splits light', { ...GLASS, dispersion: 'flint glass' }],
  ['cloudy juice', { ...GLASS, scatteringPerCm: 0.5 }],
  ['a mirror', { kind: 'mirror', reflectance: 0.9 }],
  ['polished copper', { kind: 'metal', metal: 'copper' }],
  ['gloss paint', { kind: 'coated', reflectance: [0.5, 0.1, 0.1] }],
  ['wet fruit', { kind: 'wax', reflectance: 0.5, meanFreePathM: 0.002, roughness: 0 }],
];
/** One that is clear, one that mirrors in a coat, one in a skin; the others wait for `npm run test:more`. */
const ALWAYS = new Set(['glass', 'gloss paint', 'wet fruit']);
/** What mirrors in lobes alone is no specular path. */
const lobes: [string, object][] = [
  ['frosted glass', { ...GLASS, roughness: 0.1 }],
  ['satin paint', { kind: 'coated', reflectance: 0.4, roughness: 0.1 }],
  ['satin steel', { kind: 'metal', metal: 'steel', roughness: 0.1 }],
  ['fruit with a dull skin', { kind: 'wax', reflectance: 0.5, meanFreePathM: 0.002, roughness: 0.1 }],
];

describe('light by specular paths', () => {
  for (const [name, material] of materials)
    test(`of ${name}: it alone and all other light are together all light`, {
      tags: ALWAYS.has(name) ? [] : ['more'],
    }, () => {
      const tracing = prepareTracing(ballOf(material));
      bakeLightmaps(tracing);
      const seeds = [1, 2, 3, 4];
      const mean = (specular: number, shift: number) =>
        seeds.reduce((sum, seed) => sum + meanOf(tracing, specular, 64, seed + shift), 0) / seeds.length;
      const all = mean(SPECULAR_TOO, 0);
      const other = mean(SPECULAR_LEFT_OUT, 0);
      const alone = mean(SPECULAR_ALONE, 100);
      expect(alone).toBeGreaterThan(0.01 * all);
      expect(other).toBeGreaterThan(0.01 * all);
      expect(Math.abs((other + alone) / all - 1)).toBeLessThan(0.003);
      expect(Math.abs(alone / (all - other) - 1)).toBeLessThan(0.05);
    });

  test.each(lobes)('of %s there is none', (_name, material) => {
    const tracing = prepareTracing(ballOf(material));
    expect(meanOf(tracing, SPECULAR_ALONE, 16, 1)).toBe(0);
    expect(meanOf(tracing, SPECULAR_LEFT_OUT, 16, 1)).toBe(meanOf(tracing, SPECULAR_TOO, 16, 1));
  });

  test('is the same in both engines', () => {
    const [best, plain] = (['best', 'plain'] as const).map((which) => {
      const tracing = prepareTracing(ballOf(GLASS), which);
      return meanOf(tracing, SPECULAR_ALONE, 16, 1);
    });
    expect(best).toBeGreaterThan(0);
    expect(plain).toBeCloseTo(best as number, 9);
  });
});

describe('glints', () => {
  const size = { width: 80, height: 60 };
  const tile = { x: 0, y: 0, ...size };

  test('are few, and what they mirror and show has less noise', () => {
    const tracing = prepareTracing(demoSet('vinegar'));
    const kinds = borderPixels(tracing, size.width, size.height, tile);
    const glints = [...kinds.keys()].filter((place) => kinds[place] === GLINT);
    expect(glints.length).toBeGreaterThan(20);
    expect(glints.length).toBeLessThan(kinds.length / 20);
    const pictures = (fineBorders: boolean) =>
      Array.from({ length: 8 }, (_, seed) =>
        renderTile(tracing, { ...size, tile, firstSample: 0, samples: 2, seed, fineBorders }),
      );
    expect(variance(pictures(true), glints) / variance(pictures(false), glints)).toBeLessThan(0.4);
  });

  test('are none where nothing mirrors or shows a lamp', () => {
    const tracing = prepareTracing(ballOf({ kind: 'matte', reflectance: 0.5 }));
    expect(borderPixels(tracing, size.width, size.height, tile)).not.toContain(GLINT);
  });
});

/** Of the first film, green: variance from picture to picture, summed over places. */
function variance(pictures: Float32Array[], places: number[]): number {
  let sum = 0;
  for (const place of places) {
    const values = pictures.map((picture) => picture[3 * place + 1] as number);
    const mean = values.reduce((so, value) => so + value, 0) / values.length;
    for (const value of values) sum += (value - mean) ** 2;
  }
  return sum;
}
