import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { RAY_TO } from '../src/engine/layouts.js';
import { bakeLightmaps, prepareTracing, renderTile } from '../src/index.js';
import { setRay } from '../src/trace/engineCalls.js';
import { seededRandom } from './random.js';

describe.each(demoNames)('%s by both engines', (name) => {
  const set = demoSet(name);
  const wasm = prepareTracing(set);
  const plain = prepareTracing(set, 'plain');

  test('WebAssembly runs here', () => {
    expect([wasm.engine.name, plain.engine.name]).toEqual(['wasm', 'plain']);
    expect(wasm.engine.memoryBytes()).toBeLessThan(32e6);
  });

  test('the same hits at the same distances, from everywhere to everywhere', () => {
    const random = seededRandom(3);
    const direction = [0, 0, 0];
    let origin = [0, 0, 0];
    let hits = 0;
    for (let i = 0; i < 8000; i++) {
      const z = 2 * random() - 1;
      const phi = 2 * Math.PI * random();
      direction[0] = Math.sqrt(1 - z * z) * Math.cos(phi);
      direction[1] = Math.sqrt(1 - z * z) * Math.sin(phi);
      direction[2] = z;
      // Every other ray goes on from where the one before has met something.
      if (i % 2 === 0) origin = [1.4 * random() - 0.7, 1.4 * random() - 0.7, 0.8 * random() - 0.1];
      const [a, b] = [wasm, plain].map(({ engine }) => {
        setRay(engine.ray, origin, direction);
        const hit = engine.closestHit();
        return [hit, hit < 0 ? 0 : (engine.ray[RAY_TO] as number)] as const;
      }) as [readonly [number, number], readonly [number, number]];
      expect(a).toEqual(b);
      if (a[0] < 0) continue;
      hits++;
      const [any, anyPlain] = [wasm, plain].map(({ engine }) => {
        setRay(engine.ray, origin, direction, 0.4);
        return engine.anyHit();
      });
      expect(any).toBe(anyPlain);
      origin = origin.map((value, axis) => value + a[1] * (direction[axis] as number));
    }
    expect(hits).toBeGreaterThan(1000);
  });

  test.each(['whole', 'quick'])('the same picture within rounding, %s', (kind) => {
    bakeLightmaps(wasm, { rays: 4, photons: 5000 });
    bakeLightmaps(plain, { rays: 4, photons: 5000 });
    const tile = { x: 0, y: 0, width: 16, height: 12 };
    const quick = { ambient: set.lights.flatMap(() => [0.1, 0.1]), sparse: true };
    const [a, b] = [wasm, plain].map((tracing) => {
      const light = quick.ambient.slice(0, tracing.scene.channelCount);
      const how = kind === 'quick' ? { ...quick, ambient: light } : {};
      return renderTile(tracing, {
        width: 16,
        height: 12,
        tile,
        firstSample: 0,
        samples: 4,
        seed: 1,
        ...how,
      });
    }) as [Float32Array, Float32Array];
    const sum = (pixels: Float32Array) => pixels.reduce((all, value) => all + value, 0);
    expect(sum(a) / sum(b)).toBeCloseTo(1, 3);
    // A path may take another turn where a choice falls on its edge; nearly all are the same.
    let same = 0;
    a.forEach((value, i) => {
      if (Math.abs(value - (b[i] as number)) <= 1e-5 * Math.max(1e-6, Math.abs(value))) same++;
    });
    expect(same / a.length).toBeGreaterThan(0.98);
  });
});

test('of two surfaces in one place the first of the table is met, whatever the tree', () => {
  // The back of the bench lies in the backdrop of this set.
  const set = demoSet('vinegar');
  for (const { engine, scene } of [prepareTracing(set), prepareTracing(set, 'plain')]) {
    const named = (index: number) => scene.things[scene.table.thing[index] as number]?.kind;
    const random = seededRandom(5);
    for (let i = 0; i < 200; i++) {
      const [x, z] = [1.1 * random() - 0.55, -0.001 - 0.028 * random()];
      setRay(engine.ray, [x, 0.8, z], [0, -1, 0]);
      const hit = engine.closestHit();
      expect(named(hit)).toBe('backdrop');
      expect(engine.ray[RAY_TO]).toBeCloseTo(0.15, 9);
      // A ray that stops short of it goes by.
      setRay(engine.ray, [x, 0.8, z], [0, -1, 0], 0.149);
      expect(engine.closestHit()).toBe(-1);
    }
  }
});
