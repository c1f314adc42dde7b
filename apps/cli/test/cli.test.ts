import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { encodeSrgb, rectangleOnAxisLx } from '@fendrix/core';
import sharp from 'sharp';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';

const folder = mkdtempSync(join(tmpdir(), 'fendrix-cli-'));
const root = fileURLToPath(new URL('../../..', import.meta.url));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Outcome {
  code: number;
  out: string;
  error: string;
}

function node(words: string[], cwd: string): Promise<Outcome> {
  return new Promise((resolve) => {
    // As npm tells where a command was typed.
    const env = { ...process.env, INIT_CWD: cwd };
    execFile(process.execPath, words, { cwd, env, maxBuffer: 1e8 }, (failure, out, error) =>
      resolve({ code: Number(failure?.code ?? 0), out, error }),
    );
  });
}

/** Bundled, as people run it; the first time bundles it, beside other tests. */
const script = join(root, 'scripts/fendrix.mjs');
beforeAll(async () => void (await node([script, 'schema'], root)), 180_000);
const fendrix = (...words: string[]) => node(['apps/cli/dist/fendrix.mjs', ...words], root);
const fromSource = (...words: string[]) => node(['--import', 'tsx', 'apps/cli/src/main.ts', ...words], root);

const json = async (...words: string[]) => {
  const { code, out, error } = await fendrix(...words);
  expect(error).toBe('');
  expect(code).toBe(0);
  return JSON.parse(out);
};

/** A file with an even continuous softbox 1 m over the mark, and a camera. */
async function overheadFile(): Promise<string> {
  const { camera } = await json('example', 'cordial');
  const path = join(folder, 'overhead.json');
  const light = {
    kind: 'softbox',
    tag: 'A',
    name: 'Overhead',
    positionM: [0, 0, 1],
    aimM: [0, 0, 0],
    widthM: 0.6,
    heightM: 0.9,
    output: { kind: 'luminance', luminanceCdM2: 1000 },
  };
  const bench = { widthM: 4, depthM: 4, material: { kind: 'matte', reflectance: 0.5 } };
  writeFileSync(
    path,
    JSON.stringify({ format: 'fendrix-set', version: 3, name: 'Overhead', camera, bench, lights: [light] }),
  );
  return path;
}

describe('command line', () => {
  test('convert makes a light of an IES file and a product of a mesh; both are refused in words when wrong', async () => {
    const ies = join(folder, 'lamp.ies');
    writeFileSync(
      ies,
      'IESNA:LM-63-2002\nTILT=NONE\n1 -1 1 3 1 1 2 0.1 0.1 0\n1 1 20\n0 45 90\n0\n100 100 100\n',
    );
    const light = await json('convert', ies);
    expect(light).toMatchObject({ kind: 'ies', distribution: { candela: [[100, 100, 100]] } });
    expect(light.output.lumens).toBeCloseTo(200 * Math.PI, 3);
    const obj = join(folder, 'wedge.obj');
    writeFileSync(obj, 'v 0 0 0\nv 50 0 0\nv 0 40 0\nv 0 0 30\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 3 1 4\n');
    expect(await json('convert', obj, '--unit', 'mm')).toMatchObject({ kind: 'mesh', id: 'wedge' });
    const unitless = await fendrix('convert', obj);
    expect([unitless.code, unitless.error]).toEqual([2, expect.stringContaining('--unit')]);
    writeFileSync(ies, 'TILT=NONE\n1 x');
    const broken = await fendrix('convert', ies);
    expect([broken.code, broken.error]).toEqual([2, expect.stringContaining('Line 2')]);
  });

  test('render writes the same picture as PNG, TIFF of 16 bits and OpenEXR with a layer a light', async () => {
    const path = await overheadFile();
    const words = ['--size', '6x4', '--samples', '4', '--threads', '1'];
    const at = (ending: string) => join(folder, `same${ending}`);
    for (const ending of ['.png', '.jpg', '.tif', '.exr'])
      await json('render', path, '--out', at(ending), ...words);
    const eight = await sharp(at('.png')).raw().toBuffer();
    const tiff = sharp(at('.tif'));
    expect(await tiff.metadata()).toMatchObject({
      format: 'tiff',
      width: 6,
      height: 4,
      depth: 'ushort',
      channels: 3,
    });
    const sixteen = await tiff.toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer();
    const jpeg = await sharp(at('.jpg')).metadata();
    expect(jpeg).toMatchObject({ format: 'jpeg', width: 6, height: 4 });
    const exr = readFileSync(at('.exr'));
    const { data } = new EXRLoader()
      .setDataType(FloatType)
      .parse(exr.buffer.slice(exr.byteOffset, exr.byteOffset + exr.length) as ArrayBuffer) as unknown as {
      data: Float32Array;
    };
    const stride = data.length / 24;
    for (let y = 0; y < 4; y++)
      for (let x = 0; x < 6; x++) {
        const pixel = 3 * (6 * y + x);
        const linear = data[stride * (6 * (3 - y) + x)] as number;
        expect(Math.abs(sixteen.readUInt16LE(2 * pixel) / 257 - (eight[pixel] as number))).toBeLessThan(0.6);
        expect(Math.abs(255 * encodeSrgb(Math.min(1, linear)) - (eight[pixel] as number))).toBeLessThan(1);
      }
    expect(exr.toString('latin1')).toContain('A Overhead.R');
  });

  test('gltf and set-sheet write a set for others to read; another ending is refused', async () => {
    const path = await overheadFile();
    const [glb, pdf] = [join(folder, 'set.glb'), join(folder, 'set.pdf')];
    expect(await json('gltf', path, '--out', glb)).toMatchObject({ lights: 1 });
    expect(readFileSync(glb).subarray(0, 4).toString()).toBe('glTF');
    const words = ['--size', '12x8', '--samples', '1', '--threads', '1', '--paper', 'letter'];
    expect(await json('set-sheet', path, '--out', pdf, ...words)).toMatchObject({ paper: 'Letter' });
    expect(readFileSync(pdf).subarray(0, 5).toString()).toBe('%PDF-');
    for (const [command, file] of [
      ['gltf', 'set.obj'],
      ['set-sheet', 'set.doc'],
    ] as const) {
      const { code, error } = await fendrix(command, path, '--out', join(folder, file));
      expect([code, error]).toEqual([2, expect.stringContaining('--out')]);
    }
  });

  test('render writes Radiance HDR of the same light as PFM', { tags: ['more'] }, async () => {
    const path = await overheadFile();
    const words = ['--size', '6x4', '--samples', '4', '--threads', '1'];
    const hdr = join(folder, 'small.hdr');
    const pfm = join(folder, 'small.pfm');
    await json('render', path, '--out', hdr, ...words);
    await json('render', path, '--out', pfm, ...words);
    const file = readFileSync(hdr);
    expect(file.subarray(0, 10).toString('latin1')).toBe('#?RADIANCE');
    const pixels = file.subarray(file.indexOf('-Y 4 +X 6\n') + 10);
    const floats = readFileSync(pfm);
    const data = floats.subarray(floats.length - 6 * 4 * 12);
    // PFM starts with the bottom row, HDR with the top one.
    for (const [x, y] of [
      [1, 1],
      [3, 2],
      [5, 3],
    ] as const) {
      const at = 4 * (6 * y + x);
      const read = ((pixels[at + 1] as number) + 0.5) * 2 ** ((pixels[at + 3] as number) - 136);
      const exact = data.readFloatLE(12 * (6 * (3 - y) + x) + 4);
      expect(Math.abs(read - exact)).toBeLessThanOrEqual(exact / 100 + 1e-9);
    }
  });

  test('render --smooth has less noise at the same light', { tags: ['more'] }, async () => {
    const path = join(folder, 'noisy.json');
    writeFileSync(path, JSON.stringify(await json('example', 'cordial')));
    const render = async (name: string, samples: string, ...more: string[]) => {
      const file = join(folder, name);
      const words = ['--size', '48x32', '--samples', samples, '--threads', '1', ...more];
      const { smooth } = await json('render', path, '--out', file, ...words);
      const data = readFileSync(file);
      const floats = data.subarray(data.length - 48 * 32 * 12);
      return { smooth, values: Array.from({ length: 48 * 32 }, (_, i) => floats.readFloatLE(12 * i + 4)) };
    };
    const many = await render('many.pfm', '96');
    const plain = await render('plain.pfm', '2');
    const smooth = await render('smooth.pfm', '2', '--smooth');
    const errorOf = ({ values }: typeof many) =>
      values.reduce((sum, value, i) => sum + Math.abs(value - (many.values[i] as number)), 0);
    expect([plain.smooth, smooth.smooth]).toEqual([false, true]);
    expect(errorOf(smooth)).toBeLessThan(0.8 * errorOf(plain));
  });

  test('by its script and from source it renders the same to the last bit, with file names from where they are', {
    tags: ['more'],
  }, async () => {
    const path = await overheadFile();
    const words = ['--size', '12x8', '--samples', '2', '--threads', '1'];
    const source = await fromSource('render', path, '--out', join(folder, 'source.pfm'), ...words);
    expect(source.code).toBe(0);
    const { code, out } = await node([script, 'render', path, '--out', 'bundled.pfm', ...words], folder);
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({ out: 'bundled.pfm', width: 12 });
    const bytes = (name: string) => readFileSync(join(folder, name));
    expect(bytes('bundled.pfm').equals(bytes('source.pfm'))).toBe(true);
    const wrong = await node([script, 'develop'], folder);
    expect([wrong.code, wrong.error]).toEqual([2, expect.stringContaining('no command "develop"')]);
  });

  test('schema and examples', async () => {
    expect((await json('schema')).title).toBe('Fendrix set document');
    for (const [kind, field] of [
      ['job', 'shots'],
      ['kit', 'entries'],
      ['backup', 'madeAt'],
    ] as const) {
      const { $schema, properties } = await json('schema', kind);
      expect($schema).toContain('2020-12');
      expect(Object.keys(properties)).toEqual(expect.arrayContaining(['format', 'version', field]));
    }
    const none = await fendrix('schema', 'picture');
    expect([none.code, none.error]).toEqual([2, expect.stringContaining('set, job, kit, backup')]);
    expect(await json('example', '--list')).toContain('cordial');
  });

  test('probe is the closed form, in lx', async () => {
    const path = await overheadFile();
    const answer = await json('probe', path, '--point', '0,0,0', '--normal', '0,0,1', '--direct');
    expect(answer.lights[0].unit).toBe('lx');
    expect(answer.illuminanceLx / rectangleOnAxisLx(0.6, 0.9, 1, 1000)).toBeCloseTo(1, 3);
    const aside = await json('probe', path, '--point', '-0.4,0,0', '--normal', '0,0,1', '--samples', '4096');
    expect(aside.illuminanceLx).toBeLessThan(answer.illuminanceLx);
  });

  test('measure gives camera, spots and bands of the demo set', async () => {
    const path = join(folder, 'cordial.json');
    writeFileSync(path, JSON.stringify(await json('example', 'cordial')));
    const answer = await json('measure', path, '--samples', '512');
    expect(answer.camera.ev100).toBeCloseTo(14, 1);
    expect(answer.spots.map(({ name }: { name: string }) => name)).toContain('label');
    expect(answer.spots[0].lights[0]).toMatchObject({ tag: 'A', time: 'flash' });
    const what = answer.bands[0].lengths.map((length: { what: string }) => length.what);
    expect(what).toEqual(expect.arrayContaining(['A', '1', '2']));
  });

  test('render writes luminance in cd/m2 as PFM, and a PNG of the size asked for', async () => {
    const path = await overheadFile();
    const pfm = join(folder, 'a.pfm');
    const told = await json(
      'render',
      path,
      '--out',
      pfm,
      '--size',
      '30x20',
      '--samples',
      '64',
      '--threads',
      '2',
    );
    expect(told).toMatchObject({ width: 30, height: 20, samples: 64, unit: 'cd/m2' });
    expect(told.rays).toBeGreaterThan(30 * 20 * 64);
    const file = readFileSync(pfm);
    const head = 'PF\n30 20\n-1.0\n';
    expect(file.subarray(0, head.length).toString()).toBe(head);
    // Lower rows look at the bench near the mark: about rho E / pi.
    const value = file.readFloatLE(head.length + (3 * 30 + 15) * 12);
    expect(value).toBeGreaterThan((0.5 * 300) / Math.PI);
    expect(value).toBeLessThan((0.5 * 460) / Math.PI);
    const png = join(folder, 'a.png');
    await json('render', path, '--out', png, '--size', '40x20', '--samples', '2', '--light', 'A');
    expect(await sharp(png).metadata()).toMatchObject({ width: 40, height: 20, channels: 3 });
  });

  test.each([
    ['no command', [], 'usage'],
    ['an unknown command', ['shine'], 'no command "shine"'],
    ['an unknown option', ['schema', '--loud'], '--loud'],
    ['a file that is not there', ['measure', 'none.json'], 'cannot be read'],
    ['a point that is none', ['probe', 'none.json', '--point', '1,2', '--normal', '0,0,1'], '--point'],
    ['a normal without length', ['probe', 'none.json', '--point', '0,0,0', '--normal', '0,0,0'], '--normal'],
    [
      'a picture of another kind',
      ['render', 'none.json', '--out', 'a.gif'],
      '.png, .jpg, .tif, .exr, .pfm, .hdr',
    ],
    ['an unknown example', ['example', 'none'], 'there are: cordial'],
  ])('%s: exit code 2 and a line on standard error', async (_name, words, line) => {
    const { code, out, error } = await fendrix(...words);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(error).toContain(line);
    expect(error).not.toContain('    at ');
  });

  test('a bad document names its fields; a light that is not there and an impossible size are told', async () => {
    const path = join(folder, 'bad.json');
    writeFileSync(path, '{"format":"fendrix-set","version":1,"name":"x","lights":[{"kind":"softbox"}]}');
    const bad = await fendrix('measure', path);
    expect(bad.code).toBe(2);
    expect(bad.error).toContain('lights[0].tag is missing');
    expect(bad.error).toContain('camera is missing');
    const good = await overheadFile();
    const light = await fendrix('render', good, '--out', join(folder, 'b.png'), '--light', 'Z');
    expect(light.error).toContain('there is no light "Z"');
    const size = await fendrix('render', good, '--out', join(folder, 'b.png'), '--size', '0x5');
    expect(size.error).toContain('--size');
    const place = await fendrix(
      'render',
      good,
      '--out',
      '/proc/none/b.png',
      '--size',
      '4x4',
      '--samples',
      '1',
    );
    expect(place.error).toContain('cannot be written');
  });

  test('judge says what is wrong, and gives the set with the best cure of one', {
    tags: ['more'],
  }, async () => {
    const path = join(folder, 'cordial.json');
    const set = await json('example', 'cordial');
    writeFileSync(path, JSON.stringify({ ...set, camera: { ...set.camera, shutterS: 1 / 1000 } }));
    const { verdicts } = await json('judge', path, '--samples', '3');
    const sync = verdicts.find(({ code }: { code: string }) => code === 'over-sync');
    expect(sync).toMatchObject({ title: 'The shutter is too fast for the flash', sure: true });
    const cured = await json('judge', path, '--samples', '3', '--cure', sync.id);
    expect(cured.camera.shutterS).toBeCloseTo(1 / 200, 3);
    expect(cured.lights).toEqual(JSON.parse(readFileSync(path, 'utf8')).lights);
    const unknown = await fendrix('judge', path, '--samples', '3', '--cure', 'nothing');
    expect(unknown.code).toBe(2);
    expect(unknown.error).toContain('"over-sync"');
  });
});
