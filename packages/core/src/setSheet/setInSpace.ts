import type { SetDocument, Vector } from '@fendrix/contract';
import { setMeshes, type ThingMesh } from '../geometry/setMeshes.js';
import { lightLuminance, onAxisLx } from '../photometry/output.js';
import { viewOf } from '../render/view.js';
import { aimFrame } from '../units/frame.js';

/** Far enough to be seen as a point, m. */
const FAR_M = 10;

/** A pose: columns right, up, back, place of a matrix, m from the centre of the set. */
export interface SpacePose {
  right: Vector;
  up: Vector;
  back: Vector;
  placeM: Vector;
}

export interface SpaceLight extends SpacePose {
  name: string;
  /** Along its axis from afar, cd: of a flash what gives the same over the exposure. */
  candela: number;
  flash: boolean;
  /** Half of the cone it shines into, degrees; shines all round where it has none. */
  spread: number | null;
  /** Of its face, m; none of a bulb. */
  face: { widthM: number; heightM: number } | null;
}

/** A set in space for other programs: bodies, lights as points with hints, camera. */
export interface SetInSpace {
  name: string;
  things: ThingMesh[];
  lights: SpaceLight[];
  camera: SpacePose & { name: string; verticalDeg: number; aspect: number };
}

/** Light from all round and windows are left out: they are no lights that stand somewhere. */
export function setInSpace(set: SetDocument): SetInSpace {
  const { camera } = set;
  const view = viewOf(camera);
  return {
    name: set.name,
    things: setMeshes(set),
    lights: set.lights.flatMap((light): SpaceLight[] => {
      if (!light.on || light.kind === 'surround' || light.kind === 'window') return [];
      const { time, luminance } = lightLuminance(light);
      const candela = luminance * onAxisLx(light, FAR_M) * FAR_M * FAR_M;
      const aimed = 'aimM' in light;
      return [
        {
          name: `${light.tag} ${light.name}`,
          ...poseOf(
            light.positionM,
            aimed ? light.aimM : [light.positionM[0], light.positionM[1] + 1, light.positionM[2]],
          ),
          candela: time === 'flash' ? candela / camera.shutterS : candela,
          flash: time === 'flash',
          spread: aimed ? ('grid' in light && light.grid ? light.grid.cutoffDeg : 90) : null,
          face:
            'widthM' in light && 'heightM' in light ? { widthM: light.widthM, heightM: light.heightM } : null,
        },
      ];
    }),
    camera: {
      name: 'Camera',
      ...poseOf(camera.positionM, camera.aimM, camera.rollDeg),
      verticalDeg: (2 * Math.atan(view.halfHeight) * 180) / Math.PI,
      aspect: view.halfWidth / view.halfHeight,
    },
  };
}

function poseOf(placeM: Vector, aimM: Vector, rollDeg = 0): SpacePose {
  const { right, up, forward } = aimFrame(placeM, aimM, rollDeg);
  return { right, up, back: forward.map((value) => -value) as Vector, placeM };
}
