import { setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, it } from 'vitest';
import { prepareTracing, renderTile } from '../src/index.js';
import { borderPixels } from '../src/render/borderPixels.js';
import { testCamera } from './sets.js';

const width = 60;
const height = 40;
const whole = { x: 0, y: 0, width, height };

/** A black ball before a lit wall, and nothing else. */
const ball = setDocument.parse({
  format: 'fendrix-set',
  version: 3,
  name: 'Ball before a wall',
  backdrop: {
    kind: 'panel',
    widthM: 4,
    heightM: 4,
    centreM: [0, 1, 0],
    material: { kind: 'matte', reflectance: 0.8 },
  },
  products: [
    {
      kind: 'turned',
      id: 'ball',
      name: 'Ball',
      positionM: [0, 0, -0.1],
      material: { kind: 'matte', reflectance: 0.02 },
      profile: Array.from({ length: 13 }, (_, i) => ({
        radiusM: Math.max(0.0005, 0.1 * Math.sin((Math.PI * i) / 12)),
        heightM: 0.1 - 0.1 * Math.cos((Math.PI * i) / 12),
        smooth: true,
      })),
    },
  ],
  lights: [
    {
      kind: 'softbox',
      tag: 'A',
      name: 'Face',
      positionM: [0, -0.5, 1.5],
      aimM: [0, 1, 0],
      widthM: 0.5,
      heightM: 0.5,
      output: { kind: 'luminance', luminanceCdM2: 10_000 },
    },
  ],
  camera: {
    ...testCamera(),
    positionM: [0, -1.5, 0],
    aimM: [0, 0, 0],
    focusM: 1.5,
    fNumber: 16,
    shutterS: 0.01,
  },
});

describe('pixels at borders', () => {
  it('are those along the outline of a thing, and no others', () => {
    const tracing = prepareTracing(ball);
    const borders = borderPixels(tracing, width, height, whole);
    const rows = Array.from({ length: height }, (_, y) =>
      Array.from({ length: width }, (_, x) => borders[y * width + x] === 1),
    );
    // Every row through the middle of the ball crosses its outline twice, each border two pixels wide.
    const middle = rows[height / 2] as boolean[];
    expect(middle.filter(Boolean)).toHaveLength(4);
    expect(middle.findIndex(Boolean)).toBe(width - 1 - middle.findLastIndex(Boolean));
    expect(rows[0]?.some(Boolean)).toBe(false);
    expect(middle[width / 2]).toBe(false);
  });

  it('are the same whatever tiles a picture is cut into', () => {
    const tracing = prepareTracing(demoSet('vinegar'));
    const borders = borderPixels(tracing, width, height, whole);
    for (const tile of [
      { x: 0, y: 0, width: 13, height: 40 },
      { x: 13, y: 7, width: 31, height: 20 },
      { x: 44, y: 27, width: 16, height: 13 },
    ]) {
      const part = borderPixels(tracing, width, height, tile);
      for (let y = 0; y < tile.height; y++) {
        const row = (tile.y + y) * width + tile.x;
        expect([...part.subarray(y * tile.width, (y + 1) * tile.width)]).toEqual([
          ...borders.subarray(row, row + tile.width),
        ]);
      }
    }
  });

  it('get more paths, as bright in the mean and with less noise; all others are the same to the last bit', () => {
    const tracing = prepareTracing(ball);
    const borders = borderPixels(tracing, width, height, whole);
    const picture = (samples: number, seed: number, fineBorders: boolean) =>
      renderTile(tracing, { width, height, tile: whole, firstSample: 0, samples, seed, fineBorders }).map(
        (value) => value / samples,
      );
    const reference = picture(512, 9, false);
    const at = [...borders.keys()].filter((place) => borders[place] === 1);
    const value = (of: Float32Array, place: number) => of[3 * place + 1] as number;
    let [plainError, fineError, plainSum, fineSum, sum] = [0, 0, 0, 0, 0];
    for (let seed = 1; seed <= 16; seed++) {
      const [plain, fine] = [picture(4, seed, false), picture(4, seed, true)];
      borders.forEach((border, place) => {
        if (border === 0) expect(value(fine, place)).toBe(value(plain, place));
      });
      for (const place of at) {
        plainError += (value(plain, place) - value(reference, place)) ** 2;
        fineError += (value(fine, place) - value(reference, place)) ** 2;
        plainSum += value(plain, place);
        fineSum += value(fine, place);
        sum += value(reference, place);
      }
    }
    expect(Math.sqrt(fineError / plainError)).toBeLessThan(0.8);
    expect(plainSum / sum).toBeCloseTo(1, 2);
    expect(fineSum / sum).toBeCloseTo(1, 2);
  });
});
