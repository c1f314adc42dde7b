import type { Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  mirrorBand,
  mirrorMapTile,
  NO_PART,
  prepareTracing,
  rayThrough,
  vector,
  viewOfShape,
} from '../src/index.js';
import { matte, overheadSoftbox, testCamera, testSet } from './sets.js';
import { slowMirror } from './slowTracer.js';

const gloss = { kind: 'coated' as const, reflectance: 0.3 };
const card = (tag: string, positionM: Vector, aimM: Vector, widthM: number, heightM = 0.4) => ({
  kind: 'card' as const,
  tag,
  name: 'Card',
  positionM,
  aimM,
  widthM,
  heightM,
  front: matte(0.85),
  back: matte(0.04),
});
const cylinder = (radiusM: number, heightM: number, material: object = gloss) => ({
  kind: 'turned' as const,
  id: 'cylinder',
  name: 'Cylinder',
  positionM: [0, 0, 0] as Vector,
  material: material as typeof gloss,
  profile: [
    { radiusM, heightM: 0 },
    { radiusM, heightM },
  ],
});

describe('mirror band', () => {
  test.each([
    [30, 25.9],
    [60, 50],
    [90, 70.7],
  ])('a gap of +-%d degrees round a distant camera takes sin(a/2) of a cylinder: %f %%', (gapDeg, share) => {
    const at = (bearingDeg: number, distance: number): Vector => {
      const bearing = (bearingDeg * Math.PI) / 180;
      return [distance * Math.sin(bearing), -distance * Math.cos(bearing), 0.5];
    };
    // Two cards whose near edges stand at the ends of the gap, 20 m away, edge on to the mark behind them.
    const cards = [-1, 1].map((side, i) => {
      const near = at(side * gapDeg, 20);
      const far = at(side * (gapDeg + 50), 20);
      const middle = vector.scale(vector.add(near, far), 0.5);
      return card(String(i + 1), middle, [0, 0, 0.5], vector.distance(near, far), 20);
    });
    const set = testSet({
      products: [cylinder(0.01, 1)],
      sheets: cards,
      camera: { ...testCamera(), positionM: [0, -90, 0.5], aimM: [0, 0, 0.5], focusM: 90 },
    });
    const band = mirrorBand(prepareTracing(set), set.products[0] as (typeof set.products)[number], 0.5);
    const gap = band?.lengths.find(({ from, to }) => from < 0.5 && to > 0.5);
    expect(gap?.kind).toBe('dark');
    expect((gap?.to ?? 0) - (gap?.from ?? 0)).toBeCloseTo(share / 100, 2);
    expect(band?.lengths.map(({ what }) => what)).toContain('1');
  });

  test('runs from 0 to 1 without gaps, says matte, dark and hidden', () => {
    const set = testSet({
      products: [
        {
          ...cylinder(0.04, 0.2),
          labels: [{ name: 'label', fromM: 0.02, toM: 0.18, widthDeg: 60, material: matte(0.8) }],
        },
      ],
      sheets: [card('1', [0.03, -0.3, 0.1], [0.03, 0, 0.1], 0.012)],
    });
    const band = mirrorBand(prepareTracing(set), set.products[0] as (typeof set.products)[number]);
    expect(band?.lengths[0]?.from).toBe(0);
    expect(band?.lengths.at(-1)?.to).toBe(1);
    band?.lengths.forEach((length, i) => {
      expect(length.from).toBe(i === 0 ? 0 : band.lengths[i - 1]?.to);
    });
    const kinds = new Set(band?.lengths.map(({ kind }) => kind));
    expect(kinds).toEqual(new Set(['dark', 'matte', 'hidden', ...(kinds.has('sheet') ? ['sheet'] : [])]));
    const label = band?.lengths.find(({ kind }) => kind === 'matte');
    expect((label?.to ?? 0) - (label?.from ?? 0)).toBeGreaterThan(0.3);
  });

  test('a box that shows two faces mirrors two sides', () => {
    const set = testSet({
      products: [
        {
          kind: 'box',
          id: 'box',
          name: 'Box',
          positionM: [0, 0, 0],
          turnDeg: 45,
          material: gloss,
          widthM: 0.1,
          depthM: 0.1,
          heightM: 0.2,
        },
      ],
      sheets: [card('1', [-0.6, 0, 0.1], [0, 0, 0.1], 0.8), card('2', [0.6, 0, 0.1], [0, 0, 0.1], 0.8)],
    });
    const band = mirrorBand(prepareTracing(set), set.products[0] as (typeof set.products)[number]);
    expect(band?.lengths.map(({ what }) => what)).toEqual(['1', '2']);
    expect(band?.lengths[0]?.to).toBeCloseTo(0.5, 6);
  });
});

describe('mirror map', () => {
  test('agrees with a slow plain tracer in what is mirrored and where', () => {
    const set = testSet({
      products: [
        {
          ...cylinder(0.05, 0.12),
          profile: [
            { radiusM: 0.06, heightM: 0 },
            { radiusM: 0.045, heightM: 0.12 },
            { radiusM: 0.015, heightM: 0.18 },
            { radiusM: 0.015, heightM: 0.22 },
          ],
        },
        {
          kind: 'box',
          id: 'box',
          name: 'Box',
          positionM: [0.12, 0.03, 0],
          turnDeg: 20,
          material: gloss,
          widthM: 0.06,
          depthM: 0.05,
          heightM: 0.1,
        },
      ],
      lights: [
        { ...overheadSoftbox(1), positionM: [-0.5, -0.3, 0.3], aimM: [0, 0, 0.1], widthM: 0.5, heightM: 0.6 },
      ],
      sheets: [
        card('1', [0.35, -0.2, 0.15], [0, 0, 0.1], 0.3),
        card('2', [0, 0.5, 0.2], [0, 0, 0.1], 0.9, 0.8),
      ],
    });
    const tracing = prepareTracing(set);
    const width = 60;
    const height = 40;
    const map = mirrorMapTile(tracing, width, height, { x: 0, y: 0, width, height });
    const view = viewOfShape(tracing.view, width, height);
    const direction = new Float64Array(3);
    let compared = 0;
    let differing = 0;
    for (let pixel = 0; pixel < width * height; pixel++) {
      const x = pixel % width;
      rayThrough(direction, view, (x + 0.5) / width, (Math.floor(pixel / width) + 0.5) / height);
      const slow = slowMirror(set, view.origin, [...direction] as Vector);
      const thing = tracing.scene.things[map.thing[pixel] as number];
      expect(thing?.key).toBe(slow.seen);
      if (thing?.kind !== 'product') continue;
      compared++;
      const mirrored = tracing.scene.things[map.mirrored[pixel] as number]?.key ?? null;
      if (mirrored !== slow.mirrored) {
        differing++;
        continue;
      }
      if (!slow.point) continue;
      const gap = Math.hypot(...slow.point.map((value, a) => value - (map.point[3 * pixel + a] as number)));
      expect(gap).toBeLessThan(2e-3);
    }
    expect(compared).toBeGreaterThan(150);
    // Only pixels whose middle lies on an edge of a mirror image may fall to either side.
    expect(differing).toBeLessThanOrEqual(2);
  });

  test('matte surfaces mirror nothing, glass mirrors by Fresnel', () => {
    const set = testSet({
      products: [cylinder(0.05, 0.2, { kind: 'dielectric', index: 1.5 })],
      bench: { widthM: 1, depthM: 1, material: matte(0.5) },
    });
    const tracing = prepareTracing(set);
    const map = mirrorMapTile(tracing, 61, 41, { x: 0, y: 0, width: 61, height: 41 });
    const middle = 20 * 61 + 30;
    expect(map.weight[middle]).toBeCloseTo(0.04, 3);
    const ground = map.thing.findIndex((thing) => tracing.scene.things[thing]?.kind === 'bench');
    expect(map.mirrored[ground]).toBe(NO_PART);
  });
});
