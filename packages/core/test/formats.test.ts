import fc from 'fast-check';
import { expect, test } from 'vitest';
import { encodeRadiance } from '../src/index.js';
import { base64OfBytes, bytesOfBase64 } from '../src/units/base64.js';

test('base64 is that of the platform, there and back', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 50 }), (bytes) => {
      const text = base64OfBytes(bytes);
      expect(text).toBe(Buffer.from(bytes).toString('base64'));
      expect(bytesOfBase64(text)).toEqual(bytes);
    }),
  );
});

test('Radiance RGBE: header, size, and each value within a part in 256 of its brightest colour', () => {
  const linear = Float32Array.of(0, 0, 0, 1, 0.5, 0.25, 12345, 1, 0.001, 1e-6, 2e-6, 3e-6);
  const file = Buffer.from(encodeRadiance(2, 2, linear));
  const end = file.indexOf('\n\n') + 2;
  const header = file.subarray(0, end).toString('latin1');
  expect(header.startsWith('#?RADIANCE\n')).toBe(true);
  expect(header).toContain('FORMAT=32-bit_rle_rgbe');
  const sizeEnd = file.indexOf('\n', end) + 1;
  expect(file.subarray(end, sizeEnd).toString('latin1')).toBe('-Y 2 +X 2\n');
  const pixels = file.subarray(sizeEnd);
  expect(pixels.length).toBe(16);
  for (let i = 0; i < 4; i++) {
    const exponent = 2 ** ((pixels[4 * i + 3] as number) - 128 - 8);
    const most = Math.max(...linear.subarray(3 * i, 3 * i + 3));
    for (let c = 0; c < 3; c++) {
      const read = pixels[4 * i + 3] === 0 ? 0 : ((pixels[4 * i + c] as number) + 0.5) * exponent;
      expect(Math.abs(read - (linear[3 * i + c] as number))).toBeLessThanOrEqual(most / 128);
    }
  }
});
