import type { ProductOf } from '@fendrix/contract';
import { type Node, WebIO } from '@gltf-transform/core';
import { type BufferGeometry, type Mesh, Vector3 } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { base64Of } from './base64.js';
import { FileError } from './fileError.js';
import { checkGltf } from './gltfBounds.js';

/** Metres in a unit that a modeller may have worked in. */
export const MESH_UNITS = { m: 1, cm: 0.01, mm: 0.001, in: 0.0254, ft: 0.3048 } as const;
export type MeshUnit = keyof typeof MESH_UNITS;
/** The axis of the file that points up. */
export type MeshUp = 'y' | 'z';

export const MOST_MESH_BYTES = 60_000_000;
/** More are not read; what a set cannot hold of them is thinned out afterwards, see `heldMesh`. */
const MOST_READ_TRIANGLES = 1_000_000;
/** Larger or smaller than this, the unit is surely wrong, m. */
const SIZES_M = { least: 5e-4, most: 20 };

export interface MeshOptions {
  unit: MeshUnit;
  up: MeshUp;
}

/** A body stood on the mark: its middle over it, its lowest point on the bench. */
export interface ImportedMesh {
  positions: Float32Array;
  triangles: Uint32Array;
  /** Named parts in the order of the triangles; what is left over has none. */
  parts: { name: string; triangles: number }[];
  sizeM: [number, number, number];
}

/** Corners of a part as the file has them: x, y, z after each other, three corners a triangle. */
interface Soup {
  /** Of the material or the object in the file; empty where it has none. */
  name: string;
  corners: number[];
}

/** As many of a file's parts keep their names; smaller ones are of the body. */
const MOST_PARTS = 20;

/** What a file with this name holds; null where that is not known. glTF is in metres with y up by its standard. */
export function meshKind(fileName: string): { kind: 'gltf' | 'obj' | 'stl'; asks: boolean } | null {
  const end = /\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase();
  if (end === 'glb' || end === 'gltf') return { kind: 'gltf', asks: false };
  if (end === 'obj' || end === 'stl') return { kind: end, asks: true };
  return null;
}

/**
 * Reads the triangles of a glTF (with its data inside), OBJ or STL file. What the file names by material or, without, as an
 * object of its own stays a part by that name; colours and pictures are left behind.
 * @param options unit and upward axis; not used by glTF
 * @throws {FileError} of another kind, damaged, without a body, too large, or of a size that no product has
 */
export async function readMesh(
  fileName: string,
  bytes: Uint8Array,
  options: MeshOptions,
): Promise<ImportedMesh> {
  const kind = meshKind(fileName);
  if (!kind) throw new FileError('Only files that end in .glb, .gltf, .obj or .stl can be read.');
  if (bytes.length > MOST_MESH_BYTES)
    throw new FileError('The file is larger than 60 MB. Thin the mesh out first.');
  const soups = await readKind(kind.kind, bytes).catch((error: unknown) => {
    if (error instanceof FileError) throw error;
    throw new FileError('The file is damaged, cut off, or not what its name says.');
  });
  const triangles = soups.reduce((sum, { corners }) => sum + corners.length / 9, 0);
  if (triangles === 0) throw new FileError('There is no triangle in the file.');
  if (triangles > MOST_READ_TRIANGLES) throw tooMany(triangles);
  const { unit, up } = kind.kind === 'gltf' ? ({ unit: 'm', up: 'y' } as const) : options;
  const { soup, parts } = inParts(soups);
  return { ...stood(soup, MESH_UNITS[unit], up), parts };
}

/** A product of an imported mesh. */
export function meshProduct(
  id: string,
  name: string,
  { positions, triangles, parts }: ImportedMesh,
): ProductOf<'mesh'> {
  return {
    kind: 'mesh',
    id,
    name,
    positionM: [0, 0, 0],
    turnDeg: 0,
    material: { kind: 'coated', reflectance: 0.5, coatIndex: 1.5, roughness: 0.3 },
    positionsBase64: base64Of(positions),
    trianglesBase64: base64Of(triangles),
    smoothDeg: 40,
    parts,
  };
}

async function readKind(kind: 'gltf' | 'obj' | 'stl', bytes: Uint8Array): Promise<Soup[]> {
  if (kind === 'stl') {
    checkStl(bytes);
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    const geometry = new STLLoader().parse(buffer);
    const { groupNames } = geometry.userData as { groupNames?: string[] };
    return soupsOf(geometry, (group) => groupNames?.[group] ?? '');
  }
  if (kind === 'obj') {
    checkObj(bytes);
    const out: Soup[] = [];
    new OBJLoader().parse(new TextDecoder().decode(bytes)).traverse((part) => {
      const { isMesh, geometry, material, name } = part as Mesh;
      if (!isMesh) return;
      const materials = Array.isArray(material) ? material : [material];
      out.push(...soupsOf(geometry, (group) => materials[group]?.name || name));
    });
    return out;
  }
  return readGltf(bytes);
}

/** All parts after each other, those of one name together, the largest first, and what has no name last. */
function inParts(soups: readonly Soup[]): { soup: number[]; parts: ImportedMesh['parts'] } {
  const named = new Map<string, Soup[]>();
  for (const soup of soups) {
    const name = partName(soup.name);
    named.set(name, [...(named.get(name) ?? []), soup]);
  }
  const sized = [...named].map(([name, own]) => ({
    name,
    own,
    triangles: own.reduce((sum, { corners }) => sum + corners.length / 9, 0),
  }));
  // A body of one piece has no parts.
  const parts =
    sized.length < 2
      ? []
      : sized
          .filter(({ name, triangles }) => name !== '' && triangles > 0)
          .sort((a, b) => b.triangles - a.triangles)
          .slice(0, MOST_PARTS);
  const rest = sized.filter((part) => !parts.includes(part));
  const soup: number[] = [];
  for (const { own } of [...parts, ...rest]) for (const { corners } of own) append(soup, corners);
  return { soup, parts: parts.map(({ name, triangles }) => ({ name, triangles })) };
}

/** A name that a document may hold; empty where nothing of it is left. */
const partName = (name: string): string =>
  name
    .replace(/[\p{Cc}\p{Cs}]/gu, ' ')
    .trim()
    .slice(0, 80);

/** A binary STL says how many triangles follow: as many must be there; of a text one facets are counted. */
function checkStl(bytes: Uint8Array): void {
  const isText = new TextDecoder('latin1').decode(bytes.subarray(0, 5)) === 'solid';
  const claimed = bytes.length >= 84 ? new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true) : 0;
  const binary = 84 + 50 * claimed === bytes.length;
  if (!binary && !isText) throw new FileError('The file is cut off, or holds more than it says.');
  const triangles = binary ? claimed : countLines(bytes, 'facet');
  if (triangles > MOST_READ_TRIANGLES) throw tooMany(triangles);
}

/** Faces and points of an OBJ are counted before they are read. */
function checkObj(bytes: Uint8Array): void {
  const faces = countLines(bytes, 'f ');
  if (faces > MOST_READ_TRIANGLES) throw tooMany(faces);
  const points = countLines(bytes, 'v ');
  if (points > 3 * MOST_READ_TRIANGLES)
    throw new FileError(`There are ${points} points in the file. Thin the mesh out first.`);
}

const tooMany = (triangles: number) =>
  new FileError(
    `There are ${triangles} triangles; at most ${MOST_READ_TRIANGLES} are taken. Thin the mesh out first.`,
  );

/** Lines that begin with a word, blanks before it passed over. */
function countLines(bytes: Uint8Array, word: string): number {
  const wanted = [...word].map((letter) => letter.charCodeAt(0));
  let count = 0;
  let start = true;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i] as number;
    if (byte === 10 || byte === 13) start = true;
    else if (start && byte !== 32 && byte !== 9) {
      start = false;
      if (wanted.every((letter, at) => bytes[i + at] === letter)) count++;
    }
  }
  return count;
}

function append(to: number[], from: readonly number[]): void {
  for (const value of from) to.push(value);
}

/** The triangles of a geometry, by its groups where it has them. */
function soupsOf(geometry: BufferGeometry, nameOf: (group: number) => string): Soup[] {
  const place = geometry.getAttribute('position');
  if (!place) return [];
  const index = geometry.getIndex();
  const count = index?.count ?? place.count;
  const groups = geometry.groups.length > 0 ? geometry.groups : [{ start: 0, count, materialIndex: 0 }];
  return groups.map(({ start, count: own, materialIndex = 0 }) => {
    const corners: number[] = [];
    for (let i = start; i < Math.min(count, start + own); i++) {
      const at = index ? index.getX(i) : i;
      corners.push(place.getX(at), place.getY(at), place.getZ(at));
    }
    return { name: nameOf(materialIndex), corners };
  });
}

async function readGltf(bytes: Uint8Array): Promise<Soup[]> {
  const io = new WebIO();
  const isBinary = bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;
  const json = ownJson(isBinary ? jsonChunk(bytes) : bytes, isBinary);
  checkGltf(json, bytes.length, 3 * MOST_READ_TRIANGLES);
  const document = isBinary
    ? await io.readBinary(bytes)
    : await io.readJSON({ json: json as never, resources: {} });
  const out: Soup[] = [];
  const scene = document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0];
  scene?.traverse((node) => addNode(out, node));
  return out;
}

/** The part of a binary glTF that says what is in it. */
function jsonChunk(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const length = bytes.length >= 20 ? view.getUint32(12, true) : 0;
  if (length === 0 || 20 + length > bytes.length) throw new FileError('The file is cut off.');
  return bytes.subarray(20, 20 + length);
}

/** The JSON of a glTF with all its data inside; others would have to be fetched. */
function ownJson(bytes: Uint8Array, isBinary: boolean): object {
  const json = JSON.parse(new TextDecoder().decode(bytes)) as {
    buffers?: { uri?: string }[];
    images?: unknown[];
    textures?: unknown[];
    materials?: unknown[];
  };
  if (json.buffers?.some(({ uri }) => uri && !uri.startsWith('data:'))) {
    // Of a binary one the body is in the file itself.
    throw new FileError('The body is in another file beside this one. Save it as one file, .glb.');
  }
  // Pictures are not used, and need not be there: of the materials the names are kept.
  if (!isBinary) {
    delete json.images;
    delete json.textures;
    if (Array.isArray(json.materials)) json.materials = json.materials.map(named);
  }
  return json;
}

const named = (material: unknown): { name: string } => {
  const { name } = (material ?? {}) as { name?: unknown };
  return { name: typeof name === 'string' ? name : '' };
};

function addNode(soups: Soup[], node: Node): void {
  const mesh = node.getMesh();
  if (!mesh) return;
  const m = node.getWorldMatrix();
  for (const part of mesh.listPrimitives()) {
    // Only plain triangles (mode 4) make a body; lines and points do not.
    const place = part.getAttribute('POSITION');
    if (part.getMode() !== 4 || !place) continue;
    const index = part.getIndices();
    const out: number[] = [];
    soups.push({ name: part.getMaterial()?.getName() || node.getName() || mesh.getName(), corners: out });
    const p: number[] = [0, 0, 0];
    for (let i = 0; i < (index?.getCount() ?? place.getCount()); i++) {
      place.getElement(index ? index.getScalar(i) : i, p);
      const [x, y, z] = p as [number, number, number];
      for (let row = 0; row < 3; row++) {
        out.push(
          (m[row] as number) * x +
            (m[4 + row] as number) * y +
            (m[8 + row] as number) * z +
            (m[12 + row] as number),
        );
      }
    }
  }
}

/** In metres, z up, its middle over the origin and its lowest point on z = 0; equal corners kept once. */
function stood(soup: readonly number[], unitM: number, up: MeshUp): Omit<ImportedMesh, 'parts'> {
  const least = new Vector3(Infinity, Infinity, Infinity);
  const most = new Vector3(-Infinity, -Infinity, -Infinity);
  const places = new Float64Array(soup.length);
  const point = new Vector3();
  for (let i = 0; i < soup.length; i += 3) {
    const [a, b, c] = [soup[i], soup[i + 1], soup[i + 2]].map((value) => (value as number) * unitM) as [
      number,
      number,
      number,
    ];
    // With y up the file's z comes towards the viewer: that is our -y.
    if (up === 'y') point.set(a, -c, b);
    else point.set(a, b, c);
    if (![point.x, point.y, point.z].every(Number.isFinite)) {
      throw new FileError('There is a point in the file that is no number.');
    }
    least.min(point);
    most.max(point);
    places.set([point.x, point.y, point.z], i);
  }
  const size = most.clone().sub(least);
  const longest = Math.max(size.x, size.y, size.z);
  if (!(longest >= SIZES_M.least && longest <= SIZES_M.most)) {
    throw new FileError(
      `In that unit the body is ${Number(longest.toPrecision(3))} m long, which no product is. Choose another unit.`,
    );
  }
  const shift = new Vector3(-(least.x + most.x) / 2, -(least.y + most.y) / 2, -least.z);
  const known = new Map<string, number>();
  const points: number[] = [];
  const corners: number[] = [];
  for (let i = 0; i < places.length; i += 3) {
    const p = [
      Math.fround((places[i] as number) + shift.x),
      Math.fround((places[i + 1] as number) + shift.y),
      Math.fround((places[i + 2] as number) + shift.z),
    ] as const;
    const key = p.join(' ');
    let at = known.get(key);
    if (at === undefined) {
      at = points.length / 3;
      known.set(key, at);
      points.push(...p);
    }
    corners.push(at);
  }
  return {
    positions: Float32Array.from(points),
    triangles: Uint32Array.from(corners),
    sizeM: [size.x, size.y, size.z],
  };
}
