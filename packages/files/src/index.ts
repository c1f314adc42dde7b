export { FileError } from './fileError.js';
export { type MeasuredLight, readIes } from './ies.js';
export {
  type ImportedMesh,
  MESH_UNITS,
  type MeshOptions,
  type MeshUnit,
  type MeshUp,
  MOST_MESH_BYTES,
  meshKind,
  meshProduct,
  readMesh,
} from './mesh.js';
export { type ExrLayer, encodeOpenExr } from './openExr.js';
export { encodeSetGltf, type GltfSet } from './setGltf.js';
export { heldMesh, simplifiedMesh, trianglesIn } from './simplifiedMesh.js';
