import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoSet } from '@fendrix/demo';
import sharp from 'sharp';
import { afterAll, describe, expect, test } from 'vitest';
import { plates } from '../src/commands/plates.js';

const folder = mkdtempSync(join(tmpdir(), 'fendrix-plates-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function fileOf(set: object): string {
  const path = join(folder, 'set.json');
  writeFileSync(path, JSON.stringify(set));
  return path;
}

/** Values of a file as a program reads it that knows nothing of this one. */
async function values(path: string): Promise<{ values: Uint16Array; depth: string | undefined }> {
  const { depth, channels } = await sharp(path).metadata();
  const { data } = await sharp(path)
    .toColourspace(channels === 1 ? 'grey16' : 'rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  return { values: new Uint16Array(data.buffer, data.byteOffset, data.length / 2), depth };
}

describe('plates as files', () => {
  test('frames and masks of 16 bits, mixed by their values, give the picture put together', async () => {
    const set = demoSet('perry');
    const out = join(folder, 'all');
    const answer = await plates([
      fileOf(set),
      '--out',
      out,
      '--size',
      '60x40',
      '--samples',
      '2',
      '--threads',
      '2',
    ]);
    expect(answer).toMatchObject({ width: 60, height: 40 });
    expect(readdirSync(out).sort()).toEqual([
      '0 set as it stands.png',
      '1 Rims, mask.png',
      '1 Rims.png',
      'list.txt',
      'put together.png',
    ]);
    const [base, rims, mask, together] = await Promise.all(
      ['0 set as it stands', '1 Rims', '1 Rims, mask', 'put together'].map((name) =>
        values(join(out, `${name}.png`)),
      ),
    );
    if (!(base && rims && mask && together)) throw new Error('all are there');
    expect([base.depth, rims.depth, mask.depth]).toEqual(['ushort', 'ushort', 'ushort']);
    const perPixel = mask.values.length / (60 * 40);
    let mixed = 0;
    together.values.forEach((value, i) => {
      const part = (mask.values[perPixel * Math.floor(i / 3)] as number) / 65535;
      const wanted = (1 - part) * (base.values[i] as number) + part * (rims.values[i] as number);
      if (part > 0 && part < 1) mixed++;
      // One step of rounding in each file, more where the straight foot of the curve is met.
      expect(Math.abs(value - wanted)).toBeLessThan(3);
    });
    expect(mixed).toBeGreaterThan(50);
    expect(readFileSync(join(out, 'list.txt'), 'utf8')).toContain('1  Rims');
  }, 120_000);

  test('masks alone for frames of a real camera; what is missing or of another shape is told', async () => {
    const set = demoSet('cordial-frost');
    const out = join(folder, 'masks');
    await plates([fileOf(set), '--out', out, '--size', '120x80', '--masks-only', '--threads', '2']);
    expect(readdirSync(out).sort()).toEqual(['1 Label, mask.png', '2 Liquid, mask.png', 'list.txt']);
    const { values: label } = await values(join(out, '1 Label, mask.png'));
    expect(Math.max(...label)).toBe(65535);
    expect(Math.min(...label)).toBe(0);
    await expect(plates([fileOf(set), '--out', out, '--size', '100x100'])).rejects.toThrow(
      '--size: masks are of the whole frame. Give its shape, such as 100x67',
    );
    await expect(plates([fileOf(set)])).rejects.toThrow('--out: name the folder');
    await expect(plates([fileOf({ ...set, plates: [] }), '--out', out])).rejects.toThrow('this set has none');
  }, 120_000);
});
