import { z } from 'zod';

/** What the numbers of a point or direction are, and those of a colour, in words. */
export const AXES = ['right', 'away', 'up'];
export const COLOURS = ['red', 'green', 'blue'];

/** A finite coordinate or length, m. Nothing in a room is 100 m from the mark. */
export const coordinateM = z.number().min(-100).max(100);

/** A length above zero, m; 0.1 mm is the thinnest thing worth placing. */
export const lengthM = z.number().min(1e-4).max(100);

/** [x, y, z] in metres from the mark: +x camera right, +y away from the camera, +z up. */
export const pointM = z
  .tuple([coordinateM, coordinateM, coordinateM])
  .meta({ axes: AXES })
  .describe(
    'Point [x, y, z], m from the centre: +x camera right, +y away from the camera, +z up from the tabletop',
  );

/** A direction; its length does not matter but must not be zero. */
export const direction = z
  .tuple([z.number().min(-1e6).max(1e6), z.number().min(-1e6).max(1e6), z.number().min(-1e6).max(1e6)])
  .refine(([x, y, z]) => Math.hypot(x, y, z) > 1e-9, 'has no length. Give a direction such as [0, 0, 1].')
  .meta({ axes: AXES })
  .describe('Direction [x, y, z]; any length above zero');

/** Beside the point that a thing faces: whether it goes on facing that point when it is moved, or keeps its direction. */
export const keepsDirection = z
  .boolean()
  .optional()
  .describe('Moved, it keeps its direction; otherwise it goes on facing its point');

export type Vector = [number, number, number];
