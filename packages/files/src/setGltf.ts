import { Document, type Node, WebIO } from '@gltf-transform/core';
import { KHRLightsPunctual } from '@gltf-transform/extensions';

type Triple = readonly [number, number, number];

interface Pose {
  right: Triple;
  up: Triple;
  back: Triple;
  placeM: Triple;
}

/** What of a set goes out into space; see `setInSpace` of the core. */
export interface GltfSet {
  name: string;
  things: readonly {
    thing: { name: string };
    pieces: readonly {
      colour: Triple;
      metal: boolean;
      clear: boolean;
      triangles: Float32Array;
    }[];
  }[];
  lights: readonly (Pose & {
    name: string;
    candela: number;
    flash: boolean;
    spread: number | null;
    face: { widthM: number; heightM: number } | null;
  })[];
  camera: Pose & { name: string; verticalDeg: number; aspect: number };
}

/** The most that a spot light of glTF may open, radians. */
const MOST_SPOT = Math.PI / 2 - 1e-3;
const CLEAR_ALPHA = 0.3;

/**
 * A set as a binary glTF 2.0 file in metres, y up: a node for each thing by its name, its camera, its lights as points or spots
 * (KHR_lights_punctual) with the size of their faces in `extras`.
 * Source: Khronos glTF 2.0; KHR_lights_punctual.
 */
export async function encodeSetGltf({ name, things, lights, camera }: GltfSet): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Fendrix';
  const buffer = document.createBuffer();
  const scene = document.createScene(name);
  // Sets stand up along z.
  const set = document.createNode(name).setMatrix([1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0, 0, 0, 0, 1]);
  scene.addChild(set);
  document.getRoot().setDefaultScene(scene);
  for (const { thing, pieces } of things) {
    const mesh = document.createMesh(thing.name);
    for (const { colour, metal, clear, triangles } of pieces) {
      if (triangles.length === 0) continue;
      const material = document
        .createMaterial()
        .setBaseColorFactor([...colour, clear ? CLEAR_ALPHA : 1] as [number, number, number, number])
        .setMetallicFactor(metal ? 1 : 0)
        .setRoughnessFactor(metal ? 0.2 : 0.8)
        .setAlphaMode(clear ? 'BLEND' : 'OPAQUE')
        .setDoubleSided(true);
      const position = document
        .createAccessor()
        .setType('VEC3')
        .setArray(triangles as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
      mesh.addPrimitive(document.createPrimitive().setAttribute('POSITION', position).setMaterial(material));
    }
    set.addChild(document.createNode(thing.name).setMesh(mesh));
  }
  const extension = document.createExtension(KHRLightsPunctual);
  for (const { name: lightName, candela, flash, spread, face, ...pose } of lights) {
    const light = extension
      .createLight(lightName)
      .setType(spread === null ? 'point' : 'spot')
      .setIntensity(candela);
    if (spread !== null)
      light.setInnerConeAngle(0).setOuterConeAngle(Math.min(MOST_SPOT, (spread * Math.PI) / 180));
    set.addChild(
      placed(document.createNode(`${lightName}, light`), pose)
        .setExtension('KHR_lights_punctual', light)
        .setExtras({ flash, ...(face ? { faceWidthM: face.widthM, faceHeightM: face.heightM } : {}) }),
    );
  }
  const lens = document
    .createCamera(camera.name)
    .setType('perspective')
    .setYFov((camera.verticalDeg * Math.PI) / 180)
    .setAspectRatio(camera.aspect)
    .setZNear(0.01)
    .setZFar(100);
  set.addChild(placed(document.createNode(camera.name), camera).setCamera(lens));
  return new WebIO().registerExtensions([KHRLightsPunctual]).writeBinary(document);
}

/** Cameras and lights look along their own −z. */
const placed = (node: Node, { right, up, back, placeM }: Pose): Node =>
  node.setMatrix([...right, 0, ...up, 0, ...back, 0, ...placeM, 1] as Parameters<Node['setMatrix']>[0]);
