import { mirrorMapTile, prepareTracing } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { expect, test } from 'vitest';
import { placeAside } from '../src/features/bench/lens/MirrorTags';
import { regionTags } from '../src/features/bench/lens/regionTags';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';

test('each light and sheet that is mirrored is tagged once, on a pixel of its own image', () => {
  const tracing = prepareTracing(demoSet('cordial'));
  const [width, height] = [240, 160];
  const map = mirrorMapTile(tracing, width, height, { x: 0, y: 0, width, height });
  const { things } = tracing.scene;
  const tags = regionTags({ map, things, window: WHOLE_FRAME });
  expect(tags.map(({ tag }) => tag).sort()).toEqual(['1', '2', 'A']);
  for (const { tag, across, down } of tags) {
    const pixel = Math.floor(down * height) * width + Math.floor(across * width);
    expect(things[map.mirrored[pixel] as number]?.key).toBe(tag);
    expect(things[map.thing[pixel] as number]?.kind).toBe('product');
  }
});

test('nothing mirrored, nothing tagged', () => {
  const tracing = prepareTracing({ ...demoSet('cordial'), products: [] });
  const map = mirrorMapTile(tracing, 24, 16, { x: 0, y: 0, width: 24, height: 16 });
  expect(regionTags({ map, things: tracing.scene.things, window: WHOLE_FRAME })).toEqual([]);
});

test('tags stand beside the images, apart from each other, left with left and right with right', () => {
  const images = [
    { tag: '2', across: 0.44, down: 0.4 },
    { tag: 'A', across: 0.47, down: 0.4 },
    { tag: '1', across: 0.56, down: 0.45 },
  ];
  const placed = placeAside(images, 600, 400);
  const at = (tag: string) => placed.find((one) => one.tag === tag);
  expect(at('2')?.x).toBeLessThan(0.44 * 600 - 30);
  expect(at('A')?.x).toBe(at('2')?.x);
  expect(Math.abs((at('A')?.y ?? 0) - (at('2')?.y ?? 0))).toBeGreaterThan(20);
  expect(at('1')?.x).toBeGreaterThan(0.56 * 600 + 30);
  expect(placeAside([], 600, 400)).toEqual([]);
});
