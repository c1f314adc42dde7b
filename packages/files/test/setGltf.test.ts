import { setInSpace } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { Box3, type Mesh, type Object3D, PerspectiveCamera, PointLight, SpotLight, Vector3 } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { describe, expect, test } from 'vitest';
import { encodeSetGltf, readMesh } from '../src/index.js';

/** The file as a reader that is not ours opens it. */
async function opened(name: Parameters<typeof demoSet>[0]) {
  const set = demoSet(name);
  const bytes = await encodeSetGltf(setInSpace(set));
  const { scene } = await new GLTFLoader().parseAsync(bytes.slice().buffer, '');
  scene.updateMatrixWorld(true);
  const found: Object3D[] = [];
  scene.traverse((own) => void found.push(own));
  return { set, bytes, scene, found };
}
/** From y up back to the set's own z up. */
const ofSet = ({ x, y, z }: Vector3): [number, number, number] => [x, -z, y];
function near(found: readonly number[], wanted: readonly number[], to = 1e-5): void {
  for (const [i, value] of found.entries()) expect(Math.abs(value - (wanted[i] as number))).toBeLessThan(to);
}

describe('a set as glTF', () => {
  test.each(['cordial', 'mill', 'tart', 'tent'] as const)(
    '%s: its products stand where they stand, as large as they are, by their names',
    async (name) => {
      const { set, found } = await opened(name);
      for (const product of set.products) {
        // The reader puts another sign for a space.
        const node = found.find((own) => own.name === product.name.replaceAll(' ', '_'));
        expect(node, product.name).toBeDefined();
        const box = new Box3().setFromObject(node as Object3D);
        const middle = ofSet(box.getCenter(new Vector3()));
        if (product.kind === 'turned' && !product.lean) {
          near(middle.slice(0, 2), product.positionM.slice(0, 2), 1e-3);
          const high = Math.max(...product.profile.map(({ heightM }) => heightM));
          expect(Math.abs(box.getSize(new Vector3()).y - high)).toBeLessThan(2e-3);
        }
      }
    },
  );

  test('the camera sees what the lens sees: place, direction, angle', async () => {
    const { set, found } = await opened('cordial');
    const camera = found.find((own) => own instanceof PerspectiveCamera) as PerspectiveCamera;
    near(ofSet(camera.getWorldPosition(new Vector3())), set.camera.positionM);
    const way = set.camera.aimM.map((value, i) => value - (set.camera.positionM[i] as number));
    const long = Math.hypot(...way);
    near(
      ofSet(camera.getWorldDirection(new Vector3())).map((value) => value),
      way.map((value) => value / long),
      1e-4,
    );
    expect(camera.aspect).toBeCloseTo(1.5, 3);
    expect(camera.fov).toBeGreaterThan(8);
    expect(camera.fov).toBeLessThan(16);
  });

  test('lights that are on are there with their place, way and face; those that are off are not', async () => {
    const { set, found } = await opened('perry');
    const lights = found.filter((own) => own instanceof SpotLight || own instanceof PointLight);
    const on = set.lights.filter(({ on: isOn, kind }) => isOn && kind !== 'surround' && kind !== 'window');
    expect(lights).toHaveLength(on.length);
    for (const light of lights) {
      expect((light as SpotLight).intensity).toBeGreaterThan(0);
      const own = on.find(({ tag }) => light.name.startsWith(tag) || light.parent?.name.startsWith(tag));
      if (own && 'positionM' in own) near(ofSet(light.getWorldPosition(new Vector3())), own.positionM);
    }
  });

  test('what is metal is metal, what is clear shows through, and its bodies can be read in again', async () => {
    const { found, bytes } = await opened('cordial');
    const materials = found.flatMap((own) => ((own as Mesh).isMesh ? [(own as Mesh).material] : [])).flat();
    expect(materials.some((own) => own.transparent)).toBe(true);
    const again = await readMesh('set.glb', bytes, { unit: 'm', up: 'y' });
    expect(again).toBeTruthy();
  });
});
