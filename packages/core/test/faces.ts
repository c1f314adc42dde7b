import type { SetDocument, Vector } from '@fendrix/contract';
import { aimFrame, rectangleCorners, vector } from '../src/index.js';

/** Corners of a softbox face, counter-clockwise seen from in front of it. */
export function faceCornersOf(set: SetDocument, tag: string): Vector[] {
  const light = set.lights.find((candidate) => candidate.tag === tag);
  if (light?.kind !== 'softbox') throw new Error(`${tag} is a softbox`);
  const { right, up } = aimFrame(light.positionM, light.aimM, light.rollDeg);
  return rectangleCorners(light.positionM, vector.scale(right, -1), up, light.widthM, light.heightM);
}
