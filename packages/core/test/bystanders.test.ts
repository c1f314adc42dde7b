import type { Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  cameraShape,
  createLook,
  illuminanceByLight,
  look,
  prepareTracing,
  sceneKey,
  standShape,
} from '../src/index.js';
import { overheadSoftbox, testCamera, testSet } from './sets.js';

const ball = {
  kind: 'turned' as const,
  id: 'ball',
  name: 'Ball',
  positionM: [0, 0, 0] as Vector,
  material: { kind: 'mirror' as const, reflectance: 0.9 },
  profile: Array.from({ length: 13 }, (_, i) => {
    const angle = (i / 12) * Math.PI;
    return {
      radiusM: Math.max(0, 0.1 * Math.sin(angle)),
      heightM: 0.1 - 0.1 * Math.cos(angle),
      smooth: true,
    };
  }),
};
const rigged = (rig: object = {}) => ({ ...testCamera(), rig });

const seenIn = (set: ReturnType<typeof testSet>, towards: Vector) => {
  const tracing = prepareTracing(set);
  const seen = createLook();
  const from = set.camera.positionM;
  const way = towards.map((v, a) => v - (from[a] ?? 0));
  const size = Math.hypot(...way);
  look(
    seen,
    tracing,
    from,
    way.map((v) => v / size),
  );
  return { seen: tracing.scene.things[seen.thing], mirrored: tracing.scene.things[seen.mirrored] };
};

describe('the camera, people and stands', () => {
  test('a mirror square to the lens shows the camera, and nothing where it is left out', () => {
    const plate = {
      kind: 'box' as const,
      id: 'plate',
      name: 'Plate',
      positionM: [0, 0, 0] as Vector,
      widthM: 0.3,
      depthM: 0.01,
      heightM: 0.3,
      material: ball.material,
    };
    expect(seenIn(testSet({ products: [plate], camera: rigged() }), [0.01, 0, 0.11]).mirrored?.kind).toBe(
      'camera',
    );
    expect(seenIn(testSet({ products: [plate] }), [0.01, 0, 0.11]).mirrored).toBeUndefined();
  });

  test('the lens never sees its own body', () => {
    const set = testSet({ products: [], camera: rigged({ lensDiameterM: 0.2 }) });
    const tracing = prepareTracing(set);
    for (const aim of [
      [0, 0, 0.1],
      [0.2, 0, 0.2],
      [-0.2, 0, 0],
    ] as Vector[]) {
      const seen = createLook();
      const way = aim.map((v, a) => v - (set.camera.positionM[a] ?? 0));
      look(
        seen,
        tracing,
        set.camera.positionM,
        way.map((v) => v / Math.hypot(...way)),
      );
      expect(tracing.scene.things[seen.thing]?.kind).not.toBe('camera');
    }
  });

  test('a person is seen where they stand, from the floor up', () => {
    const people = [{ name: 'Helper', positionM: [0, 0.5] as [number, number], heightM: 1.8 }];
    const set = testSet({ people, mark: { heightAboveFloorM: 0.75 } });
    expect(seenIn(set, [0, 0.5, 0.3]).seen).toMatchObject({ kind: 'person', key: 'Helper' });
    expect(seenIn(set, [0, 0.5, 1.2]).seen).toBeUndefined();
  });

  test('a person between light and bench takes its light, and the stand of a light behind it takes none', () => {
    const light = overheadSoftbox(0, {
      positionM: [-1, 0, 0.3],
      aimM: [0, 0, 0.3],
      widthM: 0.3,
      heightM: 0.3,
    });
    const read = (parts: object) =>
      illuminanceByLight(prepareTracing(testSet({ lights: [light], ...parts })), [0, 0, 0.3], [-1, 0, 0], {
        samples: 512,
        seed: 1,
        directOnly: true,
      })[0]?.direct ?? 0;
    const free = read({});
    expect(read({ people: [{ name: 'Helper', positionM: [-0.5, 0] }] })).toBe(0);
    expect(read({ lights: [{ ...light, stand: true }] })).toBe(free);
  });

  test('stands reach the floor, or the bench they stand on', () => {
    const high = testSet({
      lights: [overheadSoftbox(0, { positionM: [-1, 0, 0.6], aimM: [0, 0, 0.2], stand: true })],
    });
    const [light] = high.lights;
    const lowest = (shape: Vector[][]) => Math.min(...shape.flat().map(([, , z]) => z));
    expect(light && lowest(standShape(light, high))).toBeCloseTo(-0.75, 1);
    const bench = { widthM: 3, depthM: 2, material: { kind: 'matte' as const, reflectance: 0.3 } };
    const onBench = testSet({ lights: high.lights, bench });
    expect(light && lowest(standShape(light, onBench))).toBeGreaterThan(-0.02);
    expect(cameraShape(high)).toEqual([]);
  });

  test('a camera that is counted in is part of the scene: moving it makes the scene anew', () => {
    const at = (y: number) => testSet({ camera: { ...rigged(), positionM: [0, y, 0.1] } });
    expect(sceneKey(at(-1))).not.toBe(sceneKey(at(-1.1)));
    const bare = (y: number) => testSet({ camera: { ...testCamera(), positionM: [0, y, 0.1] } });
    expect(sceneKey(bare(-1))).toBe(sceneKey(bare(-1.1)));
  });
});
