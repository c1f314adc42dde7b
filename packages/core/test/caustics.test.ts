import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, it } from 'vitest';
import { BUNDLED_FLUX, BUNDLED_STRIDE, PHOTON_FLUX, PHOTON_STRIDE } from '../src/engine/layouts.js';
import { SceneTables } from '../src/engine/tables.js';
import { prepareTracing, renderTile } from '../src/index.js';
import { layDownPhotons } from '../src/render/layDownPhotons.js';
import { bakeLightmaps, type Tracing } from '../src/render/prepareTracing.js';
import { testCamera } from './sets.js';

const GLASS = { kind: 'dielectric', index: 1.5 };

/** A table straight under a small face a metre up, with or without something over it; black all round. */
function set(products: object[], lamp: object = {}): SetDocument {
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Plate over a table',
    bench: { widthM: 2, depthM: 2, material: { kind: 'matte', reflectance: 0.5 } },
    products,
    lights: [
      {
        kind: 'softbox',
        tag: 'A',
        name: 'Small face',
        positionM: [0, 0, 1],
        aimM: [0, 0, 0],
        widthM: 0.04,
        heightM: 0.04,
        output: { kind: 'luminance', luminanceCdM2: 10_000 },
        ...lamp,
      },
    ],
    camera: {
      ...testCamera(),
      positionM: [0, -1.2, 0.3],
      aimM: [0, 0, 0],
      focusM: 1.2,
      fNumber: 16,
      shutterS: 0.01,
    },
  });
}

const plate = (more: object = {}) => ({
  kind: 'box',
  id: 'plate',
  name: 'Plate',
  positionM: [0, 0, 0.1],
  widthM: 0.3,
  depthM: 0.3,
  heightM: 0.01,
  material: GLASS,
  ...more,
});

/** A ball of 8 cm that stands so high over the table. */
const ball = (material: object, highM = 0) => ({
  kind: 'turned',
  id: 'ball',
  name: 'Ball',
  positionM: [0, 0, highM],
  material,
  profile: Array.from({ length: 13 }, (_, i) => ({
    radiusM: Math.max(0.0005, 0.04 * Math.sin((Math.PI * i) / 12)),
    heightM: 0.04 - 0.04 * Math.cos((Math.PI * i) / 12),
    smooth: true,
  })),
});

/** Mean luminance of places of the table, by paths that end on what was baked. @param samples paths a place */
function tableLuminance(
  { engine }: Tracing,
  places: readonly (readonly [number, number])[],
  samples: number,
  seed = 5,
): number {
  engine.reseed(seed);
  engine.setMode({ lightmaps: true });
  engine.films.fill(0);
  places.forEach(([x, y], place) => {
    for (let sample = 0; sample < samples; sample++) {
      engine.startSample(place, sample);
      engine.point.set([x, y, 0.02]);
      engine.direction.set([0, 0, -1]);
      engine.trace(false);
    }
  });
  engine.setMode({});
  return (engine.films[1] as number) / (places.length * samples);
}

const MIDDLE = Array.from(
  { length: 64 },
  (_, i) => [((i % 8) - 3.5) * 0.005, (Math.floor(i / 8) - 3.5) * 0.005] as const,
);

function baked(
  of: SetDocument,
  which: 'best' | 'plain' = 'best',
  effort: { photons?: number } = {},
): Tracing {
  const tracing = prepareTracing(of, which);
  bakeLightmaps(tracing, effort);
  return tracing;
}

describe('bundled light', () => {
  it('lets through a plate what Fresnel lets through', () => {
    const bare = tableLuminance(baked(set([])), MIDDLE, 16);
    const under = tableLuminance(baked(set([plate()])), MIDDLE, 16);
    // Both faces and all that goes to and fro: (1 - R) / (1 + R); the lamp seems nearer by the plate's third.
    const reflected = ((1.5 - 1) / (1.5 + 1)) ** 2;
    const passed = (1 - reflected) / (1 + reflected);
    const nearer = (1 / (1 - 0.01 * (1 - 1 / 1.5))) ** 2;
    expect(under / bare / (passed * nearer)).toBeGreaterThan(0.97);
    expect(under / bare / (passed * nearer)).toBeLessThan(1.03);
  });

  it('is found without noise where paths find it by chance: four paths a place tell what hundreds do', () => {
    const tracing = baked(set([plate()]));
    const few = MIDDLE.map((place) => tableLuminance(tracing, [place], 4));
    const mean = few.reduce((sum, value) => sum + value, 0) / few.length;
    const spread = Math.sqrt(few.reduce((sum, value) => sum + (value / mean - 1) ** 2, 0) / few.length);
    expect(spread).toBeLessThan(0.15);
    // By chance alone hardly a path of four meets a face of 4 cm a metre away.
    tracing.tables.texelSizes = new Float64Array(0);
    tracing.engine.renewCaustics();
    const lit = MIDDLE.filter((place) => tableLuminance(tracing, [place], 4) > 0.5 * mean);
    expect(lit.length).toBeLessThan(MIDDLE.length / 4);
  });

  it('brings as much light as whole paths do, under a ball that gathers it', () => {
    const tracing = baked(set([ball(GLASS, 0.05)], { widthM: 0.4, heightM: 0.4 }));
    const places = Array.from(
      { length: 400 },
      (_, i) => [((i % 20) - 9.5) * 0.006, (Math.floor(i / 20) - 9.5) * 0.006] as const,
    );
    const map = tableLuminance(tracing, places, 8);
    tracing.tables.texelSizes = new Float64Array(0);
    tracing.engine.renewCaustics();
    const chance = tableLuminance(tracing, places, 400);
    expect(map / chance).toBeGreaterThan(0.97);
    expect(map / chance).toBeLessThan(1.03);
  });

  const satin = [
    ['a satin coat', { kind: 'coated', reflectance: 0.02, coatIndex: 1.5, roughness: 0.06 }],
    ['satin metal', { kind: 'metal', metal: 'steel', roughness: 0.15 }],
  ] as const;
  for (const [words, material] of satin)
    it(`by way of ${words} is as much as paths find, and without their noise`, () => {
      const tracing = baked(set([ball(material)], { positionM: [-0.6, 0, 0.5], widthM: 0.1, heightM: 0.1 }));
      // On the side of the lamp, where the ball throws its light back to.
      const places = Array.from(
        { length: 100 },
        (_, i) => [-0.12 + (i % 10) * 0.006, (Math.floor(i / 10) - 4.5) * 0.006] as const,
      );
      /** What four paths tell of all places, by each of so many seeds. */
      const told = (seeds: number) =>
        Array.from({ length: seeds }, (_, i) => tableLuminance(tracing, places, 4, i));
      const kept = told(24);
      tracing.tables.texelSizes = new Float64Array(0);
      tracing.engine.renewCaustics();
      const found = told(24);
      const mean = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0) / of.length;
      const chance = mean(told(400));
      expect(mean(kept) / chance).toBeGreaterThan(0.985);
      expect(mean(kept) / chance).toBeLessThan(1.015);
      const noise = (of: readonly number[]) => mean(of.map((value) => (value - mean(of)) ** 2));
      expect(noise(kept)).toBeLessThan(noise(found) / 4);
    }, 60_000);

  it('is left to chance where a lamp reaches into what bundles, and where nothing bundles', () => {
    expect(baked(set([])).tables.texelSizes).toHaveLength(0);
    const round = baked(set([plate({ heightM: 0.95 })])).tables;
    expect(round.texelSizes).toHaveLength(0);
    const matte = baked(set([plate({ material: { kind: 'matte', reflectance: 0.5 } })])).tables;
    expect(matte.texelSizes).toHaveLength(0);
  });

  it('of very many things is left to chance for the smaller ones', () => {
    const many = Array.from({ length: 40 }, (_, i) =>
      plate({
        id: `plate-${i}`,
        positionM: [((i % 8) - 4) * 0.12, (Math.floor(i / 8) - 2) * 0.12, 0.1],
        widthM: 0.02 + 0.001 * i,
        depthM: 0.02 + 0.001 * i,
      }),
    );
    const [lamp] = set([]).lights;
    const lights = [...'ABCDEFGH'].map((tag, i) => ({ ...lamp, tag, positionM: [0.3 * (i - 4), 0, 1] }));
    const { tables, scene } = baked(setDocument.parse({ ...set(many), lights }));
    const bundling = new Set(
      [...tables.bundles.keys()].filter((i) => tables.bundles[i] === 1).map((i) => tables.thing[i]),
    );
    // 600 000 photons, 4 000 for each of eight lamps and for the bright places of the table.
    expect(bundling.size).toBe(16);
    expect([...bundling].map((thing) => scene.things[thing as number]?.key)).toContain('plate-39');
    expect([...bundling].map((thing) => scene.things[thing as number]?.key)).not.toContain('plate-0');
  }, 60_000);

  it('is baked alike by both engines', () => {
    const of = set([plate()]);
    const effort = { photons: 20_000 };
    const [fast, plain] = [baked(of, 'best', effort).tables, baked(of, 'plain', effort).tables];
    expect(fast.texelKeys).toEqual(plain.texelKeys);
    expect(fast.bundled.length).toBe(plain.bundled.length);
    const sum = (table: Float32Array) => table.reduce((all, value) => all + value, 0);
    expect(sum(fast.bundled)).toBeCloseTo(sum(plain.bundled), 6);
  }, 30_000);

  it('is no part of whole paths', () => {
    const tracing = baked(demoSet('cordial'));
    const job = {
      width: 12,
      height: 8,
      tile: { x: 0, y: 0, width: 12, height: 8 },
      firstSample: 0,
      samples: 4,
      seed: 1,
    };
    const whole = renderTile(tracing, { ...job, wholePaths: true });
    expect(renderTile(prepareTracing(demoSet('cordial')), { ...job, wholePaths: true })).toEqual(whole);
    expect(renderTile(tracing, job)).not.toEqual(whole);
  });
});

describe('photons laid down', () => {
  it('keep their light, each film apart', () => {
    const photons = new Float32Array(300 * PHOTON_STRIDE);
    for (let i = 0; i < 300; i++)
      photons.set(
        [0.001 * (i % 17), 0.002 * (i % 11), 0, 0, 0.6, -0.8, 1, 2, 3, i % 2, 4],
        i * PHOTON_STRIDE,
      );
    const tables = new SceneTables();
    tables.channelCount = 2;
    layDownPhotons(tables, photons, 0.002, () => 1);
    const all = (list: Float32Array, stride: number, at: number, film: number, filmAt: number) => {
      let sum = 0;
      for (let o = 0; o < list.length; o += stride)
        if (list[o + filmAt] === film) sum += list[o + at] as number;
      return sum;
    };
    for (const film of [0, 1])
      for (let c = 0; c < 3; c++)
        expect(all(tables.bundled, BUNDLED_STRIDE, BUNDLED_FLUX + c, film, 0)).toBeCloseTo(
          all(photons, PHOTON_STRIDE, PHOTON_FLUX + c, film, 9),
          3,
        );
  });
});
