import type { SetDocument } from '@fendrix/contract';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { RoughMirrors } from '../src/engine/path/roughMirrors.js';
import { prepareTracing, renderTile, setRay } from '../src/index.js';
import { seededRandom } from './random.js';
import { matte, overheadSoftbox, testSet } from './sets.js';

/** A silver card in front of a wall, and a lamp behind the wall's plane that only the card sees. */
function throwOnWall(roughness: number): SetDocument {
  return testSet({
    camera: { ...testSet({}).camera, positionM: [0, -1.2, 0.4], aimM: [0, 0, 0.4], focusM: 1.2 },
    backdrop: { kind: 'panel', widthM: 1, heightM: 1, centreM: [0, 0, 0.5], material: matte(0.5) },
    sheets: [
      {
        kind: 'card',
        tag: '1',
        name: 'silver card',
        positionM: [0.6, -0.6, 0.4],
        aimM: [0, 0, 0.4],
        widthM: 0.2,
        heightM: 0.3,
        front: { kind: 'mirror', reflectance: 0.8, roughness },
        back: matte(0.1),
      },
    ],
    lights: [
      overheadSoftbox(1.2, { positionM: [0.6, 0.6, 0.4], aimM: [0.6, -0.6, 0.4], widthM: 0.3, heightM: 0.3 }),
    ],
  });
}

function mirrorsOf(set: SetDocument): RoughMirrors {
  const { tables, models } = prepareTracing(set, 'plain');
  return new RoughMirrors(tables, models);
}

const FROM = new Float64Array([0.1, -0.01, 0.35]);

afterEach(() => void vi.restoreAllMocks());

describe('light by way of silver cards', () => {
  test('only rough mirrors are kept, and only their bright side is aimed at', () => {
    expect(mirrorsOf(throwOnWall(0.3)).count).toBe(1);
    expect(mirrorsOf(throwOnWall(0)).count).toBe(0);
    const mirrors = mirrorsOf(throwOnWall(0.3));
    mirrors.look(FROM);
    expect(mirrors.share).toBeGreaterThan(0.1);
    mirrors.look(new Float64Array([1.2, -1.2, 0.4]));
    expect(mirrors.share).toBe(0);
    // Far away hardly any path is sent there.
    mirrors.look(new Float64Array([-6, 0.5, 0.4]));
    expect(mirrors.share).toBeLessThan(0.01);
  });

  test('every aimed direction meets the card, with a density that makes one in all', () => {
    const tracing = prepareTracing(throwOnWall(0.3), 'plain');
    const mirrors = new RoughMirrors(tracing.tables, tracing.models);
    mirrors.look(FROM);
    const random = seededRandom(3);
    const uv = new Float64Array(2);
    const way = new Float64Array(3);
    const card = tracing.scene.things.findIndex(({ name }) => name.includes('silver card'));
    // The mean of one over the density of what is picked is the solid angle of the card.
    let solidAngle = 0;
    for (let i = 0; i < 4000; i++) {
      uv[0] = random();
      uv[1] = random();
      mirrors.aim(way, uv);
      solidAngle += 1 / mirrors.density(way) / 4000;
      if (i % 40 !== 0) continue;
      setRay(tracing.engine.ray, FROM, way);
      const primitive = tracing.engine.closestHit();
      expect(tracing.scene.table.thing[primitive]).toBe(card);
    }
    let whole = 0;
    let met = 0;
    const tries = 400_000;
    for (let i = 0; i < tries; i++) {
      const z = 2 * random() - 1;
      const phi = 2 * Math.PI * random();
      way.set([Math.sqrt(1 - z * z) * Math.cos(phi), Math.sqrt(1 - z * z) * Math.sin(phi), z]);
      const density = mirrors.density(way);
      whole += (4 * Math.PI * density) / tries;
      if (density > 0) met += (4 * Math.PI) / tries;
    }
    expect(whole).toBeCloseTo(1, 1);
    expect(met / solidAngle).toBeCloseTo(1, 1);
  });

  test('the wall is as bright as by chance alone, with a tenth of the noise squared', () => {
    const set = throwOnWall(0.3);
    const tile = { x: 20, y: 14, width: 8, height: 8 };
    const pixels = (samples: number) => {
      const sums = renderTile(prepareTracing(set, 'plain'), {
        width: 48,
        height: 36,
        tile,
        firstSample: 0,
        samples,
        seed: 5,
        wholePaths: true,
      });
      return Array.from(
        { length: tile.width * tile.height },
        (_, i) => (sums[3 * i + 1] as number) / samples,
      );
    };
    const figures = (values: number[]) => {
      const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
      const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length;
      return { mean, variance };
    };
    const aimed = figures(pixels(64));
    vi.spyOn(RoughMirrors.prototype, 'look').mockImplementation(function (this: RoughMirrors) {
      this.turnOff();
    });
    const few = figures(pixels(64));
    const many = figures(pixels(2048));
    expect(aimed.mean).toBeGreaterThan(0);
    expect(Math.abs(aimed.mean / many.mean - 1)).toBeLessThan(0.04);
    expect(aimed.variance).toBeLessThan(0.1 * few.variance);
  });
});
