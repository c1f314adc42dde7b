import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { describe, expect, test } from 'vitest';
import { encodeOpenExr } from '../src/index.js';

/** Pixels as a reader that is not ours finds them, top row first. */
function readBack(bytes: Uint8Array): { width: number; height: number; rgb: number[] } {
  const { width, height, data } = new EXRLoader()
    .setDataType(FloatType)
    .parse(bytes.slice().buffer) as unknown as { width: number; height: number; data: Float32Array };
  const stride = data.length / (width * height);
  const rgb: number[] = [];
  // It turns pictures upside down for the graphics card.
  for (let y = height - 1; y >= 0; y--)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++) rgb.push(data[stride * (y * width + x) + c] as number);
  return { width, height, rgb };
}
/** The names of the channels, as the header lists them. */
function channelNames(file: Uint8Array): string[] {
  const text = Buffer.from(file).toString('latin1');
  const names: string[] = [];
  let at = text.indexOf('chlist') + 'chlist'.length + 1 + 4;
  while (text[at] !== '\0') {
    const end = text.indexOf('\0', at);
    names.push(text.slice(at, end));
    at = end + 1 + 16;
  }
  return names;
}
const picture = (width: number, height: number, seed: number) =>
  Float32Array.from(
    { length: width * height * 3 },
    (_, i) => (((i + 1) * 7919 * seed) % 1000) / 300 + (i % 3),
  );

describe('OpenEXR', () => {
  test.each([
    [1, 1],
    [5, 3],
    [16, 16],
    [33, 50],
  ])('%s by %s: another reader finds the same picture, to a part in a thousand', (width, height) => {
    const rgb = picture(width, height, 3);
    const read = readBack(encodeOpenExr(width, height, [{ name: '', rgb }]));
    expect([read.width, read.height]).toEqual([width, height]);
    read.rgb.forEach((value, i) => {
      const own = rgb[i] as number;
      expect(Math.abs(value - own)).toBeLessThanOrEqual(own / 1000);
    });
  });

  test('layers stand beside the picture: it is read as before, and they are named in it', () => {
    const [key, fill] = [picture(20, 20, 5), picture(20, 20, 7)];
    const both = key.map((value, i) => value + (fill[i] as number));
    const file = encodeOpenExr(20, 20, [
      { name: '', rgb: both },
      { name: 'A Söftbox: 60 x 90 cm, with a very long name', rgb: key },
      { name: 'B', rgb: fill },
    ]);
    readBack(file).rgb.forEach((value, i) => {
      expect(Math.abs(value - (both[i] as number))).toBeLessThanOrEqual((both[i] as number) / 1000);
    });
    const names = channelNames(file);
    expect(names).toEqual([...names].sort());
    expect(names).toHaveLength(9);
    expect(names).toContain('B.G');
    expect(names.find((name) => name.startsWith('A '))).toBe('A Softbox 60 x 90 cm with a v.B');
    for (const name of names) expect(name.length).toBeLessThanOrEqual(31);
  });

  test('each layer alone is what the picture loses when its light is switched off', () => {
    const [key, fill] = [picture(9, 9, 5), picture(9, 9, 7)];
    const alone = readBack(encodeOpenExr(9, 9, [{ name: '', rgb: key }])).rgb;
    const both = readBack(
      encodeOpenExr(9, 9, [{ name: '', rgb: key.map((v, i) => v + (fill[i] as number)) }]),
    ).rgb;
    both.forEach((value, i) => {
      expect(Math.abs(value - (alone[i] as number) - (fill[i] as number))).toBeLessThan(0.01 * value);
    });
  });

  test('what a half float does not hold is held at its most; what is no number is black', () => {
    const rgb = Float32Array.of(1e9, Number.NaN, -1e9, Number.POSITIVE_INFINITY, 0, 1e-9);
    expect(readBack(encodeOpenExr(2, 1, [{ name: '', rgb }])).rgb.slice(0, 3)).toEqual([65504, 0, -65504]);
  });

  test('an even picture packs small', () => {
    const rgb = new Float32Array(200 * 200 * 3).fill(0.18);
    expect(encodeOpenExr(200, 200, [{ name: '', rgb }]).length).toBeLessThan(10_000);
  });
});
