import type { BareLamp, OpaqueMaterial, Softbox } from '@fendrix/contract';
import { aimFrame } from '../geometry/frame.js';
import { radians } from '../units/angle.js';

export const FACE = 0;
export const LAMP = 1;

/** Back and sides of a softbox, and what a lamp's inside would be. */
export const BLACK_CLOTH: OpaqueMaterial = { kind: 'matte', reflectance: 0.04 };

/**
 * A light as sampled. Its luminance is scaled so that the mean over the face, seen straight on, is 1 cd/m2;
 * the true luminance is a factor on the film.
 *
 * data of FACE  0-2 centre, 3-5 right, 6-8 up, 9-11 forward, 12 half width, 13 half height,
 *               14 (hot centre - 1), 15 1 / mean of the profile, 16 tangent of the grid's cut-off (0: none)
 * data of LAMP  0-2 centre, 3 radius
 */
export interface Emitter {
  kind: number;
  /** Film that this light adds to: its place among the lights. */
  light: number;
  data: Float64Array;
}

export function softboxEmitter(light: Softbox, index: number): Emitter {
  const frame = aimFrame(light.positionM, light.aimM, light.rollDeg);
  const data = new Float64Array(17);
  data.set([...light.positionM, ...frame.right, ...frame.up, ...frame.forward]);
  data[12] = light.widthM / 2;
  data[13] = light.heightM / 2;
  data[14] = light.hotCentre - 1;
  data[15] = 1 / meanProfile(light.hotCentre);
  data[16] = light.grid ? Math.tan(radians(light.grid.cutoffDeg / 2)) : 0;
  return { kind: FACE, light: index, data };
}

export function lampEmitter(light: BareLamp, index: number): Emitter {
  const data = new Float64Array(17);
  data.set([...light.positionM, light.radiusM]);
  return { kind: LAMP, light: index, data };
}

/** Mean of 1 + (h - 1)(1 - u^2)(1 - v^2) over the face, u and v from -1 to 1. */
export function meanProfile(hotCentre: number): number {
  return 1 + ((hotCentre - 1) * 4) / 9;
}

/**
 * Relative luminance of a face towards a direction.
 * Hot centre: 1 + (h - 1)(1 - u^2)(1 - v^2), so h times the edge in the middle.
 * Grid: square black cells, (1 - |tan a|/tan c)(1 - |tan b|/tan c) with c half the cut-off angle.
 * @param x, y place on the face from its centre, m  @param wx, wy, wz direction in the face's frame, wz > 0
 * Source: docs/physics/lights.md
 */
export function faceLuminance(
  data: Float64Array,
  x: number,
  y: number,
  wx: number,
  wy: number,
  wz: number,
): number {
  const u = x / (data[12] as number);
  const v = y / (data[13] as number);
  let value = (1 + (data[14] as number) * (1 - u * u) * (1 - v * v)) * (data[15] as number);
  const cutoff = data[16] as number;
  if (cutoff > 0) {
    const along = 1 - Math.abs(wx) / (wz * cutoff);
    const across = 1 - Math.abs(wy) / (wz * cutoff);
    value *= along > 0 && across > 0 ? along * across : 0;
  }
  return value;
}
