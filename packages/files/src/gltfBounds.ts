import { FileError } from './fileError.js';

/** What of a glTF its size is told by; all of it may be missing or wrong. */
interface GltfJson {
  buffers?: { byteLength?: number; uri?: string }[];
  bufferViews?: { byteOffset?: number; byteLength?: number; buffer?: number; byteStride?: number }[];
  accessors?: {
    count?: number;
    type?: string;
    componentType?: number;
    bufferView?: number;
    byteOffset?: number;
    sparse?: { count?: number };
  }[];
  meshes?: { primitives?: { mode?: number; indices?: number; attributes?: Record<string, number> }[] }[];
  nodes?: { mesh?: number; children?: number[] }[];
  scenes?: { nodes?: number[] }[];
  scene?: number;
  extensionsRequired?: string[];
}

const COMPONENTS: Record<string, number> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};
const BYTES: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };

/** More parts than this are no body; more depth is a knot. */
const MOST_PARTS = 20_000;
const MOST_ACCESSORS = 50_000;

const damaged = () => new FileError('The file is damaged or cut off: it names data that is not in it.');

/**
 * Checks a glTF's own list of what is in it against what is really there, before anything of that size is made: every list
 * lies within its data, and all parts of the scene together, each as often as it is placed, stay below a number of corners.
 * @param bytes of the whole file  @param mostCorners of all triangles together
 * @throws {FileError}
 */
export function checkGltf(json: unknown, bytes: number, mostCorners: number): void {
  const gltf = (typeof json === 'object' && json !== null ? json : {}) as GltfJson;
  const list = <T>(value: T[] | undefined): T[] => (Array.isArray(value) ? value : []);
  if (list(gltf.extensionsRequired).some((name) => /draco|meshopt/i.test(name))) {
    throw new FileError('The body in the file is compressed. Save it without mesh compression.');
  }
  const buffers = list(gltf.buffers).map(({ byteLength = 0 }) => byteLength);
  if (buffers.some((length) => !(length >= 0 && length <= bytes))) throw damaged();
  const views = list(gltf.bufferViews).map((view) => {
    const { byteOffset = 0, byteLength = 0, buffer = 0 } = view;
    if (!(byteOffset >= 0 && byteLength >= 0 && byteOffset + byteLength <= (buffers[buffer] ?? 0)))
      throw damaged();
    return view;
  });
  const accessors = list(gltf.accessors);
  if (accessors.length > MOST_ACCESSORS) throw new FileError('There are too many parts in the file.');
  for (const { count = 0, type = '', componentType = 0, bufferView, byteOffset = 0, sparse } of accessors) {
    const [components, size] = [COMPONENTS[type], BYTES[componentType]];
    if (!(Number.isInteger(count) && count >= 0) || !components || !size) throw damaged();
    if ((sparse?.count ?? 0) > count) throw damaged();
    const view = bufferView === undefined ? undefined : views[bufferView];
    if (bufferView !== undefined && !view) throw damaged();
    // What is not there is filled with nothing: a body of it would be one point.
    if (!view && count > mostCorners) throw damaged();
    const each = view?.byteStride || components * size;
    if (view && count > 0 && byteOffset + (count - 1) * each + components * size > (view.byteLength ?? 0)) {
      throw damaged();
    }
  }
  const corners = list(gltf.meshes).map(({ primitives }) =>
    list(primitives).reduce((sum, { mode = 4, indices, attributes }) => {
      if (mode !== 4) return sum;
      const at = indices ?? attributes?.POSITION ?? -1;
      return sum + (accessors[at]?.count ?? 0);
    }, 0),
  );
  checkNodes(gltf, corners, mostCorners);
}

/** Walks the scene as a reader would, with what each part adds. */
function checkNodes(gltf: GltfJson, corners: readonly number[], mostCorners: number): void {
  const nodes = Array.isArray(gltf.nodes) ? gltf.nodes : [];
  const roots = gltf.scenes?.[gltf.scene ?? 0]?.nodes ?? nodes.map((_, i) => i);
  const open = [...roots];
  let [walked, total] = [0, 0];
  while (open.length > 0) {
    const node = nodes[open.pop() as number];
    if (!node) throw damaged();
    if (++walked > MOST_PARTS)
      throw new FileError('There are too many parts in the file, or parts within themselves.');
    if (node.mesh !== undefined) total += corners[node.mesh] ?? 0;
    if (total > mostCorners) {
      throw new FileError(
        `There are more than ${mostCorners / 3} triangles once every part is placed. Thin the mesh out first.`,
      );
    }
    if (Array.isArray(node.children)) open.push(...node.children.slice(0, MOST_PARTS));
  }
}
