import type { StandingLight, Vector } from '@fendrix/contract';
import { OCTAGON_FACE, ROUND } from '../engine/layouts.js';
import { BLACK_CLOTH, type Emitter, emittersOf, faceShape, UMBRELLA_BACK_M } from '../photometry/emitter.js';
import { radians } from '../units/angle.js';
import { aimedPose, aimFrame, type Pose } from '../units/frame.js';
import { add, scale } from '../units/vector.js';
import type { SceneParts } from './builder.js';
import { OCTAGON, type Sides, wallPiece } from './primitives.js';
import { addFacing, addFrustum } from './sheets.js';

/**
 * Adds the body of a light and its emitters. What does not shine is black cloth, a lampshade its own material.
 * @param emitters list to add to; the sun of a window is one without a body
 */
export function addLight(
  parts: SceneParts,
  emitters: Emitter[],
  light: StandingLight,
  channel: number,
  sunChannel: number,
): void {
  const thing = parts.thing('light', light.tag, light.name);
  const first = emitters.length;
  const filmAxis = axisOfFilm(light);
  for (const emitter of emittersOf(light, channel, sunChannel))
    emitters.push(filmAxis ? { ...emitter, filmAxis } : emitter);
  const sides: Sides = { ...parts.sides(thing, BLACK_CLOTH), emitter: first };
  switch (light.kind) {
    case 'bare-lamp':
      parts.list.ball(light.positionM, light.radiusM, sides);
      return;
    case 'table-lamp': {
      parts.list.ball(light.positionM, light.radiusM, sides);
      const { shade } = light;
      const pose: Pose = { origin: light.positionM, x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
      const half = shade.heightM / 2;
      const cloth = parts.sides(thing, shade.material);
      addFrustum(parts, pose, shade.bottomDiameterM / 2, shade.topDiameterM / 2, -half, half, cloth);
      return;
    }
    case 'tube': {
      const stand = aimedPose(light.positionM, light.aimM, light.rollDeg);
      const along: Pose = { origin: light.positionM, x: stand.y, y: stand.z, z: stand.x };
      const half = light.lengthM / 2;
      parts.list.cone(along, wallPiece(light.diameterM / 2, -half, half), sides);
      const ends = parts.sides(thing, BLACK_CLOTH);
      parts.list.disc(along, half, light.diameterM / 2, 0, ends, 1);
      parts.list.disc(along, -half, light.diameterM / 2, 0, ends, -1);
      return;
    }
    default: {
      const pose = aimedPose(light.positionM, light.aimM, light.rollDeg);
      const shape = faceShape(light);
      if (shape.kind === ROUND) {
        parts.list.disc(pose, 0, shape.halfWidth, shape.inner * shape.halfWidth, sides);
        if (light.kind === 'umbrella' && light.backShare > 0) {
          parts.list.disc(pose, -UMBRELLA_BACK_M, shape.halfWidth, 0, { ...sides, emitter: first + 1 }, -1);
        }
        if (light.kind === 'dish' && shape.inner > 0) {
          parts.list.disc(pose, 0, shape.inner * shape.halfWidth, 0, parts.sides(thing, BLACK_CLOTH));
        }
        return;
      }
      const size = { widthM: 2 * shape.halfWidth, heightM: 2 * shape.halfHeight };
      addFacing(parts, pose, size, sides, shape.kind === OCTAGON_FACE ? OCTAGON : undefined);
    }
  }
}

/** Direction in which the film before a light polarises, seen from behind the light; null without one. */
function axisOfFilm(light: StandingLight): Vector | null {
  if (!('polarised' in light) || !light.polarised || !('aimM' in light)) return null;
  const { right, up } = aimFrame(light.positionM, light.aimM, light.rollDeg);
  const angle = radians(light.polarised.axisDeg);
  return add(scale(up, Math.cos(angle)), scale(right, Math.sin(angle)));
}
