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

  test('parts by the material of the file, one of a name together; a file without has none', async () => {
    const faces = [
      'f 1 3 2',
      'usemtl Lid',
      'f 1 2 4',
      'usemtl Body gloss',
      'f 2 3 4',
      'f 3 1 4',
      'usemtl Lid',
      'f 4 2 1',
    ];
    const file = `${OBJ.split('f ')[0]}${faces.join('\n')}\n`;
    const { parts, triangles } = await readMesh('thing.obj', text(file), mm);
    expect(triangles.length / 3).toBe(5);
    expect(parts.map(({ name }) => name).sort()).toEqual(['Body gloss', 'Lid']);
    expect(parts.reduce((sum, part) => sum + part.triangles, 0)).toBe(5);
    expect((await readMesh('thing.obj', text(OBJ), mm)).parts).toEqual([]);
  });

  test('a name in a file is made fit for the document; of many parts the largest keep theirs', async () => {
    const objects = Array.from(
      { length: 30 },
      (_, i) => `o part ${i}\u0007${'x'.repeat(90)}\n${'f 1 3 2\n'.repeat(i + 1)}`,
    );
    const file = OBJ.split('f ')[0] + objects.join('');
    const mesh = await readMesh('thing.obj', text(file), mm);
    expect(mesh.parts).toHaveLength(20);
    expect(mesh.parts[0]?.triangles).toBe(30);
    const set = { ...demoSet('cordial'), products: [meshProduct('thing', 'Thing', mesh)], spots: [] };
    expect(setDocument.safeParse(set).error?.issues).toBeUndefined();
  });

  test('glTF: materials by their names, also where the pictures they need are not there', async () => {
    const document = new Document();
    const buffer = document.createBuffer();
    const at = (x: number) =>
      document
        .createAccessor()
        .setType('VEC3')
        .setArray(Float32Array.of(x, 0, 0, x + 0.1, 0, 0, x, 0.2, 0))
        .setBuffer(buffer);
    const mesh = document.createMesh('thing');
    for (const [i, name] of ['Cap', 'Glass'].entries()) {
      const primitive = document.createPrimitive().setAttribute('POSITION', at(i));
      mesh.addPrimitive(primitive.setMaterial(document.createMaterial(name)));
    }
    document.createScene().addChild(document.createNode('whole').setMesh(mesh));
    const names = (read: { parts: { name: string }[] }) => read.parts.map(({ name }) => name).sort();
    expect(names(await readMesh('t.glb', await new WebIO().writeBinary(document), mm))).toEqual([
      'Cap',
      'Glass',
    ]);
    const { json, resources } = await new WebIO().writeJSON(document);
    const [data] = Object.values(resources);
    const inside = {
      ...json,
      buffers: [
        {
          ...json.buffers?.[0],
          uri: `data:application/octet-stream;base64,${Buffer.from(data as Uint8Array).toString('base64')}`,
        },
      ],
      images: [{ uri: 'elsewhere.png' }],
      textures: [{ source: 0 }],
      materials: [{ name: 'Cap', pbrMetallicRoughness: { baseColorTexture: { index: 0 } } }, { name: 7 }],
    };
    expect(names(await readMesh('t.gltf', text(JSON.stringify(inside)), mm))).toEqual(['Cap', 'whole']);
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
