import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { intersectPrimitive } from '../src/engine/intersect.js';
import { PRIMITIVE_STRIDE, RAY_TO } from '../src/engine/layouts.js';
import { PrimitiveList, wallPiece } from '../src/geometry/primitives.js';
import { buildScene, setRay } from '../src/index.js';
import { type Pose, standingPose } from '../src/units/frame.js';
import { engineOf, engines, sides } from './engines.js';
import { seededRandom } from './random.js';

describe.each(engines)('%s ray engine', (_name, create) => {
  test('finds the same hits as testing every primitive, on the demo scene', () => {
    const { table } = buildScene(demoSet('cordial'));
    const engine = engineOf(create, table);
    const random = seededRandom(7);
    const ray = new Float64Array(8);
    let hits = 0;
    for (let i = 0; i < 20_000; i++) {
      const from = [random() * 1.6 - 0.8, random() * 1.6 - 0.8, random() * 0.9];
      const to = [random() * 0.2 - 0.1, random() * 0.2 - 0.1, random() * 0.3];
      const away = to.map((value, a) => value - (from[a] as number));
      const length = Math.hypot(...away);
      const direction = away.map((value) => value / length);
      setRay(ray, from, direction);
      let nearest = -1;
      for (let p = 0; p < table.count; p++) {
        if (intersectPrimitive(table.kind[p] as number, table.data, p * PRIMITIVE_STRIDE, ray)) nearest = p;
      }
      setRay(engine.ray, from, direction);
      const hit = engine.closestHit();
      expect(hit < 0).toBe(nearest < 0);
      if (hit < 0) continue;
      hits++;
      expect(engine.ray[RAY_TO]).toBeCloseTo(ray[RAY_TO] as number, 12);
      setRay(engine.ray, from, direction, (ray[RAY_TO] as number) * (1 + 1e-9));
      expect(engine.anyHit()).toBe(true);
      setRay(engine.ray, from, direction, (ray[RAY_TO] as number) * (1 - 1e-9));
      expect(engine.anyHit()).toBe(false);
    }
    expect(hits).toBeGreaterThan(19_000);
  });

  test('an empty scene has no hits, and rays are counted', () => {
    const engine = engineOf(create, new PrimitiveList().pack());
    setRay(engine.ray, [0, 0, 0], [0, 0, 1]);
    expect(engine.closestHit()).toBe(-1);
    expect(engine.anyHit()).toBe(false);
    expect(engine.rays[0]).toBe(2);
  });

  test('rays along axes and within planes find an end', () => {
    const { table } = buildScene(demoSet('cordial'));
    const engine = engineOf(create, table);
    for (const direction of [
      [1, 0, 0],
      [0, -1, 0],
      [0, 0, -1],
      [-0, 0, 1],
    ]) {
      for (const origin of [
        [0, 0, 0],
        [0, -0.5, 0],
        [0, 0, 0.3],
      ]) {
        setRay(engine.ray, origin, direction);
        const hit = engine.closestHit();
        expect(hit).toBeGreaterThanOrEqual(0);
        expect(Number.isFinite(engine.ray[RAY_TO])).toBe(true);
      }
    }
  });

  test.each([1e-3, 1e-5, 1e-6, 1e-7, 1e-9])('of two sheets %d m apart the nearer one is met', (gapM) => {
    const random = seededRandom(5);
    for (let i = 0; i < 200; i++) {
      const list = new PrimitiveList();
      const upM = 1 + 2 * random();
      const heights = i % 2 === 0 ? [upM, upM + gapM] : [upM + gapM, upM];
      for (const height of heights) list.flat([-1, -1, height], [2, 0, 0], [0, 2, 0], [0, 0, -1], sides);
      // Something curved behind them, so that sheets and others are told apart too.
      list.ball([0, 0, upM + 0.3], 0.3 - gapM / 2, sides);
      const engine = engineOf(create, list.pack());
      const away = [0.3 * (random() - 0.5), 0.3 * (random() - 0.5), 1];
      const length = Math.hypot(...away);
      setRay(
        engine.ray,
        [0, 0, 0],
        away.map((value) => value / length),
      );
      expect(engine.closestHit()).toBe(i % 2);
      expect(engine.ray[RAY_TO]).toBeCloseTo(upM * length, 12);
    }
  });

  test('the edge of a sheet is where it is, however near a ray passes', () => {
    const list = new PrimitiveList();
    list.flat([0, 0, 2], [1, 0, 0], [0, 1, 0], [0, 0, -1], sides);
    list.ball([0, 0, 9], 4, sides);
    const engine = engineOf(create, list.pack());
    for (const offM of [1e-4, 1e-6, 1e-9, 1e-12]) {
      for (const [x, within] of [
        [offM, true],
        [-offM, false],
        [1 - offM, true],
        [1 + offM, false],
      ] as const) {
        setRay(engine.ray, [x, 0.5, 0], [0, 0, 1]);
        expect(engine.closestHit()).toBe(within ? 0 : 1);
        setRay(engine.ray, [x, 0.5, 0], [0, 0, 1], 3);
        expect(engine.anyHit()).toBe(within);
      }
    }
  });

  test('a hundred things in one place are still found', () => {
    const list = new PrimitiveList();
    for (let i = 0; i < 100; i++) list.ball([0, 0, 1], 0.1, sides);
    const engine = engineOf(create, list.pack());
    setRay(engine.ray, [0, 0, 0], [0, 0, 1]);
    expect(engine.closestHit()).toBeGreaterThanOrEqual(0);
    expect(engine.ray[RAY_TO]).toBeCloseTo(0.9, 12);
  });
});

describe('exact primitives', () => {
  const distanceTo = (build: (list: PrimitiveList) => void, origin: number[], direction: number[]) => {
    const list = new PrimitiveList();
    build(list);
    const { kind, data } = list.pack();
    const ray = new Float64Array(8);
    setRay(ray, origin, direction);
    return intersectPrimitive(kind[0] as number, data, 0, ray) ? (ray[RAY_TO] as number) : null;
  };
  const upright = standingPose([0, 0, 0], 0);
  const point = (r: number, z: number) => ({ r, z, nr: 1, nz: 0 });

  test('a cone piece from the side, from inside and past its end', () => {
    const cone = (list: PrimitiveList) =>
      list.cone(upright, { lower: point(0.2, 0), upper: point(0.1, 1) }, sides);
    expect(distanceTo(cone, [-1, 0, 0.5], [1, 0, 0])).toBeCloseTo(0.85, 12);
    expect(distanceTo(cone, [0, 0, 0.5], [1, 0, 0])).toBeCloseTo(0.15, 12);
    expect(distanceTo(cone, [-1, 0, 1.01], [1, 0, 0])).toBeNull();
    expect(distanceTo(cone, [0.15, 0, -1], [0, 0, 1])).toBeCloseTo(1.5, 9);
  });

  test('an arc of a cone piece is open elsewhere', () => {
    const arc = { bearingRad: 0, halfWidthRad: Math.PI / 4 };
    const label = (list: PrimitiveList) => list.cone(upright, { ...wallPiece(0.1, 0, 1), arc }, sides);
    expect(distanceTo(label, [0, -1, 0.5], [0, 1, 0])).toBeCloseTo(0.9, 12);
    expect(distanceTo(label, [0, 1, 0.5], [0, -1, 0])).toBeCloseTo(1.1, 12);
    expect(distanceTo(label, [1, 0, 0.5], [-1, 0, 0])).toBeNull();
  });

  test('a far ray meets a thin cylinder to a millionth of a millimetre', () => {
    const thin = (list: PrimitiveList) => list.cone(upright, wallPiece(0.001, -1, 1), sides);
    expect(distanceTo(thin, [-90, 0.0005, 0], [1, 0, 0])).toBeCloseTo(90 - Math.sqrt(0.75e-6), 9);
  });

  test('the bend of a sweep is the quarter behind and below its axis', () => {
    const tube: Pose = { origin: [-1, 0.5, 0.2], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] };
    const arc = { bearingRad: Math.PI / 4, halfWidthRad: Math.PI / 4 };
    const bend = (list: PrimitiveList) => list.cone(tube, { ...wallPiece(0.2, 0, 2), arc }, sides);
    const corner = 0.2 * (1 - Math.SQRT1_2);
    const diagonal = [0, Math.SQRT1_2, -Math.SQRT1_2];
    const hit = distanceTo(bend, [0, 0.5, 0.2], diagonal);
    expect(hit).toBeCloseTo(0.2, 12);
    expect(0.2 - (hit ?? 0) * Math.SQRT1_2).toBeCloseTo(corner, 12);
    expect(distanceTo(bend, [0, 0.5, 0.2], [0, -1, 0])).toBeNull();
  });
});
