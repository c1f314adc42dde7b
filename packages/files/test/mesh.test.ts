import { setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { Document, WebIO } from '@gltf-transform/core';
import { describe, expect, test } from 'vitest';
import { FileError, meshKind, meshProduct, readMesh } from '../src/index.js';

const text = (value: string) => new TextEncoder().encode(value);
const mm = { unit: 'mm', up: 'z' } as const;

/** A tetrahedron 30 by 20 by 10. */
const OBJ = 'v 10 0 5\nv 40 0 5\nv 10 20 5\nv 10 0 15\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 3 1 4\n';
const STL = `solid t
facet normal 0 0 1
outer loop
vertex 0 0 0
vertex 30 0 0
vertex 0 20 10
endloop
endfacet
endsolid t`;

async function glb(scale: number): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const place = document
    .createAccessor()
    .setType('VEC3')
    .setArray(Float32Array.of(0, 0, 0, 0.1, 0, 0, 0, 0.2, 0))
    .setBuffer(buffer);
  const mesh = document.createMesh().addPrimitive(document.createPrimitive().setAttribute('POSITION', place));
  const node = document.createNode().setMesh(mesh).setScale([scale, scale, scale]).setTranslation([5, 0, 0]);
  document.createScene().addChild(node);
  return new WebIO().writeBinary(document);
}

describe('bodies from files', () => {
  test('OBJ: scaled by its unit, stood on the mark, corners kept once', async () => {
    const mesh = await readMesh('thing.OBJ', text(OBJ), mm);
    expect(mesh.sizeM.map((size) => Number(size.toFixed(6)))).toEqual([0.03, 0.02, 0.01]);
    expect(mesh.positions.length / 3).toBe(4);
    expect(mesh.triangles.length / 3).toBe(4);
    const z = Array.from(mesh.positions).filter((_, i) => i % 3 === 2);
    expect(Math.min(...z)).toBe(0);
    const x = Array.from(mesh.positions).filter((_, i) => i % 3 === 0);
    expect(Math.max(...x) + Math.min(...x)).toBeCloseTo(0, 6);
  });

  test('y up is turned upright', async () => {
    const mesh = await readMesh('thing.obj', text(OBJ), { unit: 'mm', up: 'y' });
    expect(mesh.sizeM.map((size) => Number(size.toFixed(6)))).toEqual([0.03, 0.01, 0.02]);
  });

  test('STL and glTF', async () => {
    expect((await readMesh('t.stl', text(STL), mm)).triangles).toHaveLength(3);
    const mesh = await readMesh('t.glb', await glb(0.5), mm);
    // Metres and y up by its standard, whatever was asked; the node's scale counts.
    expect(mesh.sizeM.map((size) => Number(size.toFixed(6)))).toEqual([0.05, 0, 0.1]);
  });

  test('a mesh becomes a product that a set takes', async () => {
    const mesh = await readMesh('thing.obj', text(OBJ), mm);
    const set = { ...demoSet('cordial'), products: [meshProduct('thing', 'Thing', mesh)], spots: [] };
    expect(setDocument.safeParse(set).error?.issues).toBeUndefined();
  });

  test.each([
    ['another kind', 'thing.blend', OBJ, 'end in'],
    ['nothing in it', 'thing.obj', '# empty', 'no triangle'],
    ['cut off', 'thing.glb', 'glTF', 'cut off'],
    [
      'another file beside it',
      'thing.gltf',
      '{"asset":{"version":"2.0"},"buffers":[{"uri":"a.bin","byteLength":4}]}',
      'one file',
    ],
    [
      'too small in that unit',
      'thing.obj',
      OBJ.replace(/^v (\d+) (\d+) (\d+)/gm, 'v 0.0$1 0.0$2 0.0$3'),
      'another unit',
    ],
  ])('%s is refused in words', async (_name, fileName, content, words) => {
    const error = await readMesh(fileName, text(content), mm).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(FileError);
    expect((error as FileError).message).toContain(words);
  });

  test('glTF needs no unit, OBJ and STL do', () => {
    expect(meshKind('a.gltf')).toEqual({ kind: 'gltf', asks: false });
    expect(meshKind('a.STL')).toEqual({ kind: 'stl', asks: true });
    expect(meshKind('a.txt')).toBeNull();
  });
});
