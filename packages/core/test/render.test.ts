import type { SetDocument, SetDocumentInput } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { EMITTER_CENTRE } from '../src/engine/layouts.js';
import { fresnelMean, luminanceOf, prepareTracing, renderTile, traceKey } from '../src/index.js';
import { makeCoat } from '../src/optics/coat.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, surroundLight, testCamera, testSet } from './sets.js';
import { oneSurface } from './surfaces.js';

/** Mean luminance of one light over a small picture, at unit luminance. */
function meanLuminance(
  set: SetDocument,
  samples: number,
  light = 0,
  size = 8,
  seed = 3,
  wholePaths = false,
): number {
  const tile = { x: 0, y: 0, width: size, height: size };
  const job = { width: size, height: size, tile, firstSample: 0, samples, seed, wholePaths };
  const sums = renderTile(prepareTracing(set), job);
  let sum = 0;
  for (let i = 0; i < size * size; i++) {
    const at = (light * size * size + i) * 3;
    sum += luminanceOf(sums[at] as number, sums[at + 1] as number, sums[at + 2] as number);
  }
  return sum / (size * size * samples);
}

/** A product that fills the frame of a very long lens. */
const closeCamera = { ...testCamera(), lens: { name: 'Long', focalLengthM: 0.9, pupilRatio: 1 } };
const ball = (material: NonNullable<SetDocumentInput['products']>[number]['material']) => ({
  kind: 'turned' as const,
  id: 'ball',
  name: 'Ball',
  positionM: [0, 0, 0] as [number, number, number],
  material,
  profile: [
    { radiusM: 0, heightM: 0 },
    { radiusM: 0.1, heightM: 0.1, smooth: true },
    { radiusM: 0, heightM: 0.2 },
  ],
});

describe('white furnace: what keeps all light looks like its surround', () => {
  test.each([
    ['matte', matte(1)],
    ['clear coat over white', { kind: 'coated' as const, reflectance: 1 }],
    ['satin coat over white', { kind: 'coated' as const, reflectance: 1, roughness: 0.3 }],
    ['rough coat over white', { kind: 'coated' as const, reflectance: 1, roughness: 0.8 }],
    ['mirror', { kind: 'mirror' as const, reflectance: 1 }],
    ['glass', { kind: 'dielectric' as const, index: 1.5 }],
  ])('%s', (_name, material) => {
    const set = testSet({ lights: [surroundLight], products: [ball(material)], camera: closeCamera });
    expect(meanLuminance(set, 512)).toBeCloseTo(1, 2);
    expect(Math.abs(meanLuminance(set, 512) - 1)).toBeLessThan(0.005);
  });

  test('an open white box keeps it too, over many bounces', () => {
    const wall = { ...matte(1) };
    const set = testSet({
      lights: [surroundLight],
      bench: { widthM: 1, depthM: 1, material: wall },
      backdrop: { kind: 'panel', widthM: 1, heightM: 1, centreM: [0, 0.3, 0.5], material: wall },
      products: [
        {
          kind: 'box',
          id: 'cube',
          name: 'Cube',
          positionM: [0, 0, 0],
          material: wall,
          widthM: 0.2,
          depthM: 0.2,
          heightM: 0.2,
        },
      ],
    });
    expect(Math.abs(meanLuminance(set, 1024, 0, 8, 3, true) - 1)).toBeLessThan(0.005);
    // Lightmaps: a lossless corner is their worst case.
    expect(Math.abs(meanLuminance(set, 1024) - 1)).toBeLessThan(0.015);
  });

  test('hollow glass with liquid loses nothing without absorption', () => {
    const set = testSet({
      lights: [surroundLight],
      camera: closeCamera,
      products: [
        {
          kind: 'turned',
          id: 'jar',
          name: 'Jar',
          positionM: [0, 0, 0],
          material: { kind: 'dielectric', index: 1.52 },
          profile: [
            { radiusM: 0.1, heightM: 0 },
            { radiusM: 0.1, heightM: 0.3 },
          ],
          hollow: {
            wallM: 0.005,
            baseM: 0.01,
            liquid: { material: { kind: 'dielectric', index: 1.333 }, fillToM: 0.25 },
          },
        },
      ],
    });
    expect(Math.abs(meanLuminance(set, 512) - 1)).toBeLessThan(0.005);
  });
});

describe('sources in absolute units', () => {
  test('a mirror shows a source at its own luminance times its reflectance', () => {
    const set = testSet({
      lights: [{ ...overheadSoftbox(1), positionM: [0, -1.5, 0.1], aimM: [0, 0, 0.1] }],
      sheets: [
        {
          kind: 'card',
          tag: '1',
          name: 'Mirror',
          positionM: [0, 0, 0.1],
          aimM: [0, -1, 0.1],
          widthM: 1,
          heightM: 1,
          front: { kind: 'mirror', reflectance: 0.9 },
          back: matte(0),
        },
      ],
    });
    expect(meanLuminance(set, 64)).toBeCloseTo(0.9, 6);
  });

  test('glass shows it at Fresnel reflectance', () => {
    const panel = { kind: 'coated' as const, reflectance: 0, coatIndex: 1.5 };
    const set = testSet({
      lights: [
        { ...overheadSoftbox(1), widthM: 3, heightM: 3, positionM: [0, -1.5, 0.1], aimM: [0, 0, 0.1] },
      ],
      backdrop: { kind: 'panel', widthM: 1, heightM: 1, centreM: [0, 0, 0.1], material: panel },
      camera: closeCamera,
    });
    expect(meanLuminance(set, 64) / fresnelMean(1, 1.5)).toBeCloseTo(1, 2);
  });

  test('a matte plane under a softbox has luminance rho E / pi, E by the closed form', () => {
    const set = testSet({
      lights: [overheadSoftbox(1)],
      bench: { widthM: 1, depthM: 1, material: matte(0.5) },
      camera: {
        ...closeCamera,
        positionM: [0, -0.9, 0.3],
        aimM: [0, 0, 0],
        focusM: 0.95,
        lens: { name: 'Very long', focalLengthM: 0.92, pupilRatio: 1 },
      },
    });
    const expected = (0.5 * 0.45305) / Math.PI;
    expect(meanLuminance(set, 1024) / expected).toBeCloseTo(1, 2);
  });

  test('a slab of tinted glass passes what Fresnel and Beer-Lambert say', () => {
    const set = testSet({
      lights: [{ ...overheadSoftbox(1), positionM: [0, 1, 0.1], aimM: [0, 0, 0.1] }],
      products: [
        {
          kind: 'box',
          id: 'slab',
          name: 'Slab',
          positionM: [0, 0, 0],
          material: { kind: 'dielectric', index: 1.5, absorptionPerCm: 0.4 },
          widthM: 0.4,
          depthM: 0.02,
          heightM: 0.4,
        },
      ],
      camera: closeCamera,
    });
    const passes = Math.exp(-0.8);
    const mirrored = 0.04;
    const expected = ((1 - mirrored) ** 2 * passes) / (1 - (mirrored * passes) ** 2);
    expect(meanLuminance(set, 4096) / expected).toBeCloseTo(1, 2);
  });

  test('a plate at 45 degrees shifts what lies behind it by Snell', () => {
    // Looking along +y through a plate 20 mm thick turned by 45 degrees: the edge of a light behind moves.
    const shift = 0.02 * Math.sin(Math.PI / 4) * (1 - Math.cos(Math.PI / 4) / Math.sqrt(1.5 ** 2 - 0.5));
    const litFrom = (edgeX: number) =>
      testSet({
        lights: [
          {
            ...overheadSoftbox(1),
            widthM: 1,
            heightM: 1,
            positionM: [edgeX + 0.5, 0.5, 0.1],
            aimM: [edgeX + 0.5, 0, 0.1],
          },
        ],
        products: [
          {
            kind: 'box',
            id: 'plate',
            name: 'Plate',
            positionM: [0, 0, 0],
            turnDeg: 45,
            material: { kind: 'dielectric', index: 1.5 },
            widthM: 0.4,
            depthM: 0.02,
            heightM: 0.4,
          },
        ],
        camera: {
          ...closeCamera,
          positionM: [0, -40, 0.1],
          focusM: 40,
          body: { ...closeCamera.body, sensorWidthM: 0.001, sensorHeightM: 0.001 },
        },
      });
    // Half of the tiny frame is lit when the edge stands where the middle ray comes out.
    const share = (edgeX: number) => meanLuminance(litFrom(edgeX), 64) / meanLuminance(litFrom(-0.4), 64);
    const [left, right] = [share(-shift - 0.002), share(-shift + 0.002)];
    const [leftOther, rightOther] = [share(shift - 0.002), share(shift + 0.002)];
    const found = (a: number, b: number) => Math.abs((a + b) / 2 - 0.5) < 0.06 && a > b;
    expect(found(left, right) !== found(leftOther, rightOther)).toBe(true);
  });
});

describe('films', () => {
  const two = testSet({
    lights: [
      overheadSoftbox(0.8),
      {
        kind: 'bare-lamp',
        tag: 'B',
        name: 'Lamp',
        positionM: [0.5, -0.3, 0.5],
        output: { kind: 'lumens', lumens: 500 },
      },
    ],
    bench: { widthM: 1, depthM: 1, material: matte(0.6) },
    products: [ball({ kind: 'coated', reflectance: 0.4, roughness: 0.2 })],
  });

  test('each light alone gives the film it has beside the other', () => {
    const [first, second] = two.lights;
    if (!first || !second) throw new Error('two lights were made');
    const alone = (light: typeof first) => meanLuminance({ ...two, lights: [light] }, 256, 0, 12, 11);
    // The other light still stands there: what it hides is small against the noise.
    expect(meanLuminance(two, 256, 0, 12) / alone(first)).toBeCloseTo(1, 1);
    expect(meanLuminance(two, 256, 1, 12) / alone(second)).toBeCloseTo(1, 1);
  });

  test('the same seed gives the same numbers, another seed others of the same mean', () => {
    expect(meanLuminance(two, 16, 0, 8, 5)).toBe(meanLuminance(two, 16, 0, 8, 5));
    expect(meanLuminance(two, 16, 0, 8, 5)).not.toBe(meanLuminance(two, 16, 0, 8, 6));
  });

  test('samples may be split into passes and the picture into tiles', () => {
    const tracing = prepareTracing(two);
    const job = { width: 8, height: 8, seed: 1 };
    const whole = renderTile(tracing, {
      ...job,
      tile: { x: 0, y: 0, width: 8, height: 8 },
      firstSample: 0,
      samples: 8,
    });
    const tile = { x: 4, y: 2, width: 2, height: 1 };
    const part = renderTile(tracing, { ...job, tile, firstSample: 0, samples: 8 });
    for (let i = 0; i < 6; i++) expect(part[i]).toBe(whole[(2 * 8 + 4) * 3 + i]);
  });

  test('what is applied to films leaves the key of the rays alone; what moves light paths does not', () => {
    const key = traceKey(two);
    const lights = two.lights.map((light) => ({ ...light, powerStops: -3, on: false }));
    expect(traceKey({ ...two, lights })).toBe(key);
    expect(
      traceKey({ ...two, name: 'Other', camera: { ...two.camera, fNumber: 4, iso: 800, shutterS: 1 } }),
    ).toBe(key);
    expect(traceKey({ ...two, camera: { ...two.camera, focusM: 1.1 } })).not.toBe(key);
    expect(traceKey({ ...two, bench: undefined } as unknown as SetDocument)).not.toBe(key);
  });
});

describe('scattering', () => {
  test('is the same from light to lens and from lens to light', () => {
    const random = seededRandom(3);
    const { model, albedo } = oneSurface({
      kind: 'coated',
      reflectance: 0.6,
      coatIndex: 1.5,
      roughness: 0.25,
    });
    const direction = () => {
      const z = 0.05 + 0.95 * random();
      const phi = 2 * Math.PI * random();
      const flat = Math.sqrt(1 - z * z);
      return new Float64Array([flat * Math.cos(phi), flat * Math.sin(phi), z]);
    };
    const there = new Float64Array(7);
    const back = new Float64Array(7);
    for (let i = 0; i < 500; i++) {
      const [a, b] = [direction(), direction()];
      model.evaluate(there, 0, albedo, 0.5, a, b, 1);
      model.evaluate(back, 0, albedo, 0.5, b, a, 1);
      expect(there[0]).toBeCloseTo(back[0] as number, 9);
    }
    expect(makeCoat(1.5, 0.25)).toBe(makeCoat(1.5, 0.25));
  });
});

describe('light sampling and scattering joined', () => {
  test.each([
    ['satin', 0.25],
    ['nearly clear', 0.05],
    ['rough', 0.7],
  ])('a %s coat under a softbox is the integral of its reflectance over the face', (_name, roughness) => {
    const material = { kind: 'coated' as const, reflectance: 0.3, coatIndex: 1.5, roughness };
    // Looked at so that the mirror image of the box lies partly in view.
    const set = testSet({
      lights: [{ ...overheadSoftbox(0.6), positionM: [0, 0.5, 0.6], widthM: 0.4, heightM: 0.3 }],
      bench: { widthM: 1, depthM: 1, material },
      camera: { ...closeCamera, positionM: [0, -0.9, 0.9], aimM: [0, 0, 0], focusM: 1.27 },
    });
    const { model, albedo } = oneSurface(material);
    const { emitters } = prepareTracing(set).scene;
    const face = emitters[0]?.data.subarray(EMITTER_CENTRE) ?? new Float64Array(0);
    const out = new Float64Array([0, -Math.SQRT1_2, Math.SQRT1_2]);
    const scatter = new Float64Array(7);
    const steps = 400;
    let expected = 0;
    for (let i = 0; i < steps; i++) {
      for (let j = 0; j < steps; j++) {
        const a = 0.4 * ((i + 0.5) / steps - 0.5);
        const b = 0.3 * ((j + 0.5) / steps - 0.5);
        const p = [0, 1, 2].map(
          (k) => (face[k] as number) + a * (face[3 + k] as number) + b * (face[6 + k] as number),
        );
        const away = Math.hypot(...p);
        const into = Float64Array.from(p, (value) => value / away);
        const atFace = -[0, 1, 2].reduce((sum, k) => sum + (into[k] as number) * (face[9 + k] as number), 0);
        model.evaluate(scatter, 0, albedo, 0.5, out, into, 1);
        const patch = (0.4 * 0.3) / steps ** 2;
        expected += ((scatter[0] as number) * (into[2] as number) * atFace * patch) / away ** 2;
      }
    }
    const small = {
      ...set,
      camera: { ...set.camera, body: { ...set.camera.body, sensorWidthM: 0.001, sensorHeightM: 0.001 } },
    };
    expect(meanLuminance(small, 1024) / expected).toBeCloseTo(1, 2);
  });
});
