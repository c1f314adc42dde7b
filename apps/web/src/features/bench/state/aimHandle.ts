import type { Vector } from '@fendrix/contract';
import { vector } from '@fendrix/core';

/** Where on the way to its point the handle that aims a thing sits: at the point itself it would lie on the product. */
const ON_THE_WAY = 0.55;

/** How much further the point goes than the handle. */
export const AIM_GAIN = 1 / ON_THE_WAY;

/** Where the handle sits, m from the mark. */
export const aimHandleM = ({ positionM, aimM }: { positionM: Vector; aimM: Vector }): Vector =>
  vector.add(positionM, vector.scale(vector.subtract(aimM, positionM), ON_THE_WAY));
