import { describe, expect, test } from 'vitest';
import { FileError, readMesh } from '../src/index.js';

const mm = { unit: 'mm', up: 'z' } as const;
const text = (value: unknown) =>
  new TextEncoder().encode(typeof value === 'string' ? value : JSON.stringify(value));

/** A glTF with one triangle of nine numbers, and what is changed about it. */
function gltf(change: (file: Record<string, unknown>) => void = () => undefined): Uint8Array {
  const data = Buffer.from(Float32Array.of(0, 0, 0, 0.1, 0, 0, 0, 0.2, 0).buffer).toString('base64');
  const file: Record<string, unknown> = {
    asset: { version: '2.0' },
    buffers: [{ byteLength: 36, uri: `data:application/octet-stream;base64,${data}` }],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    nodes: [{ mesh: 0 }],
    scenes: [{ nodes: [0] }],
    scene: 0,
  };
  change(file);
  return text(file);
}

const accessor = { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' };

describe('meshes that claim more than there is', () => {
  test('the plain one is read', async () => {
    expect((await readMesh('a.gltf', gltf(), mm)).triangles).toHaveLength(3);
  });

  test.each<[string, () => Uint8Array, RegExp]>([
    [
      'a sparse count of a thousand million in some hundred bytes',
      () =>
        gltf((file) => {
          const sparse = {
            count: 1e9,
            indices: { bufferView: 0, componentType: 5125 },
            values: { bufferView: 0 },
          };
          file.accessors = [{ ...accessor, sparse }];
        }),
      /damaged or cut off/,
    ],
    [
      'a count of 90 million without data',
      () =>
        gltf((file) => {
          file.accessors = [{ componentType: 5126, count: 9e7, type: 'VEC3' }];
        }),
      /damaged or cut off/,
    ],
    [
      'a count beyond its data',
      () =>
        gltf((file) => {
          file.accessors = [{ ...accessor, count: 9e7 }];
        }),
      /damaged or cut off/,
    ],
    [
      'a view beyond its buffer',
      () =>
        gltf((file) => {
          file.bufferViews = [{ buffer: 0, byteLength: 4e9 }];
        }),
      /damaged or cut off/,
    ],
    [
      'a buffer larger than the file',
      () =>
        gltf((file) => {
          file.buffers = [{ byteLength: 4e9 }];
        }),
      /damaged or cut off/,
    ],
    [
      '10 000 primitives in 1 000 nodes',
      () =>
        gltf((file) => {
          file.meshes = [{ primitives: new Array(10_000).fill({ attributes: { POSITION: 0 } }) }];
          file.nodes = new Array(1000).fill({ mesh: 0 });
          file.scenes = [{ nodes: Array.from({ length: 1000 }, (_, i) => i) }];
        }),
      /more than 1000000 triangles/,
    ],
    [
      'a node within itself',
      () =>
        gltf((file) => {
          file.nodes = [{ mesh: 0, children: [0] }];
        }),
      /parts within themselves/,
    ],
    [
      'a node that is not there',
      () =>
        gltf((file) => {
          file.scenes = [{ nodes: [7] }];
        }),
      /damaged or cut off/,
    ],
    [
      'mesh compression',
      () =>
        gltf((file) => {
          file.extensionsRequired = ['KHR_draco_mesh_compression'];
        }),
      /compressed/,
    ],
    ['no JSON at all', () => text('{"asset":'), /not what its name says/],
    [
      'a binary one whose list is longer than the file',
      () => {
        const bytes = new Uint8Array(40);
        bytes.set(text('glTF'));
        new DataView(bytes.buffer).setUint32(12, 4e9, true);
        return bytes;
      },
      /cut off/,
    ],
  ])('glTF: %s is refused before it is made, in our words', async (_name, make, words) => {
    const error = await readMesh('thing.glb', make(), mm).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(FileError);
    expect((error as FileError).message).toMatch(words);
  });

  test('STL: a count that is not there, and more facets than are taken', async () => {
    const lying = new Uint8Array(84 + 50);
    new DataView(lying.buffer).setUint32(80, 0xffffffff, true);
    await expect(readMesh('a.stl', lying, mm)).rejects.toThrow(/cut off, or holds more/);
    const many = text(`solid x\n${'facet normal 0 0 1\n'.repeat(1_000_001)}`);
    await expect(readMesh('a.stl', many, mm)).rejects.toThrow(/1000001 triangles/);
  });

  test('OBJ: faces and points are counted before they are read', async () => {
    await expect(readMesh('a.obj', text(`v 0 0 0\n${'f 1 1 1\n'.repeat(1_000_001)}`), mm)).rejects.toThrow(
      /1000001 triangles/,
    );
    await expect(readMesh('a.obj', text('v 0 0 0\n'.repeat(3_000_001)), mm)).rejects.toThrow(
      /3000001 points/,
    );
  });
});
