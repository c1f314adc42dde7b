import { type MaskPiece, type Plate, type SetDocument, setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  channelsOf,
  createFilms,
  createPartMap,
  developFilms,
  displayWeights,
  encodePicture16,
  encodeSrgb,
  feather,
  layPlate,
  type MaskGround,
  type PartMap,
  partTile,
  plateFindings,
  plateMask,
  prepareTracing,
  resizeMask,
  setOfPlate,
  standingOf,
  traceKey,
  WHOLE_MASK,
} from '../src/index.js';
import { plateOf } from './plate.js';

const WIDE = 120;
const HIGH = 80;

const adds = (area: MaskPiece['area']): MaskPiece => ({ area, leaveOut: false });
const leaves = (area: MaskPiece['area']): MaskPiece => ({ area, leaveOut: true });

function groundOf(set: SetDocument): MaskGround {
  const tracing = prepareTracing(set);
  const map = partTile(tracing, set, WIDE, HIGH, { x: 0, y: 0, width: WIDE, height: HIGH });
  return { map, things: tracing.scene.things, window: WHOLE_MASK, aspect: 1.5, cameras: [set.camera] };
}

/** Part of the frame that a mask takes, percent. */
const taken = (mask: Float32Array) => (100 * mask.reduce((sum, value) => sum + value, 0)) / mask.length;

describe('masks of plates', () => {
  const set = demoSet('bottle');
  const ground = groundOf(set);
  const mask = (...pieces: MaskPiece[]) => plateMask(ground, plateOf({ mask: pieces }), set.camera);
  const part = (of: 'body' | 'part' | 'label' | 'liquid') =>
    adds({ by: 'part', product: 'bottle', part: of, index: 0 });

  test('label, cap, glass and liquid together are the bottle, and none takes of another', () => {
    const parts = (['body', 'part', 'label', 'liquid'] as const).map((of) => mask(part(of)));
    const bottle = mask(adds({ by: 'products' }));
    for (const own of parts) expect(taken(own)).toBeGreaterThan(0.2);
    for (let i = 0; i < bottle.length; i++) {
      expect(parts.reduce((sum, own) => sum + (own[i] as number), 0)).toBe(bottle[i]);
    }
    expect(mask(adds({ by: 'thing', kind: 'product', key: 'bottle' }))).toEqual(bottle);
  });

  test('a first piece that leaves out is taken from the whole frame', () => {
    const bottle = mask(adds({ by: 'products' }));
    const rest = mask(leaves({ by: 'products' }));
    expect(rest.every((value, i) => value === 1 - (bottle[i] as number))).toBe(true);
    expect(taken(mask())).toBe(100);
  });

  test('pieces follow one another: the bottle without its label', () => {
    const without = mask(adds({ by: 'products' }), {
      ...part('label'),
      leaveOut: true,
    });
    expect(taken(without)).toBeCloseTo(taken(mask(adds({ by: 'products' }))) - taken(mask(part('label'))), 5);
  });

  test('the label stands above the foot and below the shoulder of the bottle', () => {
    const rows = (own: Float32Array) =>
      [...own.keys()].filter((i) => own[i] === 1).map((i) => Math.floor(i / WIDE));
    const [label, bottle] = [rows(mask(part('label'))), rows(mask(adds({ by: 'products' })))];
    expect(Math.min(...label)).toBeGreaterThan(Math.min(...bottle));
    expect(Math.max(...label)).toBeLessThan(Math.max(...bottle));
  });

  test('a gradient rises evenly between its two places, and is level across them', () => {
    const half = mask(
      adds({ by: 'gradient', fromPoint: { across: 0.25, down: 0 }, toPoint: { across: 0.75, down: 0 } }),
    );
    expect(half[0]).toBe(0);
    expect(half[WIDE - 1]).toBe(1);
    expect(half[WIDE / 2]).toBeCloseTo(0.5 + 0.5 / (WIDE / 2), 5);
    expect(half[WIDE / 2]).toBe(half[(HIGH - 1) * WIDE + WIDE / 2]);
  });

  test('a stroke of the brush is round in the picture', () => {
    const painted = mask(adds({ by: 'brush', strokes: [{ across: 0.5, down: 0.5, radius: 0.2 }] }));
    // A disc of a fifth of the width: pi r2 of a frame that is as high as 2/3 of its width.
    expect(taken(painted)).toBeCloseTo(100 * Math.PI * 0.04 * 1.5, 0);
  });

  test('a part of the frame has the same mask as that part of the whole', () => {
    const window = { left: 0.25, top: 0.25, width: 0.5, height: 0.5 };
    const pieces = [
      adds({ by: 'brush', strokes: [{ across: 0.4, down: 0.6, radius: 0.1 }] }),
      adds({ by: 'gradient', fromPoint: { across: 0.9, down: 0 }, toPoint: { across: 0.3, down: 0.8 } }),
    ];
    const whole = mask(...pieces);
    const map = createPartMap(WIDE / 2, HIGH / 2);
    const part = plateMask({ ...ground, map, window }, plateOf({ mask: pieces }), set.camera);
    for (let y = 0; y < HIGH / 2; y++) {
      for (let x = 0; x < WIDE / 2; x++) {
        expect(part[y * (WIDE / 2) + x]).toBeCloseTo(
          whole[(y + HIGH / 4) * WIDE + x + WIDE / 4] as number,
          5,
        );
      }
    }
  });

  test('frames put together by sharpness share out what is seen, the near one what is near', () => {
    const near = { ...set.camera, fNumber: 2.8, focusM: set.camera.focusM - 0.05 };
    const far = { ...set.camera, fNumber: 2.8, focusM: set.camera.focusM + 0.4 };
    const stack = { ...ground, cameras: [near, far] };
    const plate = plateOf({ mask: [adds({ by: 'sharpest' })] });
    const [first, second] = [plateMask(stack, plate, near), plateMask(stack, plate, far)];
    const { depth } = ground.map;
    depth.forEach((depthM, i) => {
      expect((first[i] as number) + (second[i] as number)).toBe(Number.isNaN(depthM) ? 0 : 1);
    });
    const depths = (own: Float32Array) => [...depth].filter((_, i) => own[i] === 1);
    expect(Math.max(...depths(first))).toBeLessThanOrEqual(Math.min(...depths(second)));
  });
});

describe('the feather', () => {
  /** White from the middle to the right. */
  const edge = () => Float32Array.from({ length: WIDE * 3 }, (_, i) => (i % WIDE >= WIDE / 2 ? 1 : 0));

  test.each([0.6, 3, 7.5, 20])('fades %s pixels to either side of an edge and no further', (radius) => {
    const mask = edge();
    feather(mask, WIDE, 3, radius);
    const row = mask.subarray(WIDE, 2 * WIDE);
    // Of less than a pixel a pass still touches the next one, faintly.
    const reach = Math.max(2, Math.ceil(radius));
    expect(row[WIDE / 2 - reach - 2]).toBeCloseTo(0, 5);
    expect(row[WIDE / 2 + reach + 1]).toBeCloseTo(1, 5);
    for (let i = 1; i < WIDE; i++) expect(row[i]).toBeGreaterThanOrEqual((row[i - 1] as number) - 1e-6);
    // The edge stays where it was.
    expect(row.reduce((sum, value) => sum + value, 0)).toBeCloseTo(WIDE / 2, 3);
    if (radius > 1) expect(row[WIDE / 2 - 1]).toBeGreaterThan(0.05);
  });

  test('of nothing leaves the mask as it is', () => {
    const mask = edge();
    feather(mask, WIDE, 3, 0);
    expect(mask).toEqual(edge());
  });
});

describe('laying plates', () => {
  test('the picture is what 16-bit files give when they are mixed by their values', () => {
    const under = Float32Array.from([0.02, 0.3, 0.9, 0.5, 0.5, 0.5, 1, 0, 0.2]);
    const over = Float32Array.from([0.7, 0.1, 0.4, 0.5, 0.5, 0.5, 0, 1, 0.6]);
    const mask = Float32Array.from([0.25, 0.5, 0.8]);
    const files = [under, over].map((linear) => encodePicture16(linear)) as [Uint16Array, Uint16Array];
    const laid = Float32Array.from(under);
    layPlate(laid, over, mask);
    laid.forEach((value, i) => {
      const part = mask[Math.floor(i / 3)] as number;
      const file = (1 - part) * (files[0][i] as number) + part * (files[1][i] as number);
      expect(65535 * encodeSrgb(value)).toBeCloseTo(file, -0.5);
    });
  });

  test('under a whole mask what the sensor clips stays known, without one nothing changes', () => {
    const laid = Float32Array.from([3, 3, 3, 0.2, 0.2, 0.2]);
    layPlate(laid, Float32Array.from([9, 9, 9, 5, 5, 5]), Float32Array.from([0, 1]));
    expect([...laid]).toEqual([3, 3, 3, 5, 5, 5]);
  });

  test('a mask of twice the size becomes the mean of four', () => {
    const from = { width: 4, height: 2 };
    const mask = Float32Array.from([0, 1, 1, 1, 0, 1, 0, 0]);
    expect([...resizeMask(mask, from, { width: 2, height: 1 })]).toEqual([0.5, 0.5]);
    expect([...resizeMask(mask, from, { width: 8, height: 2 })].slice(0, 4)).toEqual([0, 0, 1, 1]);
  });

  test('a plate of other powers is developed from the films of the set: no ray is traced again', () => {
    const set = demoSet('perry');
    const plate = plateOf({ lights: [{ tag: 'D', on: true, powerStops: -3 }] });
    const own = setOfPlate(set, plate);
    expect(traceKey(own)).toBe(traceKey(set));
    const films = createFilms(1, 1, channelsOf(set).length);
    films.data.fill(1);
    films.samples.fill(1);
    const tones = [set, own].map((of) => {
      const out = new Float32Array(3);
      developFilms(out, films, displayWeights(of));
      return out[0] as number;
    }) as [number, number];
    const before = set.lights.find(({ tag }) => tag === 'D')?.powerStops as number;
    expect(Math.log2(tones[1] / tones[0])).toBeCloseTo(-3 - before, 5);
  });
});

describe('what there is to say against a plate', () => {
  const set = demoSet('perry');
  const codes = (plate: Partial<Plate>, of = set) =>
    plateFindings(of, plateOf(plate)).map(({ code }) => code);
  const withTake = (change: (set: SetDocument) => Partial<SetDocument>) => {
    const take = { id: 'k', name: 'K', note: '', pinned: false, set: standingOf({ ...set, ...change(set) }) };
    return setDocument.parse({ ...set, takes: [...set.takes, take] });
  };

  test('nothing where only a light differs; that it is the same where nothing does', () => {
    expect(codes({ lights: [{ tag: 'A', on: true, powerStops: -4 }] })).toEqual([]);
    expect(codes({})).toEqual(['same-as-set']);
    // Of another moment: nothing need differ.
    expect(codes({ gives: 'clean' })).toEqual([]);
  });

  test('camera, lens or products that are elsewhere on its take', () => {
    const moved = withTake(({ camera }) => ({
      camera: { ...camera, positionM: [0.001, camera.positionM[1], camera.positionM[2]] },
    }));
    expect(plateFindings(moved, plateOf({ takeId: 'k' }))).toMatchObject([{ code: 'camera-moved' }]);
    const other = withTake(({ products }) => ({
      products: products.map((one) => ({ ...one, positionM: [0.002, 0, 0] })),
    }));
    expect(plateFindings(other, plateOf({ takeId: 'k' }))).toMatchObject([
      { code: 'product-moved', byM: expect.closeTo(0.002, 4) },
    ]);
    // A splash is meant to be of other products.
    expect(codes({ takeId: 'k', gives: 'splash' }, other)).toEqual([]);
    const lens = withTake(({ camera }) => ({
      camera: { ...camera, lens: { ...camera.lens, focalLengthM: camera.lens.focalLengthM * 0.8 } },
    }));
    expect(codes({ takeId: 'k' }, lens)).toContain('other-lens');
  });

  test('a focus that moves the edges, but not of focus steps', () => {
    const focusM = set.camera.focusM + 0.1;
    expect(codes({ focusM })).toEqual(['focus-moved']);
    expect(codes({ focusM, gives: 'focus' })).toEqual([]);
  });

  test('lights that are not there, none that is on, a mask of nothing', () => {
    expect(codes({ lights: [{ tag: 'Q', on: true, powerStops: 0 }] })).toEqual([
      'light-missing',
      'same-as-set',
    ]);
    expect(codes({ lights: [{ tag: 'D', on: false, powerStops: 0 }] })).toEqual(['no-light']);
    const lit = { lights: [{ tag: 'A', on: true, powerStops: -4 }] };
    expect(
      codes({ ...lit, mask: [adds({ by: 'part', product: 'glass', part: 'label', index: 0 })] }),
    ).toEqual(['mask-of-nothing']);
    expect(
      codes({ ...lit, mask: [adds({ by: 'part', product: 'glass', part: 'liquid', index: 0 })] }),
    ).toEqual([]);
  });
});

test('a map put together of tiles is the map of the whole', () => {
  const set = demoSet('perry');
  const tracing = prepareTracing(set);
  const whole = partTile(tracing, set, 60, 40, { x: 0, y: 0, width: 60, height: 40 });
  const tile = partTile(tracing, set, 60, 40, { x: 21, y: 7, width: 20, height: 30 });
  const row = (map: PartMap, x: number, y: number, count: number) =>
    map.part.subarray(y * map.width + x, y * map.width + x + count);
  for (let y = 0; y < 30; y++) expect(row(tile, 0, y, 20)).toEqual(row(whole, 21, y + 7, 20));
});
