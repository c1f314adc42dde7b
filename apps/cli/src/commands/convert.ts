import { readFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import {
  FileError,
  MESH_UNITS,
  type MeshUnit,
  meshKind,
  meshProduct,
  readIes,
  readMesh,
} from '@fendrix/files';
import { InputError, readWords } from '../input.js';

/**
 * Turns a file of a measured light (.ies) or of a body (.glb .gltf .obj .stl) into a light or product for a set
 * document.
 */
export async function convert(words: string[]): Promise<unknown> {
  const options = { unit: { type: 'string' }, up: { type: 'string' } } as const;
  const { values, positionals } = readWords(words, options, 1);
  const path = positionals[0] as string;
  const bytes = await readFile(path).catch(() => {
    throw new InputError(`${path}: cannot be read. Check the name of the file.`);
  });
  const name = basename(path, extname(path)).slice(0, 80) || 'imported';
  try {
    if (extname(path).toLowerCase() === '.ies') return measuredLight(readIes(bytes.toString('latin1')));
    const mesh = await readMesh(path, bytes, { unit: unitOf(path, values.unit), up: upOf(values.up) });
    return meshProduct(idOf(name), name, mesh);
  } catch (error) {
    if (error instanceof FileError) throw new InputError(`${path}: ${error.message}`);
    throw error;
  }
}

function measuredLight(measured: ReturnType<typeof readIes>) {
  const { name, lumens, distribution, openingWidthM, openingLengthM } = measured;
  return {
    kind: 'ies',
    tag: 'A',
    name,
    positionM: [0, 0, 1],
    aimM: [0, 0, 0],
    output: { kind: 'lumens', lumens },
    openingWidthM,
    openingLengthM,
    distribution,
  };
}

function unitOf(path: string, unit: string | undefined): MeshUnit {
  if (meshKind(path)?.asks === false) return 'm';
  const known = Object.keys(MESH_UNITS) as MeshUnit[];
  const found = known.find((candidate) => candidate === unit);
  if (!found) throw new InputError(`--unit: say what the file is measured in, one of ${known.join(', ')}`);
  return found;
}

function upOf(up = 'z'): 'y' | 'z' {
  if (up === 'y' || up === 'z') return up;
  throw new InputError('--up: must be y or z');
}

const idOf = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40) || 'imported';
