import { createFeatures, encodeSrgb } from '@fendrix/core';
import { decode } from 'fast-png';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { FromDeveloper, ToDeveloper } from '../src/features/bench/picture/developProtocol';
import { FilmDeveloper } from '../src/features/bench/picture/filmDeveloper';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';

const width = 4;
const height = 2;
const tile = { x: 0, y: 0, width, height };
const level = (value: number) => new Float32Array(width * height * 3).fill(value);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function open() {
  const pictures: FromDeveloper[] = [];
  const developer = new FilmDeveloper((picture) => pictures.push(picture));
  const begin = (picture: number, fewest: number, channels = 1, window = WHOLE_FRAME) =>
    developer.receive({
      type: 'begin',
      picture,
      width,
      height,
      channels,
      stokes: 1,
      fewest,
      passing: fewest === 1,
      kept: [],
      window,
      ofPlates: null,
    });
  const add = (picture: number, value: number, samples = 1) => {
    developer.receive({ type: 'tile', picture, tile, sums: level(value), samples });
    developer.receive({ type: 'show', picture, last: false });
    vi.runAllTimers();
  };
  const weigh = (...greys: number[]) => {
    const weights = Float64Array.from(greys.flatMap((grey) => [grey, grey, grey]));
    developer.receive({ type: 'weights', weights });
    vi.runAllTimers();
  };
  /** A quick picture of one film at this level, weighed by each of these greys. */
  const follow = (picture: number, value: number, greys: readonly number[], beside = false) => {
    const mixes = greys.map((grey) => Float64Array.of(grey, grey, grey));
    const linear = new Float32Array(mixes.length * width * height * 3);
    greys.forEach((grey, i) => {
      linear.fill(grey * value, i * width * height * 3, (i + 1) * width * height * 3);
    });
    developer.receive({ type: 'quick', picture, width, height, window: WHOLE_FRAME, mixes, linear, beside });
  };
  return { developer, pictures, begin, add, weigh, follow };
}
const shownLevel = (pictures: readonly FromDeveloper[]) => pictures.at(-1)?.pixels[0];
const encoded = (linear: number) => Math.round(255 * encodeSrgb(linear));

describe('film developer', () => {
  test('means of samples times the weights, encoded', () => {
    const { pictures, begin, add, weigh } = open();
    begin(1, 1);
    weigh(0.5);
    add(1, 0.72, 2);
    expect(pictures).toHaveLength(1);
    expect(pictures[0]).toMatchObject({ picture: 1, width, height, samples: 2 });
    expect(pictures[0]?.pixels[0]).toBe(Math.round(255 * 0.4614));
  });

  test('new weights act at once on the picture on show, while the next one is not good enough', () => {
    const { pictures, begin, add, weigh } = open();
    begin(1, 1);
    weigh(1);
    add(1, 1);
    begin(2, 4);
    add(2, 0.1);
    expect(pictures.at(-1)?.picture).toBe(1);
    weigh(0.18);
    expect(pictures.at(-1)).toMatchObject({ picture: 1 });
    expect(pictures.at(-1)?.pixels[0]).toBe(Math.round(255 * 0.4614));
    add(2, 0.3, 3);
    expect(pictures.at(-1)).toMatchObject({ picture: 2, samples: 4 });
  });

  describe('a picture at full size, tile by tile', () => {
    const half = { x: 0, y: 0, width: width / 2, height };
    const halfLevel = (value: number) => new Float32Array(half.width * height * 3).fill(value);
    const addHalf = (developer: FilmDeveloper, value: number, samples: number) => {
      developer.receive({ type: 'tile', picture: 2, tile: half, sums: halfLevel(value), samples });
      developer.receive({ type: 'show', picture: 2, last: false });
      vi.runAllTimers();
    };
    const row = (picture: FromDeveloper | undefined) =>
      Array.from({ length: width }, (_, x) => picture?.pixels[4 * x]);

    test('is laid over the picture before where it has its samples, and takes new weights with it', () => {
      const { developer, pictures, begin, add, weigh } = open();
      begin(1, 1);
      weigh(1);
      add(1, 0.6);
      expect(pictures.at(-1)).toMatchObject({ picture: 1, whole: true });
      begin(2, 2);
      addHalf(developer, 0.1, 1);
      expect(pictures).toHaveLength(1);
      addHalf(developer, 0.1, 1);
      expect(pictures.at(-1)).toMatchObject({ picture: 2, whole: false, samples: 1 });
      expect(row(pictures.at(-1))).toEqual([0.1, 0.1, 0.6, 0.6].map(encoded));
      weigh(0.5);
      expect(row(pictures.at(-1))).toEqual([0.05, 0.05, 0.3, 0.3].map(encoded));
      // The other half, and it is whole.
      const other = { ...half, x: half.width };
      developer.receive({ type: 'tile', picture: 2, tile: other, sums: halfLevel(0.4), samples: 2 });
      developer.receive({ type: 'show', picture: 2, last: false });
      vi.runAllTimers();
      expect(pictures.at(-1)).toMatchObject({ picture: 2, whole: true, samples: 2 });
      expect(row(pictures.at(-1))).toEqual([0.05, 0.05, 0.1, 0.1].map(encoded));
    });

    test('waits until it is whole over a quick picture, which other powers would not fit, and over another part of the frame', () => {
      const { developer, pictures, begin, weigh, follow } = open();
      weigh(1);
      follow(1, 0.5, [1]);
      begin(2, 2);
      addHalf(developer, 0.2, 2);
      expect(pictures.at(-1)).toMatchObject({ picture: 1, quick: true });
      const own = open();
      own.begin(1, 1);
      own.weigh(1);
      own.add(1, 0.5);
      const window = { zoom: 2, left: 0, top: 0 };
      own.begin(2, 2, 1, window);
      addHalf(own.developer, 0.2, 2);
      expect(own.pictures.at(-1)).toMatchObject({ picture: 1 });
    });
  });

  test('tiles, features and wishes of a picture that was given up are left alone', () => {
    const { developer, pictures, begin, add, weigh } = open();
    begin(1, 1);
    begin(2, 1);
    weigh(1);
    developer.receive({ type: 'features', picture: 1, tile, features: createFeatures(width, height) });
    add(1, 9);
    expect(pictures).toHaveLength(0);
    add(2, 1);
    expect(pictures.map(({ picture }) => picture)).toEqual([2]);
  });

  test('many wishes are one development; a weight too many shows nothing wrong', () => {
    const { developer, pictures, begin, weigh } = open();
    begin(1, 1);
    developer.receive({ type: 'tile', picture: 1, tile, sums: level(1), samples: 1 });
    for (let i = 0; i < 5; i++) developer.receive({ type: 'weights', weights: new Float64Array([1, 1, 1]) });
    developer.receive({ type: 'show', picture: 1, last: false });
    vi.runAllTimers();
    expect(pictures).toHaveLength(1);
    weigh(1, 1);
    expect(pictures).toHaveLength(1);
  });

  test('a growing picture takes a third of the time at most, its last state comes at once', () => {
    const { developer, pictures, begin, weigh } = open();
    const grow = (last: boolean) => {
      developer.receive({ type: 'tile', picture: 1, tile, sums: level(1), samples: 1 });
      developer.receive({ type: 'show', picture: 1, last });
    };
    begin(1, 1);
    weigh(1);
    // Each development takes 100 ms by this clock.
    let now = 0;
    let step = 0;
    vi.spyOn(performance, 'now').mockImplementation(() => now + 100 * (step++ % 3 === 2 ? 1 : 0));
    grow(false);
    vi.advanceTimersByTime(1);
    expect(pictures).toHaveLength(1);
    step = 0;
    now = 150;
    grow(false);
    vi.advanceTimersByTime(100);
    expect(pictures).toHaveLength(1);
    vi.advanceTimersByTime(100);
    expect(pictures).toHaveLength(2);
    grow(true);
    vi.advanceTimersByTime(1);
    expect(pictures).toHaveLength(3);
    vi.restoreAllMocks();
  });

  test('a picture that is whole is shown though the next begins with the very next message', () => {
    const { developer, pictures, begin, weigh } = open();
    weigh(1);
    for (const picture of [1, 2, 3]) {
      begin(picture, 1);
      developer.receive({ type: 'tile', picture, tile, sums: level(1), samples: 1 });
      developer.receive({ type: 'show', picture, last: true });
    }
    begin(4, 1);
    vi.runAllTimers();
    expect(pictures.map(({ picture }) => picture)).toEqual([1, 2, 3]);
  });

  test('the same weights again develop nothing', () => {
    const { pictures, begin, add, weigh } = open();
    begin(1, 1);
    weigh(1);
    add(1, 1);
    weigh(1);
    weigh(1);
    expect(pictures).toHaveLength(1);
    weigh(0.5);
    expect(pictures).toHaveLength(2);
  });

  test('a growing picture that is not good enough is not developed, new weights are', () => {
    const { pictures, begin, add, weigh } = open();
    begin(1, 1);
    weigh(1);
    add(1, 1);
    begin(2, 4);
    add(2, 1);
    add(2, 1);
    expect(pictures).toHaveLength(1);
    weigh(0.5);
    expect(pictures).toHaveLength(2);
  });

  describe('a quick picture', () => {
    test('is shown at once as it was mixed; with other weights it stays until the next, one that was mixed too is shown', () => {
      const { pictures, weigh, follow } = open();
      weigh(0.5);
      follow(1, 0.4, [0.5, 0.25]);
      expect(pictures.at(-1)).toMatchObject({ picture: 1, quick: true, samples: 1 });
      expect(shownLevel(pictures)).toBe(encoded(0.2));
      weigh(0.25);
      expect(shownLevel(pictures)).toBe(encoded(0.1));
      weigh(0.7);
      expect(shownLevel(pictures)).toBe(encoded(0.2));
      follow(2, 0.4, [0.7], true);
      expect(shownLevel(pictures)).toBe(encoded(0.28));
    });

    test('an older one does not take the place of a newer, nor one of other powers that of the picture at rest', () => {
      const { pictures, weigh, follow, begin, add } = open();
      weigh(1);
      follow(2, 0.4, [1]);
      follow(1, 0.3, [1]);
      expect(pictures.map(({ picture }) => picture)).toEqual([2]);
      begin(3, 1);
      follow(4, 0.2, [1], true);
      expect(shownLevel(pictures)).toBe(encoded(0.2));
      // Growth goes on beside it.
      follow(5, 0.2, [1], true);
      add(3, 0.6);
      follow(6, 0.2, [1], true);
      expect(pictures.map(({ picture }) => picture)).toEqual([2, 4, 5, 3]);
      expect(shownLevel(pictures)).toBe(encoded(0.6));
    });

    test('what is given up for one that follows is not shown after it', () => {
      const { developer, pictures, weigh, follow, begin, add } = open();
      weigh(1);
      begin(1, 1);
      developer.receive({ type: 'tile', picture: 1, tile, sums: level(0.5), samples: 1 });
      developer.receive({ type: 'show', picture: 1, last: false });
      follow(2, 0.4, [1]);
      vi.runAllTimers();
      add(1, 0.5);
      expect(pictures.map(({ picture }) => picture)).toEqual([2]);
    });
  });

  /** The picture on show as a file. */
  const fileOf = (
    developer: FilmDeveloper,
    what: Pick<ToDeveloper & { type: 'file' }, 'format' | 'layers'>,
  ) =>
    new Promise<Blob | null>((resolve) => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = ({ data }) => {
        port1.close();
        resolve(data);
      };
      developer.receive({ type: 'file', ...what, port: port2 as unknown as MessagePort });
    });

  test('the picture on show is given out as a file of 16 bits; before there is one, nothing', async () => {
    const { developer, begin, add, weigh } = open();
    const file = () => fileOf(developer, { format: 'png16', layers: [] });
    vi.useRealTimers();
    expect(await file()).toBeNull();
    vi.useFakeTimers();
    begin(1, 1);
    weigh(0.5);
    add(1, 0.5);
    vi.useRealTimers();
    const blob = await file();
    const { width: wide, height: high, depth, channels, data } = decode(await (blob as Blob).arrayBuffer());
    expect([wide, high, depth, channels]).toEqual([width, height, 16, 3]);
    expect(data[0]).toBe(Math.round(65535 * encodeSrgb(0.25)));
  });

  test('as OpenEXR it is linear, with the picture of each light in a layer of its own', async () => {
    const { developer, begin, add, weigh } = open();
    begin(1, 1);
    weigh(0.5);
    add(1, 0.5);
    vi.useRealTimers();
    const layers = [
      { name: 'A key', channels: [0] },
      { name: 'B off', channels: [7] },
    ];
    const blob = await fileOf(developer, { format: 'exr', layers });
    const bytes = await (blob as Blob).arrayBuffer();
    const {
      width: wide,
      height: high,
      data,
    } = new EXRLoader().setDataType(FloatType).parse(bytes) as unknown as {
      width: number;
      height: number;
      data: Float32Array;
    };
    expect([wide, high]).toEqual([width, height]);
    expect(data[0]).toBeCloseTo(0.25, 3);
    const text = Buffer.from(bytes).toString('latin1');
    for (const name of ['A key.R', 'B off.G']) expect(text).toContain(name);
  });

  test('a quick picture has no layers: as a file with layers there is none of it', async () => {
    const { developer, weigh, follow } = open();
    weigh(1);
    follow(1, 0.4, [1]);
    vi.useRealTimers();
    const layers = [{ name: 'A key', channels: [0] }];
    expect(await fileOf(developer, { format: 'exr', layers })).toBeNull();
    expect(await fileOf(developer, { format: 'exr', layers: [] })).not.toBeNull();
  });
});
