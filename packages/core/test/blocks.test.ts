import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { RAY_DISTANCE, RAY_PRIMITIVE, RAY_STRIDE, RAY_TO } from '../src/engine/layouts.js';
import { TILE_NORMAL, TILE_SEEN } from '../src/engine/sight.js';
import { BLOCK } from '../src/engine/tile.js';
import { PrimitiveList } from '../src/geometry/primitives.js';
import {
  createLook,
  depthTile,
  look,
  mirrorMapTile,
  prepareTracing,
  rayThrough,
  setRay,
} from '../src/index.js';
import { lookThroughTile } from '../src/render/lookThroughTile.js';
import { type View, viewOfShape, writeView } from '../src/render/view.js';
import { createWasmEngine } from '../src/trace/wasmEngine.js';
import { cross, scale, subtract } from '../src/units/vector.js';
import { engineOf, sides } from './engines.js';
import { seededRandom } from './random.js';
import { strewnThings } from './strewnThings.js';

type Vector = [number, number, number];

/** A camera among the things, or so many times farther off with so much longer a lens. */
function anyView(random: () => number, times: number): View {
  const origin = [0, 1, 2].map(() => times * (1.6 * random() - 0.8)) as Vector;
  const aim = subtract([0.3 * random(), 0.3 * random(), 0.3 * random()], origin);
  const forward = scale(aim, 1 / Math.hypot(...aim));
  const side = cross(forward, [0.1, 0.2, 1]);
  const right = scale(side, 1 / Math.hypot(...side));
  const half = (0.05 + 0.9 * random() ** 2) / times;
  return {
    origin,
    right,
    up: cross(right, forward),
    forward,
    halfWidth: half,
    halfHeight: 0.75 * half,
    pupilRadiusM: 0.01,
    focusM: 1,
  };
}

describe('rays of the camera by blocks of the picture', () => {
  test.each([20, 150, 3000])('meet what each meets alone, among %d things', (count) => {
    const random = seededRandom(count);
    const direction = new Float64Array(3);
    const [width, height] = [70, 52];
    let hits = 0;
    for (let round = 0; round < 6; round++) {
      const engine = engineOf(createWasmEngine, strewnThings(random, count));
      const view = anyView(random, round === 5 ? 300 : 1);
      writeView(engine.view, view);
      for (let y = 0; y < height; y += BLOCK) {
        for (let x = 0; x < width; x += BLOCK) {
          const [columns, rows] = [Math.min(BLOCK, width - x), Math.min(BLOCK, height - y)];
          engine.castBlock(x, y, columns, rows, width, height);
          for (let i = 0; i < columns * rows; i++) {
            const px = x + (i % columns);
            const py = y + Math.floor(i / columns);
            rayThrough(direction, view, (px + 0.5) / width, (py + 0.5) / height);
            setRay(engine.ray, view.origin, direction);
            const alone = engine.closestHit();
            expect(engine.batch[RAY_STRIDE * i + RAY_PRIMITIVE]).toBe(alone);
            if (alone < 0) continue;
            expect(engine.batch[RAY_STRIDE * i + RAY_DISTANCE]).toBe(engine.ray[RAY_TO]);
            hits++;
          }
        }
      }
    }
    expect(hits).toBeGreaterThan(count < 100 ? 100 : 2000);
  });

  test('meet nothing where there is nothing, and the walls of a room that is empty', () => {
    const view = anyView(seededRandom(4), 1);
    const empty = engineOf(createWasmEngine, new PrimitiveList().pack());
    const list = new PrimitiveList();
    list.room([-1, -1, -1], [2, 2, 2], new Array(6).fill(sides));
    const room = engineOf(createWasmEngine, list.pack());
    for (const engine of [empty, room]) {
      writeView(engine.view, view);
      engine.castBlock(0, 0, BLOCK, BLOCK, BLOCK, BLOCK);
    }
    for (let i = 0; i < BLOCK * BLOCK; i++) {
      expect(empty.batch[RAY_STRIDE * i + RAY_PRIMITIVE]).toBe(-1);
      expect(room.batch[RAY_STRIDE * i + RAY_PRIMITIVE]).toBeGreaterThanOrEqual(0);
    }
  });

  test.each(demoNames)('%s: maps and guides show what single looks show', (name) => {
    const tracing = prepareTracing(demoSet(name));
    const [width, height] = [90, 60];
    // A part of the picture that is no multiple of a block.
    const tile = { x: 13, y: 7, width: 67, height: 45 };
    const map = mirrorMapTile(tracing, width, height, tile);
    const depth = depthTile(tracing, width, height, tile);
    const normals = new Float32Array(3 * tile.width * tile.height);
    const seenThings = new Int32Array(tile.width * tile.height);
    lookThroughTile(tracing, width, height, tile, (from, to, count) => {
      const { tileWholes, tileNumbers } = tracing.engine;
      seenThings.set(tileWholes.subarray(TILE_SEEN + from, TILE_SEEN + from + count), to);
      const first = TILE_NORMAL + 3 * from;
      normals.set(tileNumbers.subarray(first, first + 3 * count), 3 * to);
    });
    const view = viewOfShape(tracing.view, width, height);
    const direction = new Float64Array(3);
    const alone = createLook();
    for (let pixel = 0; pixel < tile.width * tile.height; pixel++) {
      const x = tile.x + (pixel % tile.width);
      const y = tile.y + Math.floor(pixel / tile.width);
      rayThrough(direction, view, (x + 0.5) / width, (y + 0.5) / height);
      look(alone, tracing, view.origin, direction);
      expect(map.thing[pixel]).toBe(alone.thing);
      expect(seenThings[pixel]).toBe(alone.thing);
      expect(map.mirrored[pixel]).toBe(alone.mirrored);
      expect(map.through[pixel]).toBe(alone.through);
      expect(map.weight[pixel]).toBeCloseTo(alone.weight, 5);
      expect(map.throughWeight[pixel]).toBeCloseTo(alone.throughWeight, 5);
      if (alone.thing < 0) continue;
      const away = subtract([...alone.geometry.subarray(0, 3)] as Vector, view.origin);
      const along = away.reduce((sum, value, a) => sum + value * (view.forward[a] as number), 0);
      expect(depth[pixel]).toBeCloseTo(along, 5);
      for (let a = 0; a < 3; a++) {
        expect(normals[3 * pixel + a]).toBeCloseTo(alone.geometry[3 + a] as number, 5);
        const mirrored = alone.geometry[6 + a] as number;
        const shown = map.point[3 * pixel + a] as number;
        if (Number.isNaN(mirrored)) expect(shown).toBeNaN();
        else expect(shown).toBeCloseTo(mirrored, 4);
      }
    }
  });

  test('a tile wider than what the engine is asked at once is put together of parts', () => {
    const tracing = prepareTracing(demoSet('mill'));
    const [width, height] = [1200, 24];
    const whole = mirrorMapTile(tracing, width, height, { x: 100, y: 3, width: 1030, height: 17 });
    for (const x of [0, 511, 512, 1020]) {
      const part = mirrorMapTile(tracing, width, height, { x: 100 + x, y: 3, width: 10, height: 17 });
      for (let pixel = 0; pixel < 10 * 17; pixel++) {
        const same = Math.floor(pixel / 10) * 1030 + x + (pixel % 10);
        expect(whole.thing[same]).toBe(part.thing[pixel]);
        expect(whole.mirrored[same]).toBe(part.mirrored[pixel]);
        expect(whole.weight[same]).toBe(part.weight[pixel]);
        for (let a = 0; a < 3; a++) expect(whole.point[3 * same + a]).toEqual(part.point[3 * pixel + a]);
      }
    }
  });
});
